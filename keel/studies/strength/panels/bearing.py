"""How much a panel bears and bows: rectangles, round plates, and what is stretched rather than bent."""

from collections.abc import Sequence
from dataclasses import replace
from math import inf, sqrt

from keel.reference.plates import Held
from keel.solid.solids import AnyShell
from keel.studies.result import Words
from keel.studies.strength.panels.faces import Face
from keel.studies.strength.panels.loads import Loads
from keel.studies.strength.panels.panel import Panel, PanelEdge, typed_edges
from keel.studies.strength.plate_bending import (
    large_deflection_mm,
    panel_deflection_mm,
    panel_stress_mpa,
    round_plate_deflection_mm,
    round_plate_stress_mpa,
)


def rectangle(
    face: Face,
    sides: tuple[float, float],
    edges: Sequence[PanelEdge],
    shell: AnyShell,
    loads: Loads,
) -> Panel:
    """A flat rectangular panel under the pressure on it; a swage makes two of it.

    Parameters
    ----------
    face : Face
        The face it is, with the pressure on it.
    sides : (float, float)
        First and second side [mm].
    edges : sequence of PanelEdge
        How each of the four is held, unless the design says otherwise.
    shell : AnyShell
        It belongs to: swages and edges typed.
    loads : Loads
        Pressures, metal and what is allowed.

    Returns
    -------
    Panel
        Stress, deflection and factors.

    References
    ----------
    As for `panel_stress_mpa` and `panel_deflection_mm`.
    """
    first, second, how = _held_sides(face, sides, edges, shell)
    pressure, load = face.pressed
    at_one_mm = panel_stress_mpa(pressure, first, second, 1.0, how)
    bow = panel_deflection_mm(pressure, first, second, face.thickness_mm, loads.metal.youngs_modulus_gpa, how)
    stress = at_one_mm / face.thickness_mm**2
    allowed = loads.allowed_mpa
    return Panel(
        name=face.name,
        what=face.what,
        first_mm=first,
        second_mm=second,
        long_mm=max(first, second),
        short_mm=min(first, second),
        thickness_mm=face.thickness_mm,
        edges=typed_edges(shell, face.name, edges),
        round=False,
        load=load,
        pressure_kpa=pressure,
        stress_mpa=stress,
        stress_share=stress / loads.metal.welded_yield_mpa,
        deflection_mm=bow,
        large_deflection_mm=large_deflection_mm(bow, face.thickness_mm),
        allowed_mpa=allowed,
        allowed_share=loads.rules.stress_share,
        least_thickness_mm=sqrt(at_one_mm / allowed) if allowed > 0 else inf,
        proof_kpa=bears_kpa(face, sides, edges, shell, loads),
        small_deflection_exceeded=bow > face.thickness_mm / 2,
        swaged=face.name in shell.swages,
    )


def bears_kpa(
    face: Face, sides: tuple[float, float], edges: Sequence[PanelEdge], shell: AnyShell, loads: Loads
) -> float:
    """The pressure at which a rectangle is stressed as far as allowed [kPa].

    Parameters
    ----------
    face, sides, edges, shell, loads
        As for `rectangle`.

    Returns
    -------
    float
        `rectangle(…).proof_kpa`, without the rest.

    References
    ----------
    As for `panel_stress_mpa`.
    """
    first, second, how = _held_sides(face, sides, edges, shell)
    return loads.allowed_mpa * face.thickness_mm**2 / panel_stress_mpa(1.0, first, second, 1.0, how)


def _held_sides(
    face: Face, sides: tuple[float, float], edges: Sequence[PanelEdge], shell: AnyShell
) -> tuple[float, float, tuple[Held, Held, Held, Held]]:
    """The sides that count and how the four edges are held: a swage halves the longer side."""
    (first, second), held = sides, [edge.held for edge in typed_edges(shell, face.name, edges)]
    if face.name in shell.swages:
        if first >= second:
            first, held[1] = first / 2, "clamped"
        else:
            second, held[3] = second / 2, "clamped"
    return first, second, (held[0], held[1], held[2], held[3])


def stretched(
    name: str,
    what: str,
    sides: tuple[float, float],
    thick: float,
    stress: float,
    load: tuple[float, Words],
    loads: Loads,
) -> Panel:
    """What bears by being stretched: its stress goes with the pressure and against the thickness.

    Parameters
    ----------
    name : str
        Its name.
    what : str
        How it bears, in words.
    sides : (float, float)
        Both sides [mm].
    thick : float
        Thickness [mm].
    stress : float
        Stress under the load [MPa].
    load : (float, Words)
        Pressure [kPa] and what it comes from.
    loads : Loads
        Pressures and what they come from.

    Returns
    -------
    Panel
        Stress and factors.
    """
    allowed = loads.allowed_mpa
    return Panel(
        name=name,
        what=what,
        first_mm=sides[0],
        second_mm=sides[1],
        long_mm=max(sides),
        short_mm=min(sides),
        thickness_mm=thick,
        edges=[],
        round=what == "dished end",
        load=load[1],
        pressure_kpa=load[0],
        stress_mpa=stress,
        stress_share=stress / loads.metal.welded_yield_mpa,
        deflection_mm=0.0,
        large_deflection_mm=0.0,
        allowed_mpa=allowed,
        allowed_share=loads.rules.stress_share,
        least_thickness_mm=stress * thick / allowed if allowed > 0 else inf,
        proof_kpa=load[0] * allowed / stress,
        small_deflection_exceeded=False,
        swaged=False,
    )


def round_plate(
    name: str,
    what: str,
    across_mm: float,
    thick: float,
    edges: Sequence[PanelEdge],
    load: tuple[float, Words],
    loads: Loads,
) -> Panel:
    """A disc under the pressure on it.

    Parameters
    ----------
    name, what : str
        Its name, and what it is.
    across_mm, thick : float
        Diameter and thickness [mm].
    edges : sequence of PanelEdge
        How its one edge is held.
    load : (float, Words)
        Pressure [kPa] and what it comes from.
    loads : Loads
        Metal and what is allowed.

    Returns
    -------
    Panel
        Stress, deflection and factors.

    References
    ----------
    As for `round_plate_stress_mpa`.
    """
    held = edges[0].held
    stress = round_plate_stress_mpa(load[0], across_mm / 2, thick, held)
    bow = round_plate_deflection_mm(load[0], across_mm / 2, thick, loads.metal.youngs_modulus_gpa, held)
    flat = stretched(name, what, (across_mm, across_mm), thick, stress, load, loads)
    return replace(
        flat,
        edges=list(edges),
        round=True,
        deflection_mm=bow,
        large_deflection_mm=large_deflection_mm(bow, thick),
        least_thickness_mm=thick * sqrt(stress / loads.allowed_mpa) if loads.allowed_mpa > 0 else inf,
        small_deflection_exceeded=bow > thick / 2,
    )

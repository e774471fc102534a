"""Wires, pins and labels of the wiring as CSV."""

from collections.abc import Sequence

from keel.design.wiring import Wiring
from keel.formats.cells import said
from keel.formats.table import written
from keel.reference.quantities import UnitSet
from keel.reference.wires import gauge_of
from keel.studies.wiring.pins import Pin, WireLabel, end_text
from keel.studies.wiring.runs import WireRuns
from keel.studies.wiring.wired import Wired

WIRE_COLUMNS = (
    "wire", "from", "to", "colour", "insulation", "area_mm2", "gauge_awg", "length_mm", "current_a", "limit_a",
    "fuse_a", "drop_v", "feeds",
)  # fmt: skip


def wires_csv(wiring: Wiring, runs: WireRuns, figures: Wired, units: UnitSet = "mm_l") -> bytes:
    """Every wire, what it is made of, carries and feeds.

    Parameters
    ----------
    wiring : Wiring
        Wires.
    runs : WireRuns
        What they are joined to.
    figures : Wired
        Their figures.
    units : UnitSet
        The reader's set of units; copper is square millimetres and gauge in all of them.

    Returns
    -------
    bytes
        CSV: one row a wire.
    """
    names = {load.key: load.name for load in figures.loads}
    rows = []
    for wire in wiring.wires:
        one = figures.wire(wire.id)
        if one is None:
            continue
        ends = end_text(wire.start, runs), end_text(wire.end, runs)
        sizes = said(one.area_mm2), said(one.gauge), said(round(one.length_mm, 1))
        known = (one.current_a, one.carries_a, one.fuse_a)
        amps = [said(None if value is None else round(value, 3)) for value in known]
        feeds = "; ".join(names.get(key, key) for key in one.loads)
        rows.append((wire.name, *ends, wire.colour, wire.insulation, *sizes, *amps, said(round(one.drop_v, 4)), feeds))
    return written(WIRE_COLUMNS, rows, units)


PIN_COLUMNS = ("at", "kind", "terminal", "marking", "wires", "to", "feeds", "current_a")


def pins_csv(pins: Sequence[Pin], units: UnitSet = "mm_l") -> bytes:
    """Every terminal with its wires.

    Parameters
    ----------
    pins : sequence of Pin
        All of them.
    units : UnitSet
        The reader's set of units.

    Returns
    -------
    bytes
        CSV: one row a terminal.
    """
    rows = [
        (
            pin.name,
            pin.kind,
            pin.terminal,
            pin.marking,
            "; ".join(f"{wire.name} {wire.colour}".strip() for wire in pin.wires),
            "; ".join(wire.other for wire in pin.wires),
            "; ".join(pin.feeds),
            said(None if pin.current_a is None else round(pin.current_a, 3)),
        )
        for pin in pins
    ]
    return written(PIN_COLUMNS, rows, units)


LABEL_COLUMNS = ("wire", "here", "there", "colour", "area_mm2", "gauge_awg", "feeds")


def labels_csv(labels: Sequence[WireLabel], units: UnitSet = "mm_l") -> bytes:
    """A label for each end of every wire, for a label printer.

    Parameters
    ----------
    labels : sequence of WireLabel
        Two of each wire.
    units : UnitSet
        The reader's set of units.

    Returns
    -------
    bytes
        CSV: one row a label.
    """
    rows = [
        (one.wire, one.here, one.there, one.colour, said(one.area_mm2), said(gauge_of(one.area_mm2)), one.feeds)
        for one in labels
    ]
    return written(LABEL_COLUMNS, rows, units)

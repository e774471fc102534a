"""The filtration plan: every screen and filter, how fine, how large, what it loses, when it is swapped."""

from collections.abc import Sequence
from dataclasses import dataclass

from keel.analysis.parts import LINES
from keel.analysis.study import study
from keel.design.line_functions import FilterDoes, RegulatorDoes
from keel.design.lines import Lines
from keel.studies.lines.as_wired import LINE_MODES
from keel.studies.lines.assembly import HOUSED_TIMES
from keel.studies.lines.flows import FLOWS, LineFlows
from keel.studies.lines.modes import Mode


@dataclass(frozen=True, slots=True)
class FilterStage:
    """One screen or filter.

    Attributes
    ----------
    most_lph : float
        The most that goes through it.
    clean_kpa, loaded_kpa : float
        What it loses then.
    load_lph_cm2 : float or None
        Flow through each square centimetre.
    """

    part: str
    name: str
    stage: str
    fineness_um: float | None
    area_cm2: float | None
    element: str
    most_lph: float
    most_mode: str
    clean_kpa: float
    loaded_kpa: float
    load_lph_cm2: float | None
    swap_hours: float | None
    caught: str


def filtration(lines: Lines, flows: LineFlows, modes: Sequence[Mode]) -> list[FilterStage]:
    """Every screen and filter, those in regulators' housings too.

    Parameters
    ----------
    lines : Lines
        Parts.
    flows : LineFlows
        What goes through, clean.
    modes : sequence of Mode
        Their names.

    Returns
    -------
    list of FilterStage
        In the order of the parts.
    """
    found = []
    for part in lines.parts:
        does = part.does
        inside = isinstance(does, RegulatorDoes) and does.fineness_um is not None
        if not (isinstance(does, FilterDoes) or inside):
            continue
        flow = flows.part(part.id)
        through = [abs(one or 0.0) for one in flow.flow_lph] if flow else [0.0]
        place = through.index(max(through))
        most = through[place]
        if isinstance(does, FilterDoes):
            clean = does.linear * most + does.square * most**2
            stage, loaded, element, area = does.stage, clean * does.loaded_times, does.element, does.area_cm2
            swap, caught = does.swap_hours, does.caught
        else:
            clean = getattr(does, "filter_linear", 0.0) * most
            stage, loaded, element, area, swap, caught = "main", HOUSED_TIMES * clean, "paper", None, None, ""
        found.append(
            FilterStage(
                part=part.id,
                name=part.name,
                stage=stage,
                fineness_um=getattr(does, "fineness_um", None),
                area_cm2=area,
                element=element,
                most_lph=most,
                most_mode=modes[place].name if flow and modes else "",
                clean_kpa=clean,
                loaded_kpa=loaded,
                load_lph_cm2=most / area if area else None,
                swap_hours=swap,
                caught=caught,
            )
        )
    return found


FILTRATION = study(filtration, LINES, FLOWS, LINE_MODES)

"""What is still open of an old tank's lines, wires and vapour parts."""

from collections.abc import Iterator

from keel.analysis.tank import TankAnalysis
from keel.findings.finding import Finding, saying
from keel.studies.lines.old_map import OLD_MAP, OldFate

_lines = saying("lines")


def old_things_have_a_fate(tank: TankAnalysis) -> Iterator[Finding]:
    """Nothing is left without its partner: unknown ones stay open."""
    things = tank[OLD_MAP].things
    unknown = [one for one in things if one.fault == "no fate"]
    if unknown:
        yield _lines(
            "lines.old_unknown",
            "",
            "caution",
            "{count} of {all} old lines and wires with no fate yet: {first} first",
            "Left over, it is a hose that drips or a wire that sparks: find out what it did before it is cut.",
            count=len(unknown),
            all=len(things),
            first=unknown[0].name,
        )
    for one in things:
        if one.fault in _SAID:
            yield _open(one)
        if one.kind == "vapour part" and one.fate == "remove":
            yield _lines(
                "lines.old_vapour",
                one.id,
                "caution",
                "{name} is removed: where do the vapours go?",
                "Without it they come out where people are; on the road it is often required. Local code decides.",
                name=one.name,
            )


_SAID = {
    "no place": ("lines.old_nowhere", "{name} stays, and nothing says where it is joined"),
    "gone": ("lines.old_gone", "{name} was to be joined where nothing is any more"),
    "taken": ("lines.old_taken", "{name} and something else are joined at {place}"),
    "not closed": ("lines.old_uncapped", "{name} is capped, and nothing says by what"),
}


def _open(one: OldFate) -> Finding:
    code, title = _SAID[one.fault]
    why = "An end that is left open drips fuel, or draws air, and is found when the engine is first run."
    return _lines(code, one.id, "stop", title, why, name=one.name, place=one.goes_to)

"""What comes too near in the bay, and whether it goes in."""

from collections.abc import Iterator

from keel.analysis.tank import TankAnalysis
from keel.findings.finding import Finding, of_station
from keel.studies.result import in_words, words
from keel.studies.space.clearance import GAPS
from keel.studies.space.fouling import FOULING, THE_TANK
from keel.studies.space.leaning import LEAST_LEAN_DEG, Passage
from keel.studies.space.opening import GOES_IN

_bay = of_station("bay")


def bay_clearance(tank: TankAnalysis) -> Iterator[Finding]:
    """The shell, lips included, keeps the clearance of every side and keep-out."""
    for gap in tank.get(GAPS) or []:
        if gap.clears:
            continue
        # Which part of the tank it is costs several measurements: only who reads the finding is told.
        fouls, by = gap.gap_mm < 0, tank[FOULING][gap.kind, gap.key] if tank.explains else THE_TANK
        yield _bay(
            "bay.clearance",
            gap.key,
            "stop",
            words(
                "{by} {over_mm} into the {what}, at least {needed_mm} clear ({rule})"
                if fouls
                else "{by} {gap_mm} from the {what}, at least {needed_mm} ({rule})",
                by=by.name[0].upper() + by.name[1:],
                over_mm=max(0.0, -gap.gap_mm),
                gap_mm=gap.gap_mm,
                needed_mm=gap.needed_mm,
                rule=gap.rule,
                what=f"bay's {gap.neighbour} side" if gap.kind == "side" else gap.neighbour,
            ),
            words(
                "It is {kind}; short by {short_mm}. "
                "A tank that touches chafes through, and one too near heat boils its fuel.",
                kind=gap.clearance_kind,
                short_mm=gap.short_mm,
            ),
        )


def passes_opening(tank: TankAnalysis) -> Iterator[Finding]:
    """The shell goes in through the bay's opening, and which way round."""
    answer = tank.get(GOES_IN)
    if answer is None or answer.straight:
        return
    way = answer.best
    said: dict[str, float | str] = {
        "long_mm": answer.long_mm, "wide_mm": answer.wide_mm, "room_mm": abs(way.room_mm), "how": way_round(way),
        "off": in_words(answer.off), "deep_mm": way.deep_mm, "bay_mm": answer.deep_mm,
    }  # fmt: skip
    if not answer.passes:
        text = "At best {how}. "
        if answer.off:
            text += "Tried with {off} off too. "
        title = "Tank {room_mm} too large for the opening of {long_mm} × {wide_mm}"
        yield _bay("opening.short", "", "stop", words(title, **said), words(text + NOT_TRIED, **said))
        return
    text = "The opening is {long_mm} × {wide_mm}; held so, {room_mm} is left on the tighter pair of sides. "
    if way.turns_inside:
        text += "It reaches {deep_mm} along the way in and the bay is {bay_mm} deep: it turns while in the opening. "
        text += NOT_TRIED
    elif not way.as_it_stands:
        text += "Inside it has to be turned to stand: see that there is room."
    if answer.off:
        text += " What is off goes on inside: see that hand and spanner reach it."
        title = "Passes the opening only without {off}, {how}"
        yield _bay("opening.ports_off", "", "caution", words(title, **said), words(text, **said))
        return
    yield _bay("opening.turned", "", "note", words("Passes the opening only {how}", **said), words(text, **said))


NOT_TRIED = "Turning it on the way is not calculated."


def way_round(way: Passage) -> str:
    """How a tank is held as it goes in, in words."""
    if way.as_it_stands:
        return "in its installed orientation"
    if way.leaning_deg > LEAST_LEAN_DEG:
        return f"with {way.leading} first, leaning {way.leaning_deg:.0f}° to {way.leaning_to}"
    turned = f", turned {way.turned_deg:.0f}°" if way.turned_deg > LEAST_LEAN_DEG else ""
    return f"with {way.leading} first{turned}"

"""What puts the inside right."""

from collections.abc import Iterator

from keel.analysis.tank import TankAnalysis
from keel.findings.finding import Finding, Remedy
from keel.studies.inside.baffle_layout import OFFERED_PLATES, with_array
from keel.studies.result import words


def other_lining(tank: TankAnalysis, _finding: Finding) -> Iterator[Remedy]:
    """None, where the metal bears the fuel bare."""
    yield Remedy(label=words("Leave the metal bare"), patch={"inside": {"lining": None}})


def slowed(tank: TankAnalysis, _finding: Finding) -> Iterator[Remedy]:
    """The fewest plates that keep every free run within the rule, clear of what hangs, opened by the rule."""
    made, is_clear = tank[OFFERED_PLATES]
    said = "{many} baffles, opened by the house rule, clear of what hangs"
    if not is_clear:
        said = (
            "{many} baffles, opened by the house rule; there is no room clear of what hangs, so something has to move"
        )
    if made:
        yield Remedy(label=words(said, many=len(made)), patch={"shell": {"features": with_array(tank.shell, made)}})

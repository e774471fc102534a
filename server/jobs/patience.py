"""How long an answer may take."""

from time import monotonic

LONGEST_S = 8.0
"""With its remedies [s]."""


class Patience:
    """Says when trying another remedy would take too long: a try takes up to twice as long as the figures did."""

    def __init__(self) -> None:
        self._begun, self._figures_s = monotonic(), 0.0

    def is_over(self) -> bool:
        """Whether it would; asked for the first time when the figures are there."""
        passed = monotonic() - self._begun
        self._figures_s = self._figures_s or passed
        return passed + 2 * self._figures_s > LONGEST_S

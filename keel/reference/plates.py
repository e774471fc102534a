"""Rectangular plates under even pressure: stress and deflection by how their edges are held.

σ = β q b²/t², w = α q b⁴/(E t³), for sides a ≥ b, Poisson 0.3, small deflections.

References
----------
All four edges alike: Roark's Formulas for Stress and Strain (Young, Budynas), table 11.4, cases 1a and 8a; Timoshenko
and Woinowsky-Krieger agree to the third digit. Mixed rows: worked out here from ∇⁴w = q/D by collocation at Chebyshev
points and put up by 0.4 %, so that a straight line between two columns errs to the safe side; held against Timoshenko
and Woinowsky-Krieger, tables 26 to 36. Valid for deflections below half the thickness.
"""

from typing import Literal

Held = Literal["clamped", "simply supported"]
HELD: tuple[Held, ...] = ("clamped", "simply supported")
Ends = Literal["both", "one", "none"]
"""How many edges of an opposite pair are clamped; the others are simply supported."""

POISSON = 0.3

STRIP_BETA, STRIP_ALPHA = 0.75, 0.1421
"""The strip that is simply supported or propped: no mix of edges exceeds it."""


class Row:
    """Coefficients of one way to hold a plate, column by column of a/b, and those of an endless plate."""

    def __init__(
        self, ratios: tuple[float, ...], beta: tuple[float, ...], alpha: tuple[float, ...], endless: tuple[float, float]
    ) -> None:
        self.ratios, self.beta, self.alpha, self.endless = ratios, beta, alpha, endless


_MIXED = (1.0, 1.1, 1.2, 1.3, 1.4, 1.5, 1.6, 1.8, 2.0, 2.5, 3.0, 4.0, 5.0)
_CLAMPED, _PROPPED, _SUPPORTED = (0.5, 0.0284), (STRIP_BETA, 0.0592), (STRIP_BETA, STRIP_ALPHA)

ROWS: dict[tuple[Ends, Ends], Row] = {
    ("both", "both"): Row(
        (1.0, 1.2, 1.4, 1.6, 1.8, 2.0),
        (0.3078, 0.3834, 0.4356, 0.4680, 0.4872, 0.4974),
        (0.0138, 0.0188, 0.0226, 0.0251, 0.0267, 0.0277),
        _CLAMPED,
    ),
    ("none", "none"): Row(
        (1.0, 1.2, 1.4, 1.6, 1.8, 2.0, 3.0, 4.0, 5.0),
        (0.2874, 0.3762, 0.4530, 0.5172, 0.5688, 0.6102, 0.7134, 0.7410, 0.7476),
        (0.0444, 0.0616, 0.0770, 0.0906, 0.1017, 0.1110, 0.1335, 0.1400, 0.1417),
        (STRIP_BETA, STRIP_ALPHA),
    ),
    ("both", "one"): Row(
        _MIXED,
        (0.3689, 0.4015, 0.4403, 0.4889, 0.5325, 0.5706, 0.6034, 0.6547, 0.6902, 0.7353, 0.7497, 0.75, 0.75),
        (0.0176, 0.0221, 0.0266, 0.0309, 0.0349, 0.0385, 0.0418, 0.047, 0.0509, 0.0563, 0.0584, 0.0592, 0.0593),
        _PROPPED,
    ),
    ("both", "none"): Row(
        _MIXED,
        (0.4208, 0.4745, 0.5228, 0.5651, 0.6013, 0.6317, 0.6569, 0.6939, 0.7174, 0.7436, 0.75, 0.75, 0.75),
        (0.0211, 0.0278, 0.0351, 0.0428, 0.0506, 0.0584, 0.0661, 0.0803, 0.0926, 0.1151, 0.1281, 0.1389, 0.1418),
        _SUPPORTED,
    ),
    ("one", "both"): Row(
        _MIXED,
        (0.3689, 0.4028, 0.4299, 0.4511, 0.4674, 0.4796, 0.4886, 0.4997, 0.5049, 0.5065, 0.505, 0.5047, 0.5045),
        (0.0176, 0.02, 0.022, 0.0236, 0.0249, 0.0259, 0.0267, 0.0278, 0.0283, 0.0288, 0.0287, 0.0287, 0.0287),
        _CLAMPED,
    ),
    ("one", "one"): Row(
        _MIXED,
        (0.4179, 0.4719, 0.5199, 0.5615, 0.597, 0.6268, 0.6516, 0.6889, 0.7137, 0.7434, 0.75, 0.75, 0.75),
        (0.0242, 0.0289, 0.0333, 0.0372, 0.0407, 0.0438, 0.0464, 0.0505, 0.0534, 0.0573, 0.0587, 0.0593, 0.0593),
        _PROPPED,
    ),
    ("one", "none"): Row(
        _MIXED,
        (0.5053, 0.553, 0.5933, 0.6266, 0.6537, 0.6755, 0.6929, 0.7173, 0.732, 0.7477, 0.75, 0.75, 0.75),
        (0.0314, 0.0395, 0.0478, 0.0561, 0.0641, 0.0718, 0.079, 0.0919, 0.1026, 0.1211, 0.1313, 0.1397, 0.142),
        _SUPPORTED,
    ),
    ("none", "both"): Row(
        _MIXED,
        (0.4208, 0.4453, 0.4639, 0.4777, 0.4879, 0.4952, 0.5003, 0.5058, 0.5076, 0.5062, 0.5049, 0.5047, 0.5045),
        (0.0211, 0.0229, 0.0244, 0.0256, 0.0265, 0.0272, 0.0277, 0.0284, 0.0287, 0.0288, 0.0287, 0.0287, 0.0287),
        _CLAMPED,
    ),
    ("none", "one"): Row(
        _MIXED,
        (0.5053, 0.5511, 0.5897, 0.6218, 0.6483, 0.67, 0.6877, 0.7135, 0.7301, 0.7489, 0.75, 0.75, 0.75),
        (0.0314, 0.0357, 0.0395, 0.0429, 0.0457, 0.0481, 0.0501, 0.0532, 0.0554, 0.0581, 0.059, 0.0593, 0.0593),
        _PROPPED,
    ),
}
"""By how many of the short edges are clamped, and of the long ones."""

"""Soap drops until the lather holds: ratios with the step as their range, and what a spoonful of
hard water does.
"""

from __future__ import annotations

from ..ranges import Range
from ..record import record
from .demonstrations import Lather, Vial

#: mg of sodium soap bound by 1 mg of CaCO3: 2 × sodium stearate 306.5 g/mol on CaCO3 100.09 g/mol
#: (molar masses, IUPAC 2021), rounded
SOAP_PER_CACO3 = 6.0


@record
class Ratio:
    """Soap of one vial against another; ``high`` None: more than ``low``, no upper end."""

    best: float
    low: float
    high: float | None


def counted(v: Vial) -> Range | None:
    """Drops to a lather that holds: above the count before the last step, at most the last count.
    None while it does not hold.
    """
    if not v.held:
        return None
    drops = sum(v.steps)
    return Range.of(float(drops - v.steps[-1]), float(drops), float(drops))


def ratio(vial: Range, softened: Range) -> Ratio:
    """How many times the softened vial's soap: best = a/b, low = a_low/b_high, high = a_high/b_low
    (none when b_low is 0).

    >>> ratio(Range.of(27, 28, 28), Range.of(1, 2, 2))
    Ratio(best=14.0, low=13.5, high=28.0)
    """
    assert vial.high is not None and softened.high is not None
    return Ratio(
        best=vial.best / softened.best,
        low=vial.low / softened.high,
        high=vial.high / softened.low if softened.low > 0 else None,
    )


def household_share(shown: Ratio, firm_share: float) -> float:
    """The share of soap [0 to 1] that may be called an estimate: the firm's own cautious figure,
    never more than the vial showed at its low end.

    >>> round(household_share(Ratio(best=1.5, low=1.25, high=2.0), 0.3), 2)  # 1 - 1/1.25
    0.2
    """
    seen = 0.0 if shown.low <= 1 else 1 - 1 / shown.low
    return max(0.0, min(firm_share, seen))


def spoonful(tap: Range, softened: Range, vial_ml: float, spoon_ml: float) -> Range:
    """Hardness of a softened vial after a spoonful of tap water, in the unit of the two: mixed by
    volume.

    Args:
        tap, softened: [gpg or mg/L as CaCO3]. vial_ml, spoon_ml: [mL].

    Source: balance of mass.

    >>> spoonful(Range.exact(20.0), Range.exact(0.0), 45.0, 5.0).best  # a tenth of 20
    2.0
    """
    total = vial_ml + spoon_ml
    return softened.scale(vial_ml / total).plus(tap.scale(spoon_ml / total))


def spoon_share(vial_ml: float, spoon_ml: float) -> float:
    """The share of hard water [0 to 1] in the vial after the spoonful.

    >>> spoon_share(45.0, 5.0)
    0.1
    """
    return spoon_ml / (vial_ml + spoon_ml)


def expected_drops(hardness: Range, test: Lather) -> Range:
    """Drops expected: lather drops + 6 · hardness [mg/L as CaCO3] · volume [L] ÷ soap in a drop
    [mg].
    """
    k = SOAP_PER_CACO3 * test.volume_ml / 1000 / test.soap_mg_per_drop
    high = None if hardness.high is None else test.lather_drops + k * hardness.high
    return Range.of(
        test.lather_drops + k * hardness.low, test.lather_drops + k * hardness.best, high
    )

"""How much was removed between two readings, with the ends that the ranges allow."""

from __future__ import annotations

from ..record import record
from .value import Value


@record
class Removal:
    """Removal as shares (0 to 1).

    ``shown`` is one of "removed", "at_least" (product under detection: only ``worst`` is given),
    "rose", "no_difference" and "not_computed".
    """

    shown: str
    best: float | None = None
    worst: float | None = None
    most: float | None = None
    rose_by: float | None = None


def removal(feed: Value, product: Value) -> Removal:
    """best = 1 − out/in, worst = 1 − out_high/in_low, most = 1 − out_low/in_high.

    Not computed with a feed of 0; "no difference" when the ranges overlap; "at least" when the
    product is below its detection limit; "rose" when the product is higher.
    """
    a, b = feed.range, product.range
    if a is None or b is None or a.best <= 0 or a.low <= 0:
        return Removal(shown="not_computed")
    if a.overlaps(b):
        return Removal(shown="no_difference")
    if b.low > a.best:
        return Removal(shown="rose", rose_by=b.best - a.best)
    worst = None if b.high is None else 1 - b.high / a.low
    if product.below is not None:
        return Removal(shown="at_least", worst=worst)
    most = None if a.high is None else 1 - b.low / a.high
    return Removal(shown="removed", best=1 - b.best / a.best, worst=worst, most=most)


def removal_sentence(r: Removal) -> str:
    """A removal in words.

    >>> removal_sentence(Removal(shown="removed", best=0.9, worst=0.88, most=0.92))
    '90 % less (88 to 92 %)'
    """
    match r.shown:
        case "no_difference":
            return "no difference shown"
        case "rose":
            return "higher in the second"
        case "at_least":
            return (
                "less in the second" if r.worst is None else f"at least {100 * r.worst:.0f} % less"
            )
        case "removed":
            ends = (
                ""
                if r.worst is None or r.most is None
                else f" ({100 * r.worst:.0f} to {100 * r.most:.0f} %)"
            )
            return f"{100 * (r.best or 0):.0f} % less{ends}"
        case _:
            return "not worked out: nothing to begin with"

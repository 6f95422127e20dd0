"""How an item comes to a home: bought, rented, or rented until it is the household's."""

from __future__ import annotations

from decimal import Decimal
from typing import Literal

from ..errors import RuleError
from ..record import record

Terms = Literal["buy", "rental", "rent_to_own"]
TERMS: dict[Terms, str] = {"buy": "bought", "rental": "rented", "rent_to_own": "rented to own"}
MOST_MONTHS = 240


@record
class Letting:
    """What the firm asks to let an item instead of selling it.

    Args:
        kind: a rental stays the firm's; rent-to-own becomes the household's with the last payment.
        per_month: rent, paid ahead [money/month]; setup: paid once, in place of price and
            installation [money].
        months: at least so many of a rental, all of rent-to-own [months].
        covers_parts: parts and the firm's service are in the rent; of a rental alone.
    """

    kind: Literal["rental", "rent_to_own"]
    per_month: Decimal
    setup: Decimal = Decimal("0")
    months: int
    covers_parts: bool = False

    def __post_init__(self) -> None:
        name = TERMS[self.kind].capitalize()
        if not (self.per_month.is_finite() and self.setup.is_finite()) or self.setup < 0:
            raise _refused("setup", f"{name}: what is paid once is no amount.", "Use 0 or more.")
        if self.per_month <= 0:
            raise _refused("rent", f"{name}: the rent is not above 0.", "Type the rent a month.")
        if not 1 <= self.months <= MOST_MONTHS:
            raise _refused(
                "months",
                f"{name}: {self.months} months are not possible.",
                f"Use 1 to {MOST_MONTHS}.",
            )
        if self.kind == "rent_to_own" and self.covers_parts:
            raise _refused(
                "covers",
                "Rented to own: parts cannot be in the rent, which ends while they go on.",
                "Leave them to the household, or let it as a rental.",
            )

    @property
    def payments(self) -> int | None:
        """How often the rent is paid; None as long as it is rented."""
        return self.months if self.kind == "rent_to_own" else None


def _refused(code: str, what: str, remedy: str) -> RuleError:
    return RuleError(f"letting.{code}", what, "lets", remedy)


def one_of_each(lets: tuple[Letting, ...]) -> None:
    """RuleError where an item is let twice in one way."""
    kinds = [x.kind for x in lets]
    if len(kinds) != len(set(kinds)):
        raise _refused("twice", "It is let twice in one way.", "Keep one rental and one to own.")

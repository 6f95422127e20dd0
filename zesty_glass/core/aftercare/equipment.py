"""What was sold, piece by piece, and what became of it: swapped, taken out, returned, bought out of
its rent.
"""

from __future__ import annotations

from collections.abc import Iterable
from datetime import date
from decimal import Decimal
from typing import Literal

from ..errors import RuleError
from ..months import month_on
from ..record import Words, record
from ..treating.fitter import Fitter
from ..treating.letting import Terms

Fate = Literal["swapped", "taken_out", "returned", "bought_out"]
FATES: dict[Fate, str] = {
    "swapped": "swapped for another of its kind",
    "taken_out": "taken out",
    "returned": "returned to the firm",
    "bought_out": "bought out of its rent",
}
#: after these it stands here no more
GONE: frozenset[Fate] = frozenset({"taken_out", "returned"})
MOST_MOVES = 100


@record
class Bought:
    """One thing that was sold: ``terms``, how it is had (bought, rented, rented to own);
    ``fitter``, whose work its fitting is. What it costs stands in the proposal that was signed.
    ``months``: at least so long it is rented, or until it is theirs [months]; ``stages``: which
    stages of the line it is.
    """

    label: str
    terms: Terms
    fitter: Fitter
    months: int = 0
    stages: tuple[int, ...] = ()


@record
class Move:
    """What became of a piece on a day, why, and who said so; ``piece``: the how-manieth of what was
    sold, from 0; ``price``: what it was bought out for [money].
    """

    id: str
    piece: int
    fate: Fate
    on: date
    because: Words
    by: str
    price: Decimal = Decimal(0)


@record
class Rented:
    """A piece that is or was rented.

    Args:
        until: the end of the least time, or when it is theirs. last: the day of the last rent; None
            as long as it goes on.
    """

    piece: int
    label: str
    state: Literal["not begun", "rented", "theirs", "ended"]
    start: date | None
    until: date | None
    last: date | None


def stages_gone(bought: tuple[Bought, ...], moves: Iterable[Move]) -> frozenset[int]:
    """Stages that stand there no more."""
    return frozenset(n for m in moves if m.fate in GONE for n in bought[m.piece].stages)


def swapped_on(bought: tuple[Bought, ...], moves: Iterable[Move]) -> dict[int, date]:
    """Stages that were swapped, each with the last day that it was."""
    days: dict[int, date] = {}
    for m in moves:
        if m.fate == "swapped":
            for n in bought[m.piece].stages:
                days[n] = max(m.on, days.get(n, m.on))
    return days


def rent_ends(piece: int, moves: Iterable[Move], ended: date | None) -> date | None:
    """The day from which a piece’s rent is paid no more; None while it goes on."""
    days = [m.on for m in moves if m.piece == piece and m.fate in (*GONE, "bought_out")]
    days += [ended] if ended is not None else []
    return min(days, default=None)


def rents(
    bought: tuple[Bought, ...],
    moves: tuple[Move, ...],
    fitted_on: date | None,
    ended: date | None,
    today: date,
) -> tuple[Rented, ...]:
    """Everything rented of what was sold, and how it stands on a day: rent is paid ahead, from the
    day it is in use.
    """
    return tuple(
        _rented(n, b, moves, fitted_on, ended, today)
        for n, b in enumerate(bought)
        if b.terms != "buy"
    )


def _rented(
    n: int,
    b: Bought,
    moves: tuple[Move, ...],
    start: date | None,
    ended: date | None,
    today: date,
) -> Rented:
    if start is None:
        state: Literal["not begun", "ended"] = "not begun" if ended is None else "ended"
        return Rented(piece=n, label=b.label, state=state, start=None, until=None, last=None)
    end, until = rent_ends(n, moves, ended), month_on(start, b.months)
    last = month_on(start, b.months - 1) if b.terms == "rent_to_own" else None
    if end is not None and (last is None or end < last):
        last = _last_paid(start, end)
    bought_out = any(m.piece == n and m.fate == "bought_out" for m in moves)
    paid_off = b.terms == "rent_to_own" and (end is None or end >= until) and until <= today
    goes_on: Literal["rented", "ended"] = "rented" if end is None else "ended"
    return Rented(
        piece=n,
        label=b.label,
        state="theirs" if bought_out or paid_off else goes_on,
        start=start,
        until=until,
        last=last,
    )


def _last_paid(start: date, end: date) -> date:
    """The last day of paying ahead, a month apart, on or before the end."""
    months = (end.year - start.year) * 12 + end.month - start.month
    day = month_on(start, months)
    return day if day <= end else month_on(start, max(0, months - 1))


def check_move(
    move: Move,
    bought: tuple[Bought, ...],
    moves: tuple[Move, ...],
    fitted_on: date | None,
    today: date,
) -> None:
    """RuleError for a move that cannot be."""

    def refuse(code: str, what: str, where: str, remedy: str) -> None:
        raise RuleError(f"move.{code}", what, where, remedy)

    if not 0 <= move.piece < len(bought):
        refuse("piece", "This was not sold here.", "piece", "Choose one of what was.")
    name = bought[move.piece].label
    if fitted_on is None:
        refuse("not_fitted", "The line is not fitted yet.", "on", "Say first when it was fitted.")
    elif not fitted_on <= move.on <= today:
        refuse(
            "day",
            f"{move.on:%B %-d, %Y} is before the fitting or to come.",
            "on",
            "Use the day it was.",
        )
    if not move.because.strip():
        refuse("because", "This needs a reason.", "because", "Write why, in a line.")
    if any(m.piece == move.piece and m.fate in GONE for m in moves):
        refuse("gone", f"{name} is not there any more.", "piece", "Take that back first.")
    if move.fate == "bought_out" and bought[move.piece].terms == "buy":
        refuse("own", f"{name} was bought: there is no rent.", "fate", "Choose another.")
    if move.fate == "bought_out" and any(
        m.piece == move.piece and m.fate == "bought_out" for m in moves
    ):
        refuse("own", f"{name} was bought out already.", "fate", "Take that back first.")
    if not (move.price.is_finite() and 0 <= move.price < 1_000_000):
        refuse("price", "This is no amount of money.", "price", "Type it with two decimals.")

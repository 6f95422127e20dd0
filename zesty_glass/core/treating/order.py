"""The order of stages, by rule: each technology knows its place (``Technology.place``)."""

from __future__ import annotations

from collections.abc import Iterable

from .existing_equipment import technology_of
from .items import Item
from .stages import TECHNOLOGIES
from .stream import Stream
from .technology import Company, chlorine_is_too_much


def wants_ph(item: Item, stream: Stream) -> bool:
    """Whether an item's least pH is above the raw water's."""
    least, ph = item.figures.wants_ph, stream.best("ph")
    return least is not None and ph is not None and ph < least


def least_chlorine(most: Iterable[float | None]) -> float | None:
    """The least of several limits on chlorine [mg/L]; None where nothing has one."""
    return min((m for m in most if m is not None), default=None)


def company(items: tuple[Item, ...], stream: Stream) -> Company:
    """The company that items of one branch keep."""
    kinds = [technology_of(i, TECHNOLOGIES) for i in items]
    return Company(
        fine_ahead=any(t.fine_ahead for t in kinds),
        iron_wants_ph=any(wants_ph(i, stream) for i in items),
        chlorine_max=least_chlorine(t.chlorine_max for t in kinds),
    )


def carbon_first(company_: Company, stream: Stream) -> bool:
    """Whether chlorine wants carbon ahead of the resins that are there."""
    return chlorine_is_too_much(company_.chlorine_max, stream)


def rank(item: Item, stream: Stream, beside: Company) -> int:
    """Place of one item in its branch, on this raw water and in this company."""
    return technology_of(item, TECHNOLOGIES).place(item, beside, stream)


def ordered(items: tuple[Item, ...], stream: Stream) -> tuple[Item, ...]:
    """Items in the order that the rules give them on this raw water; the house's branch before the
    tap's.
    """
    out: list[Item] = []
    for scope in ("house", "tap"):
        branch = tuple(i for i in items if i.scope == scope)
        beside = company(branch, stream)
        out += sorted(branch, key=lambda i: rank(i, stream, beside))
    return tuple(out)

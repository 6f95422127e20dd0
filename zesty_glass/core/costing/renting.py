"""Renting beside buying: what one item comes to each way, with its own parts and service."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import replace
from decimal import Decimal

from ..errors import RuleError
from ..record import record
from ..treating.items import Item, SystemFigures
from ..treating.letting import Letting, Terms
from ..treating.line import LineReport
from ..treating.option import Purchase
from ..treating.report import Due, Running
from .money import Lifetime, lifetime, stays_cheaper_from
from .plan import apr, effective_rate


@record
class WayToPay:
    """An item bought or rented, over a horizon.

    Args:
        at_once: paid before it runs [money]; per_month: rent [money/month]; months: of a rental at
            least, of rent-to-own all.
        total: the item alone, with its parts and service [money].
        apr, apr_effective: yearly rate that rent-to-own comes to beside buying [%]; None where
            there is none, ``no_rate`` says why.
        buying_cheaper_from: the month from which buying has cost less, and stays so.
    """

    terms: Terms
    at_once: Decimal
    per_month: Decimal = Decimal("0")
    months: int = 0
    covers_parts: bool = False
    total: Decimal
    apr: Decimal | None = None
    apr_effective: Decimal | None = None
    no_rate: str = ""
    buying_cheaper_from: int | None = None


@record
class Rentable:
    """An item of a line that the firm sells and lets; ``chosen``: how this line has it."""

    code: str
    name: str
    chosen: Terms
    ways: tuple[WayToPay, ...]


def yearly_rate(price: Decimal, let: Letting) -> Decimal:
    """The nominal yearly rate [%] of rent-to-own: its rents, the first of them paid at once, in
    place of the price.

    Args:
        price: to buy and install [money].

    Raises:
        RuleError: ``plan.impossible`` where the rents come to less than the price.

    >>> fair = Letting(kind="rent_to_own", per_month=Decimal(100), months=12)
    >>> yearly_rate(Decimal(1200), fair)
    Decimal('0.00')
    """
    return apr(price, let.setup + let.per_month, let.per_month, let.months - 1)


def _way(p: Purchase, cost: Lifetime, bought: Lifetime, price: Decimal) -> WayToPay:
    if p.let is None:
        return WayToPay(terms="buy", at_once=price, total=cost.total)
    rate, why = None, ""
    if p.let.kind == "rent_to_own":
        try:
            rate = yearly_rate(price, p.let)
        except RuleError as e:
            why = e.what
    return WayToPay(
        terms=p.let.kind,
        at_once=p.let.setup,
        per_month=p.let.per_month,
        months=p.let.months,
        covers_parts=p.let.covers_parts,
        total=cost.total,
        apr=rate,
        apr_effective=None if rate is None else effective_rate(rate),
        no_rate=why,
        buying_cheaper_from=stays_cheaper_from(bought, cost),
    )


def _own(item: Item, line: LineReport) -> tuple[tuple[Due, ...], tuple[Running, ...]]:
    """What falls due and runs at an item's own stages, at full price."""
    codes = item.figures.parts if isinstance(item.figures, SystemFigures) else (item.code,)
    mine = [s for s in line.stages if s.code in codes]
    return tuple(d for s in mine for d in s.dues), tuple(r for s in mine for r in s.running)


def _cost(
    p: Purchase,
    dues: Iterable[Due],
    running: Iterable[Running],
    years: int,
    growth: Decimal,
    discount: Decimal,
) -> Lifetime:
    if p.let is not None and p.let.covers_parts:
        dues = [replace(d, price=Decimal(0)) for d in dues]
        running = [r for r in running if r.kind != "service"]
    return lifetime((p,), dues, running, years, growth, discount)


def rentables(
    line: LineReport,
    catalogue: Mapping[str, Item],
    years: int,
    growth: Decimal,
    discount: Decimal,
) -> tuple[Rentable, ...]:
    """Every item of a line that is let, with what it comes to bought and let.

    Args:
        years: horizon; growth, discount: a year, as shares [1].
    """
    out = []
    for p in line.purchases:
        item = catalogue.get(p.code)
        if item is None or not item.lets:
            continue
        dues, running = _own(item, line)
        price = item.price + item.installation
        buy = replace(p, price=item.price, installation=item.installation, let=None)
        others = [replace(buy, price=Decimal(0), installation=x.setup, let=x) for x in item.lets]
        costs = [_cost(x, dues, running, years, growth, discount) for x in (buy, *others)]
        ways = zip((buy, *others), costs, strict=True)
        out.append(
            Rentable(
                code=item.code,
                name=item.name,
                chosen="buy" if p.let is None else p.let.kind,
                ways=tuple(_way(x, cost, costs[0], price) for x, cost in ways),
            )
        )
    return tuple(out)

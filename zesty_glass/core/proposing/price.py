"""What is to be paid, line by line: equipment, work, discount, sales tax by kind, deposit."""

from __future__ import annotations

from collections.abc import Iterable
from decimal import ROUND_HALF_EVEN, Decimal

from ..errors import RuleError
from ..record import record
from ..rules import Settings
from ..treating.option import Purchase

CENT = Decimal("0.01")


@record
class Terms:
    """What was agreed beside the prices: discount and deposit [money], exemption from sales tax."""

    discount: Decimal = Decimal("0")
    deposit: Decimal = Decimal("0")
    tax_exempt: bool = False


@record
class PriceLine:
    """One line of the price; ``kind``: equipment, installation, discount, tax, total, deposit,
    rest, rent, rent_tax. A discount is negative; rent and its tax are paid every month, beside the
    total: ``times``, 0 as long as it is rented.
    """

    kind: str
    label: str
    amount: Decimal
    times: int = 1


def _share(amount: Decimal, rate: Decimal) -> Decimal:
    return (amount * rate).quantize(CENT, ROUND_HALF_EVEN)


def _percent(rate: Decimal) -> str:
    return f"{(100 * rate).normalize():f} %"


def _check(terms: Terms, price: Decimal) -> None:
    if terms.discount < 0 or terms.deposit < 0:
        raise RuleError(
            "terms.negative", "An amount is below 0.", "terms", "Type 0 or more, without a sign."
        )
    if terms.discount > price:
        raise RuleError(
            "terms.discount",
            f"A discount of {terms.discount:,.2f} is more than the price of {price:,.2f}.",
            "terms.discount",
            "Type a smaller one.",
        )


def price_lines(
    equipment: Decimal, installation: Decimal, terms: Terms, settings: Settings
) -> tuple[PriceLine, ...]:
    """The price line by line; the discount is taken off equipment and work in their proportion
    before tax.

    Args:
        equipment, installation: list prices [money]; tax rates are the firm's [share].

    Raises:
        RuleError: ``terms.negative``, ``terms.discount`` (above the price), ``terms.deposit``
            (above the total).
    """
    price = equipment + installation
    _check(terms, price)
    out = [PriceLine(kind="equipment", label="Equipment", amount=equipment)]
    if installation:
        out.append(PriceLine(kind="installation", label="Installation", amount=installation))
    off = _share(terms.discount, equipment / price) if price else Decimal("0")
    if terms.discount:
        out.append(PriceLine(kind="discount", label="Discount", amount=-terms.discount))
    total = price - terms.discount
    for name, base, rate in (
        ("equipment", equipment - off, settings.tax_equipment),
        ("labor", installation - (terms.discount - off), settings.tax_labour),
    ):
        tax = _share(base, rate)
        if tax and not terms.tax_exempt:
            label = f"Sales tax on {name}, {_percent(rate)}"
            out.append(PriceLine(kind="tax", label=label, amount=tax))
            total += tax
    if terms.tax_exempt:
        out.append(PriceLine(kind="tax", label="Exempt from sales tax", amount=Decimal("0")))
    out.append(PriceLine(kind="total", label="To pay", amount=total))
    if terms.deposit > total:
        raise RuleError(
            "terms.deposit",
            f"A deposit of {terms.deposit:,.2f} is more than the {total:,.2f} to pay.",
            "terms.deposit",
            "Type a smaller one.",
        )
    if terms.deposit:
        out.append(PriceLine(kind="deposit", label="Deposit, now", amount=terms.deposit))
        rest = total - terms.deposit
        out.append(PriceLine(kind="rest", label="Rest, when it is installed", amount=rest))
    return tuple(out)


def rent_lines(
    purchases: Iterable[Purchase], terms: Terms, settings: Settings
) -> tuple[PriceLine, ...]:
    """What is paid every month for what is rented, each with its sales tax, at the rate of
    equipment [money/month].
    """
    out = []
    for p in purchases:
        if p.let is None:
            continue
        times = p.let.payments or 0
        held = f"{times} months, then it is yours" if times else f"at least {p.let.months} months"
        label = f"Rent of {p.label}, every month, {held}"
        out.append(PriceLine(kind="rent", label=label, amount=p.let.per_month, times=times))
        tax = _share(p.let.per_month, settings.tax_equipment)
        if tax and not terms.tax_exempt:
            label = f"Sales tax on this rent, {_percent(settings.tax_equipment)}, every month"
            out.append(PriceLine(kind="rent_tax", label=label, amount=tax, times=times))
    return tuple(out)


def to_pay(lines: tuple[PriceLine, ...]) -> Decimal:
    """The total of price lines [money]."""
    return next(x.amount for x in lines if x.kind == "total")

"""What a line costs its home over the years, by what is assumed of use and habits."""

from __future__ import annotations

from collections.abc import Callable
from decimal import Decimal

from .costing.money import Lifetime, lifetime, lifetime_total, stays_cheaper_from
from .demonstrating.demonstrations import Lather
from .demonstrating.lather import counted, household_share, ratio
from .proposing.rows import TODAY
from .record import record
from .treating.items import Item
from .treating.line import LineReport
from .treating.report import Due, Running
from .treating.stages import does
from .visit import Visit


@record
class Assumption:
    """Something counted that was not measured; listed, and can be switched off."""

    id: str
    sentence: str
    per_year: Decimal
    on: bool
    options: tuple[str, ...]


@record
class CostBand:
    """Lifetime cost at low and high use."""

    low: Decimal
    high: Decimal


def assumptions(visit: Visit) -> tuple[Assumption, ...]:
    """Every assumption of this visit's costs; none is silent."""
    catalogue = {i.code: i for i in visit.catalogue}
    home, off, s = visit.home, visit.assumptions_off, visit.settings.currency
    out: list[Assumption] = []

    def add(id: str, sentence: str, per_year: Decimal, options: tuple[str, ...]) -> None:
        out.append(
            Assumption(
                id=id, sentence=sentence, per_year=per_year, on=id not in off, options=options
            )
        )

    def holding(it: Callable[[Item], bool]) -> tuple[str, ...]:
        return tuple(
            o.id
            for o in visit.options
            if any(c.item in catalogue and it(catalogue[c.item]) for c in o.stages)
        )

    if home.bottled_month > 0:
        add(
            "bottled.today",
            f"Today {s}{home.bottled_month:,.2f} a month is spent on bottled water.",
            home.bottled_month * 12,
            (TODAY,),
        )
        add(
            "bottled.ends",
            "A drinking-tap unit ends the bottled water.",
            home.bottled_month * 12,
            holding(lambda item: item.scope == "tap"),
        )
    if home.soap_month > 0:
        share = _soap_share(visit)
        saved = home.soap_month * 12 * Decimal(repr(round(share, 4)))
        add(
            "soap.today",
            f"Today {s}{home.soap_month:,.2f} a month is spent on soap and detergent.",
            home.soap_month * 12,
            (TODAY,),
        )
        add(
            "soap.less",
            f"A softened house may use {100 * share:.0f} % less soap, or none less:"
            f" {s}0 to {s}{saved:,.0f} a year. Our firm’s own cautious estimate, never more than a"
            " lather test here has shown.",
            saved,
            holding(lambda item: "softens" in does(item.kind)),
        )
    return tuple(out)


def _soap_share(visit: Visit) -> float:
    """The firm's estimate of soap saved [share], held to what a lather test of this
    visit showed.
    """
    share = visit.settings.soap_share
    for d in visit.shown:
        if isinstance(d.body, Lather) and not d.simulated:
            tap = next((counted(v) for v in d.body.vials if v.role == "tap"), None)
            soft = next((counted(v) for v in d.body.vials if v.role == "softened"), None)
            if tap is not None and soft is not None:
                share = min(share, household_share(ratio(tap, soft), share))
    return share


#: what is spent today, what ends or lessens it, and how it is called
_HABITS = (
    ("bottled.today", "bottled.ends", "Bottled water", "bottled"),
    ("soap.today", "soap.less", "Soap and detergent", "soap"),
)


def _habits(option: str, listed: tuple[Assumption, ...]) -> tuple[Running, ...]:
    """What the household goes on paying under an option, by the assumptions that are
    switched on.
    """
    by_id = {a.id: a for a in listed}
    out = []
    for today, less, label, kind in _HABITS:
        spent, saved = by_id.get(today), by_id.get(less)
        if spent is None or not spent.on:
            continue
        left = spent.per_year - (
            saved.per_year if saved is not None and saved.on and option in saved.options else 0
        )
        if left > 0:
            out.append(
                Running(
                    label=label,
                    kind=kind,
                    per_year=left,
                    why=(
                        "as you told us"
                        if left == spent.per_year
                        else "as you told us, less our estimate"
                    ),
                    scope="tap" if kind == "bottled" else "house",
                )
            )
    return tuple(out)


def _spent(
    line: LineReport, listed: tuple[Assumption, ...]
) -> tuple[tuple[Due, ...], tuple[Running, ...]]:
    """What falls due and what runs, under an option."""
    return line.dues, (*line.running, *_habits(line.option, listed))


def cost_of(line: LineReport, visit: Visit, listed: tuple[Assumption, ...], years: int) -> Lifetime:
    """An option's cost over a horizon [years], with the assumptions that are switched on."""
    s = visit.settings
    return lifetime(
        line.purchases,
        *_spent(line, listed),
        years,
        s.price_growth,
        s.discount,
        line.demand.house_gal_year,
        line.demand.drinking_gal_year,
    )


def band_of(
    cost: Lifetime, ends: tuple[LineReport, ...], visit: Visit, listed: tuple[Assumption, ...]
) -> CostBand | None:
    """The same from low to high use; None where the use changes nothing."""
    s = visit.settings
    totals = [
        lifetime_total(end.purchases, *_spent(end, listed), cost.years, s.price_growth, s.discount)
        for end in ends
    ]
    return CostBand(low=min(*totals, cost.total), high=max(*totals, cost.total)) if totals else None


def crossings(option: str, costs: dict[str, Lifetime]) -> tuple[tuple[str, int], ...]:
    """Options that this one is dearer than to begin with and stays cheaper than, each with the
    month from which.
    """
    own = costs.get(option)
    if own is None:
        return ()
    return tuple(
        (other, month)
        for other, cost in costs.items()
        if other != option and (month := stays_cheaper_from(own, cost)) is not None
    )

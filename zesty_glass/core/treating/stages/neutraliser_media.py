"""A bed that dissolves: what it loses a year, when it is topped up with how many bags, and how long
the water stays in it.
"""

from __future__ import annotations

import math
from decimal import Decimal

from ... import words
from ...ranges import Range
from ...record import record
from ...units import L_PER_GAL, MG_PER_LB
from ..adjusting import REFILL
from ..report import Due, Figure
from .calcite import NeutraliserFigures, Rise, medium_per_added
from .carbon import contact_figure
from .common import StageInput, money, working

ABOUT_ONE = 0.15  # [bags] off one that nobody carries by the pound
BAG_LB = 50.0
#: what is taken where no temperature was measured [°C]: ground water, trade practice (2024)
USUAL_C = Range.of(10.0, 12.0, 15.0)
UNUSED_MONTHS = 120.0  # [months] of a bed that loses nothing
LONGEST_MONTHS = 1200.0  # [months] a bed that loses less than this counts as lasting a century


@record
class Media:
    """What a bed loses [lb/year], what it holds when full [lb], after how long it is topped up
    [months], at the latest by its maker [months] or the gallons that use it up [gal], and what
    that costs [money]."""

    lb_year: float
    bed_lb: float
    months: float
    own_months: float
    gallons: float | None
    price: Decimal


def media_lb_year(added: float, gallons_year: float, per_added: float = 1.0) -> float:
    """Media that dissolves in a year [lb/year]: 1 mg of calcite for each mg of hardness added.

    Args:
        added: hardness that it adds [mg/L as CaCO3]. gallons_year: water through it [gal/year].
        per_added: of this medium for each mg that it adds [mg/mg].

    Source: by stoichiometry; 453,592 mg a pound.

    >>> round(media_lb_year(80.0, 65_745.0), 1)
    43.9
    """
    return per_added * added * gallons_year * L_PER_GAL / MG_PER_LB


def months_to_top_up(bed_lb: float, lb_year: float, share: float = 1 / 3) -> float:
    """After how long a third of a bed is gone [months], ten years at most.

    Args:
        bed_lb: when full [lb]. lb_year: dissolves in a year [lb/year]. share: of it that may go
            before it is filled [0 to 1].

    Source: topped up at a third, trade practice (2024).

    >>> round(months_to_top_up(150.0, 44.0), 1)  # 50 lb of 44 a year
    13.6
    """
    return min(LONGEST_MONTHS, 12 * bed_lb * share / lb_year) if lb_year > 0 else UNUSED_MONTHS


def used_up(f: NeutraliserFigures) -> float:
    """The share of a bed that may go before it is topped up [0 to 1]; a tank of soda ash is used
    to its last tenth."""
    return 0.9 if f.style == "feed" else 1 / 3


def _lb_year(f: NeutraliserFigures, inp: StageInput, added: float) -> float:
    temp = inp.stream.range("temperature") or USUAL_C
    per = medium_per_added(f, temp.best)
    return media_lb_year(added, inp.site.demand.house_gal_year, per)


def media_of(f: NeutraliserFigures, inp: StageInput, r: Rise) -> Media:
    """Topped up when the bed has fallen by a third, or by its own interval where that is
    sooner."""
    lb_year = _lb_year(f, inp, r.added.best)
    bed_lb = f.volume_ft3 * f.media_lb_ft3
    months = months_to_top_up(bed_lb, lb_year, used_up(f))
    own = inp.adjusted(REFILL, f.refill_months or UNUSED_MONTHS)
    interval = min(months, own)
    bags = interval / 12 * lb_year / BAG_LB
    price = (money(bags) * f.bag_price).quantize(Decimal("0.01"))
    gallons = months / 12 * inp.site.demand.house_gal_year if lb_year > 0 else None
    return Media(
        lb_year=lb_year,
        bed_lb=bed_lb,
        months=interval,
        own_months=own,
        gallons=gallons,
        price=price,
    )


def media_due(f: NeutraliserFigures, inp: StageInput, m: Media) -> Due:
    """The top-up as something that falls due."""
    feed = f.style == "feed"
    refill = "its tank is empty" if feed else "the bed has fallen by a third"
    return Due(
        code=f"{inp.item.code}-media",
        label="Soda ash, mixed into its tank" if feed else "Media top-up",
        kind="media",
        price=m.price,
        months=m.own_months,
        capacity_gal=m.gallons,
        gallons_year=inp.site.demand.house_gal_year,
        why=f"{m.lb_year:.0f} lb a year; refill when {refill}",
        scope="house",
        minutes=45,
    )


def media_figure(f: NeutraliserFigures, inp: StageInput, r: Rise, m: Media) -> Figure:
    """Media that dissolves in a year, with its working."""
    per = medium_per_added(f, (inp.stream.range("temperature") or USUAL_C).best)
    return Figure(
        id="media",
        label="media a year",
        value=words.about(m.lb_year),
        unit="lb",
        number=m.lb_year,
        working=working(
            "How much media?",
            "hardness added × water used",
            f"{per:.2g} mg of its medium a mg/L as CaCO3 added, by stoichiometry",
            ("added", f"{r.added.best:.0f}", "mg/L"),
            ("water a year", f"{inp.site.demand.house_gal_year:,.0f}", "gal"),
            ("media a year", f"{m.lb_year:.0f}", "lb", True),
            ("bed when full", f"{m.bed_lb:.0f}", "lb"),
            ("top up every", f"{m.months:.1f}", "months"),
        ),
    )


def _bags_said(bags: float) -> str:
    """Bags as they are carried: one is one, and not nine tenths of it.

    >>> _bags_said(0.9), _bags_said(1.2)
    ('one bag of 50 lb', '1.2 bags of 50 lb')
    """
    if abs(bags - 1) < ABOUT_ONE:
        return f"one bag of {BAG_LB:g} lb"
    return f"{words.number(bags, 1)} bags of {BAG_LB:g} lb"


def carried(f: NeutraliserFigures, inp: StageInput, r: Rise, m: Media) -> tuple[Figure, ...]:
    """What is carried and how long the water has: when it is topped up with how many bags, at the
    worst end too, and minutes in the bed at peak.
    """
    if m.lb_year <= 0 or f.style == "feed":
        return ()
    high = r.added.top
    worst = months_to_top_up(m.bed_lb, _lb_year(f, inp, high)) if math.isfinite(high) else 0.0
    bags = m.months / 12 * m.lb_year / BAG_LB
    said = _bags_said(bags)
    return (
        Figure(
            id="top_up",
            label="topped up about every",
            value=f"{m.months:.0f}",
            unit="months",
            number=m.months,
            worst=f"{said}; every {min(worst, m.months):.0f} at the worst end",
            working=working(
                f"Why {m.months:.0f} months?",
                "a third of the bed ÷ what dissolves a year",
                "each medium by its own stoichiometry",
                ("bed when full", f"{m.bed_lb:.0f}", "lb"),
                ("dissolves a year", f"{m.lb_year:.0f}", "lb"),
                ("topped up every", f"{m.months:.1f}", "months", True),
                (f"bags of {BAG_LB:g} lb", f"{bags:.1f}", ""),
                ("at the most that it adds", f"{worst:.1f}", "months"),
            ),
        ),
        contact_figure("bed", f.volume_ft3, inp.site.demand.peak_gpm),
    )

"""Water to the drain: by kind and branch, never averaged into one ratio."""

from __future__ import annotations

from decimal import Decimal

from ..record import record
from ..treating.line import LineReport
from ..treating.stages.common import TO_THE_DRAIN, WATER_PRICE

BATHTUB_GAL = 40.0


@record
class Waste:
    """Gallons to the drain.

    ``per_gallon_tap``: to drain per gallon at the drinking tap; ``per_gallon_house``: per gallon of
    the house's use. ``share_of_use``: of the house's yearly use. ``week_gal``: the week's total;
    ``unknown``: a stage could not say. ``cost_year``: water and sewer paid for it [money]; 0 where
    neither is paid for; ``priced`` False: a price is not known.
    """

    by_kind: dict[str, float]
    total_gal_year: float
    house_gal_year: float
    tap_gal_year: float
    per_gallon_house: float | None
    per_gallon_tap: float | None
    share_of_use: float | None
    largest_gal: float
    week_gal: float
    brine: bool
    bathtubs: float
    unknown: bool
    cost_year: Decimal = Decimal(0)
    priced: bool = True


def waste(line: LineReport) -> Waste:
    """All that a line sends to the drain in a year."""
    by_kind: dict[str, float] = {}
    house = tap = 0.0
    for d in line.drains:
        by_kind[d.kind] = by_kind.get(d.kind, 0.0) + d.gal_year
        if d.scope == "house":
            house += d.gal_year
        else:
            tap += d.gal_year
    total = house + tap
    use, drunk = line.demand.house_gal_year, line.demand.drinking_gal_year
    unknown = any(s.drain_unknown for s in line.stages)
    days = max(line.demand.occupied_days, 1.0)
    return Waste(
        by_kind=by_kind,
        total_gal_year=total,
        house_gal_year=house,
        tap_gal_year=tap,
        per_gallon_house=house / use if use > 0 else None,
        per_gallon_tap=tap / drunk if drunk > 0 else None,
        share_of_use=total / use if use > 0 else None,
        largest_gal=max((d.largest_gal for d in line.drains), default=0.0),
        week_gal=total / days * 7,
        brine=any(d.brine for d in line.drains),
        bathtubs=total / BATHTUB_GAL,
        unknown=unknown,
        priced=all(r.missing != WATER_PRICE for s in line.stages for r in s.running),
        cost_year=sum(
            (r.per_year for s in line.stages for r in s.running if r.label == TO_THE_DRAIN),
            Decimal(0),
        ),
    )

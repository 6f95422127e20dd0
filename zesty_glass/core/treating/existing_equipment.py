"""Equipment in place as stages of a line: kept as it is, serviced, or set right.

What such a stage does is what was measured behind it in this home; where nothing was measured it
has no claim, and the water is carried through as it came.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import replace
from datetime import date
from decimal import Decimal
from typing import Literal

from ..analytes import ANALYTES, Kind, judged_at
from ..doing import NOTHING
from ..evidence import Level
from ..home import Home
from ..in_place import InPlace
from ..ranges import Range
from ..record import record
from ..rules import Settings
from ..testing.value import Value
from ..testing.water import Sample, Water
from .demand import demand
from .figures import Figures
from .items import Consumable, Item
from .measured import NOT_MATTER
from .place import place_checks
from .report import Check, Due, Running, StageReport
from .stages.common import StageInput, report
from .stages.softener_size import (
    IRON_RULE_MG_L,
    LONGEST_DAYS,
    SoftenerFigures,
    capacity_grains,
    compensated_gpg,
)
from .stream import Quantity
from .technology import Company, Service, Technology, judges_nothing

How = Literal["keep", "service", "set_right"]
HOWS: tuple[How, ...] = ("keep", "service", "set_right")
HOW_WORDS: dict[How, str] = {
    "keep": "kept as it is",
    "service": "serviced",
    "set_right": "set right",
}
DAYS_PER_MONTH = 30.4375
DEFAULT_DOSE = 8.0  # [lb/ft³] what a valve is commonly left at: trade practice (2024)


PREFIX = "in-place:"


@record
class KeptInPlace:
    """Equipment in place within an option: which, and what is done with it."""

    device: str
    how: How = "keep"


@record
class KeptFigures(Figures):
    """Equipment in place with what was measured behind it; ``age_months`` of the part in it."""

    kind: Literal["in_place"] = "in_place"
    device: InPlace
    how: How
    behind: tuple[tuple[str, Value], ...] = ()
    age_months: float | None = None


def code_of(device: str, how: How) -> str:
    """The code under which equipment in place stands in a line."""
    return f"{PREFIX}{device}:{how}"


def glass_behind(device: str, samples: tuple[Sample, ...]) -> Sample | None:
    """The last glass drawn behind a device, flushed; None where there is none."""
    own = [s for s in samples if s.device == device and not s.unflushed]
    return max(own, key=lambda s: s.drawn_at, default=None)


def _end(r: Range | None, which: Literal["low", "best", "high"]) -> float:
    """One end of a range; nothing where it was not tested, what was seen where it has no upper
    end."""
    if r is None:
        return 0.0
    return {"low": r.low, "best": r.best, "high": r.seen_top}[which]


def load_gpg(water: Water, iron_factor: float) -> Range | None:
    """Compensated hardness of a water [gpg]; None while its hardness is not known."""
    hard = water.range("hardness")
    if hard is None:
        return None
    iron, manganese = water.range("iron"), water.range("manganese")

    def one(end: float, which: Literal["low", "best", "high"]) -> float:
        fe, mn = (_end(r, which) for r in (iron, manganese))
        return compensated_gpg(end, fe, mn, iron_factor)

    top = None if hard.high is None else one(hard.high, "high")
    return Range.of(one(hard.low, "low"), one(hard.best, "best"), top)


def days_that_fit(
    device: InPlace, water: Water, home: Home, settings: Settings
) -> tuple[float, float] | None:
    """Days that a softener in place holds on this water, and days to set its clock to [days].

    None where its resin or the hardness is not known. A clock is set to whole days that it holds;
    with iron from 0.3 mg/L at most 4, else at most 14 (as for any softener).
    """
    load = load_gpg(water, settings.iron_factor)
    if device.resin_ft3 is None or load is None:
        return None
    a_day = load.best * demand(home, settings).house_gal_day.best
    if a_day <= 0:
        return None
    held = capacity_grains(device.resin_ft3, device.dose_lb_ft3 or DEFAULT_DOSE) / a_day
    iron = water.range("iron")
    cap = 4.0 if iron is not None and iron.best >= IRON_RULE_MG_L else LONGEST_DAYS
    return held, max(1.0, float(math.floor(min(held, cap) + 1e-9)))


def _softener(device: InPlace, how: How, fit: float | None) -> SoftenerFigures | None:
    """A softener in place that is known well enough to be worked out."""
    if "softens" not in device.of.does or device.resin_ft3 is None:
        return None
    clock = device.clock_days if how != "set_right" or device.clock_days is None else fit
    return SoftenerFigures(
        resin_ft3=device.resin_ft3,
        dose_lb_ft3=device.dose_lb_ft3 or DEFAULT_DOSE,
        control="metered" if clock is None else "clock",
        clock_days=clock,
        iron_max=5.0,
    )


def item_of(
    device: InPlace,
    how: How,
    behind: Water | None,
    age_months: float | None,
    fit: float | None,
) -> Item:
    """Equipment in place as one stage: nothing to buy, only what its service costs.

    Args:
        behind: what was measured behind it. age_months: since its part was changed [months].
        fit: days to set a softener to [days].
    """
    known = _softener(device, how, fit)
    measured = tuple((behind.values if behind else {}).items()) if how == "keep" else ()
    figures: Figures = (
        known
        if known is not None and not measured
        else KeptFigures(device=device, how=how, behind=measured, age_months=age_months)
    )
    return Item(
        code=code_of(device.id, how),
        name=f"{device.called}, {HOW_WORDS[how]}",
        maker="",
        scope=device.of.scope,
        price=Decimal(0),
        installation=_service(device, how),
        figures=figures,
        consumables=_parts(device),
        plumbed=False,
    )


def _service(device: InPlace, how: How) -> Decimal:
    """What is paid once [money]: the service's price, else the part that it changes."""
    if how == "keep":
        return Decimal(0)
    if how == "set_right":
        return device.service_price or Decimal(0)
    return device.service_price or device.part_price or Decimal(0)


def _parts(device: InPlace) -> tuple[Consumable, ...]:
    if device.part_price is None or (device.months is None and device.gallons is None):
        return ()
    return (
        Consumable(
            code=f"in-place:{device.id}:part",
            name=f"{device.called}: {device.of.part}",
            kind="filter",
            price=device.part_price,
            months=device.months,
            capacity_gal=device.gallons,
        ),
    )


def _due(inp: StageInput, f: KeptFigures) -> tuple[Due, ...]:
    """The part's changes, the first of them when the one that is in there is used up."""
    gallons = inp.site.gallons_year(inp.item.scope)
    if f.device.gal_day is not None:
        gallons = f.device.gal_day * inp.site.demand.occupied_days
    return tuple(
        Due(
            code=c.code,
            label=c.name,
            kind=c.kind,
            price=c.price,
            months=c.months,
            capacity_gal=c.capacity_gal,
            gallons_year=gallons,
            scope=inp.item.scope,
            minutes=c.minutes,
            flush_gal=c.flush_gal,
            used_months=0.0 if f.how != "keep" else f.age_months or 0.0,
        )
        for c in inp.item.consumables
    )


def _rent(device: InPlace) -> tuple[Running, ...]:
    if device.rent_month <= 0:
        return ()
    return (
        Running(
            label=f"Rent of {device.called}",
            kind="rent",
            per_year=12 * device.rent_month,
            why="as you pay it",
            scope=device.of.scope,
        ),
    )


def _out(name: str, inp: StageInput, value: Value, raw: Quantity | None) -> Quantity:
    """What was measured behind, as it is where the water that comes in is the raw one; else that
    share of it."""
    here = inp.stream.get(name)
    certified = _counts(name, value)
    r = value.range
    same = here is None or raw is None or here.range == raw.range
    if here and raw and raw.range and r and raw.range.overlaps(r):
        return replace(here, evidence=Level.MEASURED_HERE, note="no difference shown behind it")
    if not same and r is not None and here is not None and here.range and raw and raw.range:
        share = 1.0 if raw.range.best <= 0 else min(1.0, r.best / raw.range.best)
        r = here.range.scale(share)
    return Quantity(
        range=r,
        state="measured" if same else "predicted",
        evidence=Level.MEASURED_HERE,
        below=value.below if same else None,
        words=value.words,
        established=certified,
    )


def run(inp: StageInput) -> StageReport:
    """Equipment in place: what was measured behind it, and no claim for what was not."""
    f = inp.item.figures
    assert isinstance(f, KeptFigures)
    device, checks = f.device, place_checks(inp.item, inp.site)
    raw = inp.raw.quantities if inp.raw is not None else {}
    changes: dict[str, Quantity] = {
        name: _out(name, inp, v, raw.get(name))
        for name, v in f.behind
        if name in inp.stream.quantities
        and (name not in NOT_MATTER or name == "ph")
        and (v.range is not None or v.words)
    }
    for name in device.of.works_on:
        q = inp.stream.get(name)
        if name not in changes and q is not None:
            note = "not measured behind it" if f.how == "keep" else "to be measured afterward"
            changes[name] = Quantity(
                range=q.range,
                state=q.state,
                evidence=Level.NO_CLAIM,
                below=q.below,
                words=q.words,
                established=False,
                note=note,
            )
    if not f.behind and f.how == "keep" and device.of.works_on:
        checks.append(
            Check(
                id="in_place.glass",
                status="unknown",
                sentence=f"Nothing was measured after the {device.called}: no claim for it.",
                test=f"a glass behind the {device.called}, flushed",
            )
        )
    if f.how == "service":
        checks.append(Check(id="in_place.service", status="say", sentence=device.of.service))
    return report(
        inp,
        inp.stream.with_(changes),
        checks,
        due=_due(inp, f),
        running=_rent(device),
        summary=HOW_WORDS[f.how],
    )


#: equipment in place is walked like a technology; it is in no catalogue, and therefore not in the
#: registry of technologies
IN_PLACE = Technology(
    kind="in_place",
    name="Equipment in place",
    figures=KeptFigures,
    run=run,
    place=lambda item, beside, stream: _place(item, beside),
    needs=(),
    judges=judges_nothing,
    reads=frozenset(),
    asks=frozenset(),
    touches=frozenset(),
    changes=frozenset(),
    by_use=True,
    rinses=False,
    repeats=True,
    chlorine_max=None,
    fine_ahead=False,
    psi_min=0.0,
    sets_pressure="caps",
    size=None,
    style=(),
    does=NOTHING,
    service=Service(),
    caution="",
    drawing="sediment",
    settings=(),
    checks={},
)


#: ahead of an iron filter that wants more pH than the raw water has, as a new one stands
AHEAD_OF_IRON = 25


def _place(item: Item, beside: Company) -> int:
    f = item.figures
    assert isinstance(f, KeptFigures)
    if "raises pH" in f.device.of.does and beside.iron_wants_ph and item.scope == "house":
        return AHEAD_OF_IRON
    return f.device.of.place


def age_months(device: InPlace, on: date) -> float | None:
    """Since when the part in it works, on a day [months]; None where nobody knows."""
    since = device.fresh_since
    return None if since is None else max(0.0, (on - since).days / DAYS_PER_MONTH)


def kept_items(
    home: Home,
    samples: tuple[Sample, ...],
    waters: Mapping[str, Water],
    raw: Water,
    settings: Settings,
    on: date,
) -> dict[str, Item]:
    """Every way to go on with what stands in a home, by code: kept, serviced, set right."""
    out: dict[str, Item] = {}
    for device in home.in_place:
        glass = glass_behind(device.id, samples)
        behind = None if glass is None else waters[glass.id]
        fit = days_that_fit(device, raw, home, settings)
        for how in HOWS:
            item = item_of(device, how, behind, age_months(device, on), fit[1] if fit else None)
            out[item.code] = item
    return out


def _counts(name: str, value: Value) -> bool:
    """Whether a value measured behind equipment stands for what it does."""
    if value.range is None and not value.words:
        return False
    return ANALYTES[name].kind is not Kind.HEALTH or (value.laboratory and value.certified)


def water_behind_kept(
    raw: Water, kept: tuple[InPlace, ...], samples: tuple[Sample, ...], waters: Mapping[str, Water]
) -> Water:
    """The water as it reaches what would be bought: behind the equipment that is kept, for what it
    works on. Behind what stands at the drinking tap that is what is judged there alone; what is of
    health counts by a certified laboratory only.
    """
    values = dict(raw.values)
    for device in kept:
        glass = glass_behind(device.id, samples)
        if glass is None:
            continue
        for name, value in waters[glass.id].values.items():
            here = device.of.scope == "house" or judged_at(name) == "tap"
            if here and name in device.of.works_on and _counts(name, value):
                values[name] = value
    return Water(sample=raw.sample, values=values, cups=raw.cups, chloramine=raw.chloramine)


def technology_of(item: Item, registry: Mapping[str, Technology]) -> Technology:
    """The technology that an item is of, equipment in place among them."""
    return IN_PLACE if item.kind == IN_PLACE.kind else registry[item.kind]


__all__ = [
    "IN_PLACE",
    "KeptFigures",
    "KeptInPlace",
    "age_months",
    "code_of",
    "days_that_fit",
    "glass_behind",
    "kept_items",
    "load_gpg",
    "technology_of",
    "water_behind_kept",
]

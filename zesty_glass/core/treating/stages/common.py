"""What all stages share: the input, effects with their evidence, and what falls due."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import replace
from decimal import Decimal
from typing import Literal

from ...analytes import ANALYTES, Kind
from ...evidence import ESTABLISHES_HEALTH, Level
from ...ranges import Range, Verdict
from ...record import record
from ...working import working
from ..adjusting import Adjustable, number_of, set_to
from ..checks import told
from ..idle import as_idle, is_idle
from ..items import Consumable, Effect, Item, Need
from ..place import item_pressure
from ..report import Check, Chore, Drain, Due, Figure, Running, StageReport, Status
from ..site import Disinfected, Site
from ..stream import Quantity, Stream, predicted

WATER_PRICE = "the price of water and sewer"
NOT_PRICED = "not priced: ask for the water bill"
#: [money per 1,000 gal] what water and sewer count at in an order of lines while nobody knows their
#: price: the dear half of US utilities, AWWA rate survey (2023)
COUNTED_WATER = Decimal("20")
#: [money/year] what a stage counts at in an order of lines while its running cost is not known:
#: dearer than any that is known (2026)
COUNTED_UNKNOWN = Decimal("1500")
TO_THE_DRAIN = "Water to the drain"  # what is paid for water that a stage sends away


@record
class StageInput:
    """A stage and what reaches it: item, water, place, the option's own settings, and the items
    ahead.

    ``brief``: figures and their workings are not wanted, only checks, water, drains, costs and
    chores. ``raw``: the water as it enters the line. ``ahead``: what stands ahead and works;
    ``disinfected``: whether something ahead disinfects, or may once its open tests are made.
    ``searching``: of a stage that a check stops nothing more is wanted.
    """

    item: Item
    stream: Stream
    site: Site
    overrides: dict[str, float | str]
    ahead: tuple[Item, ...] = ()
    brief: bool = False
    raw: Stream | None = None
    disinfected: Disinfected = Disinfected.NO
    searching: bool = False

    def setting(self, name: str, default: float) -> float:
        """A numeric setting of the option, or the item's own figure.

        Raises:
            RuleError: ``stage.setting``, for what is no number.
        """
        return number_of(self.overrides, name, default)

    def adjusted(self, setting: Adjustable, default: float) -> float:
        """A setting of the option within its bounds, or the item's own figure.

        Raises:
            RuleError: ``stage.setting``, for what is no number or outside its bounds.
        """
        return set_to(setting, self.overrides, default)


TANNIN_BINDS_IRON = 0.5  # [mg/L] from which tannin binds iron: trade practice (2024)


def tannin_binds_iron(stream: Stream) -> Verdict:
    """Whether tannin reaches what binds iron: MET it does, NOT_MET it does not, UNCERTAIN where its
    range lies astride, UNKNOWN where it was not tested.
    """
    tannin = stream.range("tannin")
    if tannin is None:
        return Verdict.UNKNOWN
    return tannin.at_least(TANNIN_BINDS_IRON)


def windowed(effect: Effect) -> bool:
    """Whether a claim holds inside a pH window only."""
    return effect.ph_min is not None or effect.ph_max is not None


def claimed(effect: Effect, ph: Range | None) -> Level:
    """The level a claim has at a pH: outside its window it counts as no claim."""
    if not windowed(effect):
        return effect.evidence.level
    if ph is None or ph.high is None:
        return Level.NO_CLAIM
    if (effect.ph_min is not None and ph.low < effect.ph_min) or (
        effect.ph_max is not None and ph.high > effect.ph_max
    ):
        return Level.NO_CLAIM
    return effect.evidence.level


#: [mg/L] arsenic from which its form matters: half of the limit, US EPA (2001)
ARSENIC_MATTERS = 0.005


#: the verdict on which decides whether the form is asked
ARSENIC_LITTLE = Need(analyte="arsenic", limit=math.nextafter(ARSENIC_MATTERS, 0.0))


def form_matters(effect: Effect, q: Quantity | None) -> bool:
    """Whether a claim hangs on the form of the arsenic, and there is enough of it to ask."""
    enough = q is not None and q.range is not None and q.range.top >= ARSENIC_MATTERS
    return effect.analyte == "arsenic" and not effect.any_form and enough


def after(
    effect: Effect, q: Quantity | None, level: Level, as5: bool | None = True
) -> Quantity | None:
    """One analyte behind a stage that makes a claim for it; None when it was never tested ahead.

    Args:
        as5: whether arsenic is all As(V); None: not known, and nothing is established then.
    """
    if q is None:
        return None
    health = ANALYTES[effect.analyte].kind is Kind.HEALTH
    by_form = form_matters(effect, q)
    if by_form and as5 is False and effect.high > 0:
        level = Level.NO_CLAIM
    established = q.established and (not health or level in ESTABLISHES_HEALTH)
    established &= not by_form or as5 is True
    if level in (Level.NO_CLAIM, Level.DOES_NOT_REMOVE):
        return Quantity(
            range=q.range,
            state="predicted" if q.range else q.state,
            evidence=level,
            below=q.below,
            words=q.words,
            established=q.established,
        )
    if q.range is None:
        return Quantity(
            range=None,
            state="unknown",
            evidence=level,
            words=q.words,
            established=established,
            note=q.note,
        )
    r = q.range.removed(effect.low, effect.best, effect.high)
    if effect.out_at_most is not None:
        cap = effect.out_at_most
        high = cap if r.high is None else min(r.high, cap)
        r = Range.of(min(r.low, high), min(max(r.best, min(r.low, high)), high), high)
        if effect.high == 0:
            low = min(0.0, r.low)
            r = Range.of(
                low,
                min(q.range.best, cap / 2),
                min(cap, q.range.high) if q.range.high is not None else cap,
            )
    return predicted(r, level, established)


def certified_on(item: Item, stream: Stream) -> frozenset[str]:
    """Analytes for which an item's certificate holds on a water: inside its claim's window."""
    ph = stream.range("ph")
    return frozenset(e.analyte for e in item.effects if claimed(e, ph) is Level.CERTIFIED)


CHLORINES = frozenset({"chlorine_free", "chlorine_combined", "chlorine_total"})


def total_chlorine(stream: Stream, changes: dict[str, Quantity]) -> dict[str, Quantity]:
    """Total chlorine behind a stage that changes a part of it: what is left of free and combined.

    Source: by definition, Standard Methods 4500-Cl (2017).
    """
    if not changes.keys() & {"chlorine_free", "chlorine_combined"}:
        return {}
    parts = [changes.get(n) or stream.get(n) for n in ("chlorine_free", "chlorine_combined")]
    free, combined = (None if q is None else q.range for q in parts)
    if free is None or combined is None or "chlorine_total" not in stream.quantities:
        return {}
    return {"chlorine_total": predicted(free.plus(combined), Level.TYPICAL)}


def _form_check(as5: bool | None) -> Check:
    """What is said of a claim on arsenic while its form is open, or is the wrong one."""
    if as5 is False:
        return told("arsenic.form", "warn")
    return told("arsenic.species", "unknown", test="laboratory: arsenic species")


def effects(item: Item, stream: Stream) -> tuple[dict[str, Quantity], list[Check]]:
    """All claims of an item on this water, and the health claims that are not established."""
    changes: dict[str, Quantity] = {}
    checks: list[Check] = []
    weak: list[str] = []
    for e in item.effects:
        level = claimed(e, stream.range("ph") if windowed(e) else None)
        before = stream.get(e.analyte)
        q = after(e, before, level, stream.arsenic_as5)
        if q is None:
            continue
        if e.high > 0 and stream.arsenic_as5 is not True and form_matters(e, before):
            checks.append(_form_check(stream.arsenic_as5))
        changes[e.analyte] = q
        if ANALYTES[e.analyte].kind is Kind.HEALTH and level not in (
            *ESTABLISHES_HEALTH,
            Level.NO_CLAIM,
            Level.DOES_NOT_REMOVE,
        ):
            weak.append(ANALYTES[e.analyte].said)
    changes |= total_chlorine(stream, changes)
    if weak:
        checks.append(told("evidence.health", "warn", what=", ".join(weak)))
    return changes, checks


def dues(
    item: Item,
    site: Site,
    life_factor: float = 1.0,
    why: str = "",
    kinds: tuple[str, ...] | None = None,
) -> tuple[Due, ...]:
    """What the item's consumables become at this home; ``life_factor`` applies to ``kinds`` (all
    when None).
    """
    gallons = site.gallons_year(item.scope)
    return tuple(
        _due(
            _here(c, site),
            gallons,
            item,
            life_factor if kinds is None or c.kind in kinds else 1.0,
            why,
        )
        for c in item.consumables
    )


def _here(c: Consumable, site: Site) -> Consumable:
    """A part with the interval that its maker gives for this kind of supply."""
    own = c.months_private if site.home.private else None
    return c if own is None else replace(c, months=own)


def _due(c: Consumable, gallons: float, item: Item, factor: float, why: str) -> Due:
    return Due(
        code=c.code,
        label=c.name,
        kind=c.kind,
        price=c.price,
        months=c.months,
        capacity_gal=c.capacity_gal,
        gallons_year=gallons,
        life_factor=factor,
        why=why if factor != 1.0 else "",
        scope=item.scope,
        minutes=c.minutes,
        own=c.own,
        common=c.common,
        flush_gal=c.flush_gal,
    )


def lasts_days(inp: StageInput) -> tuple[Figure, ...]:
    "Days that one cartridge lasts at this home's use [days]; empty where no capacity is stated."
    c = next((c for c in inp.item.consumables if c.capacity_gal), None)
    if c is None or c.capacity_gal is None:
        return ()
    use = inp.site.gallons_year(inp.item.scope) / max(inp.site.demand.occupied_days, 1)
    if use <= 0:
        return ()
    days = c.capacity_gal / use
    return (
        Figure(
            id="days",
            label="one cartridge lasts",
            value=f"{days:.0f}",
            unit="days",
            number=days,
            working=working(
                f"Why {days:.0f} days?",
                "capacity ÷ gallons a day",
                "the item’s own capacity",
                ("capacity", f"{c.capacity_gal:g}", "gal"),
                ("use when at home", f"{use:.1f}", "gal/day"),
                ("lasts", f"{days:.0f}", "days", True),
            ),
        ),
    )


WEEKEND_DAYS = 2
SEASONAL_DAYS = 200.0  # a home lived in on fewer days a year is used by weekends and holidays


def weekend_checks(inp: StageInput) -> list[Check]:
    """What one full weekend of a seasonal home makes of a cartridge that counts gallons."""
    site = inp.site
    c = next((c for c in inp.item.consumables if c.capacity_gal), None)
    use = site.gallons_year(inp.item.scope) / max(site.demand.occupied_days, 1)
    if c is None or c.capacity_gal is None or site.demand.occupied_days >= SEASONAL_DAYS or not use:
        return []
    weekend, days = use * WEEKEND_DAYS, c.capacity_gal / use
    lasts = f"{days:.1f} days" if days >= 1 else f"{days * 24:.0f} hours"
    said = {"people": f"{site.home.people:g}", "use": f"{weekend:,.0f}", "lasts": lasts}
    status: Status = "warn" if days < WEEKEND_DAYS else "say"
    return [told("use.weekend", status, have=f"{c.capacity_gal:,.0f}", **said)]


def standing_costs(item: Item, site: Site) -> tuple[Running, ...]:
    """Electricity and yearly service of an item."""
    out = []
    if item.kwh_year > 0:
        out.append(electricity(item.kwh_year, f"{item.kwh_year:g} kWh a year", site, item.scope))
    if item.service_year > 0:
        out.append(
            Running(
                label="Service visit",
                kind="service",
                per_year=item.service_year,
                why="yearly",
                scope=item.scope,
            )
        )
    return tuple(out)


def electricity(kwh_year: float, why: str, site: Site, scope: Literal["house", "tap"]) -> Running:
    """Electricity a year at the firm's price of a kilowatt hour [kWh/year]."""
    return Running(
        label="Electricity",
        kind="power",
        per_year=money(kwh_year) * site.settings.electricity,
        why=why,
        scope=scope,
    )


def money(amount: float) -> Decimal:
    """A quantity as a decimal, six digits after the point, so that money is never a float.

    >>> money(1.5)
    Decimal('1.500000')
    """
    return Decimal(f"{amount:.6f}")


def water_cost(
    gal_year: float, site: Site, scope: Literal["house", "tap"], label: str = TO_THE_DRAIN
) -> Running | None:
    """Water and sewer for water sent to the drain; sewer is 0 on septic, and an unknown price is
    not priced.
    """
    price = site.home.drain_price
    if price == 0 or gal_year <= 0:
        return None
    if price is None:
        return Running(
            label=label,
            kind="water",
            per_year=Decimal(0),
            why=NOT_PRICED,
            scope=scope,
            missing=WATER_PRICE,
            counted=money(gal_year) / 1000 * COUNTED_WATER,
        )
    return Running(
        label=label,
        kind="water",
        per_year=money(gal_year) / 1000 * price,
        why=f"{gal_year:,.0f} gal at {price} a 1,000 gal",
        scope=scope,
    )


def not_known(name: str, inp: StageInput, analyte: str) -> str:
    """How it comes that nobody knows a value where a stage stands: never tested, or tested ahead of
    a stage that leaves it open."""
    measured = inp.raw is not None and inp.raw.range(analyte) is not None
    return f"{name} not known behind the stage ahead" if measured else f"{name} not tested"


def not_priced(item: Item, what: str, missing: str) -> Running:
    """What a stage costs while something has to be known first, or while it cannot run: in no
    total, and dear wherever lines are ordered.

    Args:
        what: of its costs, e.g. "salt and water". missing: what would price it.
    """
    return Running(
        label=f"{item.name}: {what}",
        kind="unknown",
        per_year=Decimal(0),
        why=f"not priced: {missing}",
        scope=item.scope,
        missing=missing,
        counted=COUNTED_UNKNOWN,
    )


def _least_pressure(inp: StageInput, checks: list[Check]) -> list[Check]:
    """The least pressure that an item states, where its technology has not held it up already."""
    if any(c.id == "pressure.least" for c in checks):
        return []
    psi = inp.stream.psi
    return item_pressure(inp.item, inp.site, None if psi is None else psi.low)


def report(
    inp: StageInput,
    outlet: Stream,
    checks: list[Check],
    *,
    figures: Callable[[], tuple[Figure, ...]] = tuple,
    settings: tuple[tuple[str, str], ...] = (),
    drains: tuple[Drain, ...] = (),
    due: tuple[Due, ...] | None = None,
    running: tuple[Running, ...] = (),
    chores: tuple[Chore, ...] = (),
    drop: float | None = 0.0,
    summary: str = "",
    decides: frozenset[str] = frozenset(),
    drain_unknown: bool = False,
) -> StageReport:
    """A stage's report with its standing costs added; ``figures`` are worked out only when they are
    wanted. What cannot work does nothing.

    Args:
        decides: checks that, while they are open, leave nothing to be promised of it.
    """
    checks = [*checks, *_least_pressure(inp, checks)]
    item, stands_idle = inp.item, is_idle(checks, decides)
    held: tuple[str, ...] = ()
    if stands_idle:
        outlet, held = as_idle(inp.stream, outlet)
    if any(c.status == "stop" for c in checks):
        running = (*running, not_priced(item, "running it", f"{item.name} cannot run as it stands"))
    return StageReport(
        code=item.code,
        name=item.name,
        kind=item.kind,
        scope=item.scope,
        outlet=outlet,
        checks=tuple(checks),
        figures=() if inp.brief else figures(),
        settings=settings,
        drains=drains,
        dues=dues(item, inp.site) if due is None else due,
        running=running + standing_costs(item, inp.site),
        chores=chores,
        drop_psi=drop,
        summary=summary,
        idle=stands_idle,
        held_back=held,
        drain_unknown=drain_unknown,
    )


__all__ = [
    "TO_THE_DRAIN",
    "StageInput",
    "after",
    "claimed",
    "dues",
    "effects",
    "electricity",
    "money",
    "report",
    "standing_costs",
    "water_cost",
    "windowed",
    "working",
]

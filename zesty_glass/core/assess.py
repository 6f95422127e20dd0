"""From a visit document to everything that can be worked out of it. Pure: the same visit gives the same answer."""

from __future__ import annotations

from decimal import Decimal

from .costing.chores import Chores, chores
from .costing.money import Lifetime, lifetime, stays_cheaper_from
from .costing.waste import Waste, waste
from .demonstrating.records import Tasting
from .demonstrating.shown import Around, Shown, show
from .errors import RuleError
from .home import Home
from .proposing.compare import Row, not_addressed, rows
from .proposing.reasons import Reasons, needs_nothing, reasons
from .record import record
from .testing.complaints import Complaint
from .testing.crosschecks import CrossCheck, crosschecks
from .testing.findings import Meaning, meaning
from .testing.noticing import noticed
from .testing.reading import Value, work_out
from .testing.water import Sample, Water, design_water, water_of
from .testing.workings import working_of
from .treating.demand import Demand, demand
from .treating.items import Item
from .treating.line import LineReport, Option, walk
from .treating.measured import Measured, measured_here
from .treating.report import Running
from .visit import Visit
from .working import Working

TODAY = Option(id="today", name="Today")
LOW_USE, HIGH_USE = 50 / 60, 75 / 60


@record
class ReadingReport:
    """A reading with its value and its working."""

    id: str
    analyte: str
    struck: bool
    value: Value
    working: Working


@record
class SampleReport:
    """A sample: its readings worked out and the water they show."""

    id: str
    name: str
    water: Water
    readings: tuple[ReadingReport, ...]


@record
class Assumption:
    """Something counted that was not measured; listed, and can be switched off."""

    id: str
    sentence: str
    per_year: Decimal
    on: bool
    options: tuple[str, ...]


@record
class Band:
    """Lifetime cost at low and high use."""

    low: Decimal
    high: Decimal


@record
class OptionReport:
    """One option worked out: line, waste, cost over the horizon, chores, reasons."""

    id: str
    name: str
    line: LineReport | None
    error: str
    waste: Waste | None
    cost: Lifetime | None
    use_band: Band | None
    chores: Chores | None
    left: tuple[str, ...]
    reasons: Reasons | None
    cheaper_than: tuple[tuple[str, int], ...] = ()


@record
class Assessment:
    """All of a visit, worked out. ``noticed``: what eyes and nose found beside the complaints."""

    samples: tuple[SampleReport, ...]
    raw: Water | None
    meaning: Meaning | None
    crosschecks: tuple[CrossCheck, ...]
    demand: Demand
    options: tuple[OptionReport, ...]
    rows: tuple[Row, ...]
    assumptions: tuple[Assumption, ...]
    nothing_needed: bool
    horizon: int
    noticed: tuple[Complaint, ...] = ()
    demonstrations: tuple[Shown, ...] = ()


def sample_report(sample: Sample) -> SampleReport:
    """All readings of a sample, each with its value."""
    worked = {r.id: work_out(r) for r in sample.readings}
    out = tuple(ReadingReport(id=r.id, analyte=r.analyte, struck=r.struck_at is not None, value=worked[r.id], working=working_of(r, worked[r.id])) for r in sample.readings)
    return SampleReport(id=sample.id, name=sample.name, water=water_of(sample, worked), readings=out)


def assumptions(visit: Visit, catalogue: dict[str, Item]) -> tuple[Assumption, ...]:
    """Every assumption of this visit's costs; none is silent."""
    home = visit.home
    if home.bottled_month <= 0:
        return ()
    with_tap = tuple(o.id for o in visit.options if any(c.item in catalogue and catalogue[c.item].scope == "tap" for c in o.stages))
    off = visit.assumptions_off
    yearly = home.bottled_month * 12
    s = visit.settings.currency
    return (
        Assumption(id="bottled.today", sentence=f"Today {s}{home.bottled_month:,.2f} a month is spent on bottled water.", per_year=yearly, on="bottled.today" not in off, options=("today",)),
        Assumption(id="bottled.ends", sentence="A drinking-tap unit ends the bottled water.", per_year=yearly, on="bottled.ends" not in off, options=with_tap),
    )


def _bottled(option: str, listed: tuple[Assumption, ...]) -> tuple[Running, ...]:
    today = next((a for a in listed if a.id == "bottled.today"), None)
    if today is None or not today.on:
        return ()
    ends = next((a for a in listed if a.id == "bottled.ends"), None)
    if ends is not None and option in ends.options and ends.on:
        return ()
    return (Running(label="Bottled water", kind="bottled", per_year=today.per_year, why="as the household says", scope="tap"),)


def _cost(line: LineReport, visit: Visit, listed: tuple[Assumption, ...], years: int, with_curve: bool = True) -> Lifetime:
    s = visit.settings
    dues = [d for st in line.stages for d in st.dues]
    running = [r for st in line.stages for r in st.running] + list(_bottled(line.option, listed))
    return lifetime(line.purchases, dues, running, years, s.price_growth, s.discount, line.demand.house_gal_year, line.demand.drinking_gal_year, with_curve)


def assess(visit: Visit, years: int | None = None, use_bands: bool = False, earlier: dict[str, Value] | None = None) -> Assessment:
    """Everything that can be worked out of a visit.

    Args:
        years: horizon of the costs [years]; the visit's own when None.
        use_bands: also cost every option at low and high use.
        earlier: this home's raw values of an earlier visit, by analyte, to hold today's against.
    """
    horizon = years or visit.horizon
    units = visit.settings.units
    reports = tuple(sample_report(s) for s in visit.samples)
    waters = {r.id: r.water for r in reports}
    raw = design_water(visit.samples, waters)
    checks = crosschecks(visit.samples, visit.home, earlier, waters)
    seen = noticed(visit.samples, visit.complaints)
    base = demand(visit.home, visit.settings)
    if raw is None:
        return Assessment(samples=reports, raw=None, meaning=None, crosschecks=checks, demand=base, options=(), rows=(), assumptions=(), nothing_needed=False, horizon=horizon, noticed=seen, demonstrations=_demonstrations(visit, waters, ()))
    found = meaning(raw, visit.home, (*visit.complaints, *seen), visit.rules, units, visit.settings.heater_c)
    catalogue = {i.code: i for i in visit.catalogue}
    listed = assumptions(visit, catalogue)
    measured = measured_here(visit.samples, waters)
    lines: list[tuple[Option, LineReport | None, str]] = []
    for option in (TODAY, *visit.options):
        try:
            lines.append((option, walk(option, catalogue, raw, found.colour, visit.home, visit.settings, measured=measured), ""))
        except RuleError as e:
            lines.append((option, None, str(e)))
    good = tuple(line for _, line, _ in lines if line is not None)
    table = rows(good, found, visit.complaints, visit.rules, units)
    options = _options(lines, visit, found, table, listed, horizon, raw, catalogue, use_bands, measured)
    return Assessment(
        samples=reports, raw=raw, meaning=found, crosschecks=checks, demand=base, options=options, rows=table, assumptions=listed,
        nothing_needed=needs_nothing(found), horizon=horizon, noticed=seen, demonstrations=_demonstrations(visit, waters, good),
    )


def _demonstrations(visit: Visit, waters: dict[str, Water], lines: tuple[LineReport, ...]) -> tuple[Shown, ...]:
    if not visit.demonstrations:
        return ()
    tasted = {w.sample for d in visit.demonstrations if isinstance(d.body, Tasting) for w in d.body.waters}
    meanings = {s.id: meaning(waters[s.id], visit.home, (), visit.rules) for s in visit.samples if s.id in tasted}
    at = Around(samples={s.id: s for s in visit.samples}, waters=waters, lines={x.option: x for x in lines}, home=visit.home, settings=visit.settings, meanings=meanings)
    return tuple(show(d, at) for d in visit.demonstrations)


def _options(lines: list[tuple[Option, LineReport | None, str]], visit: Visit, found: Meaning, table: tuple[Row, ...], listed: tuple[Assumption, ...], years: int, raw: Water, catalogue: dict[str, Item], use_bands: bool, measured: Measured) -> tuple[OptionReport, ...]:
    out: list[OptionReport] = []
    for option, line, error in lines:
        if line is None:
            out.append(OptionReport(id=option.id, name=option.name, line=None, error=error, waste=None, cost=None, use_band=None, chores=None, left=(), reasons=None))
            continue
        cost, drained, work = _cost(line, visit, listed, years), waste(line), chores(line)
        left = not_addressed(line, found, table)
        band = None
        if use_bands and line.stages:
            ends = []
            for factor in (LOW_USE, HIGH_USE):
                other = walk(option, catalogue, raw, found.colour, visit.home, visit.settings, factor, measured)
                ends.append(_cost(other, visit, listed, years, with_curve=False).total)
            band = Band(low=min(*ends, cost.total), high=max(*ends, cost.total))
        out.append(OptionReport(id=option.id, name=option.name, line=line, error="", waste=drained, cost=cost, use_band=band, chores=work, left=left, reasons=reasons(line, cost, drained, work, table, left, found, visit.settings)))
    return tuple(_crossings(o, out) for o in out)


def _crossings(o: OptionReport, all_: list[OptionReport]) -> OptionReport:
    found = []
    for other in all_:
        if other is o or o.cost is None or other.cost is None:
            continue
        m = stays_cheaper_from(o.cost, other.cost)
        if m is not None:
            found.append((other.id, m))
    return OptionReport(
        id=o.id, name=o.name, line=o.line, error=o.error, waste=o.waste, cost=o.cost, use_band=o.use_band, chores=o.chores, left=o.left, reasons=o.reasons, cheaper_than=tuple(found),
    )


__all__ = ["TODAY", "Assessment", "Home", "assess"]

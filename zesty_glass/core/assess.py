"""From a visit document to everything that can be worked out of it. Pure: the same visit gives the
same answer.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from decimal import Decimal

from .costing.chores import Chores, chores
from .costing.money import Lifetime, keeps_up, lifetime, lifetime_total, stays_cheaper_from
from .costing.waste import Waste, waste
from .demonstrating.lather import counted, household_share, ratio
from .demonstrating.records import Lather, Tasting
from .demonstrating.shown import Around, show
from .demonstrating.shown_records import Shown
from .errors import RuleError
from .home import Home
from .proposing.reasons import Reasons, needs_nothing, reasons, still_to_test
from .proposing.rows import TODAY, Row, not_addressed, rows
from .record import record
from .testing.colour import ColourFinding
from .testing.complaints import Complaint
from .testing.crosschecks import CrossCheck, crosschecks
from .testing.findings import Meaning, meaning
from .testing.noticing import noticed
from .testing.reading import work_out
from .testing.value import Value
from .testing.water import Sample, Water, design_water, water_of
from .testing.workings import working_of
from .treating.demand import Demand, demand
from .treating.in_place import Judged, judge_all
from .treating.kept import KeptInPlace
from .treating.line import LineReport, Option, at_other_use, placed, run_stages, site_of
from .treating.measured import Measured, measured_here
from .treating.report import Due, Running
from .treating.stream import source_stream
from .visit import Visit, kept_of
from .working import Working

LOW_USE, HIGH_USE = 50 / 60, 75 / 60


def today_of(home: Home) -> Option:
    """Today as a line: what stands in a home, kept as it is."""
    return Option(
        id=TODAY, name="Today", keeps=tuple(KeptInPlace(device=d.id) for d in home.in_place)
    )


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
class CostBand:
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
    use_band: CostBand | None
    chores: Chores | None
    left: tuple[str, ...]
    reasons: Reasons | None
    cheaper_than: tuple[tuple[str, int], ...] = ()


@record
class Assessment:
    """All of a visit, worked out. ``noticed``: what eyes and nose found beside the complaints;
    ``in_place``: what stands there already, judged.
    """

    samples: tuple[SampleReport, ...]
    raw: Water | None
    meaning: Meaning | None
    crosschecks: tuple[CrossCheck, ...]
    demand: Demand
    options: tuple[OptionReport, ...]
    rows: tuple[Row, ...]
    assumptions: tuple[Assumption, ...]
    nothing_needed: bool
    still_to_test: str
    horizon: int
    noticed: tuple[Complaint, ...] = ()
    demonstrations: tuple[Shown, ...] = ()
    in_place: tuple[Judged, ...] = ()


def sample_report(sample: Sample) -> SampleReport:
    """All readings of a sample, each with its value."""
    worked = {r.id: work_out(r) for r in sample.readings}
    out = tuple(
        ReadingReport(
            id=r.id,
            analyte=r.analyte,
            struck=r.struck_at is not None,
            value=worked[r.id],
            working=working_of(r, worked[r.id]),
        )
        for r in sample.readings
    )
    return SampleReport(
        id=sample.id, name=sample.name, water=water_of(sample, worked), readings=out
    )


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

    def holding(kind: str, value: str) -> tuple[str, ...]:
        return tuple(
            o.id
            for o in visit.options
            if any(
                c.item in catalogue and getattr(catalogue[c.item], kind) == value for c in o.stages
            )
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
            holding("scope", "tap"),
        )
    if home.soap_month > 0:
        share = _soap_share(visit)
        add(
            "soap.today",
            f"Today {s}{home.soap_month:,.2f} a month is spent on soap and detergent.",
            home.soap_month * 12,
            (TODAY,),
        )
        add(
            "soap.less",
            f"A softened house uses {100 * share:.0f} % less soap: our own cautious estimate, never"
            " more than a lather test here has shown.",
            home.soap_month * 12 * Decimal(repr(round(share, 4))),
            holding("kind", "softener"),
        )
    return tuple(out)


def _soap_share(visit: Visit) -> float:
    """The firm's estimate of soap saved [share], held to what a lather test of this
    visit showed.
    """
    share = visit.settings.soap_share
    for d in visit.demonstrations:
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
                        "as the household says"
                        if left == spent.per_year
                        else "as the household says, less the firm’s estimate"
                    ),
                    scope="tap" if kind == "bottled" else "house",
                )
            )
    return tuple(out)


def _spent(line: LineReport, listed: tuple[Assumption, ...]) -> tuple[list[Due], list[Running]]:
    """What falls due and what runs, under an option."""
    return [d for st in line.stages for d in st.dues], [
        r for st in line.stages for r in st.running
    ] + list(_habits(line.option, listed))


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


@record
class _Worked:
    """What does not depend on the horizon: each option's line, and the same at low and high use."""

    visit: Visit
    found: Meaning
    table: tuple[Row, ...]
    listed: tuple[Assumption, ...]
    lines: tuple[tuple[Option, LineReport | None, str], ...]
    ends: dict[str, tuple[LineReport, ...]]


def assess(
    visit: Visit,
    years: int | None = None,
    use_bands: bool = False,
    earlier: dict[str, Value] | None = None,
) -> Assessment:
    """Everything that can be worked out of a visit.

    Args:
        years: horizon of the costs [years]; the visit's own when None.
        use_bands: also cost every option at low and high use.
        earlier: this home's raw values of an earlier visit, by analyte, to hold today's against.
    """
    return assess_over(visit, (years or visit.horizon,), use_bands, earlier)[0]


def assess_over(
    visit: Visit,
    horizons: tuple[int, ...],
    use_bands: bool = False,
    earlier: dict[str, Value] | None = None,
    use: float = 1.0,
) -> tuple[Assessment, ...]:
    """The same over several horizons [years]; lines are walked once, only costs and what follows
    from them differ. ``use``: times the expected use of water.
    """
    units = visit.settings.units
    reports = tuple(sample_report(s) for s in visit.samples)
    waters = {r.id: r.water for r in reports}
    raw = design_water(visit.samples, waters)
    checks = crosschecks(visit.samples, visit.home, earlier, waters)
    seen = noticed(visit.samples, visit.complaints)
    base = demand(visit.home, visit.settings)
    if raw is None:
        shown = _demonstrations(visit, waters, ())
        return tuple(
            Assessment(
                samples=reports,
                raw=None,
                meaning=None,
                crosschecks=checks,
                demand=base,
                options=(),
                rows=(),
                assumptions=(),
                nothing_needed=False,
                still_to_test="",
                horizon=y,
                noticed=seen,
                demonstrations=shown,
            )
            for y in horizons
        )
    found = meaning(
        raw,
        visit.home,
        (*visit.complaints, *seen),
        visit.rules,
        units,
        visit.settings.heater_c,
        iron_factor=visit.settings.iron_factor,
    )
    listed = assumptions(visit)
    measured = measured_here(visit.samples, waters)
    lines, ends = walked(visit, raw, waters, found.colour, measured, use_bands, use)
    judged = judge_all(
        visit.home, visit.settings, visit.samples, waters, raw, visit.started_at.date()
    )
    good = tuple(line for _, line, _ in lines if line is not None)
    table = rows(good, found, visit.complaints, visit.rules, units, visit.home.wishes)
    worked = _Worked(visit=visit, found=found, table=table, listed=listed, lines=lines, ends=ends)
    shown = _demonstrations(visit, waters, good)
    return tuple(
        Assessment(
            samples=reports,
            raw=raw,
            meaning=found,
            crosschecks=checks,
            demand=base,
            options=_options(worked, y),
            rows=table,
            assumptions=listed,
            nothing_needed=needs_nothing(found),
            still_to_test=still_to_test(found),
            horizon=y,
            noticed=seen,
            demonstrations=shown,
            in_place=judged,
        )
        for y in horizons
    )


def walked(
    visit: Visit,
    raw: Water,
    waters: Mapping[str, Water],
    colour: ColourFinding | None,
    measured: Measured,
    use_bands: bool,
    use: float,
    brief: bool = False,
) -> tuple[tuple[tuple[Option, LineReport | None, str], ...], dict[str, tuple[LineReport, ...]]]:
    """Today and every option as lines; with bands also at low and high use, without figures and
    sentences. ``brief``: all without figures.
    """
    catalogue = {i.code: i for i in visit.catalogue} | kept_of(visit, raw, waters)
    site = site_of(visit.home, visit.settings, raw, use)
    edges = (
        tuple(
            replace(site_of(visit.home, visit.settings, raw, f), mute=True)
            for f in (LOW_USE, HIGH_USE)
        )
        if use_bands
        else ()
    )
    source = source_stream(raw, colour, site.running_psi)
    lines: list[tuple[Option, LineReport | None, str]] = []
    ends: dict[str, tuple[LineReport, ...]] = {}
    for option in (today_of(visit.home), *visit.options):
        try:
            stages = placed(option, catalogue, source)
            line = run_stages(stages, source, site, measured, brief)
            keeps_up(d for s in line.stages for d in s.dues)
        except RuleError as e:
            lines.append((option, None, str(e)))
            continue
        lines.append((option, line, ""))
        if edges and line.stages:
            ends[option.id] = tuple(at_other_use(line, stages, edge, measured) for edge in edges)
    return tuple(lines), ends


def _demonstrations(
    visit: Visit, waters: dict[str, Water], lines: tuple[LineReport, ...]
) -> tuple[Shown, ...]:
    if not visit.demonstrations:
        return ()
    tasted = {
        w.sample for d in visit.demonstrations if isinstance(d.body, Tasting) for w in d.body.waters
    }
    meanings = {
        s.id: meaning(waters[s.id], visit.home, (), visit.rules)
        for s in visit.samples
        if s.id in tasted
    }
    at = Around(
        samples={s.id: s for s in visit.samples},
        waters=waters,
        lines={x.option: x for x in lines},
        home=visit.home,
        settings=visit.settings,
        meanings=meanings,
    )
    return tuple(show(d, at) for d in visit.demonstrations)


def _options(w: _Worked, years: int) -> tuple[OptionReport, ...]:
    out: list[OptionReport] = []
    for option, line, error in w.lines:
        if line is None:
            out.append(
                OptionReport(
                    id=option.id,
                    name=option.name,
                    line=None,
                    error=error,
                    waste=None,
                    cost=None,
                    use_band=None,
                    chores=None,
                    left=(),
                    reasons=None,
                )
            )
            continue
        cost, drained, work = cost_of(line, w.visit, w.listed, years), waste(line), chores(line)
        left = not_addressed(line, w.found, w.table)
        band = band_of(cost, w.ends.get(option.id, ()), w.visit, w.listed)
        why = reasons(line, cost, drained, work, w.table, left, w.found, w.visit.settings)
        out.append(
            OptionReport(
                id=option.id,
                name=option.name,
                line=line,
                error="",
                waste=drained,
                cost=cost,
                use_band=band,
                chores=work,
                left=left,
                reasons=why,
            )
        )
    costs = {o.id: o.cost for o in out if o.cost is not None}
    return tuple(replace(o, cheaper_than=crossings(o.id, costs)) for o in out)


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


__all__ = [
    "TODAY",
    "Assessment",
    "Home",
    "assess",
    "assess_over",
    "assumptions",
    "band_of",
    "cost_of",
    "crossings",
    "walked",
]

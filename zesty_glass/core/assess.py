"""From a visit document to everything that can be worked out of it. Pure: the same visit gives the
same answer.
"""

from __future__ import annotations

from dataclasses import replace

from .costing.chores import Chores, chores
from .costing.money import Lifetime
from .costing.waste import Waste, waste
from .demonstrating.around import Around
from .demonstrating.demonstrations import Tasting
from .demonstrating.ready import Ready, in_order
from .demonstrating.shown import show
from .demonstrating.shown_records import Shown
from .home import Home
from .proposing.reasons import Reasons, needs_nothing, reasons, still_to_test
from .proposing.rows import TODAY, Row
from .record import record
from .spending import Assumption, CostBand, band_of, cost_of, crossings
from .testing.complaints import Complaint
from .testing.crosschecks import CrossCheck, crosschecks
from .testing.findings import Meaning, meaning
from .testing.reading import work_out
from .testing.value import Value
from .testing.water import Sample, Water, water_of
from .testing.workings import working_of
from .treating.demand import Demand, demand
from .treating.glasses import GlassMeaning
from .treating.in_place import Judged
from .treating.line import LineReport
from .visit import Visit
from .worked import Drawn, Way, Worked, drawn, worked
from .working import Working


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
    ``in_place``: what stands there already, judged; ``glasses``: every glass beside the raw one;
    ``ready``: demonstrations in the order that this water calls for.
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
    ready: tuple[Ready, ...] = ()
    in_place: tuple[Judged, ...] = ()
    glasses: tuple[GlassMeaning, ...] = ()


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
    reports = tuple(sample_report(s) for s in visit.samples)
    at = drawn(visit, {r.id: r.water for r in reports})
    checks = crosschecks(visit.samples, visit.home, earlier, at.waters)
    if at.raw is None:
        return tuple(_untested(at, reports, checks, y) for y in horizons)
    w = worked(at, at.raw, use_bands, use)
    judged, held = at.judged(at.raw), at.glasses(at.raw)
    shown = _demonstrations(at, tuple(w.good.values()))
    return tuple(
        Assessment(
            samples=reports,
            raw=at.raw,
            meaning=w.found,
            crosschecks=checks,
            demand=demand(visit.home, visit.settings),
            options=_options(w, y),
            rows=w.table,
            assumptions=w.listed,
            nothing_needed=needs_nothing(w.found),
            still_to_test=still_to_test(w.found),
            horizon=y,
            noticed=at.seen,
            demonstrations=shown,
            ready=_ready(at, w.found),
            in_place=judged,
            glasses=held,
        )
        for y in horizons
    )


def _untested(
    at: Drawn, reports: tuple[SampleReport, ...], checks: tuple[CrossCheck, ...], years: int
) -> Assessment:
    """A visit before its raw water is tested: readings and demonstrations alone."""
    return Assessment(
        samples=reports,
        raw=None,
        meaning=None,
        crosschecks=checks,
        demand=demand(at.visit.home, at.visit.settings),
        options=(),
        rows=(),
        assumptions=(),
        nothing_needed=False,
        still_to_test="",
        horizon=years,
        noticed=at.seen,
        demonstrations=_demonstrations(at, ()),
        ready=_ready(at, None),
    )


def _ready(at: Drawn, found: Meaning | None) -> tuple[Ready, ...]:
    measured = {a for water in at.waters.values() for a in water.values}
    return in_order(found, measured, len(at.visit.samples), len(at.visit.options))


def _demonstrations(at: Drawn, lines: tuple[LineReport, ...]) -> tuple[Shown, ...]:
    visit = at.visit
    if not visit.shown:
        return ()
    tasted = {w.sample for d in visit.shown if isinstance(d.body, Tasting) for w in d.body.waters}
    around = Around(
        samples={s.id: s for s in visit.samples},
        waters=at.waters,
        lines={x.option: x for x in lines},
        home=visit.home,
        settings=visit.settings,
        meanings={
            id: meaning(water, visit.home, (), visit.rules)
            for id, water in at.waters.items()
            if id in tasted
        },
    )
    return tuple(show(d, around) for d in visit.shown)


def _options(w: Worked, years: int) -> tuple[OptionReport, ...]:
    out = [_option(w, way, years) for way in w.ways]
    costs = {o.id: o.cost for o in out if o.cost is not None}
    return tuple(replace(o, cheaper_than=crossings(o.id, costs)) for o in out)


def _option(w: Worked, way: Way, years: int) -> OptionReport:
    line, option, visit = way.line, way.option, w.drawn.visit
    if line is None:
        return OptionReport(
            id=option.id,
            name=option.name,
            line=None,
            error=way.error,
            waste=None,
            cost=None,
            use_band=None,
            chores=None,
            left=(),
            reasons=None,
        )
    cost, drained, work = cost_of(line, visit, w.listed, years), waste(line), chores(line)
    left = w.left(line)
    return OptionReport(
        id=option.id,
        name=option.name,
        line=line,
        error="",
        waste=drained,
        cost=cost,
        use_band=band_of(cost, w.ends.get(option.id, ()), visit, w.listed),
        chores=work,
        left=left,
        reasons=reasons(line, cost, drained, work, w.table, left, w.found, visit.settings),
    )


__all__ = [
    "TODAY",
    "Assessment",
    "Home",
    "assess",
    "assess_over",
]

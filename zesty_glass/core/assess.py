"""From a visit document to everything that can be worked out of it. Pure: the same visit gives the
same answer.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from .costing.chores import Chores, chores
from .costing.falling import keeps_up
from .costing.money import Lifetime
from .costing.waste import Waste, waste
from .demonstrating.records import Tasting
from .demonstrating.shown import Around, show
from .demonstrating.shown_records import Shown
from .errors import RuleError
from .home import Home
from .proposing.reasons import Reasons, needs_nothing, reasons, still_to_test
from .proposing.rows import TODAY, Row, not_addressed, rows
from .record import record
from .spending import Assumption, CostBand, assumptions, band_of, cost_of, crossings
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
        visit.home, visit.settings, visit.samples, waters, raw, visit.started_at.date(), visit.rules
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


__all__ = [
    "TODAY",
    "Assessment",
    "Home",
    "assess",
    "assess_over",
    "walked",
]

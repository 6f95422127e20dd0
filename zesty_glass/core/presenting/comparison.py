"""Options side by side: what each does to what was found, its water to the drain, its chores, and
its cost over several horizons.
"""

from __future__ import annotations

from collections.abc import Mapping
from decimal import Decimal

from .. import words
from ..costing.chores import Chores, chores
from ..costing.money import Lifetime
from ..costing.renting import Rentable, rentables
from ..costing.waste import Waste, waste
from ..evidence import LEVEL_WORDS
from ..proposing.rows import Row
from ..record import record
from ..spending import Assumption, CostBand, band_of, cost_of, crossings
from ..treating.line import LineReport
from ..treating.report import Status
from ..treating.stream import Quantity, Stream
from ..visit import Visit
from ..worked import Way, Worked, drawn, worked
from .facts import FactRow, facts


@record
class NeedHere:
    """A need of one stage that this home or water does not plainly meet."""

    stage: str
    status: Status
    sentence: str


@record
class Step:
    """What one stage does to one analyte, as it is shown, and on what evidence."""

    stage: str
    shown: str
    evidence: str


@record
class ComparedOption:
    """What of an option does not depend on the horizon.

    Args:
        stops: whether a check stops it, or it cannot be worked out (``error``); bought: to buy and
            install, or to set up what is rented [money]; per_month: rent [money/month].
        house, tap: its water where a stage of that branch changes it, else None.
        steps: by analyte, how its value comes about: the water as it comes, then every stage that
            changes it.
        needs: what is not plainly met here, the gravest first; single_source: parts that one maker
            alone sells.
    """

    id: str
    name: str
    error: str
    stops: bool
    bought: Decimal
    per_month: Decimal = Decimal("0")
    house: Stream | None
    tap: Stream | None
    waste: Waste | None
    chores: Chores | None
    left: tuple[str, ...]
    steps: dict[str, tuple[Step, ...]]
    needs: tuple[NeedHere, ...]
    single_source: tuple[str, ...]


@record
class OptionCost:
    """What of an option depends on the horizon."""

    cost: Lifetime | None
    use_band: CostBand | None
    cheaper_than: tuple[tuple[str, int], ...]


@record
class Renting:
    """Items of an option that the firm lets, with what each way comes to."""

    option: str
    items: tuple[Rentable, ...]


@record
class OverYears:
    """Costs of every option over one horizon [years], by the option's id."""

    years: int
    options: dict[str, OptionCost]


@record
class Comparison:
    """All that a comparison shows; nothing to compare before the raw water is tested."""

    options: tuple[ComparedOption, ...]
    rows: tuple[Row, ...]
    facts: tuple[FactRow, ...]
    assumptions: tuple[Assumption, ...]
    over: tuple[OverYears, ...]


def compare(
    visit: Visit, horizons: tuple[int, ...], use: float = 1.0, bands: bool = True
) -> Comparison:
    """Today and every option of a visit.

    Args:
        horizons: of the costs [years]; use: times the expected use of water; bands: also the cost
            at low and at high use.
    """
    at = drawn(visit)
    if at.raw is None:
        return Comparison(options=(), rows=(), facts=(), assumptions=(), over=())
    w = worked(at, at.raw, bands, use, brief=True)
    good, found_in = w.good, tuple(r.analyte for r in w.table)
    return Comparison(
        options=tuple(_option(way, w, found_in) for way in w.ways),
        rows=w.table,
        facts=facts(good.values(), {i.code: i for i in visit.catalogue}, found_in, w.ends),
        assumptions=w.listed,
        over=tuple(_over(w, good, years) for years in horizons),
    )


def renting(visit: Visit, years: int, use: float = 1.0) -> tuple[Renting, ...]:
    """What the items of each option come to bought and rented over a horizon [years]; options of
    which the firm lets nothing are left out.
    """
    at, catalogue = drawn(visit), {i.code: i for i in visit.catalogue}
    if at.raw is None or not any(i.lets for i in visit.catalogue):
        return ()
    s = visit.settings
    every = (
        Renting(
            option=way.option.id,
            items=rentables(way.line, catalogue, years, s.price_growth, s.discount),
        )
        for way in worked(at, at.raw, False, use, brief=True).ways
        if way.line is not None
    )
    return tuple(r for r in every if r.items)


def _over(w: Worked, good: Mapping[str, LineReport], years: int) -> OverYears:
    visit = w.drawn.visit
    costs = {id: cost_of(line, visit, w.listed, years) for id, line in good.items()}
    return OverYears(
        years=years,
        options={
            o.id: _cost(o.id, costs, w.ends.get(o.id, ()), visit, w.listed)
            for o in (way.option for way in w.ways)
        },
    )


def _cost(
    id: str,
    costs: dict[str, Lifetime],
    ends: tuple[LineReport, ...],
    visit: Visit,
    listed: tuple[Assumption, ...],
) -> OptionCost:
    cost = costs.get(id)
    if cost is None:
        return OptionCost(cost=None, use_band=None, cheaper_than=())
    return OptionCost(
        cost=cost, use_band=band_of(cost, ends, visit, listed), cheaper_than=crossings(id, costs)
    )


def _steps(line: LineReport, analyte: str, units: str) -> tuple[Step, ...]:
    before = line.source.get(analyte)
    out = [
        Step(
            stage="as it comes",
            shown="not tested" if before is None else _shown(analyte, before, units),
            evidence="",
        )
    ]
    for s in line.stages:
        q = s.outlet.get(analyte)
        if q is not None and (before is None or q.range != before.range or q.words != before.words):
            out.append(
                Step(
                    stage=s.name,
                    shown=_shown(analyte, q, units),
                    evidence="" if q.evidence is None else LEVEL_WORDS[q.evidence],
                )
            )
        before = q
    return tuple(out) if len(out) > 1 else ()


def _shown(analyte: str, q: Quantity, units: str) -> str:
    if q.range is None:
        return q.words or q.note or "not known"
    span = words.span(analyte, q.range, units)
    shown = words.value(analyte, q.range, q.below, units)
    return shown if span == shown else f"{shown} ({span})"


def _option(way: Way, w: Worked, found_in: tuple[str, ...]) -> ComparedOption:
    option, line = way.option, way.line
    if line is None:
        return ComparedOption(
            id=option.id,
            name=option.name,
            error=way.error,
            stops=True,
            bought=Decimal(0),
            house=None,
            tap=None,
            waste=None,
            chores=None,
            left=(),
            steps={},
            needs=(),
            single_source=(),
        )
    units = w.drawn.visit.settings.units
    scopes = {s.scope for s in line.stages}
    return ComparedOption(
        id=option.id,
        name=option.name,
        error="",
        stops=line.status == "stop",
        bought=sum((p.price + p.installation for p in line.purchases), Decimal(0)),
        per_month=line.rent_month,
        house=line.house if "house" in scopes else None,
        tap=line.tap if "tap" in scopes else None,
        waste=waste(line),
        chores=chores(line),
        left=w.left(line),
        steps={a: steps for a in found_in if (steps := _steps(line, a, units))},
        needs=_needs(line),
        single_source=single_source(line),
    )


#: the gravest first; what is only said stays at its stage
_GRAVE = ("stop", "unknown", "warn")


def _needs(line: LineReport) -> tuple[NeedHere, ...]:
    every = [
        NeedHere(stage=s.name, status=c.status, sentence=c.sentence)
        for s in line.stages
        for c in s.checks
        if c.status in _GRAVE
    ]
    every += [
        NeedHere(stage="The whole system", status=c.status, sentence=c.sentence)
        for c in line.checks
        if c.status in _GRAVE
    ]
    return tuple(sorted(dict.fromkeys(every), key=lambda n: _GRAVE.index(n.status)))


def single_source(line: LineReport) -> tuple[str, ...]:
    """Parts of a line that fall due and that one maker alone sells."""
    return tuple(dict.fromkeys(d.label for s in line.stages for d in s.dues if not d.common))

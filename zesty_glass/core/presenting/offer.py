"""Everything a proposal shows, frozen in one value: what the page, the PDF and the
link draw from.
"""

from __future__ import annotations

from collections.abc import Mapping
from datetime import date, datetime
from decimal import Decimal

from .. import words
from ..analytes import ANALYTES
from ..assess import Assessment, OptionReport, assess_over
from ..costing.chores import Chores
from ..costing.money import HORIZONS, CostLine, Lifetime
from ..costing.plan import apr, effective_rate
from ..costing.waste import Waste
from ..errors import RuleError
from ..home import SOURCE_NAMES, Customer
from ..proposing.price import PriceLine, Terms, price_lines, rent_lines, to_pay
from ..proposing.proposal import COOLING_OFF, Plan
from ..proposing.reasons import Reasons
from ..proposing.rows import Row
from ..record import Words, record
from ..spending import Assumption, CostBand
from ..testing.finding import Finding, Weight
from ..testing.findings import Meaning, Unexplained, Unknown
from ..treating.line import LineReport
from ..treating.report import StageReport
from ..treating.stages import TECHNOLOGIES
from ..treating.stream import Quantity
from ..visit import Visit
from .before_signing import ToKnow, stopped, to_know, unanswered_stops
from .comparison import single_source
from .cover_letter import cover_letter
from .first import before_fitting
from .metric import in_units

ALWAYS = (
    "Nothing here says that a water is fit to drink: health questions go to a certified laboratory"
    " and the local health authority. Plumbing, electrical and drainage work to local code, by"
    " licensed people."
)


@record
class ReadingLine:
    """One reading as the document lists it."""

    sample: Words
    analyte: str
    shown: str
    span: str
    method: str
    made_at: datetime
    flags: tuple[str, ...]


@record
class CostOver:
    """Cost over one horizon."""

    years: int
    total: Decimal
    first_year: Decimal
    worst_year: Decimal
    per_year: Decimal
    per_gallon_house: Decimal | None
    per_gallon_tap: Decimal | None
    by_kind: dict[str, Decimal]
    lines: tuple[CostLine, ...]
    monthly: tuple[Decimal, ...]
    band: CostBand | None
    cheaper_than: tuple[tuple[str, int], ...]
    missing: tuple[str, ...] = ()


@record
class StageLine:
    """One stage as the document lists it."""

    code: str
    name: str
    kind: str
    scope: str
    summary: str
    status: str
    figures: tuple[tuple[str, str], ...]
    checks: tuple[tuple[str, str], ...]
    settings: tuple[tuple[str, str], ...]


@record
class OfferedOption:
    """One option, frozen."""

    id: str
    name: Words
    letter: str
    status: str
    error: str
    price: Decimal
    installation: Decimal
    stages: tuple[StageLine, ...]
    house: dict[str, Quantity]
    tap: dict[str, Quantity]
    ferric_house: bool | None
    ferric_tap: bool | None
    waste: Waste | None
    chores: Chores | None
    left: tuple[str, ...]
    reasons: Reasons | None
    costs: tuple[CostOver, ...]
    parts: tuple[str, ...]
    warranty: tuple[str, ...]
    per_month: Decimal = Decimal("0")


@record
class PlanTerms:
    """A payment plan with what it comes to: total paid, yearly rate nominal and effective [%]."""

    down: Decimal
    monthly: Decimal
    months: int
    total_paid: Decimal
    apr: Decimal
    apr_effective: Decimal | None = None


@record
class Offer:
    """A proposal's whole content. ``first``: what to do before anything is bought; ``letter``: the
    reasons are the letter as it was drafted, and not the consultant's own words.
    """

    number: str
    revision: int
    created_at: datetime
    valid_until: date
    firm: str
    consultant: str
    currency: str
    units: str
    customer: Customer
    home: Words
    place: Words
    source: str
    people: float
    complaints: tuple[Words, ...]
    readings: tuple[ReadingLine, ...]
    raw: dict[str, Quantity]
    ferric_raw: bool | None
    scale_60: float | None
    findings: tuple[Finding, ...]
    unexplained: tuple[Unexplained, ...]
    unknown: tuple[Unknown, ...]
    tonight: tuple[str, ...]
    nothing_needed: bool
    options: tuple[OfferedOption, ...]
    rows: tuple[Row, ...]
    recommended: str
    reasons: Words
    horizon: int
    plan: PlanTerms | None
    assumptions: tuple[Assumption, ...]
    cautions: tuple[str, ...]
    cancel_text: str
    cooling_off: str
    local_rules: str
    rules_version: int
    health: tuple[str, ...] = ()
    before_signing: tuple[ToKnow, ...] = ()
    price: tuple[PriceLine, ...] = ()
    priced_on: date | None = None
    first: tuple[str, ...] = ()
    letter: bool = False


def _readings(visit: Visit, a: Assessment) -> tuple[ReadingLine, ...]:
    out = []
    for s, report in zip(visit.samples, a.samples, strict=True):
        for r, rr in zip(s.readings, report.readings, strict=True):
            if rr.struck:
                continue
            v, name, units = rr.value, ANALYTES[r.analyte].name, visit.settings.units
            shown = words.value(r.analyte, v.range, v.below, units, v.words)
            out.append(
                ReadingLine(
                    sample=s.name,
                    analyte=name,
                    shown=words.beside_name(shown, name),
                    span=words.beside_name(words.span(r.analyte, v.range, units), name),
                    method=r.instrument.name,
                    made_at=r.made_at,
                    flags=tuple(f.sentence for f in v.flags),
                )
            )
    return tuple(out)


def _over(cost: Lifetime, o: OptionReport) -> CostOver:
    return CostOver(
        years=cost.years,
        total=cost.total,
        first_year=cost.first_year,
        worst_year=cost.worst_year,
        per_year=cost.per_year,
        per_gallon_house=cost.per_gallon_house,
        per_gallon_tap=cost.per_gallon_tap,
        by_kind=cost.by_kind,
        lines=cost.lines,
        monthly=cost.monthly,
        band=o.use_band,
        cheaper_than=o.cheaper_than,
        missing=cost.missing,
    )


def _figures(s: StageReport) -> tuple[tuple[str, str], ...]:
    """A stage's figures as the document lists them; what cannot work promises none."""
    every = () if s.status == "stop" else s.figures
    return tuple((f.label, f"{f.value} {f.unit}".strip()) for f in every)


def _option(
    o: OptionReport, letter: str, costs: tuple[CostOver, ...], warranty: tuple[str, ...]
) -> OfferedOption:
    line = o.line
    stages = (
        ()
        if line is None
        else tuple(
            StageLine(
                code=s.code,
                name=s.name,
                kind=s.kind,
                scope=s.scope,
                summary=s.summary,
                status=s.status,
                figures=_figures(s),
                checks=tuple((c.status, c.sentence) for c in s.checks if c.status != "met"),
                settings=s.settings,
            )
            for s in line.stages
        )
    )
    bought = () if line is None else line.purchases
    return OfferedOption(
        id=o.id,
        name=o.name,
        letter=letter,
        status="stop" if line is None else line.status,
        error=o.error,
        price=sum((p.price for p in bought), Decimal(0)),
        installation=sum((p.installation for p in bought), Decimal(0)),
        stages=stages,
        house={} if line is None else line.house.quantities,
        tap={} if line is None else line.tap.quantities,
        ferric_house=None if line is None else line.house.particulate_iron,
        ferric_tap=None if line is None else line.tap.particulate_iron,
        waste=o.waste,
        chores=o.chores,
        left=o.left,
        reasons=o.reasons,
        costs=costs,
        parts=() if line is None else single_source(line),
        warranty=warranty,
        per_month=Decimal(0) if line is None else line.rent_month,
    )


def offered_today(visit: Visit, a: Assessment, id: str) -> OfferedOption | None:
    """A line as it would be offered today, without its costs; None where it is gone."""
    report = next((o for o in a.options if o.id == id and o.line is not None), None)
    return None if report is None else in_units(_option(report, "", (), ()), visit)


def plan_terms(plan: Plan | None, price: Decimal) -> PlanTerms | None:
    """A payment plan's total and yearly rate on a price."""
    if plan is None:
        return None
    rate = apr(price, plan.down, plan.monthly, plan.months)
    return PlanTerms(
        down=plan.down,
        monthly=plan.monthly,
        months=plan.months,
        total_paid=plan.down + plan.monthly * plan.months,
        apr=rate,
        apr_effective=effective_rate(rate),
    )


def draft_letter(visit: Visit, a: Assessment, option: str) -> str:
    """The letter that a proposal begins with, as the tool drafts it."""
    return in_units("\n\n".join(cover_letter(visit, a, option)), visit)


def make_offer(
    visit: Visit,
    *,
    number: str,
    revision: int,
    created_at: datetime,
    valid_until: date,
    recommended: str,
    reasons: str,
    plan: Plan | None = None,
    answers: Mapping[str, str] | None = None,
    terms: Terms | None = None,
    priced_on: date | None = None,
) -> Offer:
    """Freeze a visit into an offer.

    Args:
        answers: how the recommended line's stops are answered, by the sentence of each; terms:
            discount, deposit and exemption from sales tax. priced_on: the day whose prices, taxes
            and limits it was made by.

    Raises:
        RuleError: no raw sample, an unknown recommended option, or a plan that does not work.
    """
    spans = tuple(dict.fromkeys((*HORIZONS, visit.horizon)))
    by_years = dict(zip(spans, assess_over(visit, spans, use_bands=True), strict=True))
    a = by_years[visit.horizon]
    chosen, meaning = _recommended(a, recommended)
    line0 = a.options[0].line
    assert chosen.line is not None and line0 is not None
    before_signing = to_know(chosen.line, answers)
    if stops := unanswered_stops(before_signing):
        raise stopped(chosen.name, stops)
    options = _options(visit, by_years, recommended)
    top = next(p for p in options if p.id == recommended)
    agreed = terms or Terms()
    letter = draft_letter(visit, a, recommended)
    price = (
        *price_lines(top.price, top.installation, agreed, visit.settings),
        *rent_lines(chosen.line.purchases, agreed, visit.settings),
    )
    made = Offer(
        number=number,
        revision=revision,
        created_at=created_at,
        valid_until=valid_until,
        firm=visit.firm,
        consultant=visit.consultant,
        currency=visit.settings.currency,
        units=visit.settings.units,
        customer=visit.customer,
        home=visit.home.name,
        place=visit.home.place,
        source=SOURCE_NAMES[visit.home.source],
        people=visit.home.people,
        complaints=tuple(c.words for c in visit.complaints),
        readings=_readings(visit, a),
        raw=line0.source.quantities,
        ferric_raw=line0.source.particulate_iron,
        scale_60=None if meaning.scale is None else meaning.scale.at_heater.best,
        findings=meaning.findings,
        unexplained=meaning.unexplained,
        unknown=meaning.unknown,
        tonight=meaning.tonight,
        nothing_needed=a.nothing_needed,
        options=options,
        rows=a.rows,
        recommended=recommended,
        reasons=reasons.strip() or letter,
        letter=reasons.strip() in ("", letter),
        horizon=visit.horizon,
        plan=plan_terms(plan, to_pay(price)),
        price=price,
        assumptions=a.assumptions,
        cautions=_cautions(chosen.line),
        cancel_text=visit.settings.cancel_text,
        cooling_off=COOLING_OFF,
        local_rules=visit.settings.local_rules,
        rules_version=visit.rules.version,
        health=tuple(f.sentence for f in meaning.findings if f.weight is Weight.HEALTH),
        before_signing=before_signing,
        priced_on=priced_on,
        first=before_fitting(visit, a, chosen.line),
    )
    return in_units(made, visit)


def _recommended(a: Assessment, recommended: str) -> tuple[OptionReport, Meaning]:
    """The option that is recommended, and what the readings mean; RuleError where nothing can be
    proposed yet."""
    if a.raw is None or a.meaning is None:
        raise RuleError(
            "offer.no_raw",
            "There is no raw sample to base a proposal on.",
            "samples",
            "Draw one ahead of all treatment and test it.",
        )
    chosen = next((o for o in a.options if o.id == recommended), None)
    if chosen is None:
        raise RuleError(
            "offer.recommended",
            "The recommended option is not among the options.",
            "recommended",
            "Choose one of them, or “today”.",
        )
    if recommended == "today" and a.still_to_test:
        raise RuleError(
            "offer.untested",
            f"“Nothing needed” cannot be proposed yet. {a.still_to_test}",
            "recommended",
            "Do these tests first, or recommend a line.",
        )
    if chosen.line is None:
        raise RuleError(
            "offer.stopped",
            f"“{chosen.name}” cannot be worked out as it stands.",
            "recommended",
            "See what it says on the line, or recommend another.",
        )
    return chosen, a.meaning


def _options(
    visit: Visit, by_years: Mapping[int, Assessment], recommended: str
) -> tuple[OfferedOption, ...]:
    """Every option with its costs over each span of years, today first and without a letter."""
    items = {i.code: i for i in visit.catalogue}
    out = []
    for n, o in enumerate(by_years[visit.horizon].options):
        reports = [by_years[y].options[n] for y in HORIZONS]
        costs = tuple(_over(r.cost, r) for r in reports if r.cost is not None)
        if o.id != recommended and o.line is not None and o.line.status == "stop":
            costs = ()  # what cannot work stands in no row of costs beside what can
        bought = [] if o.line is None else [p.code for p in o.line.purchases]
        known = [items[c] for c in bought if c in items]
        warranty = tuple(f"{i.name}: {i.warranty}" for i in known if i.warranty)
        out.append(_option(o, "" if n == 0 else chr(64 + n), costs, warranty))
    return tuple(out)


def _cautions(line: LineReport) -> tuple[str, ...]:
    """What stands where the work is done, once for each technology of a line."""
    kinds = dict.fromkeys(s.kind for s in line.stages)
    own = (t.caution for k in kinds if (t := TECHNOLOGIES.get(k)) and t.caution)
    return (*own, ALWAYS)

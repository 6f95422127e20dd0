"""Visits, their samples, readings and lines."""

from __future__ import annotations

from dataclasses import replace
from datetime import UTC, datetime
from typing import Annotated, Literal
from uuid import UUID

from fastapi import APIRouter, Header, Path, Query, Request, Response
from pydantic import Field

from ..core.aftercare.steps import LineSteps, line_steps
from ..core.assess import assess
from ..core.bounds import FIRST_DAY, INT_MOST, LAST_DAY
from ..core.errors import RuleError
from ..core.presenting.appliance import ApplianceCard, Kind, appliance_card
from ..core.presenting.card import WaterCard, water_card
from ..core.presenting.comparison import Comparison, Renting, compare, renting
from ..core.presenting.filter_check import filter_check as checked
from ..core.presenting.metric import in_units
from ..core.testing.bottles import panel
from ..core.testing.laboratory import status
from ..core.testing.pairs import Pair, pairs
from ..core.testing.reading import Reading, work_out
from ..core.testing.water import Sample, water_of
from ..core.treating.option import Option
from ..core.visit import Visit
from ..core.worked import HIGH_USE, LOW_USE
from ..documents import visit_file
from ..documents.codec import load
from ..messages.catalogue import ORIGINAL, Language
from ..messages.in_language import in_language
from ..records import marks
from ..records.models import ReadingRow
from ..records.store import NotFound
from ..work import bringing_in, lines, mending, planning, printing, readings, standins, visiting
from ..work.mending import workable, worked
from ..work.person import now
from .address import same_id
from .context import Context, Selling, Signed
from .files import FileBody
from .paging import Paged
from .response_cache import answered, tag
from .responses import answer, described, file, safe_name
from .schemas import Saved, StrikeBody, Units, Versioned
from .visits_schemas import (
    AgainBody,
    CloseBody,
    HomeChange,
    KeptReading,
    KnownHome,
    OtherVisit,
    ReadingWith,
    StartBody,
    ToldQuery,
    VisitChange,
    VisitPlan,
    VisitSummary,
    VisitView,
)

router = APIRouter(prefix="/api/visits", tags=["visits"])
Version = Annotated[int | None, Header(alias="If-Match-Version", ge=0, le=INT_MOST)]
Years = Annotated[int, Field(ge=1, le=30)]


def _in_units(visit: Visit, units: Units) -> Visit:
    return (
        visit
        if units in (None, visit.settings.units)
        else replace(visit, settings=replace(visit.settings, units=units))
    )


def _view(ctx: Context, id: UUID, units: Units, language: Language, at: datetime) -> Response:
    with ctx.look() as db:
        row = visiting.get(db, ctx.who, id)
        visit, versions, unreadable = visiting.opened(db, ctx.who, row, snapshots=False)
        others = visiting.other_visits(db, ctx.who, row)
        before = visiting.earlier(db, ctx.who, row, others)
        step, differ = row.step, visiting.terms_differ(db, row)
    visit = _in_units(visit, units)
    try:
        assessment = assess(visit, earlier=before)
    except (ValueError, ArithmeticError, TypeError, LookupError):
        visit, more = workable(visit)
        unreadable, assessment = (*unreadable, *more), assess(visit)
    lab = {x.id: status(x, at) for x in visit.bottles}
    drawn = frozenset(x.kind for x in visit.bottles)
    return answer(
        VisitView(
            visit=visit,
            versions=versions,
            step=step,
            assessment=in_language(in_units(assessment, visit), language, visit),
            lab=lab,
            suggested=panel(visit.home, drawn, assessment.raw, visit.rules),
            others=tuple(OtherVisit(id=str(i), started_at=t) for i, t in others),
            reports=standins.reports(visit),
            unreadable=unreadable,
            terms_on=visiting.terms_of(row).date(),
            terms_differ=differ,
            made=row.made_at is not None,
            closed=row.closed,
        )
    )


@router.get("", response_model=list[VisitSummary])
def today(ctx: Signed, page: Paged, day: datetime | None = None) -> Response:
    """The visits of a day and of the week before."""
    at = day or now()
    if not FIRST_DAY.year < at.year < LAST_DAY.year:
        raise RuleError("day.far", "There are no visits on such a day.", "day", "Use a nearer one.")
    start = at.replace(hour=0, minute=0, second=0, microsecond=0)
    start = start if start.tzinfo else start.replace(tzinfo=UTC)
    with ctx.db() as db:
        found = [VisitSummary(**v) for v in visiting.today(db, ctx.who, start)]
    return page.answer(found, list[VisitSummary], lambda x: x.id)


@router.post("", response_model=Saved, status_code=201)
def start(ctx: Selling, body: StartBody) -> Saved:
    """Start a visit to a new home; repeats are harmless."""
    with ctx.db() as db:
        row = visiting.start(
            db, ctx.who, body.id, body.customer, body.home, tuple(body.complaints), body.started_at
        )
        return Saved(id=str(row.id), version=row.version)


@router.get("/homes", response_model=list[KnownHome])
def homes(ctx: Signed, page: Paged, find: Annotated[str, Query(max_length=80)] = "") -> Response:
    """Homes that were visited before, by a name or place."""
    with ctx.db() as db:
        found = [KnownHome(**h) for h in visiting.known_homes(db, ctx.who, find, page.reach)]
    return page.answer(found, list[KnownHome], lambda x: x.visit)


@router.post("/{id}/again", response_model=Saved, status_code=201)
def again(ctx: Selling, id: UUID, body: AgainBody) -> Saved:
    """Start another visit to the same home; repeats are harmless."""
    with ctx.db() as db:
        row = visiting.again(db, ctx.who, id, body.id, body.started_at)
        return Saved(id=str(row.id), version=row.version)


@router.post("/import", response_model=Saved, status_code=201)
def bring_in(ctx: Selling, data: FileBody, rules: Literal["firm", "file"] = "firm") -> Saved:
    """Bring a visit file in, all or nothing; ``rules=file`` lets the file's settings and limits
    hold, for managers.
    """
    visit = visit_file.read(data)
    with ctx.db() as db:
        row = bringing_in.bring_in(db, ctx.who, visit, with_rules=rules == "file")
        return Saved(id=str(row.id), version=row.version)


@router.get("/{id}", response_model=VisitView)
def open_visit(
    ctx: Signed, request: Request, id: UUID, units: Units = None, language: Language = ORIGINAL
) -> Response:
    """A visit with everything worked out; ``units`` shows it in others than the visit’s own,
    ``language`` says what faces the customer in theirs.
    """
    at = now()
    etag = _tag(ctx, id, "view", units, language, at=at)
    return answered(request, etag, lambda: _view(ctx, id, units, language, at))


def _tag(ctx: Context, id: UUID, *more: object, at: datetime | None = None) -> str:
    """The tag of what is worked out from a visit, for this person. It holds for a day (``at``), for
    proposals run out by the day; with bottles on their way for a minute, for they count down.
    """
    with ctx.look() as db:
        found = marks.of_visit(db, ctx.who.firm_id, id)
        if found is None or not visiting.sees(db, ctx.who, id, found.consultant_id):
            raise NotFound("visit")
    form = "%Y-%m-%d %H:%M" if found.bottles else "%Y-%m-%d"
    until = "" if at is None else at.strftime(form)
    return tag(id, found.mark, ctx.who.id, ctx.who.role, until, *more)


@router.patch("/{id}", response_model=Saved)
def change(ctx: Selling, id: UUID, body: VisitChange) -> Saved:
    """Change fields of a visit on top of a version."""
    fields = {name: getattr(body, name) for name in body.model_fields_set if name != "version"}
    with ctx.db() as db:
        row = visiting.change(db, ctx.who, id, body.version, fields)
        return Saved(id=str(row.id), version=row.version)


@router.put("/{id}/plan", response_model=Saved)
def plan(ctx: Selling, id: UUID, body: VisitPlan) -> Saved:
    """Move a visit, or give it to another consultant, while nothing was read at it."""
    with ctx.db() as db:
        row = planning.plan(db, ctx.who, id, body.version, body.started_at, body.consultant)
        return Saved(id=str(row.id), version=row.version)


@router.put("/{id}/close", response_model=Saved)
def close(ctx: Selling, id: UUID, body: CloseBody) -> Saved:
    """Close a visit that is not made, with the reason; or take that back."""
    with ctx.db() as db:
        if body.how is None:
            row = planning.open_again(db, ctx.who, id, body.version)
        else:
            row = planning.close(db, ctx.who, id, body.version, body.how, body.because)
        return Saved(id=str(row.id), version=row.version)


@router.put("/{id}/terms", response_model=Saved)
def terms(ctx: Selling, id: UUID, body: Versioned) -> Saved:
    """Judge a visit by the firm's prices, taxes and limits of today from now on."""
    with ctx.db() as db:
        row = visiting.terms_of_today(db, ctx.who, id, body.version)
        return Saved(id=str(row.id), version=row.version)


@router.put("/{id}/home", response_model=Saved)
def change_home(ctx: Selling, id: UUID, body: HomeChange) -> Saved:
    """Change customer and home on top of a version."""
    with ctx.db() as db:
        row = visiting.change_home(db, ctx.who, id, body.version, body.customer, body.home)
        return Saved(id=str(row.id), version=row.version)


@router.put("/{id}/samples/{sample_id}", response_model=Saved)
def put_sample(
    ctx: Signed,
    id: UUID,
    sample_id: UUID,
    body: Sample,
    version: Version = None,
    instead: bool = False,
) -> Saved:
    """Draw a glass or change what is written of it; readings go their own way."""
    same_id(body.id, sample_id, "sample", "sample")
    with ctx.db() as db:
        row = readings.put_sample(db, ctx.who, id, body, version, instead)
        return Saved(id=str(row.id), version=row.version)


@router.put("/{id}/samples/{sample_id}/readings/{reading_id}", response_model=KeptReading)
def put_reading(
    ctx: Signed, id: UUID, sample_id: UUID, reading_id: UUID, body: Reading
) -> Response:
    """Keep a reading; sent twice it is one reading."""
    same_id(body.id, reading_id, "reading", "reading")
    with ctx.look() as db:
        new = readings.put_reading(db, ctx.who, id, sample_id, body)
    kept = _kept(new) if new else _again(ctx, id, sample_id, body)
    return answer(
        KeptReading(id=kept.id, sample=str(sample_id), reading=kept, value=work_out(kept))
    )


@router.put(
    "/{id}/samples/{sample_id}/readings/{reading_id}/with/{key}", response_model=KeptReading
)
def put_reading_with(
    ctx: Signed, id: UUID, sample_id: UUID, reading_id: UUID, key: str, body: ReadingWith
) -> Response:
    """Keep a reading made with one of the firm's kits, as the kit is today; sent twice it is one
    reading.
    """
    same_id(body.id, reading_id, "reading", "reading")
    with ctx.look() as db:
        kit = readings.kit_of(db, ctx.who, reading_id, key)
    reading = Reading(
        id=body.id,
        analyte=kit.analyte,
        instrument=kit,
        observation=body.observation,
        made_at=body.made_at,
        by=body.by,
        note=body.note,
    )
    return put_reading(ctx, id, sample_id, reading_id, reading)


def _again(ctx: Context, id: UUID, sample_id: UUID, body: Reading) -> Reading:
    with ctx.db() as db:
        return _kept(readings.put_again(db, ctx.who, id, sample_id, body))


def _kept(row: ReadingRow | readings.KeptRow) -> Reading:
    """A reading as it is stored."""
    stored = {
        **row.data,
        "struck_at": row.struck_at,
        "struck_because": row.struck_because,
        "kept_at": row.kept_at,
    }
    kept: Reading = load(Reading, stored)
    return kept


@router.post("/{id}/readings/{reading_id}/strike", response_model=Saved)
def strike(ctx: Signed, id: UUID, reading_id: UUID, body: StrikeBody) -> Saved:
    """Strike a reading through; it stays on record."""
    with ctx.db() as db:
        row = readings.strike(db, ctx.who, id, reading_id, body.because)
        return Saved(id=str(row.id), version=1)


@router.post("/{id}/unreadable/{part}/{part_id}/strike", status_code=204)
def strike_unreadable(ctx: Selling, id: UUID, part: str, part_id: UUID) -> Response:
    """Take out a part that cannot be read any more; the audit keeps what it said."""
    with ctx.db() as db:
        row = visiting.get(db, ctx.who, id, lock=True)
        _, _, unreadable = visiting.opened(db, ctx.who, row, snapshots=False)
        visit, _ = visiting.document(db, ctx.who, row, snapshots=False)
        _, more = workable(visit)
        if all((x.part, x.id) != (part, str(part_id)) for x in (*unreadable, *more)):
            raise NotFound("part that cannot be read")
        mending.strike(db, ctx.who, row, part, part_id)
    return Response(status_code=204)


@router.put("/{id}/options/{option_id}", response_model=Saved)
def put_option(
    ctx: Selling, id: UUID, option_id: UUID, body: Option, version: Version = None
) -> Saved:
    """Add or change a line."""
    same_id(body.id, str(option_id), "option", "line")
    with ctx.db() as db:
        row = lines.put_option(db, ctx.who, id, body, version)
        return Saved(id=str(row.id), version=row.version)


@router.delete("/{id}/options/{option_id}", status_code=204)
def drop_option(ctx: Selling, id: UUID, option_id: UUID, version: Version = None) -> Response:
    """Take a line away."""
    with ctx.db() as db:
        lines.drop_option(db, ctx.who, id, option_id, version)
    return Response(status_code=204)


@router.get("/{id}/comparison", response_model=Comparison)
def comparison(
    ctx: Signed,
    request: Request,
    id: UUID,
    years: Annotated[list[Years], Query(max_length=4)] = [5, 10, 15, 20],  # noqa: B006
    use: Literal["low", "expected", "high"] = "expected",
    units: Units = None,
) -> Response:
    """The options side by side, with their costs over several horizons and the band of low and high
    use; at low, expected or high use.
    """
    times = {"low": LOW_USE, "expected": 1.0, "high": HIGH_USE}[use]

    def made() -> Response:
        with ctx.db() as db:
            row = visiting.get(db, ctx.who, id)
            visit, _ = visiting.document(db, ctx.who, row, snapshots=False)
        visit = _in_units(visit, units)
        return answer(in_units(worked(visit, lambda v: compare(v, tuple(years), times)), visit))

    return answered(request, _tag(ctx, id, "comparison", use, units, years), made)


@router.get("/{id}/renting", response_model=list[Renting])
def rented(ctx: Signed, page: Paged, id: UUID, years: Years = 10) -> Response:
    """Items of the options that the firm lets: bought, rented and rented to own, over a horizon."""
    with ctx.db() as db:
        row = visiting.get(db, ctx.who, id)
        visit, _ = visiting.document(db, ctx.who, row, snapshots=False)
    found = worked(visit, lambda v: renting(v, years))
    return page.answer(found, list[Renting], lambda x: x.option)


@router.get("/{id}/card", response_model=WaterCard)
def card(ctx: Signed, id: UUID, units: Units = None) -> Response:
    """A card to leave in the house: what was read, what is set by it, what is next."""
    with ctx.db() as db:
        visit, _ = visiting.document(db, ctx.who, visiting.get(db, ctx.who, id), snapshots=False)
    visit = _in_units(visit, units)
    return answer(in_units(worked(visit, lambda v: water_card(v, assess(v))), visit))


@router.get("/{id}/appliances/{kind}", response_model=ApplianceCard)
def appliance(
    ctx: Signed, id: UUID, kind: Kind, told: Annotated[ToldQuery, Query()], units: Units = None
) -> Response:
    """One appliance's card: what this water sets on it, and what hardness is worth there."""
    with ctx.db() as db:
        visit, _ = visiting.document(db, ctx.who, visiting.get(db, ctx.who, id), snapshots=False)
    visit, said = _in_units(visit, units), told.told()
    card = worked(visit, lambda v: appliance_card(v, assess(v), kind, said))
    return answer(in_units(card, visit))


@router.get(
    "/{id}/in-place/{device}/check",
    response_class=Response,
    responses=described("application/pdf", "The filter check as a PDF."),
)
def filter_check(
    ctx: Signed,
    id: UUID,
    device: Annotated[str, Path(max_length=80)],
    units: Units = None,
) -> Response:
    """What stands there already on one page: its label, what it does today, what to do."""
    with ctx.db() as db:
        visit, _ = visiting.document(db, ctx.who, visiting.get(db, ctx.who, id), snapshots=False)
    visit = _in_units(visit, units)
    check = in_units(worked(visit, lambda v: checked(v, assess(v), device)), visit)
    name = f"filter-check-{safe_name(check.name, 'x')}.pdf"
    return file(printing.filter_check(check), "application/pdf", name)


@router.get("/{id}/options/{option_id}/steps", response_model=LineSteps)
def steps(ctx: Signed, id: UUID, option_id: UUID, units: Units = None) -> Response:
    """The steps of a line before it is sold: fitting, changes, disinfection and seasons."""
    with ctx.db() as db:
        visit, _ = visiting.document(db, ctx.who, visiting.get(db, ctx.who, id), snapshots=False)
    visit = _in_units(visit, units)
    option = next((o for o in worked(visit, assess).options if o.id == str(option_id)), None)
    if option is None or option.line is None:
        raise NotFound("line")
    return answer(in_units(line_steps(option.line, visit.home), visit))


@router.get("/{id}/pair", response_model=list[Pair])
def pair(ctx: Signed, page: Paged, id: UUID, first: UUID, second: UUID) -> Response:
    """Two glasses held against each other."""
    with ctx.db() as db:
        visit, _ = visiting.document(db, ctx.who, visiting.get(db, ctx.who, id), snapshots=False)
    by_id = {s.id: s for s in visit.samples}
    a, b = by_id.get(str(first)), by_id.get(str(second))
    if a is None or b is None:
        raise NotFound("sample")
    found = pairs(a, water_of(a), b, water_of(b))
    return page.answer(found, list[Pair], lambda x: x.analyte)


@router.get(
    "/{id}/file",
    response_class=Response,
    responses=described("application/json", "The visit file.", {"type": "object"}),
)
def download(ctx: Selling, id: UUID) -> Response:
    """The visit as one file."""
    with ctx.db() as db:
        visit, _ = visiting.document(db, ctx.who, visiting.get(db, ctx.who, id))
    return file(
        visit_file.write(visit), "application/json", safe_name(visit.home.name, "visit") + ".json"
    )

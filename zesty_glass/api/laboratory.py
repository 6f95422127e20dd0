"""Laboratory samples, their chain, and results from a file."""

from __future__ import annotations

from datetime import UTC, datetime
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query, Response
from pydantic import AwareDatetime, Field

from ..core.bounds import FIRST_DAY, LAST_DAY
from ..core.errors import RuleError
from ..core.rules import Settings
from ..core.testing.laboratory import KINDS, LabKind, LabSample
from ..core.testing.posting import Posting, cutoff, posting
from ..documents.codec import load
from ..documents.lab_csv import LabPreview, read
from ..records import store
from ..work import laboratory
from ..work.person import now
from .address import same_id
from .context import Signed
from .files import FileBody
from .paging import Paged
from .responses import answer
from .schemas import Saved
from .visits import Version

Row = Annotated[int, Field(ge=2, le=1_000_000)]
router = APIRouter(prefix="/api", tags=["laboratory"])


@router.get("/laboratory/kinds", response_model=list[LabKind])
def kinds(_: Signed, page: Paged) -> Response:
    """Kinds of laboratory samples: bottle, holding time, drawing steps."""
    return page.answer(KINDS, list[LabKind], lambda x: x.id)


@router.get("/laboratory/posting", response_model=list[Posting])
def by_post(ctx: Signed, page: Paged, at: AwareDatetime) -> Response:
    """How a bottle of each kind fares that is drawn at a time and goes by post, by the firm's own
    cut-off; ``at`` with its offset, for the post keeps the clock of the place.
    """
    if not FIRST_DAY <= at.date() <= LAST_DAY:
        raise RuleError("posting.at", "No bottle is drawn then.", "at", "Check the date.")
    with ctx.db() as db:
        settings = load(Settings, store.firm(db, ctx.who.firm_id).settings)
    by = cutoff(settings.post_cutoff)
    found = [posting(kind, at, by) for kind in KINDS]
    return page.answer(found, list[Posting], lambda x: x.kind)


@router.put("/visits/{id}/lab-samples/{lab_id}", response_model=Saved)
def put(ctx: Signed, id: UUID, lab_id: UUID, body: LabSample, version: Version = None) -> Saved:
    """Write a bottle down, or move its chain on."""
    same_id(body.id, lab_id, "lab", "bottle")
    with ctx.db() as db:
        row = laboratory.put(db, ctx.who, id, body, version)
        return Saved(id=str(row.id), version=row.version)


@router.post("/laboratory/preview", response_model=LabPreview)
def preview(_: Signed, data: FileBody) -> Response:
    """What a results file says, row by row, before anything is stored."""
    return answer(read(data))


@router.post(
    "/visits/{id}/samples/{sample_id}/lab-results", response_model=LabPreview, status_code=201
)
def bring(
    ctx: Signed,
    data: FileBody,
    id: UUID,
    sample_id: UUID,
    made_at: datetime | None = None,
    without: Annotated[list[Row], Query(max_length=500)] = [],  # noqa: B006
) -> Response:
    """Store a results file as readings of a sample: all rows or none, but for those left out by
    choice.
    """
    at = made_at or now()
    if not FIRST_DAY.year < at.year < LAST_DAY.year:
        raise RuleError("day.far", "No report is of such a day.", "made_at", "Use a nearer one.")
    with ctx.db() as db:
        result = laboratory.bring_results(
            db,
            ctx.who,
            id,
            sample_id,
            data,
            at if at.tzinfo else at.replace(tzinfo=UTC),
            frozenset(without),
        )
    return answer(result, status=201)

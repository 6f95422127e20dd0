"""Demonstrations of a visit."""

from __future__ import annotations

from uuid import UUID

from fastapi import APIRouter, Response

from ..core.demonstrating.about import ABOUT, NOT_OFFERED
from ..core.demonstrating.demonstrations import Demonstration
from ..messages.catalogue import ORIGINAL, Language
from ..messages.in_language import in_language
from ..work import demonstrating
from .address import same_id
from .context import Selling, Signed
from .demonstrations_schemas import DemonstrationWords, TastingBody
from .responses import answer
from .schemas import Saved
from .visits import Version

router = APIRouter(prefix="/api", tags=["demonstrations"])


@router.get("/demonstrations", response_model=DemonstrationWords)
def about(_: Signed, language: Language = ORIGINAL) -> Response:
    """What each demonstration shows and does not show, its steps and cautions, and what is not
    offered.
    """
    words = DemonstrationWords(offered=tuple(ABOUT.values()), not_offered=NOT_OFFERED)
    return answer(in_language(words, language))


@router.put("/visits/{id}/demonstrations/{demo_id}", response_model=Saved)
def keep(
    ctx: Selling, id: UUID, demo_id: UUID, body: Demonstration, version: Version = None
) -> Saved:
    """Keep a demonstration, or what was added to it."""
    same_id(body.id, demo_id, "demonstration", "demonstration")
    with ctx.db() as db:
        row = demonstrating.keep(db, ctx.who, id, body, version)
        return Saved(id=str(row.id), version=row.version)


@router.post("/visits/{id}/tastings", response_model=Saved, status_code=201)
def start_tasting(ctx: Selling, id: UUID, body: TastingBody) -> Saved:
    """Draw the codes and orders of a blind tasting."""
    with ctx.db() as db:
        row = demonstrating.start_tasting(
            db,
            ctx.who,
            id,
            body.id,
            tuple(map(str, body.samples)),
            tuple(body.tasters),
            tuple(map(str, body.sanitised)),
        )
        return Saved(id=str(row.id), version=row.version)

"""The catalogue as files, the search that proposes lines, and what if."""

from __future__ import annotations

import asyncio
import json
import queue
import threading
from collections.abc import AsyncIterator
from typing import Any, Literal
from uuid import UUID

from fastapi import APIRouter, Request, Response
from fastapi.responses import StreamingResponse

from ..catalogue import files
from ..core.errors import RuleError
from ..core.proposing.suggest import Suggestion
from ..core.treating.what_if import WhatIf
from ..documents.codec import to_json
from ..work import catalogue
from .answers import answer
from .context import Signed

router = APIRouter(prefix="/api", tags=["catalogue"])
LOOK_S = 0.05


@router.get("/catalogue/file", response_class=Response)
def download(ctx: Signed, form: Literal["json", "csv"] = "json") -> Response:
    """All items on sale as one file."""
    with ctx.db() as db:
        items = catalogue.on_sale(db, ctx.who).values()
    data = files.write_json(items) if form == "json" else files.write_csv(items)
    kind = "application/json" if form == "json" else "text/csv; charset=utf-8"
    return Response(
        data,
        media_type=kind,
        headers={
            "Content-Disposition": f'attachment; filename="catalogue.{form}"',
            "Cache-Control": "no-store",
        },
    )


@router.post("/catalogue/preview", response_model=files.CataloguePreview)
async def preview(ctx: Signed, request: Request) -> Response:
    """What a file would do to the catalogue, before anything is stored."""
    data = await request.body()
    with ctx.db() as db:
        return answer(catalogue.preview(db, ctx.who, data))


@router.post("/catalogue/import", response_model=files.CataloguePreview, status_code=201)
async def bring_in(ctx: Signed, request: Request) -> Response:
    """Store a file of items: all rows or none; managers only."""
    data = await request.body()
    with ctx.db() as db:
        return answer(catalogue.bring_in(db, ctx.who, data), status=201)


@router.get("/visits/{id}/suggest", response_model=Suggestion)
def suggest(ctx: Signed, id: UUID) -> Response:
    """Lines that no other beats, in one answer."""
    with ctx.db() as db:
        asked = catalogue.question(db, ctx.who, id)
    return answer(asked.suggest())


@router.get("/visits/{id}/suggest/stream", response_class=StreamingResponse)
def suggest_stream(ctx: Signed, id: UUID) -> StreamingResponse:
    """The same as server-sent events: how far the search is, then its answer."""
    with ctx.db() as db:
        asked = catalogue.question(db, ctx.who, id)
    return StreamingResponse(
        _told(asked),
        media_type="text/event-stream",
        headers={
            "Cache-Control": "no-store",
            "X-Accel-Buffering": "no",
            "Content-Encoding": "identity",
        },
    )


async def _told(asked: catalogue.Question) -> AsyncIterator[str]:
    heard: queue.SimpleQueue[tuple[str, Any]] = queue.SimpleQueue()

    def work() -> None:
        try:
            heard.put(
                (
                    "answer",
                    to_json(
                        asked.suggest(
                            lambda what, done, of: heard.put(
                                ("progress", {"what": what, "done": done, "of": of})
                            )
                        )
                    ).decode(),
                )
            )
        except RuleError as e:
            heard.put(("failed", {"title": e.what, "remedy": e.remedy}))
        except Exception:
            heard.put(
                (
                    "failed",
                    {
                        "title": "The search broke off.",
                        "remedy": "Design the line by hand, and tell the firm.",
                    },
                )
            )

    threading.Thread(target=work, daemon=True).start()
    while True:
        try:
            kind, data = heard.get_nowait()
        except queue.Empty:
            await asyncio.sleep(LOOK_S)
            continue
        yield f"event: {kind}\ndata: {data if isinstance(data, str) else json.dumps(data)}\n\n"
        if kind != "progress":
            return


@router.get("/visits/{id}/options/{option_id}/what-if", response_model=list[WhatIf])
def what_if(ctx: Signed, id: UUID, option_id: UUID) -> Response:
    """A line under each change: two more people, a lower pH, the next size up."""
    with ctx.db() as db:
        asked = catalogue.question(db, ctx.who, id)
    return answer(asked.what_ifs(str(option_id)), tuple[WhatIf, ...])

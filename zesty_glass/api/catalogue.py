"""The catalog as files, the search that proposes lines, and what if."""

from __future__ import annotations

import asyncio
import json
import logging
import tempfile
from collections.abc import AsyncIterator
from pathlib import Path
from typing import Annotated, Literal
from uuid import UUID

from fastapi import APIRouter, Query, Response
from fastapi import Path as PathParam
from fastapi.responses import StreamingResponse

from ..catalogue import files
from ..core.errors import RuleError
from ..core.proposing.suggested import Suggestion
from ..core.record import record
from ..core.searching.what_if import WhatIf
from ..work import catalogue, examples
from ..work.apart import Busy, TooMuch, searches
from .context import ManagingAgain, Selling, Signed
from .files import FileBody
from .paging import Paged
from .responses import PRIVATE, answer
from .schemas import Body, Units

router = APIRouter(prefix="/api", tags=["catalogue"])
LOOK_S = 0.05
log = logging.getLogger("zesty")


@router.get(
    "/catalogue/file",
    response_class=Response,
    responses={
        200: {
            "description": "The items as JSON, or as CSV.",
            "content": {
                "application/json": {"schema": {"type": "array"}},
                "text/csv": {"schema": {"type": "string"}},
            },
        }
    },
)
def download(ctx: Selling, form: Literal["json", "csv"] = "json") -> Response:
    """All items on sale as one file."""
    with ctx.db() as db:
        items = catalogue.on_sale(db, ctx.who).values()
    data = files.write_json(items) if form == "json" else files.write_csv(items)
    kind = "application/json" if form == "json" else "text/csv; charset=utf-8"
    return Response(
        data,
        media_type=kind,
        headers={
            "Content-Disposition": f'attachment; filename="catalog.{form}"',
            "Cache-Control": "no-store",
        },
    )


@record
class OffSale:
    """An item that is off sale."""

    code: str
    name: str
    maker: str


@record
class SaleView:
    """What still has an item that was taken off sale, or put back."""

    code: str
    on: bool
    lines: int
    jobs: int


class SaleBody(Body):
    """Whether an item is on sale."""

    on: bool


@router.get("/catalogue/off-sale", response_model=list[OffSale])
def off_sale(ctx: Signed, page: Paged) -> Response:
    """Items that are off sale."""
    with ctx.db() as db:
        found = catalogue.off_sale(db, ctx.who).values()
    lines = [OffSale(code=i.code, name=i.name, maker=i.maker) for i in found]
    return page.answer(lines, list[OffSale], lambda x: x.code)


@router.put("/catalogue/{code}/sale", response_model=SaleView)
def set_on_sale(
    ctx: ManagingAgain, code: Annotated[str, PathParam(max_length=80)], body: SaleBody
) -> Response:
    """Take an item off sale, or put it back; says what still has it."""
    with ctx.db() as db:
        uses = catalogue.set_on_sale(db, ctx.who, code, body.on)
    return answer(SaleView(code=code, on=body.on, lines=uses.lines, jobs=uses.jobs))


@record
class Examples:
    """How many items on sale are examples: invented makers at invented prices, as a firm begins."""

    on_sale: int


@router.get("/catalogue/examples", response_model=Examples)
def show_examples(ctx: Signed) -> Response:
    """How many of the items on sale are still the examples that a firm begins with."""
    with ctx.db() as db:
        return answer(Examples(on_sale=examples.examples_on_sale(db, ctx.who)))


@router.post("/catalogue/examples/take-off", response_model=Examples)
def take_examples_off(ctx: ManagingAgain) -> Response:
    """Take every example off sale, the firm's own items stay; managers only."""
    with ctx.db() as db:
        examples.take_examples_off(db, ctx.who)
        return answer(Examples(on_sale=examples.examples_on_sale(db, ctx.who)))


@router.post("/catalogue/preview", response_model=files.CataloguePreview)
def preview(ctx: Selling, data: FileBody) -> Response:
    """What a file would do to the catalog, before anything is stored."""
    with ctx.db() as db:
        return answer(catalogue.preview(db, ctx.who, data))


@router.post("/catalogue/import", response_model=files.CataloguePreview, status_code=201)
def bring_in(
    ctx: ManagingAgain, data: FileBody, on: Annotated[str | None, Query(max_length=40)] = None
) -> Response:
    """Store a file of items: all rows or none; managers only. ``on``: the revision that the preview
    told.
    """
    with ctx.db() as db:
        return answer(catalogue.bring_in(db, ctx.who, data, on), status=201)


@router.get("/visits/{id}/suggest", response_model=Suggestion)
def suggest(ctx: Selling, id: UUID, units: Units = None) -> Response:
    """Lines that no other beats, in one answer."""
    with ctx.db() as db:
        asked = catalogue.question(db, ctx.who, id, units)
    return Response(
        searches().run(catalogue.suggest_json, asked),
        media_type="application/json",
        headers=PRIVATE,
    )


@router.get("/visits/{id}/suggest/stream", response_class=StreamingResponse)
def suggest_stream(ctx: Selling, id: UUID, units: Units = None) -> StreamingResponse:
    """The same as server-sent events: how far the search is, then its answer."""
    with ctx.db() as db:
        asked = catalogue.question(db, ctx.who, id, units)
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
    """Server-sent events: how far the search is, as the worker writes it down, then its answer or
    why there is none.
    """
    with tempfile.TemporaryDirectory(prefix="zg-search-") as folder:
        progress = Path(folder) / "progress"
        searching = asyncio.get_running_loop().run_in_executor(
            None, searches().run, catalogue.suggest_json, asked, str(progress)
        )
        told = ""
        while not searching.done():
            await asyncio.wait({searching}, timeout=LOOK_S)
            line = progress.read_text() if progress.exists() else ""
            if line.endswith("\n") and line != told:
                told = line
                yield f"event: progress\ndata: {line}\n"
        yield _ended(searching)


def _ended(searching: asyncio.Future[bytes]) -> str:
    try:
        return f"event: answer\ndata: {searching.result().decode()}\n\n"
    except RuleError as e:
        said = {"title": e.what, "remedy": e.remedy}
    except Busy:
        said = {"title": "Many searches are under way.", "remedy": "Try again in a moment."}
    except TooMuch:
        said = {
            "title": "The search took too long and was ended.",
            "remedy": "Design the line by hand, or take items off sale that this home cannot use.",
        }
    except Exception:
        log.exception("search")
        said = {
            "title": "The search broke off.",
            "remedy": "Design the line by hand, and tell the firm.",
        }
    return f"event: failed\ndata: {json.dumps(said)}\n\n"


@router.get("/visits/{id}/options/{option_id}/what-if", response_model=list[WhatIf])
def what_if(ctx: Selling, page: Paged, id: UUID, option_id: UUID, units: Units = None) -> Response:
    """A line under each change: two more people, a lower pH, the next size up."""
    with ctx.db() as db:
        asked = catalogue.question(db, ctx.who, id, units)
    found = asked.said(asked.what_ifs(str(option_id)))
    return page.answer(found, list[WhatIf], lambda x: x.id)

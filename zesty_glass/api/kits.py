"""The firm's instruments and catalog, and what the page needs to know once."""

from __future__ import annotations

from datetime import date
from uuid import UUID

from fastapi import APIRouter, Response
from pydantic import BaseModel, Field

from ..core.analytes import ANALYTES, LOOKED_FOR
from ..core.testing.checking import InstrumentCheck, InstrumentDrift
from ..core.testing.complaints import SIGNS
from ..core.testing.instruments import Instrument
from ..core.testing.noticing import LOOKED_AT
from ..core.treating.items import Item
from ..documents.codec import load
from ..records import store
from ..work import instrument_checks
from .context import Signed
from .kits_schemas import AnalyteView, Reference, SignView
from .paging import Paged
from .responses import answer

router = APIRouter(prefix="/api", tags=["kits"])


@router.get("/instruments", response_model=list[Instrument])
def instruments(ctx: Signed, page: Paged) -> Response:
    """Kits and meters of the firm."""
    with ctx.db() as db:
        rows = [load(Instrument, r.data) for r in store.instruments(db, ctx.who.firm_id)]
    return page.answer(rows, list[Instrument], lambda x: x.id)


@router.get("/instruments/drift", response_model=list[InstrumentDrift])
def drift(ctx: Signed, page: Paged) -> Response:
    """How the firm's instruments did in their standards; those never checked in one are left
    out."""
    with ctx.db() as db:
        found = instrument_checks.drifts(db, ctx.who)
    return page.answer(list(found), list[InstrumentDrift], lambda x: x.key)


class CheckBody(BaseModel):
    """A check of an instrument in a standard."""

    on: date = Field(description="The day it was made.")
    standard: float = Field(description="Value of the standard, in the instrument’s own unit.")
    shown: float = Field(description="What the instrument showed, in its own unit.")


@router.put("/instruments/{key}/checks/{check_id}", response_model=InstrumentDrift)
def put_check(ctx: Signed, key: str, check_id: UUID, body: CheckBody) -> Response:
    """Keep a check of an instrument; the same again changes nothing."""
    made = InstrumentCheck(
        id=str(check_id), on=body.on, standard=body.standard, shown=body.shown, by=ctx.who.name
    )
    with ctx.db() as db:
        return answer(instrument_checks.check(db, ctx.who, key, check_id, made))


@router.get("/catalogue", response_model=list[Item])
def catalogue(ctx: Signed, page: Paged) -> Response:
    """Items of the firm that are on sale."""
    with ctx.db() as db:
        rows = [load(Item, r.data) for r in store.items(db, ctx.who.firm_id) if not r.retired]
    return page.answer(rows, list[Item], lambda x: x.code)


@router.get("/reference", response_model=Reference)
def reference(_: Signed) -> Reference:
    """Signs, analytes, and what a visit looks for."""
    return Reference(
        signs=[SignView(id=s.id, name=s.name, next=s.next) for s in SIGNS.values()],
        analytes=[
            AnalyteView(
                id=a.id,
                name=a.name,
                unit=a.unit,
                kind=a.kind.value,
                laboratory_only=a.laboratory_only,
                test=a.test,
                decimals=a.decimals,
            )
            for a in ANALYTES.values()
        ],
        looked_for=list(LOOKED_FOR),
        looked_at=list(LOOKED_AT),
    )

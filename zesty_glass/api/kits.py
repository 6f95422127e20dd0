"""The firm's instruments and catalogue, and what the page needs to know once."""

from __future__ import annotations

from fastapi import APIRouter, Response

from ..core.analytes import ANALYTES, LOOKED_FOR
from ..core.testing.complaints import SIGNS
from ..core.testing.instruments import Instrument
from ..core.testing.noticing import LOOKED_AT
from ..core.treating.items import Item
from ..documents.codec import load
from ..records import store
from .answers import answer
from .context import Signed
from .schemas import AnalyteView, Reference, SignView

router = APIRouter(prefix="/api", tags=["kits"])


@router.get("/instruments", response_model=list[Instrument])
def instruments(ctx: Signed) -> Response:
    """Kits and meters of the firm."""
    with ctx.db() as db:
        rows = [load(Instrument, r.data) for r in store.instruments(db, ctx.who.firm_id)]
    return answer(rows, list[Instrument])


@router.get("/catalogue", response_model=list[Item])
def catalogue(ctx: Signed) -> Response:
    """Items of the firm that are on sale."""
    with ctx.db() as db:
        rows = [load(Item, r.data) for r in store.items(db, ctx.who.firm_id) if not r.retired]
    return answer(rows, list[Item])


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

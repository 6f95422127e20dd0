"""Settings, limits and kits of the firm."""

from __future__ import annotations

from fastapi import APIRouter, Response

from ..core.record import record
from ..core.rules import Rules, Settings
from ..core.testing.instruments import Instrument
from ..documents.codec import load
from ..records import store
from ..work import firm as work
from .address import same_id
from .answers import answer
from .context import Signed
from .schemas import Saved
from .visits import Version

router = APIRouter(prefix="/api", tags=["firm"])


@record
class FirmView:
    """A firm's settings and rules, the versions of its kits by their id, and published limits that
    are new to it.
    """

    name: str
    version: int
    settings: Settings
    rules: Rules
    kits: dict[str, int]
    news: tuple[str, ...] = ()


@record
class FirmChange:
    """Settings and rules as they should be, on top of a version."""

    version: int
    settings: Settings
    rules: Rules


@router.get("/firm", response_model=FirmView)
def show(ctx: Signed) -> Response:
    """The firm's settings and rules."""
    with ctx.db() as db:
        f = store.firm(db, ctx.who.firm_id)
        kits = {k.key: k.version for k in store.instruments(db, ctx.who.firm_id)}
        view = FirmView(
            name=f.name,
            version=f.version,
            settings=load(Settings, f.settings),
            rules=work.rules_of(f),
            news=work.news(f),
            kits=kits,
        )
    return answer(view)


@router.put("/firm", response_model=Saved)
def change(ctx: Signed, body: FirmChange) -> Saved:
    """Change settings and rules; managers only."""
    with ctx.db() as db:
        f = work.change(db, ctx.who, body.version, body.settings, body.rules)
        return Saved(id=str(f.id), version=f.version)


@router.put("/instruments/{key}", response_model=Saved)
def put_kit(ctx: Signed, key: str, body: Instrument, version: Version = None) -> Saved:
    """Add or change a kit; managers only."""
    same_id(body.id, key, "kit", "kit")
    with ctx.db() as db:
        row = work.put_kit(db, ctx.who, body, version)
        return Saved(id=row.key, version=row.version)

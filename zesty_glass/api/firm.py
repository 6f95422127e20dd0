"""Settings, limits and kits of the firm."""

from __future__ import annotations

from fastapi import APIRouter, Response

from ..core.own_limits import LimitNews, in_force, news, questions
from ..core.record import record
from ..core.rules import Rules, Settings
from ..core.testing.instruments import Instrument
from ..documents.codec import load
from ..records import store
from ..work import firm as work
from .address import same_id
from .context import ManagingAgain, Signed
from .responses import answer
from .schemas import Saved
from .visits import Version

router = APIRouter(prefix="/api", tags=["firm"])


@record
class FirmView:
    """A firm's settings and rules, the versions of its kits by their id, published limits that are
    new to it, and those that changed under its own.
    """

    name: str
    version: int
    settings: Settings
    rules: Rules
    kits: dict[str, int]
    news: tuple[LimitNews, ...] = ()
    questions: tuple[LimitNews, ...] = ()


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
        kept = work.kept_rules(f)
        kits = {k.key: k.version for k in store.instruments(db, ctx.who.firm_id)}
        view = FirmView(
            name=f.name,
            version=f.version,
            settings=load(Settings, f.settings),
            rules=in_force(kept),
            news=news(kept),
            questions=questions(kept),
            kits=kits,
        )
    return answer(view)


@router.put("/firm", response_model=Saved)
def change(ctx: ManagingAgain, body: FirmChange) -> Saved:
    """Change settings and rules; managers only."""
    with ctx.db() as db:
        f = work.change(db, ctx.who, body.version, body.settings, body.rules)
        return Saved(id=str(f.id), version=f.version)


@record
class LimitAnswer:
    """What becomes of a firm's own limit whose published one changed, on top of a version."""

    version: int
    take: bool


@router.post("/firm/limits/{limit}", response_model=Saved)
def answer_limit(ctx: ManagingAgain, limit: str, body: LimitAnswer) -> Saved:
    """Take a published limit that changed, or keep the firm's own; managers only."""
    with ctx.db() as db:
        f = work.answer_limit(db, ctx.who, body.version, limit, body.take)
        return Saved(id=str(f.id), version=f.version)


@router.put("/instruments/{key}", response_model=Saved)
def put_kit(ctx: ManagingAgain, key: str, body: Instrument, version: Version = None) -> Saved:
    """Add or change a kit; managers only."""
    same_id(body.id, key, "kit", "kit")
    with ctx.db() as db:
        row = work.put_kit(db, ctx.who, body, version)
        return Saved(id=row.key, version=row.version)

"""Catalog items as value objects, kept in memory as long as their rows stay as they are."""

from __future__ import annotations

from datetime import datetime
from uuid import UUID
from weakref import WeakKeyDictionary

from sqlalchemy import Connection, Engine
from sqlalchemy.orm import Session

from ..core.treating.items import Item, SystemFigures
from ..documents.codec import load
from ..records import opening, store

MOST = 4000  # items kept a database


class _Shelf:
    """Items by row and mark, and the parts that systems had when they were last seen."""

    def __init__(self) -> None:
        self.items: dict[tuple[UUID, str], Item] = {}
        self.parts: dict[tuple[UUID, str], frozenset[str]] = {}


_kept: WeakKeyDictionary[Engine | Connection, _Shelf] = WeakKeyDictionary()


def taken_at(db: Session, firm: UUID, codes: set[str], at: datetime) -> list[Item]:
    """Items of a firm as they were at a moment: see ``taken``."""
    have = {i.code: i for i in taken(db, firm, codes)}
    past = opening.past_items(db, firm, codes | have.keys(), at)
    if past:
        have |= {code: load(Item, data) for code, data in past.items()}
        if missing := _with_parts(codes, have) - have.keys():
            have |= {i.code: i for i in taken_at(db, firm, missing, at)}
    return [have[c] for c in sorted(_with_parts(codes, have) & have.keys())]


def taken(db: Session, firm: UUID, codes: set[str]) -> list[Item]:
    """Items of a firm by code, with the parts of systems, in order of their codes; codes that are
    not there are left out.
    """
    shelf = _kept.setdefault(db.get_bind(), _Shelf())
    have: dict[str, Item] = {}
    asked: set[str] = set()
    wanted = codes.union(*(shelf.parts.get((firm, c), ()) for c in codes))  # one question mostly
    while wanted:
        asked |= wanted
        have |= _asked(db, firm, shelf, wanted)
        wanted = _with_parts(codes, have) - asked
    for code in codes & have.keys():
        shelf.parts[firm, code] = _parts_of(have[code])
    return [have[c] for c in sorted(_with_parts(codes, have) & have.keys())]


def _parts_of(item: Item) -> frozenset[str]:
    figures = item.figures
    return frozenset(figures.parts) if isinstance(figures, SystemFigures) else frozenset()


def _with_parts(codes: set[str], have: dict[str, Item]) -> set[str]:
    """Codes with those of all parts, of parts of parts too, as far as they are known."""
    found: set[str] = set()
    wanted = set(codes)
    while wanted:
        found |= wanted
        wanted = {p for c in wanted & have.keys() for p in _parts_of(have[c])} - found
    return found


def _asked(db: Session, firm: UUID, shelf: _Shelf, codes: set[str]) -> dict[str, Item]:
    """Items by code: those kept that stand as they were, the rest read anew."""
    kept = shelf.items
    marks = opening.item_marks(db, firm, codes)
    missing = [id for id, _, mark in marks if (id, mark) not in kept]
    rows = store.items_by_id(db, firm, missing) if missing else []
    fresh = {r.id: load(Item, r.data) for r in rows}
    found = {code: fresh.get(id) or kept.get((id, mark)) for id, code, mark in marks}
    if len(kept) + len(fresh) > MOST:
        kept.clear()
        shelf.parts.clear()
    kept.update({(id, mark): fresh[id] for id, _, mark in marks if id in fresh})
    return {code: item for code, item in found.items() if item is not None}

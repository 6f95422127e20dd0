"""Catalogue items as value objects, kept in memory as long as their rows stay as they are."""

from __future__ import annotations

from uuid import UUID
from weakref import WeakKeyDictionary

from sqlalchemy import Connection, Engine
from sqlalchemy.orm import Session

from ..core.treating.items import Item, SystemFigures
from ..documents.codec import load
from ..records import opening, store

MOST = 4000  # items kept a database
_kept: WeakKeyDictionary[Engine | Connection, dict[tuple[UUID, str], Item]] = WeakKeyDictionary()


def taken(db: Session, firm: UUID, codes: set[str]) -> list[Item]:
    """Items of a firm by code, with the parts of systems, in order of their codes; codes that are
    not there are left out.
    """
    kept = _kept.setdefault(db.get_bind(), {})
    have: dict[str, Item] = {}
    wanted = codes
    asked: set[str] = set()
    while wanted:
        asked |= wanted
        marks = opening.item_marks(db, firm, wanted)
        missing = [id for id, _, mark in marks if (id, mark) not in kept]
        fresh = (
            {r.id: load(Item, r.data) for r in store.items_by_id(db, firm, missing)}
            if missing
            else {}
        )
        have |= {code: fresh.get(id) or kept[id, mark] for id, code, mark in marks}
        if len(kept) + len(fresh) > MOST:
            kept.clear()
        kept.update({(id, mark): fresh[id] for id, _, mark in marks if id in fresh})
        wanted = {
            p
            for i in have.values()
            if isinstance(i.figures, SystemFigures)
            for p in i.figures.parts
        } - asked
    return [have[c] for c in sorted(have)]

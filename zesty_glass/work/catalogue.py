"""The firm's catalog, and what it proposes for a visit: import by a manager, the
search, what if.
"""

from __future__ import annotations

import hashlib
import json
import time
from collections.abc import Iterable
from contextlib import suppress
from dataclasses import dataclass, replace
from datetime import datetime
from pathlib import Path
from typing import Literal, NamedTuple, TypeVar
from uuid import NAMESPACE_OID, UUID, uuid4, uuid5

from sqlalchemy.orm import Session

from ..catalogue import files
from ..core.errors import RuleError
from ..core.home import Home
from ..core.presenting.metric import in_units
from ..core.proposing.answered import NOTHING_ON_SALE
from ..core.proposing.suggest import suggest
from ..core.proposing.suggested import Suggested, Suggestion, TurningPoint
from ..core.proposing.turning import turning_points
from ..core.searching.search import Progress
from ..core.searching.what_if import WhatIf, what_ifs
from ..core.testing.water import Water
from ..core.treating.existing_equipment import water_behind_kept
from ..core.treating.items import Item
from ..core.visit import Visit, kept_of
from ..core.worked import Drawn, drawn
from ..documents.codec import load, plain, to_json
from ..records import items as records
from ..records import opening, store
from ..records.models import ItemRow, PastItemRow
from . import visiting
from .person import Conflict, Person, manager_only, now
from .versioning import change, note

TOLD_EVERY_S = 0.05
_T = TypeVar("_T")


def on_sale(db: Session, who: Person, at: datetime | None = None) -> dict[str, Item]:
    """Items of the firm that are on sale, by code; ``at``: at the prices of that moment."""
    rows = [r for r in store.items(db, who.firm_id) if not r.retired]
    past = {} if at is None else opening.past_items(db, who.firm_id, [r.code for r in rows], at)
    return {r.code: load(Item, past.get(r.code, r.data)) for r in rows}


def _sold_alone(db: Session, who: Person, at: datetime) -> dict[str, Item]:
    """Items on sale without those that have no price of their own and belong to systems that were
    taken off sale: they are no answer by themselves.
    """
    rows = store.items(db, who.firm_id)
    freed = {p for r in rows if r.retired for p in parts_of(r)}
    held = {p for r in rows if not r.retired for p in parts_of(r)}
    have = on_sale(db, who, at)
    return {c: i for c, i in have.items() if i.price or c in held or c not in freed}


def _revision(rows: Iterable[ItemRow]) -> str:
    """The state of a catalog: another after every change of any item."""
    listed = sorted(f"{r.code} {r.version}" for r in rows)
    return hashlib.sha256("\n".join(listed).encode()).hexdigest()[:24]


def preview(db: Session, who: Person, data: bytes) -> files.CataloguePreview:
    """What a file would do, row by row; nothing is stored."""
    rows = store.items(db, who.firm_id)
    known = {r.code: load(Item, r.data) for r in rows if not r.retired}
    return replace(files.read(data, known)[0], revision=_revision(rows))


def bring_in(
    db: Session, who: Person, data: bytes, revision: str | None = None
) -> files.CataloguePreview:
    """Store every item of a file, or none when a row has an error; managers only. Twice is once.

    Raises:
        Conflict: it changes items, and the catalog is no more as it was when the file was looked
            at.
    """
    manager_only(who)
    rows = {r.code: r for r in store.items(db, who.firm_id, lock=True)}
    seen, items = files.read(data, {c: load(Item, r.data) for c, r in rows.items()})
    if not seen.good:
        first = next(r for r in seen.rows if r.change == "error")
        raise RuleError(
            "catalogue.row",
            f"Row {first.row}: {first.error}",
            f"row {first.row}, {first.where}",
            f"{first.remedy} Nothing was stored.",
        )
    touched = [r.code for r in seen.rows if r.change == "changed"]
    if touched and revision != _revision(rows.values()):
        raise Conflict("catalogue", touched[:20], "", 0)
    for item in items:
        row, after = rows.get(item.code), plain(item)
        if row is None:
            row = ItemRow(
                id=uuid4(),
                firm_id=who.firm_id,
                code=item.code,
                data=after,
                version=1,
                retired=False,
            )
            db.add(row)
            note(db, who, row.id, "added", 1, [], None, after)
        else:
            keep_past(db, who.firm_id, row, after)
            change(db, who, row, {"data": after, "retired": False})
    db.flush()
    return replace(seen, revision=_revision(store.items(db, who.firm_id)))


class Uses(NamedTuple):
    """What still has an item: lines of visits that are open, and jobs where it is fitted."""

    lines: int
    jobs: int


def set_on_sale(db: Session, who: Person, code: str, on: bool) -> Uses:
    """Take an item off sale, or put it back; what was proposed and fitted with it stays as it is.
    Managers only; twice is once.

    Raises:
        RuleError: it is a part of a system that is on sale.
    """
    manager_only(who)
    rows = {r.code: r for r in store.items(db, who.firm_id, lock=True)}
    row = rows.get(code)
    if row is None:
        raise store.NotFound("item")
    holds = [r for r in rows.values() if not r.retired and code in parts_of(r)]
    if not on and holds:
        raise RuleError(
            "item.part",
            f"It is a part of “{holds[0].data['name']}”, which is on sale.",
            "code",
            "Take the system off sale first.",
        )
    if row.retired == on:
        change(db, who, row, {"retired": not on}, "put on sale" if on else "taken off sale")
    return Uses(*records.uses(db, who.firm_id, code))


def parts_of(row: ItemRow) -> tuple[str, ...]:
    """Codes of the items that a system is made of; none of what is no system."""
    figures = row.data["figures"]
    return tuple(figures.get("parts") or ()) if figures.get("kind") == "system" else ()


def off_sale(db: Session, who: Person) -> dict[str, Item]:
    """Items of the firm that are off sale, by code."""
    return {r.code: load(Item, r.data) for r in store.items(db, who.firm_id) if r.retired}


def keep_past(db: Session, firm: UUID, row: ItemRow, after: dict[str, object]) -> None:
    """Keep an item as it was until now, where it is about to become another."""
    if row.data != after:
        past = {"code": row.code, "until": now(), "data": row.data, "retired": row.retired}
        db.merge(PastItemRow(firm_id=firm, **past))


@dataclass(frozen=True, slots=True)
class Question:
    """What a search needs, read once, so that it can run with no database in its hand."""

    visit: Visit
    items: dict[str, Item]

    def suggest(self, progress: Progress | None = None) -> Suggestion:
        """The search's answer."""
        v, at = self.visit, drawn(self.visit)
        raw = at.raw
        if raw is None:
            raise RuleError(
                "search.no_raw",
                "There is no raw sample: nothing can be proposed.",
                "samples",
                "Draw a glass ahead of all treatment and test it.",
            )
        found = self._found(at, raw, v.home, tuple(self.items.values()), progress)
        turning = self._turning(at, raw, found)
        found = replace(found, lines=tuple(map(self._named, found.lines)), turning=turning)
        if self.items or found.nothing_needed:
            return found
        return replace(found, unanswered=NOTHING_ON_SALE)

    def _turning(self, at: Drawn, raw: Water, found: Suggestion) -> tuple[TurningPoint, ...]:
        """What would put another system first by what was found; nothing where goals decide."""
        if self.visit.home.goals:
            return ()
        return turning_points(
            found,
            raw,
            self.visit.home,
            self.items.values(),
            at.meaning,
            lambda water, home, items: self._found(at, water, home, items),
            self.visit.settings,
        )

    def _found(
        self,
        at: Drawn,
        raw: Water,
        home: Home,
        items: tuple[Item, ...],
        progress: Progress | None = None,
    ) -> Suggestion:
        """What is proposed of some items for a raw water and a home: the visit's, or as they could
        be."""
        v = self.visit
        judged = at.judged(raw)
        going_on = {j.id for j in judged if j.verdict == "keep"}
        staying = tuple(d for d in home.in_place if d.id in going_on)
        water = water_behind_kept(raw, staying, v.samples, at.waters)
        return suggest(
            water,
            at.meaning(water),
            home,
            v.settings,
            v.rules,
            items,
            v.horizon,
            at.measured(),
            progress,
            at.told,
            v.samples,
            judged,
            kept_of(v, raw, at.waters),
        )

    def _named(self, line: Suggested) -> Suggested:
        """A line under an id by which it may be put into the visit: the same line, the same id."""
        said = to_json(replace(line.option, id="", name=""))
        id = uuid5(NAMESPACE_OID, f"{self.visit.id} {said.decode()}")
        return replace(line, option=replace(line.option, id=str(id)))

    def said(self, worked: _T) -> _T:
        """What was worked out, in the units of the visit."""
        return in_units(worked, self.visit, self.items.values())

    def what_ifs(self, option_id: str) -> tuple[WhatIf, ...]:
        """A line under each change."""
        v, at = self.visit, drawn(self.visit)
        option = next((o for o in v.options if o.id == option_id), None)
        if at.raw is None or option is None:
            raise store.NotFound("line")
        used = {i.code: i for i in v.catalogue} | kept_of(v, at.raw, at.waters)
        return what_ifs(
            option,
            {**used, **self.items},
            at.raw,
            at.meaning(at.raw).colour,
            v.home,
            v.settings,
            v.horizon,
            at.measured(),
        )


def suggest_json(asked: Question, progress: str | None = None) -> bytes:
    """The search's answer as JSON; how far it is goes as one line of JSON into the file
    ``progress``.
    """
    if progress is None:
        return to_json(asked.said(asked.suggest()))
    waiting, last = Path(progress + ".new"), [0.0]

    def told(what: str, done: int, of: int) -> None:
        if time.monotonic() - last[0] < TOLD_EVERY_S:
            return
        last[0] = time.monotonic()
        with suppress(FileNotFoundError):  # whoever asked has gone, and the folder with them
            waiting.write_text(json.dumps({"what": what, "done": done, "of": of}) + "\n")
            waiting.replace(progress)

    return to_json(asked.said(asked.suggest(told)))


def question(
    db: Session, who: Person, visit_id: UUID, units: Literal["us", "metric"] | None = None
) -> Question:
    """A visit with the items on sale; ``units``: those in which its answer is said."""
    row = visiting.get(db, who, visit_id)
    visit, _ = visiting.document(db, who, row, snapshots=False)
    if units is not None:
        visit = replace(visit, settings=replace(visit.settings, units=units))
    return Question(visit=visit, items=_sold_alone(db, who, visiting.terms_of(row)))

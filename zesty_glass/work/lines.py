"""Lines of a visit: kept, changed and taken back."""

from __future__ import annotations

from uuid import UUID

from sqlalchemy.orm import Session

from ..core.errors import RuleError
from ..core.treating.option import Option
from ..documents.codec import plain
from ..records import store
from ..records.models import OptionRow, VisitRow
from . import versioning
from .person import Person
from .versioning import expect, keep_part, same_id
from .visiting import get


def put_option(
    db: Session, who: Person, visit_id: UUID, option: Option, version: int | None
) -> OptionRow:
    """Add or change a line. Its items must be in the catalog, or be the visit's own."""
    visit = get(db, who, visit_id, lock=True)
    codes = [c.item for c in option.stages]
    known = {r.code for r in store.items(db, who.firm_id, codes)}
    known |= {i["code"] for i in visit.own_items}
    for i, code in enumerate(codes):
        if code not in known:
            raise RuleError(
                "line.unknown_item",
                f"There is no item “{code}” in the catalog.",
                f"stages[{i}].item",
                "Choose one from the catalog.",
            )
    _keeps_what_stands(db, who, visit, option)
    rows = store.of_visit(db, OptionRow, who.firm_id, visit_id)
    if len(rows) >= 6 and all(str(r.id) != option.id for r in rows):
        raise RuleError(
            "options.many",
            "Six lines are enough to choose from.",
            "options",
            "Take one away first.",
        )
    id = same_id(option.id)
    return keep_part(db, who, OptionRow, visit_id, id, plain(option), version, "line", "added")


def _keeps_what_stands(db: Session, who: Person, visit: VisitRow, option: Option) -> None:
    """RuleError when a line keeps equipment that does not stand in the home."""
    if not option.keeps:
        return
    home, _ = store.home_of(db, who.firm_id, visit.home_id)
    there = {d["id"] for d in home.home.get("in_place") or ()}
    for i, kept in enumerate(option.keeps):
        if kept.device not in there:
            raise RuleError(
                "line.kept_gone",
                "This equipment is not among what stands in the home.",
                f"keeps[{i}].device",
                "Write it down under “Before” first, or leave it out of the line.",
            )


def drop_option(
    db: Session, who: Person, visit_id: UUID, option_id: UUID, version: int | None
) -> None:
    """Take a line away; taking away what is gone is harmless, what somebody changed meanwhile is
    refused.
    """
    visit = get(db, who, visit_id, lock=True)
    row = store.find(db, OptionRow, who.firm_id, option_id, lock=True)
    if row is None or row.visit_id != visit_id:
        return
    if version is not None:
        expect(db, "line", row, version)
    versioning.remove(db, who, row)
    if visit.recommended == str(option_id):
        versioning.change(db, who, visit, {"recommended": None})

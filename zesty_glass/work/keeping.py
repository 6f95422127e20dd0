"""Keep a part of a visit: drawn once, changed on top of a version, each change written to the audit trail."""

from __future__ import annotations

from typing import Any, TypeVar
from uuid import UUID

from sqlalchemy.orm import Session

from ..records import store
from ..records.models import DemonstrationRow, LabSampleRow, OptionRow
from .person import Person, changed, changed_fields, expect, note

Kept = TypeVar("Kept", LabSampleRow, OptionRow, DemonstrationRow)


def keep_part(
    db: Session,
    who: Person,
    kind: type[Kept],
    visit_id: UUID,
    id: UUID,
    data: dict[str, Any],
    version: int | None,
    what: str,
    made: str,
) -> Kept:
    """Add or change a part; the same data again changes nothing.

    Args:
        what: its name in messages; made: the word of the audit trail when it is new.

    Raises:
        NotFound: it belongs to another visit. Conflict: somebody changed it since ``version``.
    """
    row = store.find(db, kind, who.firm_id, id, lock=True)
    if row is None:
        row = kind(
            id=id,
            firm_id=who.firm_id,
            visit_id=visit_id,
            position=store.next_position(db, kind, visit_id),
            data=data,
            version=1,
        )
        db.add(row)
        note(db, who, id, made, 1, [])
    elif row.visit_id != visit_id:
        raise store.NotFound(what)
    elif row.data != data:
        expect(db, what, row, version or 0)
        touched = changed_fields(row.data, data)
        row.data = data
        changed(db, who, row, "changed", touched)
    db.flush()
    return row

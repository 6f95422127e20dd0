"""The one way anything editable is kept: locked, compared with the version it was changed from, and
written to the audit.

A row that is about to be changed is read with a lock, so that of two writers at the same moment the
second waits, sees what the first one wrote, and is told what changed. Should a writer ever forget
the lock, the version stands in the UPDATE itself (``records/models.py``) and finds no row.
"""

from __future__ import annotations

import hashlib
import json
from collections.abc import Callable, Iterable
from typing import Any, TypeVar
from uuid import UUID

from sqlalchemy.orm import Session

from ..core.aftercare.job import Job
from ..core.demonstrating.demonstrations import Demonstration
from ..core.errors import RuleError
from ..core.proposing.proposal import Proposal
from ..core.testing.laboratory import LabSample
from ..core.testing.reading import Reading
from ..core.testing.water import Sample
from ..core.treating.option import Option
from ..documents.erasing import holds_person
from ..records import audit, store
from ..records.after_models import JobRow
from ..records.models import (
    Audit,
    DemonstrationRow,
    LabSampleRow,
    OptionRow,
    ProposalRow,
    ReadingRow,
    SampleRow,
)
from .person import Conflict, Person, changed_fields, now

Kept = TypeVar("Kept", LabSampleRow, OptionRow, DemonstrationRow, SampleRow)

#: what the document of a row is
DOCUMENTS: dict[type[Any], Any] = {
    DemonstrationRow: Demonstration,
    JobRow: Job,
    LabSampleRow: LabSample,
    OptionRow: Option,
    ProposalRow: Proposal,
    ReadingRow: Reading,
    SampleRow: Sample,
}
Told = Callable[[str], bool]  # whether the audit keeps what a field said
#: more than this of one value is cut in the audit [characters]
_MOST_SAID = 4000


def request_of(*said: Any) -> str:
    """A digest of what was asked for, so that a repeat under one id is told from something else."""
    return hashlib.sha256(
        json.dumps(said, sort_keys=True, default=str, ensure_ascii=True).encode()
    ).hexdigest()


def same_request(kept: str, asked: str, thing: str) -> None:
    """RuleError when an id that was used already comes again with other content."""
    if kept and kept != asked:
        raise another(thing)


def another(thing: str) -> RuleError:
    """What is said where an id that was used already comes again with other content."""
    return RuleError(
        "request.other",
        f"This {thing} was kept already, and was another one.",
        "id",
        "Nothing was overwritten. Open it to look, or send yours under a new id.",
    )


def same_id(id: str, where: str = "id") -> UUID:
    """An identifier as UUID; RuleError when it is none."""
    try:
        return UUID(id)
    except ValueError:
        raise RuleError(
            "id.form",
            "This is no identifier.",
            where,
            "An identifier is a UUID, as in 2b1f0c9e-8a51-4d0b-9a37-5c1d2e3f4a5b.",
        ) from None


def told_of(row: Any, of_document: bool) -> Told:
    """Which fields of a row the audit tells the values of: none that goes with a person.

    Args:
        of_document: the fields are those of its document, and not its columns.
    """
    if of_document:
        document = DOCUMENTS.get(type(row))
        return lambda path: document is None or not holds_person(document, path.split(".")[0])
    columns = type(row).__table__.columns
    return lambda path: not columns[path.split(".")[0]].info.get("personal")


def _told(values: dict[str, Any], fields: Iterable[str], told: Told) -> str:
    """The values of changed fields as JSON; personal ones are named and not told."""
    out: dict[str, Any] = {}
    for path in fields:
        if not told(path):
            out[path] = "(personal, not kept here)"
            continue
        value: Any = values
        for key in path.split("."):
            value = value.get(key) if isinstance(value, dict) else None
        text = json.dumps(value, ensure_ascii=False, default=str)
        out[path] = value if len(text) <= _MOST_SAID else text[:_MOST_SAID] + " …"
    return json.dumps(out, ensure_ascii=False, default=str) if out else ""


def note(
    db: Session,
    who: Person,
    target: UUID,
    action: str,
    version: int,
    fields: list[str],
    before: dict[str, Any] | None = None,
    after: dict[str, Any] | None = None,
    told: Told = lambda path: True,
) -> None:
    """A line of the audit trail, with the values of the fields that changed, as far as they are
    told.
    """
    row = Audit(
        firm_id=who.firm_id,
        user_id=who.id,
        who=who.name,
        at=now(),
        target=target,
        action=action,
        version=version,
        fields=fields,
        before=_told(before or {}, fields, told),
        after=_told(after or {}, fields if fields else list(after or {}), told),
    )
    audit.append(db, row)


def expect(db: Session, what: str, row: Any, version: int) -> None:
    """Refuse a change that was made on an older version, saying what changed since."""
    if row.version != version:
        fields, by = store.changes_since(db, row.id, version)
        raise Conflict(what, fields, by, row.version)


def change(
    db: Session, who: Person, row: Any, after: dict[str, Any], action: str = "changed"
) -> list[str]:
    """Set attributes of a locked row, count its version up and write the audit line; nothing when
    all is as it was.
    """
    before = {name: getattr(row, name) for name in after}
    document = set(after) == {"data"}
    was, becomes = (before["data"], after["data"]) if document else (before, after)
    touched = changed_fields(was, becomes)
    if not touched:
        return []
    for name, value in after.items():
        setattr(row, name, value)
    row.version += 1
    note(db, who, row.id, action, row.version, touched, was, becomes, told_of(row, document))
    return touched


def remove(db: Session, who: Person, row: Any, action: str = "removed") -> None:
    """Take a locked row away; the audit keeps what it said, but for what goes with a person."""
    told = told_of(row, of_document=True)
    was = {name: value for name, value in row.data.items() if told(name)}
    note(db, who, row.id, action, row.version, [], None, {"was": was})
    db.delete(row)


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
    request: str = "",
) -> Kept:
    """Add or change a part of a visit that is locked; the same data again changes nothing.

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
        if isinstance(row, DemonstrationRow):
            row.request = request
        db.add(row)
        note(db, who, id, made, 1, [], None, data)
    elif row.visit_id != visit_id:
        raise store.NotFound(what)
    elif row.data != data:
        expect(db, what, row, version or 0)
        change(db, who, row, {"data": data})
    db.flush()
    return row

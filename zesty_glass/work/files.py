"""Pictures of what was read and done at a visit, and the certificates of items: kept once, handed
out to who may see what they belong to, taken away with a line in the audit.
"""

from __future__ import annotations

import hashlib
from typing import Literal, NamedTuple
from uuid import UUID

from sqlalchemy.orm import Session

from ..core.aftercare.job import Job
from ..core.errors import RuleError
from ..documents import photographs
from ..documents.codec import load
from ..records import files as records
from ..records import jobs, store
from ..records.file_models import FileRow
from ..records.models import ReadingRow
from . import visiting
from .apart import papers
from .person import Person, manager_only, now
from .versioning import another, note

About = Literal["reading", "step"]
MOST_OF_VISIT = 60
MOST_OF_ITEM = 12
MOST_LISTED = 2000


def listed(db: Session, who: Person, visit: UUID) -> list[FileRow]:
    """Pictures of a visit that this person may see."""
    return records.of_visit(db, who.firm_id, visiting.get(db, who, visit).id)


def certificates(db: Session, who: Person) -> list[FileRow]:
    """Certificates of all items of the firm."""
    return records.of_items(db, who.firm_id, MOST_LISTED)


def _digest(*said: str | bytes) -> str:
    h = hashlib.sha256()
    for x in said:
        h.update(x.encode() if isinstance(x, str) else x)
        h.update(b"\0")
    return h.hexdigest()


def _same(row: FileRow | None, digest: str, db: Session, id: UUID, thing: str) -> FileRow | None:
    """What a repeat finds; RuleError when the id is another file's."""
    if row is not None and row.digest == digest:
        return row
    if row is not None or records.known(db, id):
        raise another(thing)
    return None


def _room(db: Session, who: Person, visit: UUID | None, item: str, most: int, of: str) -> None:
    if records.how_many(db, who.firm_id, visit, item) >= most:
        raise RuleError(
            "files.many",
            f"This {of} has {most} files already.",
            of,
            "Take one away that is not needed, then add this one.",
        )


def _check_place(db: Session, who: Person, visit: UUID, about: About, of: str) -> None:
    """RuleError when there is no such reading or step at the visit."""
    if about == "reading":
        row = store.find(db, ReadingRow, who.firm_id, _uuid(of))
        there = row is not None and row.visit_id == visit
    else:
        sheet, _, step = of.rpartition("/")
        made = [load(Job, j.data) for j in jobs.of_visit(db, who.firm_id, visit)]
        sheets = [s for j in made for s in j.sheets if s.key == sheet]
        there = step.isdigit() and any(int(step) < len(s.steps) for s in sheets)
    if not there:
        raise RuleError(
            "picture.place",
            f"There is no such {about} at this visit.",
            "of",
            "It may have been taken out meanwhile. Open the visit again.",
        )


def _uuid(text: str) -> UUID:
    try:
        return UUID(text)
    except ValueError:
        return UUID(int=0)


def _row(who: Person, id: UUID, about: str, of: str, digest: str, data: bytes) -> FileRow:
    """A file of nothing yet, as a picture."""
    return FileRow(
        id=id,
        firm_id=who.firm_id,
        visit_id=None,
        item="",
        about=about,
        of=of,
        by=who.name,
        at=now(),
        media="image/jpeg",
        width=0,
        height=0,
        size=len(data),
        digest=digest,
        data=data,
    )


def _added(db: Session, who: Person, row: FileRow, said: dict[str, str]) -> FileRow:
    db.add(row)
    kind = "certificate" if row.item else "picture"
    note(db, who, row.id, f"{kind} kept", 1, [], None, said)
    db.flush()
    return row


def looked_at(raw: bytes) -> photographs.Picture:
    """A picture made small, apart from the requests; before any row is locked, for it takes time.

    Raises:
        RuleError: no picture, or too large. Busy, TooMuch: it cannot be looked at now, or takes
        more than it may.
    """
    return papers().run(photographs.picture, raw)


def read_certificate(raw: bytes) -> tuple[bytes, str]:
    """A certificate's document and its media type, likewise."""
    return papers().run(photographs.certificate, raw)


class Sent(NamedTuple):
    """A picture on its way: what it shows, as it was sent, and made small."""

    id: UUID
    about: About
    of: str
    raw: bytes
    made: photographs.Picture


def keep_picture(db: Session, who: Person, visit: UUID, sent: Sent) -> FileRow:
    """Keep a picture of a reading or a step; the same again is one.

    Raises:
        RuleError: no such reading or step, or too many. NotFound: the visit.
    """
    id, about, of, raw, made = sent
    held = visiting.get(db, who, visit, lock=True)
    digest = _digest(str(visit), about, of, raw)
    have = _same(records.find(db, who.firm_id, id), digest, db, id, "picture")
    if have is not None:
        return have
    _check_place(db, who, visit, about, of)
    _room(db, who, visit, "", MOST_OF_VISIT, "visit")
    row = _row(who, id, about, of, digest, made.data)
    row.visit_id, row.width, row.height = held.id, made.width, made.height
    return _added(db, who, row, {"visit": str(visit), "about": about, "of": of})


class Document(NamedTuple):
    """A certificate on its way: of which item and number, as it was sent, and as it is kept."""

    id: UUID
    item: str
    of: str
    raw: bytes
    data: bytes
    media: str


def keep_certificate(db: Session, who: Person, sent: Document) -> FileRow:
    """Keep the document of an item's certificate; managers only. The same again is one.

    Raises:
        RuleError: the item claims no such certificate, or has too many. NotFound: the item.
    """
    manager_only(who)
    id, item, of, raw, data, media = sent
    digest = _digest(item, of, raw)
    have = _same(records.find(db, who.firm_id, id), digest, db, id, "certificate")
    if have is not None:
        return have
    _check_claimed(db, who, item, of)
    _room(db, who, None, item, MOST_OF_ITEM, "item")
    row = _row(who, id, "certificate", of, digest, data)
    row.item, row.media = item, media
    return _added(db, who, row, {"item": item, "certificate": of})


def _check_claimed(db: Session, who: Person, item: str, certificate: str) -> None:
    row = next((r for r in store.items(db, who.firm_id) if r.code == item), None)
    if row is None:
        raise store.NotFound("item")
    claimed = {e["evidence"].get("certificate", "") for e in row.data.get("effects", ())}
    if not certificate or certificate not in claimed:
        raise RuleError(
            "certificate.claimed",
            f"This item claims no certificate {certificate or 'without a number'}.",
            "certificate",
            "Bring the item in with its certificate first; a document stands for that one only.",
        )


def one(db: Session, who: Person, id: UUID, visit: UUID | None) -> FileRow:
    """A file with its bytes: a picture of a visit that this person may see, or a certificate."""
    if visit is not None:
        visiting.get(db, who, visit)
    row = records.find(db, who.firm_id, id, whole=True)
    if row is None or row.visit_id != visit:
        raise store.NotFound("file")
    return row


def take_away(db: Session, who: Person, id: UUID, visit: UUID | None) -> None:
    """Take a file away for good; what is not there is away already. The audit keeps that it was."""
    if visit is None:
        manager_only(who)
    else:
        visiting.get(db, who, visit, lock=True)
    row = records.find(db, who.firm_id, id)
    if row is None or row.visit_id != visit:
        return
    note(db, who, id, f"{row.about} file taken away", 1, [], None, {"of": row.of, "by": row.by})
    db.delete(row)

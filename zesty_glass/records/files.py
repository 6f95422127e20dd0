"""Queries of pictures and documents. Every one is scoped to a firm; their bytes are fetched only
where one is handed out.
"""

from __future__ import annotations

from collections.abc import Iterable
from uuid import UUID

from sqlalchemy import delete, func, select
from sqlalchemy.orm import Session, undefer

from .file_models import FileRow


def of_visit(db: Session, firm: UUID, visit: UUID) -> list[FileRow]:
    """Pictures of a visit, the first taken first."""
    found = select(FileRow).where(FileRow.firm_id == firm, FileRow.visit_id == visit)
    return list(db.scalars(found.order_by(FileRow.at, FileRow.id)))


def of_items(db: Session, firm: UUID, most: int) -> list[FileRow]:
    """Certificates of a firm's items."""
    found = select(FileRow).where(FileRow.firm_id == firm, FileRow.item != "")
    return list(db.scalars(found.order_by(FileRow.item, FileRow.at, FileRow.id).limit(most)))


def find(db: Session, firm: UUID, id: UUID, whole: bool = False) -> FileRow | None:
    """A file by its id; ``whole``: with its bytes."""
    found = select(FileRow).where(FileRow.firm_id == firm, FileRow.id == id)
    return db.scalars(found.options(undefer(FileRow.data)) if whole else found).one_or_none()


def known(db: Session, id: UUID) -> bool:
    """Whether an id is used, by whomever."""
    return db.scalar(select(FileRow.id).where(FileRow.id == id)) is not None


def how_many(db: Session, firm: UUID, visit: UUID | None, item: str) -> int:
    """How many files a visit or an item has."""
    found = select(func.count()).select_from(FileRow).where(FileRow.firm_id == firm)
    return (
        db.scalar(
            found.where(FileRow.item == item) if item else found.where(FileRow.visit_id == visit)
        )
        or 0
    )


def erase_of_visits(db: Session, firm: UUID, visits: Iterable[UUID]) -> None:
    """Take away every picture of some visits."""
    db.execute(delete(FileRow).where(FileRow.firm_id == firm, FileRow.visit_id.in_(list(visits))))

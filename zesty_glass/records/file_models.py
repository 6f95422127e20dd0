"""The table of pictures and documents."""

from __future__ import annotations

from datetime import datetime
from uuid import UUID

from sqlalchemy import CheckConstraint, ForeignKey, Index, LargeBinary
from sqlalchemy.orm import Mapped, mapped_column

from .base import Base


class FileRow(Base):
    """A picture of a visit (``about`` a reading or a step), or a certificate of an item. ``digest``
    is of what was sent, so that a repeat is told from another file.
    """

    __tablename__ = "files"
    id: Mapped[UUID] = mapped_column(primary_key=True)
    firm_id: Mapped[UUID] = mapped_column(ForeignKey("firms.id", ondelete="CASCADE"))
    visit_id: Mapped[UUID | None] = mapped_column(ForeignKey("visits.id", ondelete="CASCADE"))
    item: Mapped[str] = mapped_column(default="")
    about: Mapped[str]
    of: Mapped[str]
    by: Mapped[str]
    at: Mapped[datetime]
    media: Mapped[str]
    width: Mapped[int] = mapped_column(default=0)
    height: Mapped[int] = mapped_column(default=0)
    size: Mapped[int]
    digest: Mapped[str]
    data: Mapped[bytes] = mapped_column(LargeBinary, deferred=True)
    __table_args__ = (
        CheckConstraint("(visit_id is null) = (item <> '')", name="of_one_thing"),
        Index("files_of_visit", "visit_id"),
        Index("files_of_item", "firm_id", "item"),
    )

"""What all tables have in common."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any

from sqlalchemy import JSON, DateTime, Text
from sqlalchemy.dialects.postgresql import JSONB
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column

Json = JSON().with_variant(JSONB(), "postgresql")
#: the same, with nothing kept as SQL's NULL, so that a query can ask for it
JsonOrNull = JSON(none_as_null=True).with_variant(JSONB(none_as_null=True), "postgresql")


#: declares a column whose text, or document, goes with the person whom somebody erases
PERSONAL = {"personal": True}
Words = Annotated[str, mapped_column(Text, info=PERSONAL)]


class Base(DeclarativeBase):
    """Common ground of all tables."""

    type_annotation_map = {
        dict[str, Any]: Json,
        list[Any]: Json,
        datetime: DateTime(timezone=True),
        str: Text,
    }


def compared(version: Mapped[int]) -> dict[str, Any]:
    """The version is part of every UPDATE and DELETE of a row: of two writers on one version the
    second finds no row.

    The version grows where the change is written (``work/versioning.py``), so that the audit can
    name it.
    """
    return {"version_id_col": version, "version_id_generator": False}

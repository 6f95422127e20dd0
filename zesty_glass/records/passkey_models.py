"""Passkeys of people, and the questions that they answer."""

from __future__ import annotations

from datetime import datetime
from uuid import UUID

from sqlalchemy import BigInteger, ForeignKey
from sqlalchemy.orm import Mapped, mapped_column

from .base import Base


class PasskeyRow(Base):
    """A key that somebody's device holds: its public half, and how often it was used."""

    __tablename__ = "passkeys"
    id: Mapped[UUID] = mapped_column(primary_key=True)
    user_id: Mapped[UUID] = mapped_column(ForeignKey("users.id", ondelete="CASCADE"), index=True)
    credential: Mapped[bytes] = mapped_column(unique=True)
    public_key: Mapped[bytes]
    uses: Mapped[int] = mapped_column(BigInteger)  # of 32 bits without a sign
    name: Mapped[str]
    made_at: Mapped[datetime]
    used_at: Mapped[datetime | None]


class Challenge(Base):
    """A question a device is to sign: of a person who adds a key, or of nobody yet; asked once."""

    __tablename__ = "challenges"
    asked: Mapped[bytes] = mapped_column(primary_key=True)
    user_id: Mapped[UUID | None] = mapped_column(ForeignKey("users.id", ondelete="CASCADE"))
    until: Mapped[datetime] = mapped_column(index=True)

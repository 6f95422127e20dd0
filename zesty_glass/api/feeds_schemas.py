"""What goes over the wire of calendars."""

from __future__ import annotations

from datetime import datetime
from uuid import UUID

from pydantic import BaseModel

from .schemas import Body


class FeedBody(Body):
    """A calendar of a home, or without one of one's own round."""

    id: UUID
    home: UUID | None = None


class FeedMade(BaseModel):
    """A new calendar with its path, shown this once."""

    id: UUID
    path: str


class FeedView(BaseModel):
    """A calendar, without its address."""

    id: UUID
    home: UUID | None
    made_at: datetime
    revoked_at: datetime | None

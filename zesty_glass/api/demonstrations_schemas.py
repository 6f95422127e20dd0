"""What goes over the wire of demonstrations."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from pydantic import Field

from ..core.demonstrating.about import About, NotOffered
from ..core.record import record
from .schemas import Body


class TastingBody(Body):
    """A blind tasting to draw: glasses, names of tasters, and glasses behind a unit that was
    sanitized and flushed.
    """

    id: UUID
    samples: list[UUID] = Field(min_length=2, max_length=5)
    tasters: list[Annotated[str, Field(min_length=1, max_length=60)]] = Field(
        min_length=1, max_length=6
    )
    sanitised: list[UUID] = Field(default=[], max_length=5)


@record
class DemonstrationWords:
    """Every demonstration in words, and what is not offered."""

    offered: tuple[About, ...]
    not_offered: tuple[NotOffered, ...]

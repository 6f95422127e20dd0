"""What goes over the wire beside the core's own value objects."""

from __future__ import annotations

from typing import Any, Literal, cast

from pydantic import BaseModel, ConfigDict, Field, GetCoreSchemaHandler
from pydantic_core import CoreSchema

from ..core.bounds import bounded

#: in which units an answer is said; None: the visit's own
Units = Literal["us", "metric"] | None


class Body(BaseModel):
    """A request body: unknown fields are refused, every field is bounded by its name."""

    model_config = ConfigDict(extra="forbid")

    @classmethod
    def __get_pydantic_core_schema__(cls, source: Any, handler: GetCoreSchemaHandler) -> CoreSchema:
        """The body's schema with the bounds of ``core/bounds.py``."""
        schema = handler(source)
        bounded(cast(dict[str, Any], handler.resolve_ref_schema(schema)))
        return schema


class Versioned(Body):
    """A change on top of a version."""

    version: int


class StrikeBody(Body):
    """Why a reading is crossed out."""

    because: str = Field(default="", max_length=500)


class Saved(BaseModel):
    """What was stored, and its version."""

    id: str
    version: int


JsonObject = dict[str, Any]

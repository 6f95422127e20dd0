"""The one way a value object is declared in the core."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, TypeVar, dataclass_transform

_T = TypeVar("_T")


@dataclass_transform(frozen_default=True, kw_only_default=True)
def record(cls: type[_T]) -> type[_T]:
    """Declare a frozen, slotted, keyword-only value object.

    Unknown fields are refused where the object is validated at an edge, so a
    misspelt key in a file is an error and is never dropped silently.
    """
    config: dict[str, Any] = {"extra": "forbid", "ser_json_inf_nan": "null", "allow_inf_nan": False}
    cls.__pydantic_config__ = config  # type: ignore[attr-defined]
    return dataclass(frozen=True, slots=True, kw_only=True)(cls)

"""Core value objects as JSON answers, dumped once by their adapter."""

from __future__ import annotations

from typing import Any

from fastapi import Response

from ..documents.codec import to_json


def answer(value: Any, kind: Any = None, status: int = 200) -> Response:
    """A value as a JSON response."""
    return Response(
        to_json(value, kind),
        status_code=status,
        media_type="application/json",
        headers={"Cache-Control": "no-store"},
    )

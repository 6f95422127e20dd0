"""Answers: core value objects as JSON, dumped once by their adapter; files; and how both are
described.
"""

from __future__ import annotations

from typing import Any

from fastapi import Response

from ..core.presenting.offer import Offer
from ..documents.codec import to_json

PRIVATE = {"Cache-Control": "no-store"}


def described(kind: str, text: str, schema: dict[str, Any] | None = None) -> dict[int | str, Any]:
    """A route's good answer in the description: its media type and what it is."""
    body = {"schema": schema or {"type": "string", "format": "binary"}}
    return {200: {"description": text, "content": {kind: body}}}


PDF = described("application/pdf", "The proposal as a PDF.")
CSV = described("text/csv", "A table as CSV, UTF-8.", {"type": "string"})


def answer(value: Any, kind: Any = None, status: int = 200) -> Response:
    """A value as a JSON response."""
    return Response(
        to_json(value, kind), status_code=status, media_type="application/json", headers=PRIVATE
    )


def file(data: bytes, kind: str, name: str) -> Response:
    """A file to be kept."""
    headers = {"Content-Disposition": f'attachment; filename="{name}"', **PRIVATE}
    return Response(data, media_type=kind, headers=headers)


def safe_name(text: str, instead: str) -> str:
    """A text as the name of a file: letters and digits of ASCII, the rest as hyphens."""
    kept = "".join(c if c.isascii() and c.isalnum() else "-" for c in text.lower())
    return kept.strip("-")[:60] or instead


def pdf_file(data: bytes, offer: Offer) -> Response:
    """A proposal's PDF, to be looked at."""
    name = f"proposal-{safe_name(offer.number, 'x')}-{offer.revision}.pdf"
    headers = {"Content-Disposition": f'inline; filename="{name}"', **PRIVATE}
    return Response(data, media_type="application/pdf", headers=headers)

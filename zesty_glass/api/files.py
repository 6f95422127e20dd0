"""A file as the body of a request, taken whole and handed to a handler that may block."""

from __future__ import annotations

from typing import Annotated

from fastapi import Depends, Request


async def body_of(request: Request) -> bytes:
    """The bytes of a body; how many there may be is bounded before (``bounds.py``)."""
    return await request.body()


FileBody = Annotated[bytes, Depends(body_of)]

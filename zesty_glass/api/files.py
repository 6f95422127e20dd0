"""A file as the body of a request, taken whole and handed to a handler that may block."""

from __future__ import annotations

import re
from collections.abc import Iterator
from typing import Annotated

from fastapi import APIRouter, Depends, Request
from fastapi.dependencies.models import Dependant
from fastapi.routing import APIRoute


async def body_of(request: Request) -> bytes:
    """The bytes of a body; how many there may be is bounded before (``bounds.py``)."""
    return await request.body()


def takes_a_file(router: APIRouter) -> Iterator[re.Pattern[str]]:
    """The addresses of a router whose body is a file."""
    for route in router.routes:
        if isinstance(route, APIRoute) and _bodies(route.dependant):
            yield route.path_regex


def _bodies(dependant: Dependant) -> bool:
    return any(d.call is body_of or _bodies(d) for d in dependant.dependencies)


FileBody = Annotated[bytes, Depends(body_of)]

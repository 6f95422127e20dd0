"""Lists a page at a time: each answer holds so many rows at most, and its ``Link`` header names the
page behind it (RFC 8288, 2017), whose address carries where this one ended.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Sequence
from typing import Annotated, Any, TypeVar
from urllib.parse import urlencode

from fastapi import Depends, Query, Request, Response

from ..core.errors import RuleError
from .responses import answer

_T = TypeVar("_T")
MOST = 300  # rows of a page
_CURSOR = re.compile(r"(\d{1,6})\.(.{1,200})", re.DOTALL)


class Page:
    """Which page of a list is asked for."""

    def __init__(self, request: Request, after: str, most: int) -> None:
        self._request, self._most = request, most
        self._at, self._key = _read(after)

    @property
    def reach(self) -> int:
        """How many rows, from the first, tell this page and whether another follows."""
        return self._at + self._most + 1

    def answer(self, rows: Sequence[Any], kind: Any, key: Callable[[Any], object]) -> Response:
        """This page of a list, and the address of the next where there is one.

        Args:
            kind: the type of the whole list. key: tells a row from the others; a page begins behind
                the row that the last one ended with, wherever it is now.
        """
        page, after = self.cut(rows, key)
        made = answer(page, kind)
        if after:
            asked = [(k, v) for k, v in self._request.query_params.multi_items() if k != "after"]
            query = urlencode([*asked, ("after", after)])
            made.headers["Link"] = f'<{self._request.url.path}?{query}>; rel="next"'
        return made

    def cut(self, rows: Sequence[_T], key: Callable[[_T], object]) -> tuple[list[_T], str]:
        """The rows of this page, and where the next one begins; empty on the last."""
        start = self._start([str(key(r)) for r in rows])
        end = start + self._most
        page = list(rows[start:end])
        return page, f"{end}.{key(page[-1])}" if end < len(rows) else ""

    def _start(self, keys: list[str]) -> int:
        if not self._at:
            return 0
        if self._key in keys:
            return keys.index(self._key) + 1
        return min(self._at, len(keys))  # its last row is gone: as many rows as there were


def _read(after: str) -> tuple[int, str]:
    if not after:
        return 0, ""
    found = _CURSOR.fullmatch(after)
    if found is None:
        raise RuleError(
            "page.after",
            "This is no page’s beginning.",
            "after",
            "Follow the Link header of the page before.",
        )
    return int(found[1]), found[2]


def page_of(
    request: Request,
    after: Annotated[str, Query(max_length=220)] = "",
    most: Annotated[int, Query(ge=1, le=MOST)] = MOST,
) -> Page:
    """The page that a request asks for."""
    return Page(request, after, most)


Paged = Annotated[Page, Depends(page_of)]

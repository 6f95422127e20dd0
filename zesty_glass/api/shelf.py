"""Routes found by the shape of an address instead of one after the other: with some two hundred of
them, looking at each takes longer than much of what they do.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable

from fastapi.routing import APIRoute
from starlette.routing import BaseRoute, Match
from starlette.types import Receive, Scope, Send

_Shape = tuple[str, int, str]


def _shape(method: str, path: str) -> _Shape:
    """A method, how many parts a path has, and its second part, which no route leaves open."""
    parts = path.split("/", 3)
    return method, path.count("/"), parts[2] if len(parts) > 2 else ""


class Shelf(BaseRoute):
    """Stands ahead of the same routes in the table: what it does not find, as a wrong method or a
    slash too many, is left to them.
    """

    def __init__(self, routes: Iterable[BaseRoute]) -> None:
        self._kept: dict[_Shape, list[APIRoute]] = defaultdict(list)
        for route in routes:
            if isinstance(route, APIRoute):
                for method in route.methods or ():
                    self._kept[_shape(method, route.path_format)].append(route)

    def matches(self, scope: Scope) -> tuple[Match, Scope]:
        """The route of an address, where there is one."""
        if scope["type"] == "http":
            for route in self._kept.get(_shape(scope["method"], scope["path"]), ()):
                match, found = route.matches(scope)
                if match == Match.FULL:
                    return match, found
        return Match.NONE, {}

    async def handle(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Have the route that was found answer."""
        await scope["route"].handle(scope, receive, send)

"""Routes found by the shape of an address instead of one after the other: with some two hundred of
them, looking at each takes longer than much of what they do.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable
from typing import Any

from fastapi.dependencies.models import Dependant
from fastapi.routing import APIRoute
from pydantic import BaseModel
from starlette.datastructures import QueryParams
from starlette.routing import BaseRoute, Match
from starlette.types import Receive, Scope, Send

from ..core.errors import RuleError
from ..documents.meant import did_you_mean

_Shape = tuple[str, int, str]


def _shape(method: str, path: str) -> _Shape:
    """A method, how many parts a path has, and its second part, which no route leaves open."""
    parts = path.split("/", 3)
    return method, path.count("/"), parts[2] if len(parts) > 2 else ""


def _query_of(wanted: Dependant) -> frozenset[str]:
    """Names that may stand behind the question mark of an address."""
    deeper = (_query_of(d) for d in wanted.dependencies)
    asked = ((f.alias, f.field_info.annotation) for f in wanted.query_params)
    return frozenset(n for alias, kind in asked for n in _names(alias, kind)).union(*deeper)


def _names(alias: str, kind: Any) -> Iterable[str]:
    """The names of one thing that is asked for; several where they are kept in a model."""
    if isinstance(kind, type) and issubclass(kind, BaseModel):
        return (f.alias or name for name, f in kind.model_fields.items())
    return (alias,)


class Shelf(BaseRoute):
    """Stands ahead of the same routes in the table: what it does not find, as a wrong method or a
    slash too many, is left to them.
    """

    def __init__(self, routes: Iterable[BaseRoute]) -> None:
        self._kept: dict[_Shape, list[APIRoute]] = defaultdict(list)
        self._asked: dict[int, frozenset[str]] = {}
        for route in routes:
            if isinstance(route, APIRoute):
                self._asked[id(route)] = _query_of(route.dependant)
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
        """Have the route that was found answer.

        Raises:
            RuleError: the address asks for something that the route does not know.
        """
        if scope["query_string"]:
            self._know(scope["route"], QueryParams(scope["query_string"]))
        await scope["route"].handle(scope, receive, send)

    def _know(self, route: APIRoute, query: QueryParams) -> None:
        known = self._asked[id(route)]
        for name in query:
            if name not in known:
                raise RuleError(
                    "query.unknown",
                    f"There is no query parameter “{name[:80]}” here.",
                    name[:80],
                    did_you_mean(name[:80], known) if known else "Leave it out.",
                )

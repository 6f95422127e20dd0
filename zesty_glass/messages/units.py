"""Messages as they are in metric units: where the core's text of amounts is turned, its message
and what it is in a language are turned with it.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping

from ..core.presenting.metric import LARGE_FLOW, LENGTH, UNITS

_UNIT = "|".join(re.escape(u) for u in UNITS if u not in ("in", "ft"))
_SLOT = re.compile(rf"(?P<slot>\{{\d+\}})(?P<gap>[\s-])(?P<unit>{_UNIT}|{LENGTH})(?![\w³²/])")
#: what a price is by, and what that is in metric units; in each language as it is written there
_PRICED = {"1,000 gal": "m³"}
_EACH = {"a gallon": "a liter", "por galón": "por litro"}


def in_metric(messages: Mapping[str, str]) -> Iterator[tuple[str, str]]:
    """The messages that hold a US unit, in metric units, each with what it is in the language.

    >>> dict(in_metric({"{0} gal a day": "{0} gal al día"}))
    {'{0} L a day': '{0} L al día'}
    >>> sorted(source for source, _ in in_metric({"{0} gpm": "{0} gpm"}))
    ['{0} L/min', '{0} m³/h']
    """
    for source, said in messages.items():
        for flow in (UNITS["gpm"].unit, LARGE_FLOW):
            turned = _turned(source, said, flow)
            if turned[0] != source:
                yield turned
            if "gpm" not in source:
                break


def _turned(source: str, said: str, flow: str) -> tuple[str, str]:
    for m in _SLOT.finditer(source):
        unit = flow if m["unit"] == "gpm" else UNITS[m["unit"]].unit
        us = re.escape(m["unit"])
        said = re.sub(rf"({re.escape(m['slot'])}[\s-]){us}(?![\w³²/])", rf"\g<1>{unit}", said)
        source = source.replace(m[0], f"{m['slot']}{m['gap']}{unit}")
    for us, metric in (_PRICED | _EACH).items():
        source, said = source.replace(us, metric), said.replace(us, metric)
    return source, said

"""What cannot work does nothing: the water behind a stage that a check stops, or whose open
question decides whether it works at all.
"""

from __future__ import annotations

from collections.abc import Iterable

from .report import Check
from .stream import Quantity, Stream

#: no value of these is better for being lower: what changes them at all is what treats them
TWO_SIDED = frozenset({"ph", "uvt"})


def is_idle(checks: Iterable[Check], decides: frozenset[str]) -> bool:
    """Whether nothing may be promised of a stage: a check stops it, or one of those that
    ``decides`` names is open. A written answer to a stop changes nothing of it.
    """
    return any(c.status == "stop" or (c.status == "unknown" and c.id in decides) for c in checks)


def as_idle(inlet: Stream, outlet: Stream) -> tuple[Stream, tuple[str, ...]]:
    """An idle stage's water, nothing better than ahead of it in a number or in words, and the
    analytes that it would make better. What it makes worse stays as it was worked out, and so does
    a pH that nobody can say.
    """
    back: dict[str, Quantity] = {}
    for name, q in outlet.quantities.items():
        before = inlet.get(name)
        if before is not None and q is not before and _better(name, before, q):
            back[name] = before
    psi = outlet.psi
    if inlet.psi is not None and psi is not None and psi.best > inlet.psi.best:
        psi = inlet.psi
    behind = outlet.with_(
        back, particulate_iron=inlet.particulate_iron, coloured=inlet.coloured, psi=psi
    )
    return behind, tuple(back)


def _better(name: str, before: Quantity, q: Quantity) -> bool:
    """Whether a quantity is anything but as it was, or worse."""
    if q.range is None or before.range is None:
        return name not in TWO_SIDED and (q.range, q.words) != (before.range, before.words)
    was, now = before.range, q.range
    worse = now.low >= was.low and now.best >= was.best and now.top >= was.top
    return now != was and (name in TWO_SIDED or not worse)

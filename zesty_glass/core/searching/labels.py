"""Figures of the ways that lead to one state of the search, and which of them no other beats."""

from __future__ import annotations

from bisect import bisect_right
from operator import ge, itemgetter

#: items of a line, the last outside
Chain = tuple["Chain", int] | None
#: (cost, waste, minutes, −lowest pressure, chain of items); all figures in whole millionths, so
#: that sums are exact in any order
Label = tuple[int, int, int, int, Chain]

_FIGURES = itemgetter(0, 1, 2, 3)


def unchain(chain: Chain) -> tuple[int, ...]:
    """Items of a chain, first to last."""
    out = []
    while chain is not None:
        chain, i = chain
        out.append(i)
    return tuple(reversed(out))


def least(labels: list[Label]) -> list[Label]:
    """Labels that no other beats on cost, waste, minutes and pressure left; of equals
    all are kept.
    """
    if len(labels) == 1:
        return labels
    labels.sort(key=_FIGURES)
    out: list[Label] = []
    guards: list[
        Label
    ] = []  # those kept, the one that beat another last in front: it is likely to beat the next too
    for x in labels:
        c, w, m, p, _ = x
        for n, (oc, ow, om, op, _) in enumerate(guards):
            if ow <= w and om <= m and op <= p and (oc != c or ow != w or om != m or op != p):
                if n:
                    guards[0], guards[n] = guards[n], guards[0]
                break
        else:
            out.append(x)
            guards.append(x)
    return out


def floored(labels: list[Label], steps: tuple[int, ...] | None) -> list[Label]:
    """Labels with their pressure let down to the next step: between two steps it decides nothing.
    None: every pressure may decide something.
    """
    if steps is None:
        return labels
    return [(c, w, m, -steps[bisect_right(steps, -p) - 1], chain) for c, w, m, p, chain in labels]


def beats3(a: Label, b: Label) -> bool:
    """Whether ``a`` is nowhere worse and somewhere better than ``b`` in cost, waste and minutes."""
    return a[0] <= b[0] and a[1] <= b[1] and a[2] <= b[2] and a[:3] != b[:3]


def covers(a: tuple[float, ...], b: tuple[float, ...]) -> bool:
    """Whether every figure of ``a`` is at least that of ``b``.

    >>> covers((2.0, 3.0), (2.0, 1.0)), covers((2.0, 3.0), (2.5, 1.0))
    (True, False)
    """
    return all(map(ge, a, b))

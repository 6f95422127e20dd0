"""Lines that were found, as they stand beside each other: those that only pad others last, each
idea with the reason why it comes before the next, and what the home has already in its place. What
stands first for another reason than its grade: ``priorities``.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping
from dataclasses import replace
from itertools import pairwise

from ..doing import Does
from ..rules import Settings
from ..treating.existing_equipment import PREFIX, KeptInPlace, code_of
from ..treating.in_place import Judged
from ..treating.items import Item, SystemFigures
from ..treating.stages import KIND_NAMES, does
from .difference import difference
from .suggested import Suggested


def ways_on(in_place: tuple[Judged, ...]) -> tuple[tuple[str, ...], ...]:
    """What follows from what stands there, as lines of their own: service, or the right setting."""
    return tuple(
        (code_of(j.id, j.verdict),) for j in in_place if j.verdict in ("service", "set_right")
    )


def ways_within(
    best: tuple[tuple[str, ...], ...], in_place: tuple[Judged, ...], items: Mapping[str, Item]
) -> tuple[tuple[str, ...], ...]:
    """The best lines with what stands there, serviced or set right, in place of another of its kind
    and branch: nobody is sold a second one for what a setting may answer."""
    out = []
    for codes in best:
        for j in in_place:
            if j.verdict not in ("service", "set_right"):
                continue
            own = {c for c in codes if items[c].kind == j.kind and items[c].scope == j.scope}
            if own and len(codes) > len(own):
                way = code_of(j.id, j.verdict)
                out.append((way, *(c for c in codes if c not in own)))
    return tuple(out)


def keeping(
    line: Suggested, going_on: tuple[KeptInPlace, ...], items: Mapping[str, Item]
) -> Suggested:
    """A line with the equipment in place that goes on in it: what does its work is kept, unless the
    line brings another of its branch and kind of work."""
    own = tuple(s.item for s in line.option.stages if s.item.startswith(PREFIX))
    done = tuple(_kept_of(code) for code in own)
    at_tap = any(items[s.item].scope == "tap" for s in line.option.stages)
    held = {k.device for k in done}
    more = tuple(
        k
        for k in going_on
        if k.device not in held and not (at_tap and items[code_of(k.device, k.how)].scope == "tap")
    )
    stages = tuple(s for s in line.option.stages if s.item not in own)
    return replace(line, option=replace(line.option, stages=stages, keeps=(*done, *more)))


def _kept_of(code: str) -> KeptInPlace:
    device, _, how = code.removeprefix(PREFIX).rpartition(":")
    return KeptInPlace(device=device, how=how)  # type: ignore[arg-type]


def with_reasons(
    lines: tuple[Suggested, ...], settings: Settings, years: int
) -> tuple[Suggested, ...]:
    """Lines with the reason why the first of each idea stands before the next idea."""
    firsts = list({x.option.name: x for x in reversed(lines)}.values())
    firsts.sort(key=lines.index)
    reason = {a.option.id: difference(a, b, settings, years) for a, b in pairwise(firsts)}
    return tuple(replace(x, ahead=reason.get(x.option.id, "")) for x in lines)


SAME = 0.02  # shares of an answer that are alike


def what(code: str, items: Mapping[str, Item]) -> str:
    """The idea a stage stands for, in words: its kind; a system by its membrane,
    where it has one.
    """
    item = items[code]
    if code.startswith(PREFIX):
        return item.name
    if not isinstance(item.figures, SystemFigures):
        return KIND_NAMES[item.kind]
    parts = [items[p].kind for p in item.figures.parts if p in items]
    holds = next((k for k in parts if "holds back" in does(k)), None)
    if holds is not None and item.scope == "tap":
        return f"{KIND_NAMES[holds]} at the drinking tap"
    return item.name


def padded_last(
    lines: list[Suggested],
    items: Mapping[str, Item],
    unasked: frozenset[str] = frozenset(),
    acted: frozenset[str] = frozenset(),
) -> tuple[Suggested, ...]:
    """Lines in their order, but those after all others that only add stages to another, or have two
    stages for one thing.

    Such a line answers nothing more that was asked, is not cheaper, and its warnings weigh no less,
    or one less for half as much money again: it is a wish, not an idea of its own.

    Args:
        unasked: things found that neither health, a complaint nor a wish asks for; acted: of them
            those that ask to act by themselves, which is no reason for the whole house where one
            tap is enough.
    """
    alike: dict[frozenset[str], list[Suggested]] = {}
    for line in lines:
        alike.setdefault(_ideas(line, items), []).append(line)
    shorter = {own: [e for had, es in alike.items() if had < own for e in es] for own in alike}
    padded = {
        line.option.id
        for own, ls in alike.items()
        for line in ls
        if any(
            _adds_nothing(line, e, unasked if e.tap_only else unasked - acted) for e in shorter[own]
        )
    }
    padded |= {x.option.id for x in lines if _twice(x, items)}
    return _by_idea(sorted(lines, key=lambda x: x.option.id in padded), lines)


def _by_idea(placed: list[Suggested], ranked: list[Suggested]) -> tuple[Suggested, ...]:
    """Ideas where their first line stands, and within each the lines in their own order: the best
    sizes and makers of an idea first, though another of them is the one that does not pad."""
    place = {x.option.id: n for n, x in enumerate(ranked)}
    by: dict[str, list[Suggested]] = {}
    for line in placed:
        by.setdefault(line.option.name, []).append(line)
    return tuple(x for ls in by.values() for x in sorted(ls, key=lambda x: place[x.option.id]))


#: what is done once on one branch
_ONCE: tuple[Does, ...] = ("against hardness", "against tannin", "makes slowly")


def _twice(line: Suggested, items: Mapping[str, Item]) -> bool:
    """Whether two stages of one branch are there for one thing."""
    there = {(items[s.item].scope, items[s.item].kind) for s in line.option.stages}
    done = Counter((scope, d) for scope, kind in there for d in does(kind) if d in _ONCE)
    return max(done.values(), default=0) > 1


def _ideas(line: Suggested, items: Mapping[str, Item]) -> frozenset[str]:
    return frozenset(what(s.item, items) for s in line.option.stages)


DEARER = 1.5  # times the cost, from which one warning that it may not work is no reason of its own


def _adds_nothing(line: Suggested, shorter: Suggested, unasked: frozenset[str]) -> bool:
    more = any(
        v > shorter.answers.get(a, 0.0) + SAME for a, v in line.answers.items() if a not in unasked
    )
    lighter = shorter.burden - line.burden
    room = 1.0 if line.counted_cost >= DEARER * shorter.counted_cost > 0 else 0
    return (
        not more
        and line.counted_cost >= shorter.counted_cost
        and line.against_diet >= shorter.against_diet
        and lighter <= room
    )

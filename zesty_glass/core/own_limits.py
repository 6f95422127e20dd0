"""What a firm changed of the published limits, and what an update of a standard means for it: what
it never touched follows the published limits; what it changed is asked about.
"""

from __future__ import annotations

from dataclasses import replace

from .errors import RuleError
from .limits import Limit
from .record import record
from .rules import FORMER, LIMITS, PUBLISHED, BandSet, Rules


@record
class FirmRules:
    """What a firm keeps of rules: its own limits and bands, and nothing that is published.

    Args:
        version: grows with the firm's changes.
        published: the revision of the published limits that the firm has read.
        seen: the published limits that its own stand in the place of, as they were then.
    """

    version: int = 1
    limits: tuple[Limit, ...] = ()
    bands: tuple[BandSet, ...] = ()
    published: int = PUBLISHED
    seen: tuple[Limit, ...] = ()


@record
class LimitNews:
    """A published limit that changed.

    Args:
        was: as a firm knew it; None where there was none.
        now: as it is published now.
        own: what the firm has in its place, to be taken back or kept; None where the new one is in
            force already.
    """

    was: Limit | None
    now: Limit
    own: Limit | None


def _published() -> dict[str, Limit]:
    return {x.id: x for x in LIMITS}


def _untouched(x: Limit) -> bool:
    """Whether a limit is, or was, the published one to the letter: a copy is no change."""
    was = (f.was for f in FORMER if f.id == x.id)
    return _published().get(x.id) == x or any(w == x for w in was)


def _own(limits: tuple[Limit, ...]) -> dict[str, Limit]:
    return {x.id: x for x in limits if not _untouched(x)}


def in_force(kept: FirmRules) -> Rules:
    """The published rules with a firm's changes laid over them."""
    own, published = _own(kept.limits), _published()
    bands = {b.id: b for b in (*Rules().bands, *kept.bands)}
    return Rules(
        version=kept.version,
        limits=tuple(own.pop(id, x) for id, x in published.items()) + tuple(own.values()),
        bands=tuple(bands.values()),
        published=PUBLISHED,
    )


def changes_of(rules: Rules, before: FirmRules | None = None) -> FirmRules:
    """What a firm keeps of rules, all of the published ones read.

    Args:
        before: what it kept so far: an own limit that stays as it was is still the answer to the
            published one it was made against.
    """
    own, published = _own(rules.limits), _published()
    kept = {} if before is None else _own(before.limits)
    known = {} if before is None else {x.id: x for x in _seen(before)}
    seen = (
        known.get(id, published.get(id)) if kept.get(id) == x else published.get(id)
        for id, x in own.items()
    )
    return FirmRules(
        version=rules.version,
        limits=tuple(own.values()),
        bands=tuple(b for b in rules.bands if b not in Rules().bands),
        seen=tuple(x for x in seen if x is not None),
    )


def _was(id: str, read: int) -> Limit | None:
    """A published limit as it stood at a revision."""
    later = (f for f in FORMER if f.id == id and f.revision > read)
    first = min(later, key=lambda f: f.revision, default=None)
    return _published().get(id) if first is None else first.was


def _seen(kept: FirmRules) -> tuple[Limit, ...]:
    """The published limits that a firm's own stand against; noted, or by the revision it read."""
    noted = {x.id: x for x in kept.seen}
    found = (noted.get(id) or _was(id, kept.published) for id in _own(kept.limits))
    return tuple(x for x in found if x is not None)


def questions(kept: FirmRules) -> tuple[LimitNews, ...]:
    """Published limits that changed under a firm's own: to take, or to keep the own."""
    own, published = _own(kept.limits), _published()
    return tuple(
        LimitNews(was=was, now=published[was.id], own=own[was.id])
        for was in _seen(kept)
        if was.id in published and published[was.id] != was
    )


def news(kept: FirmRules) -> tuple[LimitNews, ...]:
    """Published limits that changed since a firm last read them, and are in force: it has none of
    its own in their place.
    """
    own, published = _own(kept.limits), _published()
    ids = dict.fromkeys(f.id for f in FORMER if f.revision > kept.published)
    return tuple(
        LimitNews(was=_was(id, kept.published), now=published[id], own=None)
        for id in ids
        if id in published and id not in own
    )


def answered(kept: FirmRules, id: str, take: bool) -> FirmRules:
    """A firm's rules once it took the published limit, or kept its own; the same again changes
    nothing.

    Raises:
        RuleError: no such limit is published.
    """
    now = _published().get(id)
    if now is None:
        raise RuleError(
            "limit.unknown", f"No limit “{id}” is published.", "id", "Open Limits again."
        )
    others = tuple(x for x in _seen(kept) if x.id != id)
    if take and id in _own(kept.limits):
        limits = tuple(x for x in kept.limits if x.id != id)
        return replace(kept, version=kept.version + 1, limits=limits, seen=others)
    if not take and any(q.now.id == id for q in questions(kept)):
        return replace(kept, seen=(*others, now))
    return kept

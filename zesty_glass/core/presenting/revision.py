"""What changed between two revisions of a proposal, in sentences."""

from __future__ import annotations

from .. import words
from ..record import record
from ..testing.finding import Finding, Weight
from .offer import Offer, OfferedOption


@record
class Difference:
    """One thing that changed: what, how it was and how it is."""

    what: str
    before: str
    after: str


def _money(amount: object, offer: Offer) -> str:
    return f"{offer.currency}{amount:,.2f}"


def _price(o: OfferedOption, offer: Offer) -> str:
    return _money(o.price + o.installation, offer)


def _total(o: OfferedOption, years: int, offer: Offer) -> str:
    found = next((c for c in o.costs if c.years == years), None)
    if found is None:
        return "not worked out"
    return f"{'at least ' if found.missing else ''}{_money(found.total, offer)}"


def _options(before: Offer, after: Offer) -> list[Difference]:
    out = []
    old, new = {o.id: o for o in before.options}, {o.id: o for o in after.options}
    for id in dict.fromkeys((*old, *new)):
        a, b = old.get(id), new.get(id)
        if a is None or b is None:
            name = (a or b).name  # type: ignore[union-attr]
            out.append(
                Difference(
                    what=f"Line “{name}”",
                    before="not offered" if a is None else "offered",
                    after="offered" if a is None else "not offered any more",
                )
            )
            continue
        if id == "today":
            continue
        pairs = (
            ("name", a.name, b.name),
            ("stages", _stages(a), _stages(b)),
            ("to buy and install", _price(a, before), _price(b, after)),
            (
                f"total cost over {after.horizon} years",
                _total(a, after.horizon, before),
                _total(b, after.horizon, after),
            ),
            ("water to the drain a year", _drained(a, before), _drained(b, after)),
            ("state", _state(a), _state(b)),
            ("warranty", "; ".join(a.warranty), "; ".join(b.warranty)),
        )
        out += [
            Difference(what=f"{b.name}: {what}", before=x or "none", after=y or "none")
            for what, x, y in pairs
            if x != y
        ]
    return out


def _drained(o: OfferedOption, offer: Offer) -> str:
    return "not known" if o.waste is None else words.gallons(o.waste.total_gal_year, offer.units)


def differences(before: Offer, after: Offer) -> tuple[Difference, ...]:
    """What a reader of the earlier revision needs to know of the later one; empty when nothing but
    the date changed.
    """
    names = [{o.id: o.name for o in x.options} for x in (before, after)]
    out = []
    if before.recommended != after.recommended:
        out.append(
            Difference(
                what="Recommended",
                before=names[0].get(before.recommended, "nothing"),
                after=names[1].get(after.recommended, "nothing"),
            )
        )
    out += _options(before, after)
    old, new = ({(r.sample, r.analyte): r.shown for r in x.readings} for x in (before, after))
    for key in dict.fromkeys((*old, *new)):
        if old.get(key) != new.get(key):
            out.append(
                Difference(
                    what=f"{key[1]}, {key[0]}",
                    before=old.get(key, "not read"),
                    after=new.get(key, "struck"),
                )
            )
    plain = (
        ("Horizon", f"{before.horizon} years", f"{after.horizon} years"),
        ("Valid until", before.valid_until.isoformat(), after.valid_until.isoformat()),
        ("Reasons", before.reasons, after.reasons),
        ("Payment plan", _plan(before), _plan(after)),
        ("Limits", f"version {before.rules_version}", f"version {after.rules_version}"),
        (
            "Assumptions",
            "; ".join(x.sentence for x in before.assumptions if x.on),
            "; ".join(x.sentence for x in after.assumptions if x.on),
        ),
    )
    out += [
        Difference(what=what, before=a or "none", after=b or "none")
        for what, a, b in plain
        if a != b
    ]
    return tuple(out)


def _plan(offer: Offer) -> str:
    p = offer.plan
    return (
        ""
        if p is None
        else (
            f"{_money(p.down, offer)} down, {p.months} payments of {_money(p.monthly, offer)},"
            f" {p.apr} % a year"
        )
    )


@record
class MovedOn:
    """What would be said otherwise today than in a proposal that was presented.

    Args:
        health: findings of health that it does not hold, in sentences. changes: what else differs
            in the water and in the recommended line.
    """

    health: tuple[str, ...] = ()
    changes: tuple[Difference, ...] = ()


def moved_on(
    then: Offer, found: tuple[Finding, ...], now: OfferedOption | None, later: tuple[Finding, ...]
) -> MovedOn:
    """What moved on since a proposal was presented.

    Args:
        then: as it was presented. found: of its visit, today. now: its recommended line, today;
            None where it is gone. later: found at later visits to the home.
    """
    said = set(then.health)
    graver = (f.sentence for f in (*found, *later) if f.weight is Weight.HEALTH)
    return MovedOn(
        health=tuple(dict.fromkeys(s for s in graver if s not in said)),
        changes=(*_found(then.findings, found), *_line(then, now)),
    )


def _found(then: tuple[Finding, ...], now: tuple[Finding, ...]) -> list[Difference]:
    """Findings that ask for something and are new, and those that are gone."""
    old, new = (
        {(f.analyte, f.id): f.sentence for f in x if f.weight is Weight.ACT} for x in (then, now)
    )
    grave = {(f.analyte, f.id): f.sentence for f in then if f.weight is Weight.HEALTH}
    there = {(f.analyte, f.id) for f in now}
    came = [Difference(what="Found", before="not found", after=new[k]) for k in new if k not in old]
    went = [(k, s) for k, s in {**old, **grave}.items() if k not in there]
    return came + [Difference(what="Found", before=s, after="not found any more") for _, s in went]


def _line(then: Offer, now: OfferedOption | None) -> list[Difference]:
    was = next(o for o in then.options if o.id == then.recommended)
    if now is None:
        return [Difference(what=f"Line “{was.name}”", before="offered", after="gone")]
    pairs = (
        ("stages", _stages(was), _stages(now)),
        ("to buy and install", _price(was, then), _price(now, then)),
        ("state", _state(was), _state(now)),
    )
    one = [(what, a, b) for what, a, b in pairs if a != b]
    if _stages(was) == _stages(now):
        old, new = _settings(was), _settings(now)
        one += [
            (k, old.get(k, ""), new.get(k, ""))
            for k in dict.fromkeys((*old, *new))
            if old.get(k) != new.get(k)
        ]
    return [
        Difference(what=f"{was.name}: {what}", before=a or "none", after=b or "none")
        for what, a, b in one
    ]


_STATES = {
    "stop": "cannot work as it stands",
    "unknown": "something is still to be tested",
    "warn": "works, with a warning",
}


def _state(o: OfferedOption) -> str:
    """How a line stands, in words."""
    return _STATES.get(o.status, "works")


def _stages(o: OfferedOption) -> str:
    return ", ".join(s.name for s in o.stages)


def _settings(o: OfferedOption) -> dict[str, str]:
    """What is dialled, by stage and setting."""
    return {f"{s.name}, {k}": v for s in o.stages for k, v in s.settings}

"""The firm's settings, limits and kits: a manager's work. Old visits keep those of their day."""

from __future__ import annotations

from dataclasses import replace
from uuid import uuid4

from sqlalchemy import select
from sqlalchemy.orm import Session

from ..core.analytes import analyte
from ..core.errors import RuleError
from ..core.own_limits import FirmRules, answered, changes_of, in_force, news
from ..core.rules import PUBLISHED, Rules, Settings
from ..core.testing.instruments import Instrument
from ..documents.codec import load, plain
from ..records import store
from ..records.models import Firm, InstrumentRow
from . import versioning
from .person import Person, changed_fields, manager_only
from .versioning import expect, note

MOST_KITS = 500


def areas(db: Session, who: Person) -> tuple[str, ...]:
    """The firm's areas in the order in which a round drives through them."""
    told = db.scalar(select(Firm.settings["areas"]).where(Firm.id == who.firm_id))
    return tuple(told or ())


def kept_rules(firm: Firm) -> FirmRules:
    """What a firm changed of the published rules."""
    kept: FirmRules = load(FirmRules, firm.rules)
    return kept


def rules_of(firm: Firm) -> Rules:
    """The rules in force at a firm: the published ones with its own changes laid over."""
    return in_force(kept_rules(firm))


def answer_limit(db: Session, who: Person, version: int, id: str, take: bool) -> Firm:
    """Take a published limit that changed, or keep the firm's own in its place.

    Raises:
        Forbidden: not a manager. RuleError: no such limit is published.
    """
    manager_only(who)
    firm = store.firm(db, who.firm_id, lock=True)
    kept = kept_rules(firm)
    now = answered(kept, id, take)
    if now != kept:
        expect(db, "firm", firm, version)
        versioning.change(db, who, firm, {"rules": plain(now)})
    return firm


def change(db: Session, who: Person, version: int, settings: Settings, rules: Rules) -> Firm:
    """Change settings and rules; the rules' own version grows when they change."""
    manager_only(who)
    firm = store.firm(db, who.firm_id, lock=True)
    for i, x in enumerate(rules.limits):
        analyte(x.analyte)
        if x.value < 0 or not 1900 <= x.year <= 2100 or not x.source.strip():
            raise RuleError(
                "limit.data",
                f"The limit “{x.id}” needs a value of 0 or more, a source and a year.",
                f"rules.limits[{i}]",
                "Fill them in.",
            )
    if len({x.id for x in rules.limits}) != len(rules.limits):
        raise RuleError("limit.twice", "Two limits have the same id.", "rules.limits", "Keep one.")
    kept = kept_rules(firm)
    old = in_force(kept)
    rules = replace(rules, published=PUBLISHED)
    after = {"settings": plain(settings)}
    if replace(rules, version=old.version) != old:
        after["rules"] = plain(changes_of(replace(rules, version=old.version + 1), kept))
    elif news(kept):
        after["rules"] = plain(changes_of(old, kept))  # saving them is having read what is new
    # the same again is harmless, whatever its version
    if changed_fields({name: getattr(firm, name) for name in after}, after):
        expect(db, "firm", firm, version)
        versioning.change(db, who, firm, after)
    return firm


def put_kit(db: Session, who: Person, kit: Instrument, version: int | None) -> InstrumentRow:
    """Add or change a kit; readings made with it keep it as it was that day."""
    manager_only(who)
    rows = store.instruments(db, who.firm_id, lock=True)
    row = next((r for r in rows if r.key == kit.id), None)
    data = plain(kit)
    if row is None:
        if len(rows) >= MOST_KITS:
            raise RuleError("kits.many", f"{MOST_KITS} kits are enough.", "id", "Change one.")
        row = InstrumentRow(
            id=uuid4(),
            firm_id=who.firm_id,
            key=kit.id,
            position=len(rows) + 1,
            data=data,
            version=1,
        )
        db.add(row)
        note(db, who, row.id, "added", 1, [], None, data)
    elif row.data != data:
        expect(db, "kit", row, version or 0)
        versioning.change(db, who, row, {"data": data})
    db.flush()
    return row

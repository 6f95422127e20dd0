"""The firm's settings, limits and kits: a manager's work. Old visits keep those of their day."""

from __future__ import annotations

from dataclasses import replace
from uuid import uuid4

from sqlalchemy import select
from sqlalchemy.orm import Session

from ..core.analytes import analyte
from ..core.errors import RuleError
from ..core.rules import LIMITS, PUBLISHED, Rules, Settings, changes_of, in_force
from ..core.testing.instruments import Instrument
from ..documents.codec import load, plain
from ..records import store
from ..records.models import Firm, InstrumentRow
from . import keeping
from .keeping import expect, note
from .person import Person, changed_fields, manager_only

MOST_KITS = 500


def areas(db: Session, who: Person) -> tuple[str, ...]:
    """The firm's areas in the order in which a round drives through them."""
    told = db.scalar(select(Firm.settings["areas"]).where(Firm.id == who.firm_id))
    return tuple(told or ())


def rules_of(firm: Firm) -> Rules:
    """The rules in force at a firm: the published ones with its own changes laid over."""
    return in_force(load(Rules, firm.rules))


def news(firm: Firm) -> tuple[str, ...]:
    """Published limits that came after the firm last kept its rules, in words."""
    kept: Rules = load(Rules, firm.rules)
    if firm.rules.get("published", 1) >= PUBLISHED:
        return ()
    own = {x.id for x in kept.limits}
    return tuple(
        f"{x.name} ({x.place} {x.year}) for {x.analyte.replace('_', ' ')}: {x.value:g}"
        for x in LIMITS
        if x.id not in own
    )


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
    old = rules_of(firm)
    rules = replace(rules, published=PUBLISHED)
    after = {"settings": plain(settings)}
    if replace(rules, version=old.version) != old:
        after["rules"] = plain(changes_of(replace(rules, version=old.version + 1)))
    elif news(firm):
        after["rules"] = plain(changes_of(old))  # saving them is having read what is new
    # the same again is harmless, whatever its version
    if changed_fields({name: getattr(firm, name) for name in after}, after):
        expect(db, "firm", firm, version)
        keeping.change(db, who, firm, after)
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
        keeping.change(db, who, row, {"data": data})
    db.flush()
    return row

"""Load the made-up firm into an empty database."""

from __future__ import annotations

from datetime import UTC, datetime
from uuid import UUID

from sqlalchemy.orm import Session, sessionmaker

from ..core.rules import Rules, Settings
from ..documents.codec import plain
from ..records.models import Firm, InstrumentRow, ItemRow
from ..work import proposing, signing_in, visiting
from ..work.person import Person
from .catalogue import demo_items
from .homes import CONSULTANT, FIRM, demo_visits, uid
from .kits import demo_instruments
from .people import EMAIL, MANAGER_EMAIL, PASSWORD

__all__ = ["EMAIL", "MANAGER_EMAIL", "PASSWORD", "load_demo"]


def load_demo(sessions: sessionmaker[Session], at: datetime | None = None) -> bool:
    """Load firm, people, kits, catalogue and homes; False when they are there already."""
    now = at or datetime.now(UTC)
    firm_id = UUID(uid("firm"))
    with sessions.begin() as db:
        if db.get(Firm, firm_id) is not None:
            return False
        db.add(Firm(id=firm_id, name=FIRM, settings=plain(Settings()), rules=plain(Rules()), version=1))
        db.flush()
        user = signing_in.add_user(db, firm_id, EMAIL, CONSULTANT, "consultant", PASSWORD)
        signing_in.add_user(db, firm_id, MANAGER_EMAIL, "Sunniva Larkspur-Howe", "manager", PASSWORD)
        db.add_all(InstrumentRow(id=UUID(uid(f"kit-{k.id}")), firm_id=firm_id, key=k.id, position=i, data=plain(k), version=1) for i, k in enumerate(demo_instruments(now.date())))
        db.add_all(ItemRow(id=UUID(uid(f"item-{i.code}")), firm_id=firm_id, code=i.code, data=plain(i), version=1, retired=False) for i in demo_items())
        db.flush()
        who = Person(id=user.id, firm_id=firm_id, name=CONSULTANT, role="consultant")
        for visit in demo_visits(now):
            visiting.bring_in(db, who, visit)
        for key, option in (("home-1", uid("home-1-option-b")), ("home-7", "today")):
            made = proposing.make(db, who, UUID(uid(f"{key}-visit")), UUID(uid(f"{key}-proposal")), option, "", None)
            proposing.decide(db, who, made.id, made.version, "presented")
    return True

"""Load the made-up firm into an empty database."""

from __future__ import annotations

from datetime import UTC, datetime
from typing import Literal
from uuid import UUID

from sqlalchemy.orm import Session, sessionmaker

from ..catalogue.examples import example_items
from ..core.own_limits import FirmRules
from ..core.rules import Settings
from ..documents.codec import plain
from ..records.models import Firm, InstrumentRow, ItemRow
from ..work import bringing_in, deciding, proposing, signing_in
from ..work.person import Person
from .homes import CONSULTANT, FIRM, demo_visits, uid
from .kits import demo_instruments
from .logged import load_logged
from .past import load_past
from .people import EMAIL, FITTER, FITTER_EMAIL, MANAGER_EMAIL, PASSWORD
from .two_years import drawn

__all__ = ["EMAIL", "MANAGER_EMAIL", "PASSWORD", "load_demo"]


#: what the consultant wrote where the tool's first draft is not enough
HOME_3 = (
    "First what costs nothing: set the softener that is there to fit this water, and clean its"
    " resin. The smell at the hot tap is the water heater’s anode, not the well.\n\nThen, if the"
    " iron still stains: pH correction, an iron filter that this pump can wash, and a softener"
    " sized on the raised hardness."
)
HOME_4 = (
    "Do not drink it until the laboratory says otherwise: bacteria were found. UV cannot work on"
    " water this brown.\n\nFirst sediment, iron and tannin out of it, then the transmittance"
    " measured again where the lamp will be; only then a lamp is sized. Until that day nothing is"
    " sold for drinking."
)
SIGNED = (
    "M60,110 L80,60 L96,112 L120,70 L140,108 L176,84 M200,104 L230,66 L250,110 L300,80 L340,104"
)
#: what each home was offered and how it stands: home, recommended, the consultant's own reasons
#: (empty: the tool's), states on the way
PROPOSALS: tuple[
    tuple[str, str, str, tuple[Literal["presented", "accepted", "declined"], ...]], ...
] = (
    ("home-1", "home-1-option-b", "", ("presented",)),
    ("home-2", "home-2-option-a", "", ("presented", "accepted")),
    ("home-3", "home-3-option-a", HOME_3, ()),
    ("home-4", "today", HOME_4, ("presented",)),
    ("home-5", "home-5-option-a", "", ("presented",)),
    ("home-6", "home-6-option-a", "", ("presented", "declined")),
    ("home-7", "today", "", ("presented",)),
)


def load_demo(
    sessions: sessionmaker[Session], at: datetime | None = None, two_years: bool = False
) -> bool:
    """Load firm, people, kits, catalog and homes, with ``two_years`` of its past where they are
    asked for; False when they are there already.
    """
    now = at or datetime.now(UTC)
    firm_id = UUID(uid("firm"))
    with sessions.begin() as db:
        if db.get(Firm, firm_id) is not None:
            return False
        db.add(
            Firm(
                id=firm_id,
                name=FIRM,
                settings=plain(Settings()),
                rules=plain(FirmRules()),
                version=1,
            )
        )
        db.flush()
        user = signing_in.add_user(db, firm_id, EMAIL, CONSULTANT, "consultant", PASSWORD)
        signing_in.add_user(
            db, firm_id, MANAGER_EMAIL, "Sunniva Larkspur-Howe", "manager", PASSWORD
        )
        signing_in.add_user(db, firm_id, FITTER_EMAIL, FITTER, "installer", PASSWORD)
        db.add_all(
            InstrumentRow(
                id=UUID(uid(f"kit-{k.id}")),
                firm_id=firm_id,
                key=k.id,
                position=i,
                data=plain(k),
                version=1,
            )
            for i, k in enumerate(demo_instruments(now.date()))
        )
        db.add_all(
            ItemRow(
                id=UUID(uid(f"item-{i.code}")),
                firm_id=firm_id,
                code=i.code,
                data=plain(i),
                version=1,
                retired=False,
            )
            for i in example_items()
        )
        db.flush()
        who = Person(id=user.id, firm_id=firm_id, name=CONSULTANT, role="consultant")
        for visit in demo_visits(now):
            bringing_in.store_visit(db, who, visit)
        for key, option, reasons, states in PROPOSALS:
            made = proposing.make(
                db,
                who,
                UUID(uid(f"{key}-visit")),
                UUID(uid(f"{key}-proposal")),
                "today" if option == "today" else uid(option),
                reasons,
                None,
            )
            for state in states:
                known = proposing.opened(db, made).offer.before_signing
                read = tuple(k.sentence for k in known)
                signed = deciding.Signed("Hesper Dunnoway", SIGNED, read)
                made = deciding.decide(db, who, made.id, made.version, state, signed)
        load_past(db, who, now, drawn() if two_years else ())
        if two_years:
            load_logged(db, who, now)
    return True

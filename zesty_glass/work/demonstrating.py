"""Show a customer their own water: keep what was seen; a tasting's codes are drawn here and its
ranks lock.
"""

from __future__ import annotations

import random
from dataclasses import replace
from datetime import timedelta
from uuid import UUID

from sqlalchemy.orm import Session

from ..core.assess import assess
from ..core.demonstrating import tasting as blind
from ..core.demonstrating.demonstrations import Demonstration, Tasting
from ..core.demonstrating.shown_records import Shown
from ..core.errors import RuleError
from ..core.visit import Visit
from ..documents.codec import load, plain
from ..records import store
from ..records.models import DemonstrationRow
from . import visiting
from .person import Person, now
from .versioning import keep_part, request_of, same_id, same_request


def _check_tasting(kept: Demonstration | None, made: Demonstration) -> None:
    """Codes and orders are drawn once; a rank once given stays; nothing changes once the key was
    shown.
    """
    if not isinstance(made.body, Tasting):
        return
    if kept is None or not isinstance(kept.body, Tasting):
        raise RuleError(
            "tasting.draw", "A tasting starts by drawing its codes.", "body", "Start a new tasting."
        )
    before = kept.body
    if before.shown_at is not None:
        raise RuleError(
            "tasting.over", "The key was shown: this tasting is over.", "body", "Start a new one."
        )
    if before.waters != made.body.waters or [(t.name, t.order) for t in before.tasters] != [
        (t.name, t.order) for t in made.body.tasters
    ]:
        raise RuleError(
            "tasting.changed",
            "Waters, codes and tasters stay as they were drawn.",
            "body",
            "Start a new tasting.",
        )
    for a, b in zip(before.tasters, made.body.tasters, strict=True):
        if a.ranks is not None and (a.ranks, a.said) != (b.ranks, b.said):
            raise RuleError(
                "tasting.locked",
                f"{a.name} has ranked already: ranks are locked.",
                "body.tasters",
                "Start a new tasting.",
            )


def _only_struck(before: Demonstration, made: Demonstration) -> bool:
    """Whether nothing but striking it, or taking that back, is asked for."""
    struck = (made.struck_at, made.struck_because)
    return made == replace(before, by=made.by, struck_at=struck[0], struck_because=struck[1])


def _refuse(visit: Visit, made: Demonstration) -> Shown:
    """The demonstration worked out on its visit; RuleError when it may not be shown."""
    standing = replace(made, struck_at=None, struck_because="")
    (shown,) = assess(replace(visit, demonstrations=(standing,))).demonstrations
    if shown.refused:
        raise RuleError("demonstration.refused", shown.refused, "body", "Choose another glass.")
    return shown


def keep(
    db: Session, who: Person, visit_id: UUID, made: Demonstration, version: int | None
) -> DemonstrationRow:
    """Keep a demonstration, or what was added to it. Sent twice with one id it is one
    demonstration.
    """
    row = visiting.get(db, who, visit_id, lock=True)
    made = replace(made, by=who.name)
    if made.made_at > now() + timedelta(minutes=5):
        raise RuleError(
            "demonstration.future",
            "The demonstration’s time lies in the future.",
            "made_at",
            "Check the clock.",
        )
    visit, _ = visiting.document(db, who, row, snapshots=False)
    have = store.find(db, DemonstrationRow, who.firm_id, same_id(made.id), lock=True)
    if have is not None and have.visit_id != visit_id:
        raise store.NotFound("demonstration")
    data = plain(made)
    before: Demonstration | None = None if have is None else load(Demonstration, have.data)
    if have is not None and before == made:
        return have
    if before is not None and _only_struck(before, made):
        data = plain(replace(made, by=before.by))
    else:
        _check_tasting(before, made)
        _refuse(visit, made)
    return keep_part(
        db,
        who,
        DemonstrationRow,
        visit_id,
        same_id(made.id),
        data,
        version,
        "demonstration",
        "shown",
    )


def start_tasting(
    db: Session,
    who: Person,
    visit_id: UUID,
    id: UUID,
    samples: tuple[str, ...],
    tasters: tuple[str, ...],
    sanitised: tuple[str, ...],
) -> DemonstrationRow:
    """Draw codes and orders for a tasting; water that may not be tasted is refused. Twice with one
    id is one tasting.
    """
    row = visiting.get(db, who, visit_id, lock=True)
    asked = request_of(samples, tasters, sanitised)
    have = store.find(db, DemonstrationRow, who.firm_id, id)
    if have is not None:
        if have.visit_id != visit_id:
            raise store.NotFound("tasting")
        same_request(have.request, asked, "tasting")
        return have
    body = replace(blind.draw(samples, tasters, random.SystemRandom()), sanitised=sanitised)
    made = Demonstration(id=str(id), made_at=now(), by=who.name, body=body)
    visit, _ = visiting.document(db, who, row, snapshots=False)
    _refuse(visit, made)
    return keep_part(
        db, who, DemonstrationRow, visit_id, id, plain(made), None, "demonstration", "shown", asked
    )

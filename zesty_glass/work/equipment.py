"""What became of what was sold at a home, piece by piece."""

from __future__ import annotations

from dataclasses import replace
from uuid import UUID

from sqlalchemy.orm import Session

from ..core.aftercare.equipment import MOST_MOVES, Move, check_move
from ..core.aftercare.job import Job
from ..core.errors import RuleError
from ..records import store
from ..records.after_models import JobRow
from .jobs import changed, today
from .person import Forbidden, Person
from .versioning import another


def put_move(db: Session, who: Person, id: UUID, move: Move) -> JobRow:
    """Keep what became of a piece; the same again changes nothing. What its rent is bought out for
    is the seller’s matter.

    Raises:
        RuleError: see ``check_move``. Forbidden: a fitter who buys something out of its rent.
    """
    if move.fate == "bought_out" and who.role == "installer":
        raise Forbidden("A consultant or manager says what is bought out of its rent.")

    def how(j: Job) -> Job:
        have = next((m for m in j.moves if m.id == move.id), None)
        if have is not None:
            if replace(have, by=move.by) != move:
                raise another("move")
            return j
        check_move(move, j.bought, j.moves, j.fitted_on, today())
        if len(j.moves) >= MOST_MOVES:
            raise RuleError("move.full", "Enough is written of this job.", "move", "")
        return replace(j, moves=(*j.moves, move))

    return changed(db, who, id, None, move.fate.replace("_", " "), how)


def drop_move(db: Session, who: Person, id: UUID, move: str) -> JobRow:
    """Take back what became of a piece."""

    def how(j: Job) -> Job:
        if all(m.id != move for m in j.moves):
            raise store.NotFound("move")
        return replace(j, moves=tuple(m for m in j.moves if m.id != move))

    return changed(db, who, id, None, "taken back", how)

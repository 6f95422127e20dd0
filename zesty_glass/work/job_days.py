"""The days of a job: planned, in use, ended, and opened again."""

from __future__ import annotations

from dataclasses import replace
from datetime import date, timedelta
from typing import NamedTuple
from uuid import UUID

from sqlalchemy import select
from sqlalchemy.orm import Session

from ..core.aftercare.job import Ended, Job, Tick, open_steps
from ..core.errors import RuleError
from ..records import jobs as records
from ..records import store
from ..records.after_models import JobRow
from ..records.models import ProposalRow, User
from .jobs import changed, get, keep, opened, today
from .person import Person, now
from .versioning import expect

APART_MIN = 120  # [min] between two jobs of one fitter on a day, from the start of one to the next


def plan(
    db: Session,
    who: Person,
    id: UUID,
    version: int,
    planned_on: date | None,
    planned_at: str,
    fitter: str,
    note: str,
    anyway: bool = False,
    fitter_id: UUID | None = None,
) -> JobRow:
    """Say when a job is done, and by whom.

    Args:
        fitter: somebody outside the firm, by name; fitter_id: a person of the firm.

    Raises:
        RuleError: a day that is over, somebody who is not of the firm any more, or, unless
            ``anyway``, a fitter who is somewhere else then.
    """
    by = Fitting(fitter.strip(), "") if fitter_id is None else _of_the_firm(db, who, fitter_id)

    def how(j: Job) -> Job:
        _open(j)
        if planned_on is not None and planned_on != j.planned_on and planned_on < today():
            raise RuleError(
                "job.past",
                f"{planned_on:%B %-d, %Y} is over.",
                "planned_on",
                "Plan it for today or later; the day of the fitting is kept by itself.",
            )
        if planned_on is not None and by.name and not anyway:
            _free(db, who, id, planned_on, planned_at, by)
        day = replace(j, planned_on=planned_on, planned_at=planned_at, note=note)
        return replace(day, fitter=by.name, fitter_id=by.id)

    return changed(db, who, id, version, "planned", how)


class Fitting(NamedTuple):
    """Who fits a job: by name, and the id of a person of the firm."""

    name: str
    id: str


def _of_the_firm(db: Session, who: Person, id: UUID) -> Fitting:
    person = db.get(User, id)
    if person is None or person.firm_id != who.firm_id or not person.active:
        raise RuleError(
            "job.fitter",
            "Nobody of the firm has this id.",
            "fitter_id",
            "Choose somebody who is in the firm, or write the name of somebody outside it.",
        )
    return Fitting(person.name, str(person.id))


def fitters(db: Session, who: Person) -> tuple[list[Fitting], list[str]]:
    """Who can be planned: the firm’s people, and those outside it who were planned before."""
    people = db.scalars(
        select(User).where(User.firm_id == who.firm_id, User.active).order_by(User.name, User.id)
    )
    mine = [Fitting(p.name, str(p.id)) for p in people]
    return mine, records.outside_fitters(db, who.firm_id)


def _open(job: Job) -> None:
    if job.ended is not None:
        raise RuleError(
            "job.ended", "This job has ended.", "job", "Open it again to go on with it."
        )


def _minutes(clock: str) -> int:
    hours, minutes = clock.split(":")
    return 60 * int(hours) + int(minutes)


def _free(db: Session, who: Person, id: UUID, day: date, at: str, by: Fitting) -> None:
    """RuleError where a fitter is at another job at that time; a job without a time takes the
    day.
    """
    for row in records.planned_on(db, who.firm_id, day):
        other = row.data["planned_at"]
        near = not at or not other or abs(_minutes(at) - _minutes(other)) < APART_MIN
        same = Fitting(row.data["fitter"], row.data.get("fitter_id", ""))
        if row.id != id and near and _is_one(same, by):
            raise RuleError(
                "job.booked",
                f"{by.name} has another job on {day:%B %-d, %Y}"
                + (f" at {other}." if other else "."),
                "fitter",
                "Choose another time or fitter, or plan it all the same.",
            )


def _is_one(a: Fitting, b: Fitting) -> bool:
    """Whether two fitters are one: by id where both have one, else by name."""
    return a.id == b.id if a.id and b.id else a.name.lower() == b.name.lower()


def in_use(
    db: Session, who: Person, id: UUID, version: int, on: date | None, left_out: str = ""
) -> JobRow:
    """Say on which day a line went into use; None: it is not in use after all.

    Args:
        left_out: why the steps that nobody ticked were left out.

    Raises:
        RuleError: a day before the sale or to come, a part that was changed before it, or steps
            that are neither ticked nor left out.
    """

    def how(j: Job) -> Job:
        _open(j)
        _could_be(j, on)
        left = () if on is None else open_steps(j)
        if left and not left_out.strip():
            raise RuleError(
                "job.steps",
                f"{len(left)} of its steps are neither ticked nor left out.",
                "left_out",
                "Tick them, or say in a line why they were left out.",
            )
        ticks = tuple(
            Tick(sheet=sheet, step=step, by=who.name, at=now(), left_out=left_out.strip())
            for sheet, step in left
        )
        return replace(j, fitted_on=on, ticks=(*j.ticks, *ticks))

    return changed(db, who, id, version, "fitted", how)


def _could_be(job: Job, on: date | None) -> None:
    """RuleError for a day on which a job cannot have gone into use."""
    if on is not None and on > today():
        raise RuleError("job.future", "This day has not come yet.", "on", "Use the day it was.")
    # the day is the home's own, the moment of the sale is anywhere's: a day apart
    sold = job.made_at.date()
    if on is not None and job.proposal and on < sold - timedelta(days=1):
        raise RuleError(
            "job.before_sale",
            f"{on:%B %-d, %Y} is before it was sold, on {sold:%B %-d, %Y}.",
            "on",
            "Use the day of the fitting.",
        )
    early = min((c.on for c in job.changes), default=None)
    if early is not None and (on is None or on > early):
        raise RuleError(
            "job.changed_before",
            f"A part was changed on {early:%B %-d, %Y}, before this day.",
            "on",
            "Use the day of the fitting.",
        )


def end_of_proposal(
    db: Session, who: Person, proposal: ProposalRow, because: str, even_in_use: bool = False
) -> None:
    """End the job of a proposal, where it has one.

    Raises:
        RuleError: what it fitted is in use, and that was not reckoned with.
    """
    row = records.of_proposal(db, who.firm_id, proposal.id)
    job = None if row is None else opened(row)
    if row is None or job is None or job.ended is not None:
        return
    if job.fitted_on is not None and not even_in_use:
        raise RuleError(
            "job.in_use",
            f"What was signed before is in use since {job.fitted_on:%B %-d, %Y}.",
            "proposal",
            "Start another visit for what comes on top of it, or present this as a second offer.",
        )
    _end(db, who, row, job, because)


def _end(db: Session, who: Person, row: JobRow, job: Job, because: str) -> JobRow:
    ended = Ended(because=because, by=who.name, at=now())
    return keep(db, who, row, replace(job, ended=ended), "ended")


def _because(text: str) -> str:
    if not text.strip():
        raise RuleError("job.because", "This needs a reason.", "because", "Write why, in a line.")
    return text.strip()


def end(db: Session, who: Person, id: UUID, version: int, because: str) -> JobRow:
    """End a job: cancelled before it was fitted, or taken out since. Nothing of it falls due."""
    row = get(db, who, id, lock=True)
    expect(db, "job", row, version)
    job = opened(row)
    _open(job)
    return _end(db, who, row, job, _because(because))


def reopen(db: Session, who: Person, id: UUID, version: int, because: str) -> JobRow:
    """Open a job again: one that ended goes on where it was, and of one that is proved only what is
    read from now on counts.

    Raises:
        RuleError: its sale was cancelled or replaced, or it is open.
    """
    row = get(db, who, id, lock=True)
    expect(db, "job", row, version)
    job, why = opened(row), _because(because)
    if job.ended is not None:
        _still_sold(db, who, row)
        return keep(db, who, row, replace(job, ended=None), "opened again")
    if row.summary["state"] != "proved":
        raise RuleError("job.open", "This job is open.", "job", "Go on with it.")
    again = Ended(because=why, by=who.name, at=now())
    return keep(db, who, row, replace(job, reopened=(*job.reopened, again)), "opened again")


def _still_sold(db: Session, who: Person, row: JobRow) -> None:
    if row.proposal_id is None:
        return
    sold: ProposalRow = store.get(db, ProposalRow, who.firm_id, row.proposal_id, "proposal")
    if sold.data["state"] != "accepted":
        raise RuleError(
            "job.not_sold",
            f"Its proposal is {sold.data['state']}.",
            "proposal",
            "Write a new proposal: the job follows from its signature.",
        )

"""Make, plan, fit and prove a job, and keep what falls due at it."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from datetime import date, datetime, timedelta
from typing import Any
from uuid import UUID, uuid5

from sqlalchemy.orm import Session

from ..core.aftercare.care import Change, Falling, check_change
from ..core.aftercare.disinfecting import Plumbing
from ..core.aftercare.gauging import Gauge, check_gauge
from ..core.aftercare.job import (
    MOST_CHANGES,
    MOST_PROOFS,
    MOST_TICKS,
    FollowUp,
    Job,
    Standing,
    Tick,
    check_tick,
    job_of,
    part_since,
    served,
    standing,
)
from ..core.aftercare.proof import Proof, short_by
from ..core.aftercare.second_test import as_falling
from ..core.aftercare.steps import renewed, sheets
from ..core.errors import RuleError
from ..core.presenting.metric import in_units
from ..core.presenting.paying import Payment
from ..core.testing.reading import work_out
from ..core.visit import Visit
from ..documents.codec import load, plain
from ..records import jobs as records
from ..records import store
from ..records.after_models import JobRow
from ..records.models import HomeRow, ProposalRow
from . import money, readings, versioning, visiting
from .basis import line_of, signed_visit
from .person import Person, now
from .versioning import another, expect


def job_id(proposal: UUID) -> UUID:
    """The one job that a proposal becomes."""
    return uuid5(proposal, "job")


def make(db: Session, who: Person, proposal: ProposalRow, at: datetime | None = None) -> JobRow:
    """The job of an accepted proposal, as it was signed; asked for twice it is one.

    Raises:
        RuleError: the proposal is not accepted, buys nothing, or what an older release wrote can be
            made no job any more.
    """
    have = records.of_proposal(db, who.firm_id, proposal.id)
    if have is not None:
        return have
    if proposal.data["state"] != "accepted":
        raise RuleError(
            "job.accepted", "Only an accepted proposal becomes a job.", "proposal", "Sign it first."
        )
    option = proposal.data["recommended"]
    if option == "today":
        raise RuleError("job.nothing", "Nothing was sold: there is nothing to fit.", "proposal", "")
    row = visiting.get(db, who, proposal.visit_id)
    visit = signed_visit(db, who, proposal)
    id = job_id(proposal.id)
    job = in_units(
        job_of(
            line_of(visit, option),
            visit.home,
            id=str(id),
            visit=str(row.id),
            proposal=str(proposal.id),
            units=visit.settings.units,
            made_at=at or now(),
        ),
        visit,
    )
    made = JobRow(
        id=id,
        firm_id=who.firm_id,
        visit_id=row.id,
        home_id=row.home_id,
        proposal_id=proposal.id,
        planned_on=None,
        data=plain(job),
        summary=_summary(job, standing(job, today())),
        version=1,
    )
    db.add(made)
    db.flush()
    versioning.note(db, who, id, "job made", 1, [])
    return made


def make_if_possible(db: Session, who: Person, proposal: ProposalRow) -> JobRow | None:
    """The job of a proposal that was accepted just now. A signature never fails for want of it: it
    is kept, and waits at the top of what is due.
    """
    try:
        with db.begin_nested():
            return make(db, who, proposal)
    except (RuleError, ArithmeticError, ValueError, LookupError):
        return None


def get(db: Session, who: Person, id: UUID, lock: bool = False) -> JobRow:
    """A job this person may see."""
    row = store.get(db, JobRow, who.firm_id, id, "job", lock)
    visiting.get(db, who, row.visit_id)
    return row


def opened(row: JobRow) -> Job:
    """A job as it is kept."""
    job: Job = load(Job, row.data)
    return job


def today() -> date:
    """The day, by the server's clock."""
    return now().date()


def _summary(job: Job, at: Standing) -> dict[str, Any]:
    """What a list says of a job."""
    return {
        "line": job.line,
        "state": at.state,
        "planned_on": None if job.planned_on is None else job.planned_on.isoformat(),
        "planned_at": job.planned_at,
        "fitter": job.fitter,
        "fitter_id": job.fitter_id,
        "steps_done": at.steps_done,
        "steps": at.steps,
        "short": sum(p.verdict == "short" for p in at.proved),
    }


def _falling(at: Standing) -> tuple[Falling, ...]:
    """What falls due at a job: its parts, and the second test while it is not made."""
    return at.due if at.second is None else (*at.due, as_falling(at.second, today()))


def keep(db: Session, who: Person, row: JobRow, job: Job, action: str) -> JobRow:
    """Write a job, and when its parts fall due next."""
    after: dict[str, Any] = {"data": plain(job)}
    if versioning.change(db, who, row, after, action):
        write_rows(db, row, job)
    return row


def write_rows(db: Session, row: JobRow, job: Job) -> None:
    """What lists and the record read of a job, beside its document."""
    at = standing(job, today())
    row.planned_on, row.summary = job.planned_on, _summary(job, at)
    records.set_dues(
        db,
        row,
        (
            {
                "key": f.part.key,
                "due_on": f.next,
                "stage": f.part.stage,
                "label": f.part.label,
                "kind": f.part.kind,
                "own": f.part.own,
                "minutes": f.part.minutes,
            }
            for f in _falling(at)
        ),
    )
    first = {p.promise: p for p in at.first}
    records.set_proved(
        db,
        row,
        (
            {
                "analyte": p.promise.analyte,
                "kind": p.promise.kind,
                "item": p.promise.item,
                "verdict": p.verdict,
                "short_by": short_by(p),
                "first_verdict": first[p.promise].verdict,
                "first_short_by": short_by(first[p.promise]),
            }
            for p in at.proved
        ),
    )
    records.set_served(db, row, (plain(s) for s in served(job)))
    db.flush()


def changed(
    db: Session, who: Person, id: UUID, version: int | None, action: str, how: Callable[[Job], Job]
) -> JobRow:
    """Change a locked job. Without a version: additions of which two people may make one each."""
    row = get(db, who, id, lock=True)
    if version is not None:
        expect(db, "job", row, version)
    return keep(db, who, row, how(opened(row)), action)


def set_plumbing(db: Session, who: Person, id: UUID, version: int, plumbing: Plumbing) -> JobRow:
    """Say what holds water in the home: the steps that count on it are made again, their ticks
    stay.
    """
    row = get(db, who, id, lock=True)
    expect(db, "job", row, version)
    job = opened(row)
    visit = _made_from(db, who, row)
    kept = replace(plumbing, assumed=False)
    made = in_units(sheets(line_of(visit, job.option), visit.home, kept), visit)
    return keep(
        db,
        who,
        row,
        replace(job, plumbing=kept, sheets=renewed(job.sheets, made)),
        "plumbing measured",
    )


def _made_from(db: Session, who: Person, row: JobRow) -> Visit:
    """The visit that a job was made from: as it was signed, or as it is for what others fitted."""
    if row.proposal_id is not None:
        return signed_visit(
            db, who, store.get(db, ProposalRow, who.firm_id, row.proposal_id, "proposal")
        )
    return visiting.document(db, who, visiting.get(db, who, row.visit_id))[0]


def tick(
    db: Session, who: Person, id: UUID, sheet: str, step: int, done: bool, left_out: str
) -> JobRow:
    """Tick a step, or take the tick back. Who ticked first stays."""

    def how(j: Job) -> Job:
        t = Tick(sheet=sheet, step=step, by=who.name, at=now(), left_out=left_out.strip())
        check_tick(j, t)
        have = [x for x in j.ticks if (x.sheet, x.step) == (sheet, step)]
        others = tuple(x for x in j.ticks if (x.sheet, x.step) != (sheet, step))
        if not done:
            return replace(j, ticks=others)
        if have and have[0].left_out == t.left_out:
            return j
        return replace(j, ticks=(*others, t)[:MOST_TICKS])

    return changed(db, who, id, None, "step", how)


def put_proof(db: Session, who: Person, id: UUID, proof: Proof) -> JobRow:
    """Keep a reading behind the fitted line, made with the firm's own kit as it is now; a repeat
    changes nothing, another under its id is refused.
    """
    proof = replace(proof, reading=readings.as_here(db, who, proof.reading))
    work_out(proof.reading)

    def how(j: Job) -> Job:
        have = next((p for p in j.proofs if p.reading.id == proof.reading.id), None)
        if have is not None:
            if not _same(have, proof):
                raise RuleError(
                    "job.proof",
                    "This reading was kept already, and was another one.",
                    "id",
                    "Nothing was overwritten. Take it back, or send yours under a new id.",
                )
            return j
        if j.fitted_on is None:
            raise RuleError(
                "job.not_fitted", "The line is not fitted yet.", "reading", "Say when it was."
            )
        # the day of the fitting is the home's own, the reading's time is anywhere's: a day apart
        if proof.reading.made_at.date() < j.fitted_on - timedelta(days=1):
            raise RuleError(
                "job.before_fitting",
                f"This reading is older than the fitting, {j.fitted_on:%B %-d, %Y}.",
                "made_at",
                "Read it behind the fitted line, or put the day of the fitting right.",
            )
        readings.not_to_come(proof.reading)
        _room(len(j.proofs), MOST_PROOFS)
        kept = replace(proof, reading=replace(proof.reading, kept_at=now()))
        return replace(j, proofs=(*j.proofs, kept))

    return changed(db, who, id, None, "proof", how)


def _same(kept: Proof, sent: Proof) -> bool:
    """Whether a reading is the one that was kept, whatever became of it since."""
    r = kept.reading
    as_kept = replace(
        sent.reading,
        by=r.by,
        kept_at=r.kept_at,
        instrument=r.instrument,
        struck_at=r.struck_at,
        struck_because=r.struck_because,
    )
    return bool(plain(replace(sent, reading=as_kept)) == plain(kept))


def strike_proof(db: Session, who: Person, id: UUID, reading: str, because: str) -> JobRow:
    """Strike a reading of a job; it stays on record."""

    def how(j: Job) -> Job:
        if all(p.reading.id != reading for p in j.proofs):
            raise store.NotFound("reading")
        if not because.strip():
            raise RuleError("strike.reason", "Striking needs a reason.", "because", "Write why.")
        return replace(
            j,
            proofs=tuple(
                replace(
                    p,
                    reading=replace(p.reading, struck_at=now(), struck_because=because.strip()),
                )
                if p.reading.id == reading and p.reading.struck_at is None
                else p
                for p in j.proofs
            ),
        )

    return changed(db, who, id, None, "proof struck", how)


def put_change(db: Session, who: Person, id: UUID, change: Change) -> JobRow:
    """Keep that a part was changed: its next day moves. A repeat changes nothing."""

    def how(j: Job) -> Job:
        if any(c.id == change.id for c in j.changes):
            return j
        made = replace(change, by=who.name)
        check_change(made, j.parts, j.fitted_on, today())
        _room(len(j.changes), MOST_CHANGES)
        return replace(j, changes=(*j.changes, made))

    return changed(db, who, id, None, "part changed", how)


def drop_change(db: Session, who: Person, id: UUID, change: str) -> JobRow:
    """Take a change back, at once after it was said; the audit keeps it."""
    return changed(
        db,
        who,
        id,
        None,
        "change taken back",
        lambda j: replace(j, changes=tuple(c for c in j.changes if c.id != change)),
    )


def put_gauge(db: Session, who: Person, id: UUID, gauge: Gauge) -> JobRow:
    """Keep what was read at a part: its next day moves. A repeat changes nothing, another under its
    id is refused.
    """

    def how(j: Job) -> Job:
        have = next((g for g in j.gauges if g.id == gauge.id), None)
        if have is not None:
            if replace(have, by="") != replace(gauge, by=""):
                raise another("reading")
            return j
        check_gauge(gauge, *part_since(j, gauge.part), today())
        _room(len(j.gauges), MOST_CHANGES)
        return replace(j, gauges=(*j.gauges, replace(gauge, by=who.name)))

    return changed(db, who, id, None, "part read", how)


def drop_gauge(db: Session, who: Person, id: UUID, gauge: str) -> JobRow:
    """Take a reading at a part back; the audit keeps it."""
    return changed(
        db,
        who,
        id,
        None,
        "reading taken back",
        lambda j: replace(j, gauges=tuple(g for g in j.gauges if g.id != gauge)),
    )


def put_follow_up(db: Session, who: Person, id: UUID, follow_up: FollowUp) -> JobRow:
    """Open what a short result leads to, or close it with what was found."""

    def how(j: Job) -> Job:
        if not follow_up.what.strip():
            raise RuleError(
                "follow_up.what", "A follow-up says what is tried.", "what", "Write it in a line."
            )
        others = tuple(f for f in j.follow_ups if f.id != follow_up.id)
        _room(len(others), MOST_PROOFS)
        return replace(j, follow_ups=(*others, follow_up))

    return changed(db, who, id, None, "follow-up", how)


def _room(have: int, most: int) -> None:
    if have >= most:
        raise RuleError("job.full", f"A job keeps at most {most} of these.", "job", "Make another.")


def seen(db: Session, who: Person, row: JobRow) -> tuple[Job, Standing, HomeRow]:
    """A job, how it stands today, and whose it is."""
    job = opened(row)
    home: HomeRow = store.get(db, HomeRow, who.firm_id, row.home_id, "home")
    return job, standing(job, today()), home


def paid_for(db: Session, who: Person, row: JobRow) -> tuple[tuple[Payment, ...], str]:
    """What is paid for a job and when, and the currency, as its proposal was signed."""
    if row.proposal_id is None:
        return (), ""
    proposal: ProposalRow = store.get(db, ProposalRow, who.firm_id, row.proposal_id, "proposal")
    of = money.sold_of(proposal)
    return ((), "") if of is None else (of.payments, of.currency)


def behind(db: Session, firm: UUID, proposal: UUID) -> tuple[Job, Standing] | None:
    """The job of a proposal and how it stands today; None where it has none."""
    row = records.of_proposal(db, firm, proposal)
    if row is None:
        return None
    job = opened(row)
    return job, standing(job, today())


def whose(who: Person) -> UUID | None:
    """Whose homes a person sees in lists: a consultant their own, everybody else all."""
    return who.id if who.role == "consultant" else None

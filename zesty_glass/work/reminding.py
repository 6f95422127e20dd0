"""Reminders of what falls due, once for each part and day, by mail."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any
from uuid import UUID, uuid4

from sqlalchemy import ColumnElement, select
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session

from ..core.aftercare.care import BLANKS, DUE_DAYS, reminder
from ..core.presenting.letter import REMINDS
from ..core.rules import Settings
from ..documents.codec import load
from ..messages.catalogue import ORIGINAL, day_in, say_in
from ..records.after_models import DueRow, JobRow, ReminderRow
from ..records.models import Firm, HomeRow, MailRow
from ..standins.mail import Mailer, Message, SimulatedMail
from . import mailing
from .person import Person, now
from .sharing import fits_address
from .versioning import note

OLDEST = timedelta(days=60)  # what is longer overdue is told by telephone


def remind(db: Session, who: Person, today: date, mailer: Mailer | None = None) -> int:
    """Send everybody who has an address and agreed to it one message, in their language, about what
    falls due at their homes within the fortnight and was not reminded of yet; how many went out.

    Two processes at once send each message once: the row that says so is written before it goes,
    and only one of them can write it.
    """
    firm = db.get_one(Firm, who.firm_id)
    people = _people(db, who.firm_id, today)
    every = {job.id: job for _, of in people for job, _ in of}
    due = {id: _taken(db, who.firm_id, job, today) for id, job in every.items()}
    settings: Settings = load(Settings, firm.settings)
    sender = mailer or SimulatedMail()
    waits = mailer is None and mailing.queues(db)
    sent = 0
    for person, of in people:
        parts, job = _parts(of, due), of[0][0]
        if not parts:
            continue
        language = person.get("language", ORIGINAL)
        say = say_in(language, frozenset(BLANKS))
        said = [(say(label), day_in(language, on), own) for label, on, own in parts]
        text = reminder(settings.reminder_text, person["name"], firm.name, said, say)
        message = Message(
            to=person["email"].strip(),
            subject=say(REMINDS),
            text=text,
        )
        note(db, who, job.id, "reminded", job.version, [])
        sent += 1
        if waits:
            mailing.put(
                db, who, message.to, message.subject, message.text, proposal=job.proposal_id
            )
            continue
        sender.send(message)
        db.add(
            MailRow(
                id=uuid4(),
                firm_id=who.firm_id,
                proposal_id=job.proposal_id,
                at=now(),
                by=who.name,
                to=message.to,
                subject=message.subject,
                text=message.text,
                attachment="",
                simulated=sender.simulated,
                request="",
            )
        )
    db.flush()
    return sent


def _in_time(today: date) -> ColumnElement[bool]:
    return DueRow.due_on.between(today - OLDEST, today + timedelta(days=DUE_DAYS))


Job = tuple[JobRow, str]  # with the name of its home
Due = tuple[str, date, bool]  # a part, its day, and whether the household changes it


def _parts(of: list[Job], due: dict[UUID, list[Due]]) -> list[Due]:
    """What is due at some jobs of one person; where it is at several homes, each is named."""
    several = len({job.home_id for job, _ in of}) > 1
    out = []
    for job, home in of:
        for label, on, own in due[job.id]:
            out.append((f"{home}: {label}" if several else label, on, own))
    return sorted(out, key=lambda p: p[1])


def _people(db: Session, firm: UUID, today: date) -> list[tuple[dict[str, Any], list[Job]]]:
    """People with an address who agreed to be reminded, each with their jobs at which something is
    due: one message is for all of them.
    """
    due = select(DueRow.job_id).where(DueRow.firm_id == firm, _in_time(today))
    query = (
        select(JobRow, HomeRow.customer, HomeRow.others, HomeRow.home["name"].as_string())
        .join(HomeRow, HomeRow.id == JobRow.home_id)
        .where(JobRow.firm_id == firm, JobRow.id.in_(due))
        .order_by(JobRow.id)
    )
    by: dict[str, tuple[dict[str, Any], list[Job]]] = {}
    for job, customer, others, home in db.execute(query):
        for person in (customer, *others):
            address = person.get("email", "").strip().lower()
            if person.get("reminders", True) and fits_address(address):
                jobs_of = by.setdefault(address, (person, []))[1]
                if (job, home) not in jobs_of:  # two at a home may share an address
                    jobs_of.append((job, home))
    return list(by.values())


def _taken(db: Session, firm: UUID, job: JobRow, today: date) -> list[Due]:
    """Parts of a job that are due and that nobody reminded of: taken on by this process."""
    due = {
        (d.key, d.due_on): d
        for d in db.scalars(select(DueRow).where(DueRow.job_id == job.id, _in_time(today)))
    }
    rows = [
        {"job_id": job.id, "key": key, "due_on": on, "firm_id": firm, "at": now()}
        for key, on in due
    ]
    if not rows:
        return []
    written = (
        insert(ReminderRow)
        .values(rows)
        .on_conflict_do_nothing()
        .returning(ReminderRow.key, ReminderRow.due_on)
    )
    mine = sorted((on, key) for key, on in db.execute(written))
    return [(due[key, on].label, on, due[key, on].own) for on, key in mine]

"""Reminders of what falls due, once for each part and day, by mail."""

from __future__ import annotations

from datetime import date, timedelta
from uuid import UUID, uuid4

from sqlalchemy import ColumnElement, select
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session

from ..core.aftercare.care import DUE_DAYS, reminder
from ..core.rules import Settings
from ..documents.codec import load
from ..records.after_models import DueRow, JobRow, ReminderRow
from ..records.models import Firm, HomeRow, MailRow
from ..standins.mail import Mailer, Message, SimulatedMail
from . import posting
from .keeping import note
from .person import Person, now
from .sharing import fits_address

OLDEST = timedelta(days=60)  # what is longer overdue is told by telephone


def remind(db: Session, who: Person, today: date, mailer: Mailer | None = None) -> int:
    """Send every customer of a firm who has an address one message about what falls due within the
    fortnight and was not reminded of yet; how many went out.

    Two processes at once send each message once: the row that says so is written before it goes,
    and only one of them can write it.
    """
    firm = db.get_one(Firm, who.firm_id)
    settings: Settings = load(Settings, firm.settings)
    sender = mailer or SimulatedMail()
    waits = mailer is None and posting.queues(db)
    sent = 0
    for customer, of in _customers(db, who.firm_id, today):
        parts, job = _parts(db, who.firm_id, of, today), of[0][0]
        if not parts:
            continue
        text = reminder(settings.reminder_text, customer["name"], firm.name, parts)
        message = Message(
            to=customer["email"].strip(), subject="Your water treatment: what is due", text=text
        )
        note(db, who, job.id, "reminded", job.version, [])
        sent += 1
        if waits:
            posting.put(
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


def _parts(db: Session, firm: UUID, of: list[Job], today: date) -> list[tuple[str, date, bool]]:
    """What is due at some jobs of one customer; where it is at several homes, each is named."""
    several = len({job.home_id for job, _ in of}) > 1
    out = []
    for job, home in of:
        for label, on, own in _taken(db, firm, job, today):
            out.append((f"{home}: {label}" if several else label, on, own))
    return sorted(out, key=lambda p: p[1])


def _customers(db: Session, firm: UUID, today: date) -> list[tuple[dict[str, str], list[Job]]]:
    """Customers with an address, each with their jobs at which something is due: one message is for
    all of them.
    """
    due = select(DueRow.job_id).where(DueRow.firm_id == firm, _in_time(today))
    query = (
        select(JobRow, HomeRow.customer, HomeRow.home["name"].as_string())
        .join(HomeRow, HomeRow.id == JobRow.home_id)
        .where(JobRow.firm_id == firm, JobRow.id.in_(due))
        .order_by(JobRow.id)
    )
    by: dict[str, tuple[dict[str, str], list[Job]]] = {}
    for job, customer, home in db.execute(query):
        address = customer.get("email", "").strip().lower()
        if fits_address(address):
            by.setdefault(address, (customer, []))[1].append((job, home))
    return list(by.values())


def _taken(db: Session, firm: UUID, job: JobRow, today: date) -> list[tuple[str, date, bool]]:
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

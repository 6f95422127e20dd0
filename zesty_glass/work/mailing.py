"""The outbox: messages wait in the database, are sent by whichever process comes first, tried again
when the mail server does not answer, and never sent twice.

A secret address in a message is made when the message goes out, and only its hash is kept: what
waits holds none.
"""

from __future__ import annotations

import logging
import secrets
import threading
from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime, timedelta
from uuid import UUID, uuid4

from sqlalchemy import select, update
from sqlalchemy.exc import OperationalError
from sqlalchemy.orm import Session, sessionmaker

from ..core.errors import RuleError
from ..records.models import InvitationRow, LinkRow, MailRow
from ..standins.mail import Mailer, Message
from ..standins.smtp import Refused
from .person import Person, now
from .signing_in import token_hash

log = logging.getLogger("zesty.mail")
CONFIGURED = "posting"  # in a session's info: messages wait to be sent by a real sender
PLACE = "{link}"
UNKEPT = "(the link, sent and not kept)"
#: waits between tries [min]; after the last one a message has failed
WAITS = (1, 5, 15, 60, 240, 720, 1440)
HANGS = timedelta(minutes=15)  # a message that was taken so long ago: nobody knows whether it went
POLL_S = 5.0


def queues(db: Session) -> bool:
    """Whether messages wait for a real sender."""
    return bool(db.info.get(CONFIGURED))


def put(
    db: Session,
    who: Person,
    to: str,
    subject: str,
    text: str,
    *,
    attachment: str = "",
    fresh: str = "",
    proposal: UUID | None = None,
    id: UUID | None = None,
    request: str = "",
    about: str = "",
) -> MailRow:
    """Put a message into the outbox, waiting to be sent.

    Args:
        text: with ``PLACE`` where a secret address comes; fresh: what gets it, ``link:`` or
            ``invitation:`` with its id. about: that of the row.
    """
    row = MailRow(
        id=id or uuid4(),
        firm_id=who.firm_id,
        proposal_id=proposal,
        at=now(),
        by=who.name,
        to=to,
        subject=subject,
        text=text,
        attachment=attachment,
        simulated=False,
        request=request,
        state="waiting",
        next_try=now(),
        fresh=fresh,
        about=about,
    )
    db.add(row)
    db.flush()
    return row


def _address(db: Session, row: MailRow, base: str) -> str:
    """A new secret address for what a message names; empty where there is none any more."""
    kind, _, id = row.fresh.partition(":")
    if not id:
        return ""
    token = secrets.token_urlsafe(32)
    if kind == "link":
        link = db.get(LinkRow, UUID(id))
        if link is None or link.revoked_at is not None:
            return ""
        link.token_hash = token_hash(token)
        return f"{base}/p/{token}"
    made = db.get(InvitationRow, UUID(id))
    if made is None or made.revoked_at is not None or made.used_at is not None:
        return ""
    made.token_hash = token_hash(token)
    return f"{base}/join/{token}"


def _reason(e: Exception) -> str:
    """Why a message cannot go out, as the firm reads it."""
    if isinstance(e, RuleError):
        return str(e)[:300]
    return f"it could not be made into a message ({type(e).__name__})"


Attach = Callable[[Session, MailRow], bytes]


@dataclass
class Postman:
    """Sends what waits.

    Args:
        base: the public address that links begin with; attach: makes the file of a message.
    """

    sessions: sessionmaker[Session]
    mailer: Mailer
    base: str
    attach: Attach | None = None

    def __post_init__(self) -> None:
        self._stop = threading.Event()
        self._thread: threading.Thread | None = None

    def start(self) -> None:
        """Look for what waits every few seconds, in a thread of its own."""
        self._thread = threading.Thread(target=self._run, name="postman", daemon=True)
        self._thread.start()

    def stop(self) -> None:
        """Finish the message under way, and no other."""
        self._stop.set()
        if self._thread is not None:
            self._thread.join(timeout=2.5)

    def _run(self) -> None:
        while not self._stop.wait(POLL_S):
            try:
                self.deliver()
            except Exception:  # a database that is away: tried again with the next look
                log.warning("the outbox could not be read")

    def deliver(self, at: datetime | None = None) -> int:
        """Send everything whose time has come; how many messages were sent."""
        time, sent = at or now(), 0
        self._give_up_hanging(time)
        while not self._stop.is_set():
            taken = self._take(time)
            if taken is None:
                break
            id, message = taken
            if message is not None:
                sent += self._send(id, message, time)
        return sent

    def _give_up_hanging(self, at: datetime) -> None:
        with self.sessions.begin() as db:
            db.execute(
                update(MailRow)
                .where(MailRow.state == "sending", MailRow.next_try < at - HANGS)
                .values(state="failed", error="not known whether it went: the server stopped")
            )

    def _take(self, at: datetime) -> tuple[UUID, Message | None] | None:
        """Take the next message on, so that no other process does; None when nothing waits. One
        that cannot be made has failed, with the reason, and stops no other.
        """
        with self.sessions.begin() as db:
            row = db.scalars(
                select(MailRow)
                .where(MailRow.state == "waiting", MailRow.next_try <= at)
                .order_by(MailRow.next_try)
                .limit(1)
                .with_for_update(skip_locked=True)
            ).first()
            if row is None:
                return None
            row.state, row.tries, row.next_try = "sending", row.tries + 1, at
            try:
                with db.begin_nested():
                    return row.id, self._written(db, row)
            except OperationalError:  # a database that is away, and no fault of the message
                raise
            except Exception as e:
                log.exception("message %s cannot be made", row.id)
                row.state, row.error, row.next_try = "failed", _reason(e), None
                return row.id, None

    def _written(self, db: Session, row: MailRow) -> Message:
        """A message as it goes out."""
        file = self.attach(db, row) if row.attachment and self.attach else b""
        return Message(
            to=row.to,
            subject=" ".join(row.subject.split()),
            text=row.text.replace(PLACE, _address(db, row, self.base)),
            attachment=row.attachment if file else "",
            file=file,
        )

    def _send(self, id: UUID, message: Message, at: datetime) -> int:
        state, error, again = "sent", "", None
        try:
            self.mailer.send(message)
        except Refused as e:
            state, error = "failed", str(e)
        except OSError as e:
            state, error, again = "waiting", f"{e}"[:300] or type(e).__name__, at
        except Exception as e:  # what another try would meet again
            log.exception("message %s cannot be sent", id)
            state, error = "failed", _reason(e)
        with self.sessions.begin() as db:
            row = db.get_one(MailRow, id, with_for_update=True)
            if again is not None and row.tries > len(WAITS):
                state = "failed"
            elif again is not None:
                again = at + timedelta(minutes=WAITS[row.tries - 1])
            row.state, row.error, row.next_try = state, error, again
            if state == "sent":
                row.text = row.text.replace(PLACE, UNKEPT)
        log.info("message %s %s", id, state)
        return int(state == "sent")

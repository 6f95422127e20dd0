"""Rows of people signed in, and of tries that are counted."""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import NamedTuple
from uuid import UUID

from sqlalchemy import Connection, bindparam, delete, or_, select, text, update
from sqlalchemy.orm import Session

from .models import SignIn, Throttle, User


def user_by_email(db: Session, email: str) -> User | None:
    """An active user by e-mail address."""
    return db.scalars(
        select(User).where(User.email == email.strip().lower(), User.active)
    ).one_or_none()


class SignedIn(NamedTuple):
    """A session, and whose it is."""

    session: UUID
    seen_at: datetime
    proved_at: datetime
    id: UUID
    firm_id: UUID
    name: str
    role: str
    email: str


_SIGNED_IN = (
    select(
        SignIn.id,
        SignIn.seen_at,
        SignIn.proved_at,
        User.id,
        User.firm_id,
        User.name,
        User.role,
        User.email,
    )
    .join(User, SignIn.user_id == User.id)
    .where(
        SignIn.token_hash == bindparam("token"),
        SignIn.expires_at > bindparam("now"),
        SignIn.seen_at > bindparam("since"),
        User.active,
    )
)


def signed_in(db: Connection, token_hash: str, now: datetime, idle: timedelta) -> SignedIn | None:
    """A session that has neither ended nor been idle for too long, and whose it is: somebody who is
    still active. One question, for every request asks it.
    """
    asked = {"token": token_hash, "now": now, "since": now - idle}
    found = db.execute(_SIGNED_IN, asked).one_or_none()
    return None if found is None else SignedIn(*found)


def seen(db: Connection, token_hash: str, now: datetime) -> None:
    """Note that a session is in use."""
    db.execute(update(SignIn).where(SignIn.token_hash == token_hash).values(seen_at=now))


def user(db: Session, id: UUID) -> User:
    """A user."""
    return db.get_one(User, id)


def sign_ins(db: Session, user: UUID) -> list[SignIn]:
    """A user's sessions, the latest first."""
    return list(
        db.scalars(select(SignIn).where(SignIn.user_id == user).order_by(SignIn.created_at.desc()))
    )


def sign_out(db: Session, token_hash: str) -> None:
    """End a session."""
    db.execute(delete(SignIn).where(SignIn.token_hash == token_hash))


def end_sign_in(db: Session, user: UUID, id: UUID) -> None:
    """End one of a user's sessions; one that is gone already is no error."""
    db.execute(delete(SignIn).where(SignIn.user_id == user, SignIn.id == id))


def admitted(db: Session, key: str, now: datetime, most: int, forget: timedelta) -> int | None:
    """Count one more try under a key, in one statement; None when it comes too soon.

    ``most`` tries are free; each one after them waits twice as long as the one before, a quarter of
    an hour at most. Tries are forgotten when none came for ``forget``.
    """
    said = text("""
        insert into throttles as t (key, count, since, last) values (:key, 1, :now, :now)
        on conflict (key) do update set
          count = case when t.last < :old then 1 else t.count + 1 end,
          since = case when t.last < :old then :now else t.since end,
          last = :now
        where t.last < :old or t.count < :most
          or t.last + least(900, power(2, least(t.count - :most, 12))) * interval '1 second' <= :now
        returning count
        """)
    found: int | None = db.scalar(said, {"key": key, "now": now, "old": now - forget, "most": most})
    return found


def within(db: Session, key: str, now: datetime, most: int) -> bool:
    """Count one more request under a key; whether it is among the first ``most`` of this minute."""
    said = text("""
        insert into throttles as t (key, count, since, last) values (:key, 1, :now, :now)
        on conflict (key) do update set
          count = case when t.since < :old then 1 else t.count + 1 end,
          since = case when t.since < :old then :now else t.since end,
          last = :now
        returning count
        """)
    old = now - timedelta(minutes=1)
    count: int = db.execute(said, {"key": key, "now": now, "old": old}).scalar_one()
    return count <= most


def forget_tries(db: Session, key: str) -> None:
    """Forget what was tried under a key."""
    db.execute(delete(Throttle).where(Throttle.key == key))


def purge(db: Session, now: datetime, idle: timedelta) -> None:
    """Remove sessions that have ended and tries that no longer count."""
    db.execute(delete(SignIn).where(or_(SignIn.expires_at < now, SignIn.seen_at < now - idle)))
    db.execute(delete(Throttle).where(Throttle.last < now - timedelta(days=1)))

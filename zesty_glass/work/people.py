"""The people of a firm, a manager’s work: invited, given a role, a new password, taken out."""

from __future__ import annotations

import secrets
from dataclasses import replace
from datetime import timedelta
from typing import NamedTuple
from uuid import UUID, uuid4

from sqlalchemy import delete, or_, select, update
from sqlalchemy.orm import Session

from ..core.errors import RuleError
from ..core.home import check_one_line
from ..records import jobs as job_records
from ..records import signing, store
from ..records.after_models import FeedRow
from ..records.models import Firm, InvitationRow, SignIn, TokenRow, User, VisitRow
from . import jobs, mailing, signing_in, versioning
from .passwords import hash_password, right
from .person import Person, manager_only, now
from .sharing import fits_address
from .signing_in import FORGOTTEN_AFTER, TooMany, token_hash
from .versioning import expect, note

ROLES = {"consultant": "consultant", "installer": "fitter", "manager": "manager"}
INVITED_FOR, RESET_FOR = timedelta(days=14), timedelta(hours=24)
MOST_PEOPLE = 1000
#: letters and digits that are not taken for one another on paper
_LETTERS = "ABCDEFGHJKMNPQRSTVWXYZ23456789"
_CODE = 4, 5  # groups, letters a group: 98 bits


def printed_code() -> str:
    """A code for paper, as in ABCDE-FGHJK-MNPQR-STVWX."""
    groups, each = _CODE
    return "-".join("".join(secrets.choice(_LETTERS) for _ in range(each)) for _ in range(groups))


def plain_code(code: str) -> str:
    """A code as it is compared: what people add or leave out in typing does not count."""
    if len(code) > 30:
        return code.strip()  # the address of a mail
    return "".join(c for c in code.upper() if c.isalnum())


class Invited(NamedTuple):
    """An invitation, with its code where it is shown this once."""

    row: InvitationRow
    code: str


def listed(db: Session, who: Person) -> tuple[list[User], list[InvitationRow]]:
    """Everybody of the firm, and the invitations that are still open."""
    manager_only(who)
    users = db.scalars(select(User).where(User.firm_id == who.firm_id).order_by(User.name, User.id))
    open_ones = select(InvitationRow).where(
        InvitationRow.firm_id == who.firm_id,
        InvitationRow.used_at.is_(None),
        InvitationRow.revoked_at.is_(None),
        InvitationRow.expires_at > now(),
    )
    return list(users), list(db.scalars(open_ones.order_by(InvitationRow.made_at)))


def _check_name(name: str) -> None:
    check_one_line(name, "name")
    if len(name.strip()) < 2:
        raise RuleError("person.name", "A person needs a name.", "name", "Write it in full.")


def _role(role: str) -> str:
    if role not in ROLES:
        raise RuleError(
            "person.role", "There is no such role.", "role", f"Use one of {', '.join(ROLES)}."
        )
    return role


def invite(
    db: Session, who: Person, id: UUID, email: str, name: str, role: str, by_mail: bool
) -> Invited:
    """Invite somebody; by mail where a sender is configured, else with a code to be printed or
    told. Sent twice with one id it is one invitation.

    Raises:
        RuleError: no address or name, an address that is somebody's, too many people.
    """
    manager_only(who)
    have = db.get(InvitationRow, id)
    if have is not None:
        if have.firm_id != who.firm_id:
            raise store.NotFound("invitation")
        return Invited(have, "")
    if not fits_address(email):
        raise RuleError(
            "person.email", "This is no address.", "email", "Write it as name@place.example."
        )
    _check_name(name)
    if db.scalars(select(User.id).where(User.email == email.strip().lower())).first():
        raise RuleError(
            "person.known",
            "Somebody signs in with this address already, or did.",
            "email",
            "Use another; or give that person a new password, or let them in again.",
        )
    if len(listed(db, who)[0]) >= MOST_PEOPLE:
        raise RuleError("person.many", f"{MOST_PEOPLE} people are the most.", "email", "")
    return _made(db, who, id, None, email.strip().lower(), name.strip(), _role(role), by_mail)


def reset(db: Session, who: Person, user: UUID, id: UUID, by_mail: bool) -> Invited:
    """Let somebody who forgot their password choose a new one; the old one works until then."""
    manager_only(who)
    have = db.get(InvitationRow, id)
    if have is not None:
        if have.firm_id != who.firm_id or have.user_id != user:
            raise store.NotFound("invitation")
        return Invited(have, "")
    row = _user(db, who, user)
    return _made(db, who, id, row.id, row.email, row.name, row.role, by_mail)


MOST_FORGOTTEN = 3  # messages about one address that need not wait


def admit_forgotten(db: Session, email: str) -> None:
    """Let an address be asked for that somebody forgot the password of.

    Raises:
        RuleError: this installation sends no mail. TooMany: too many for this address.
    """
    if not mailing.queues(db):
        raise RuleError(
            "session.no_mail",
            "This installation sends no mail.",
            "email",
            "Ask a manager of your firm for a code.",
        )
    key = f"forgot:{email.strip().lower()[:200]}"
    if signing.admitted(db, key, now(), MOST_FORGOTTEN, FORGOTTEN_AFTER) is None:
        raise TooMany


def mail_forgotten(db: Session, email: str) -> None:
    """Mail a way to choose a new password to whoever signs in with an address; nothing for an
    address that is nobody's. The old password works until the new one is chosen; a second factor
    stays.
    """
    user = signing.user_by_email(db, email)
    if user is not None:
        who = Person(id=user.id, firm_id=user.firm_id, name=user.name, role=user.role)
        _made(db, who, uuid4(), user.id, user.email, user.name, user.role, by_mail=True)


def _made(
    db: Session,
    who: Person,
    id: UUID,
    user: UUID | None,
    email: str,
    name: str,
    role: str,
    by_mail: bool,
) -> Invited:
    code = printed_code()
    row = InvitationRow(
        id=id,
        firm_id=who.firm_id,
        user_id=user,
        email=email,
        name=name,
        role=role,
        token_hash=token_hash(plain_code(code)),
        made_at=now(),
        made_by=who.name,
        made_by_id=who.id,
        expires_at=now() + (RESET_FOR if user else INVITED_FOR),
        used_at=None,
        revoked_at=None,
    )
    db.add(row)
    note(db, who, id, "password reset made" if user else "invited", 1, [])
    db.flush()
    if by_mail and mailing.queues(db):
        firm = store.firm(db, who.firm_id).name
        what = "choose a new password" if user else f"choose a password and join {firm}"
        asks = f"{who.name} asks you to" if who.id != user else "you asked to"
        text = f"{name},\n\n{asks} {what}:\n\n{mailing.PLACE}\n\nIt ends on"
        text += f" {row.expires_at:%d %B %Y}."
        mailing.put(db, who, email, f"{firm}: {what}", text, fresh=f"invitation:{id}")
        code = ""
    return Invited(row, code)


def revoke(db: Session, who: Person, id: UUID) -> None:
    """Make an invitation worthless; twice is once."""
    manager_only(who)
    row = db.get(InvitationRow, id)
    if row is None or row.firm_id != who.firm_id:
        raise store.NotFound("invitation")
    if row.revoked_at is None and row.used_at is None:
        row.revoked_at = now()
        note(db, who, id, "invitation revoked", 1, [])


def invitation(db: Session, code: str, lock: bool = False) -> InvitationRow | None:
    """The open invitation of a code; None for one that is wrong, used, over or revoked: all look
    alike. ``signing_in.admit_code`` comes first.
    """
    row = db.scalars(
        select(InvitationRow)
        .where(InvitationRow.token_hash == token_hash(plain_code(code)))
        .with_for_update()
        if lock
        else select(InvitationRow).where(InvitationRow.token_hash == token_hash(plain_code(code)))
    ).first()
    if row is None or row.used_at or row.revoked_at or row.expires_at <= now():
        return None
    return row


def accept(db: Session, code: str, name: str, password: str) -> User | None:
    """Choose a password with a code: a new person, or a new password that ends all sessions. A code
    works once; None for one that does not work.

    Raises:
        RuleError: a password that is too short or long, an address that is somebody's by now.
    """
    row = invitation(db, code, lock=True)
    if row is None:
        return None
    if row.user_id is not None:
        user = db.get_one(User, row.user_id, with_for_update=True)
        if not user.active:
            return None
        _another_password(user, password)
        db.execute(delete(SignIn).where(SignIn.user_id == user.id))
    else:
        if signing.user_by_email(db, row.email) is not None:
            raise RuleError(
                "person.known", "Somebody signs in with this address already.", "email", "Sign in."
            )
        shown = name.strip() or row.name
        user = signing_in.add_user(db, row.firm_id, row.email, shown, row.role, password)
    row.used_at = now()
    db.flush()
    _end_codes(db, user)
    who = Person(id=user.id, firm_id=user.firm_id, name=user.name, role=user.role)
    note(db, who, user.id, "password chosen" if row.user_id else "joined", user.version, [])
    return user


def _another_password(user: User, password: str) -> None:
    """Give somebody a new password.

    Raises:
        RuleError: the old one, or one that is too short or long.
    """
    if right(user, password):
        raise RuleError(
            "password.same", "This is the password you had.", "password", "Choose another."
        )
    user.password_hash = hash_password(password)
    user.version += 1


def _end_codes(db: Session, user: User) -> None:
    """End every open code of a person, and those that they gave out."""
    codes = update(InvitationRow).where(
        InvitationRow.firm_id == user.firm_id,
        or_(
            InvitationRow.user_id == user.id,
            InvitationRow.email == user.email,
            InvitationRow.made_by_id == user.id,
            InvitationRow.made_by_id.is_(None) & (InvitationRow.made_by == user.name),
        ),
        InvitationRow.used_at.is_(None),
        InvitationRow.revoked_at.is_(None),
    )
    db.execute(codes, {"revoked_at": now()})


def _user(db: Session, who: Person, id: UUID) -> User:
    row = db.get(User, id, with_for_update=True)
    if row is None or row.firm_id != who.firm_id:
        raise store.NotFound("person")
    return row


def _another_manager(db: Session, who: Person, user: UUID) -> None:
    """RuleError when nobody else of the firm could manage it."""
    db.get_one(Firm, who.firm_id, with_for_update=True)  # two at once do not both pass
    others = select(User.id).where(
        User.firm_id == who.firm_id, User.role == "manager", User.active, User.id != user
    )
    if db.scalars(others.limit(1)).first() is None:
        raise RuleError(
            "person.last_manager",
            "This is the firm’s only manager.",
            "role",
            "Make somebody else a manager first.",
        )


def change(db: Session, who: Person, id: UUID, version: int, name: str, role: str) -> User:
    """Change somebody's name or role; open sessions have the new role with their next request."""
    manager_only(who)
    row = _user(db, who, id)
    expect(db, "person", row, version)
    if row.role == "manager" and _role(role) != "manager":
        _another_manager(db, who, id)
    _check_name(name)
    if role != row.role:
        _end_codes(db, row)
    if name.strip() != row.name:
        _give_jobs(db, who, row, name.strip(), str(row.id))
    versioning.change(db, who, row, {"name": name.strip(), "role": _role(role)})
    return row


def deactivate(db: Session, who: Person, id: UUID, version: int, to: UUID | None) -> User:
    """Take somebody out: sessions, calendars, tokens and codes end at once, those that they gave
    out too; their visits, jobs and open proposals go to another.

    Raises:
        RuleError: oneself, the only manager, visits that nobody gets, or somebody who cannot.
    """
    manager_only(who)
    row = _user(db, who, id)
    if not row.active:
        return row
    expect(db, "person", row, version)
    if id == who.id:
        raise RuleError(
            "person.self", "You cannot take yourself out.", "id", "Another manager does it."
        )
    if row.role == "manager":
        _another_manager(db, who, id)
    _hand_over(db, who, row, to)
    db.execute(delete(SignIn).where(SignIn.user_id == id))
    ended = {"revoked_at": now()}
    db.execute(update(FeedRow).where(FeedRow.user_id == id, FeedRow.revoked_at.is_(None)), ended)
    db.execute(update(TokenRow).where(TokenRow.user_id == id, TokenRow.revoked_at.is_(None)), ended)
    _end_codes(db, row)
    versioning.change(db, who, row, {"active": False}, "deactivated")
    return row


def _hand_over(db: Session, who: Person, row: User, to: UUID | None) -> None:
    heir = None if to is None else db.get(User, to)
    good = heir is not None and heir.firm_id == who.firm_id and heir.active and heir.id != row.id
    if heir is not None and good:
        _give_jobs(db, who, row, heir.name, str(heir.id))
    else:
        _give_jobs(db, who, row, "", "")
    visits = select(VisitRow.id).where(
        VisitRow.firm_id == who.firm_id, VisitRow.consultant_id == row.id
    )
    if db.scalars(visits.limit(1)).first() is None:
        return
    if heir is None or not good or heir.role == "installer":
        raise RuleError(
            "person.visits",
            f"{row.name} has visits: somebody takes them on.",
            "to",
            "Choose a consultant or manager who is active.",
        )
    db.execute(
        update(VisitRow)
        .where(VisitRow.firm_id == who.firm_id, VisitRow.consultant_id == row.id)
        .values(consultant_id=heir.id)
    )
    planned = VisitRow.made_at.is_(None) & VisitRow.closed.is_(None)
    db.execute(
        update(VisitRow)
        .where(VisitRow.firm_id == who.firm_id, VisitRow.consultant_id == heir.id, planned)
        .values(consultant=heir.name)
    )
    note(db, who, row.id, f"visits given to {heir.name}", row.version, [])


def _give_jobs(db: Session, who: Person, row: User, to: str, to_id: str) -> None:
    """Jobs that somebody was to fit go to another, follow a new name, or wait for a fitter."""
    for job_row in job_records.to_be_fitted_by(db, who.firm_id, row):
        job = replace(jobs.opened(job_row), fitter=to, fitter_id=to_id)
        jobs.keep(db, who, job_row, job, f"given to {to}" if to else "without a fitter")


def activate(db: Session, who: Person, id: UUID, version: int) -> User:
    """Let somebody in again."""
    manager_only(who)
    row = _user(db, who, id)
    if not row.active:
        expect(db, "person", row, version)
        _end_codes(db, row)
        versioning.change(db, who, row, {"active": True}, "activated")
    return row


def change_password(db: Session, who: Person, old: str, new: str) -> bool:
    """One's own new password; False when the old one is wrong. All other sessions end.
    ``signing_in.admit`` comes first.
    """
    user = db.get_one(User, who.id, with_for_update=True)
    if not right(user, old):
        return False
    _another_password(user, new)
    _end_codes(db, user)
    db.execute(delete(SignIn).where(SignIn.user_id == who.id, SignIn.id != who.session))
    note(db, who, who.id, "password changed", user.version, [])
    return True


__all__ = [
    "ROLES",
    "accept",
    "activate",
    "change",
    "change_password",
    "deactivate",
    "invitation",
    "invite",
    "listed",
    "reset",
    "revoke",
]

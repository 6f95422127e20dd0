"""Tables. Every row but a firm's own carries ``firm_id``; editable rows carry a ``version`` that
grows by one a change.
"""

from __future__ import annotations

from datetime import datetime
from typing import Any
from uuid import UUID

from sqlalchemy import Computed, ForeignKey, Index, UniqueConstraint
from sqlalchemy import text as sql
from sqlalchemy.orm import Mapped, mapped_column

from .base import PERSONAL, Base, Json, JsonOrNull, Words, compared


class Firm(Base):
    """One firm; several may share an installation, strictly apart."""

    __tablename__ = "firms"
    id: Mapped[UUID] = mapped_column(primary_key=True)
    name: Mapped[str]
    settings: Mapped[dict[str, Any]]
    rules: Mapped[dict[str, Any]]
    version: Mapped[int] = mapped_column(default=1)
    __mapper_args__ = compared(version)


class User(Base):
    """A person of a firm: consultant, manager or installer."""

    __tablename__ = "users"
    id: Mapped[UUID] = mapped_column(primary_key=True)
    firm_id: Mapped[UUID] = mapped_column(ForeignKey("firms.id", ondelete="CASCADE"), index=True)
    email: Mapped[str] = mapped_column(unique=True)
    name: Mapped[str]
    role: Mapped[str]
    password_hash: Mapped[str]
    active: Mapped[bool] = mapped_column(default=True)
    version: Mapped[int] = mapped_column(default=1)
    totp_secret: Mapped[str] = mapped_column(default="")
    totp_on: Mapped[bool] = mapped_column(default=False)
    totp_last: Mapped[int] = mapped_column(default=0)
    recovery: Mapped[list[Any]] = mapped_column(default=list)
    __mapper_args__ = compared(version)


class InvitationRow(Base):
    """A code that lets somebody choose a password: a new person of the firm, or one who forgot it;
    only its hash is kept.
    """

    __tablename__ = "invitations"
    id: Mapped[UUID] = mapped_column(primary_key=True)
    firm_id: Mapped[UUID] = mapped_column(ForeignKey("firms.id", ondelete="CASCADE"), index=True)
    user_id: Mapped[UUID | None] = mapped_column(ForeignKey("users.id", ondelete="CASCADE"))
    email: Mapped[str]
    name: Mapped[str]
    role: Mapped[str]
    token_hash: Mapped[str] = mapped_column(unique=True)
    made_at: Mapped[datetime]
    made_by: Mapped[str]
    made_by_id: Mapped[UUID | None]
    expires_at: Mapped[datetime]
    used_at: Mapped[datetime | None]
    revoked_at: Mapped[datetime | None]


class TokenRow(Base):
    """A token by which a script uses the interface; only its hash is kept."""

    __tablename__ = "tokens"
    id: Mapped[UUID] = mapped_column(primary_key=True)
    firm_id: Mapped[UUID] = mapped_column(ForeignKey("firms.id", ondelete="CASCADE"), index=True)
    user_id: Mapped[UUID] = mapped_column(ForeignKey("users.id", ondelete="CASCADE"))
    name: Mapped[str]
    scopes: Mapped[list[Any]]
    token_hash: Mapped[str] = mapped_column(unique=True)
    made_at: Mapped[datetime]
    expires_at: Mapped[datetime]
    revoked_at: Mapped[datetime | None]
    used_at: Mapped[datetime | None]


class SignIn(Base):
    """A session; only the hash of its token is kept."""

    __tablename__ = "sign_ins"
    token_hash: Mapped[str] = mapped_column(primary_key=True)
    id: Mapped[UUID] = mapped_column(unique=True)
    user_id: Mapped[UUID] = mapped_column(ForeignKey("users.id", ondelete="CASCADE"), index=True)
    created_at: Mapped[datetime]
    expires_at: Mapped[datetime]
    seen_at: Mapped[datetime]
    proved_at: Mapped[datetime]
    device: Mapped[str] = mapped_column(default="")


class Throttle(Base):
    """How often something was tried under a key since a time; counted by the database in one
    statement.
    """

    __tablename__ = "throttles"
    key: Mapped[str] = mapped_column(primary_key=True)
    count: Mapped[int]
    since: Mapped[datetime]
    last: Mapped[datetime] = mapped_column(index=True)


#: what a home is found by: name, house and place, in small letters
HOME_WORDS = (
    "lower(coalesce(customer->>'name', '') || ' ' || coalesce(home->>'name', '') || ' ' ||"
    " coalesce(home->>'place', ''))"
)


#: kinds of what stands in a home already, from its document
STANDS_THERE = "jsonb_path_query_array(home, '$.in_place[*].kind')"


def _by_json(column: str) -> Index:
    """An index for finding homes whose list holds a word."""
    return Index(
        f"homes_by_{column}",
        column,
        postgresql_using="gin",
        postgresql_ops={column: "jsonb_path_ops"},
    )


class HomeRow(Base):
    """A customer and their home; ``found``: analytes that ask for something by its latest readings;
    ``former``: who owned it before, and until when; ``others``: who else is there; ``merged_into``:
    the home that this one turned out to be, with what it ``brought`` there.
    """

    __tablename__ = "homes"
    id: Mapped[UUID] = mapped_column(primary_key=True)
    firm_id: Mapped[UUID] = mapped_column(ForeignKey("firms.id", ondelete="CASCADE"), index=True)
    customer: Mapped[dict[str, Any]] = mapped_column(info=PERSONAL)
    home: Mapped[dict[str, Any]] = mapped_column(info=PERSONAL)
    version: Mapped[int] = mapped_column(default=1)
    words: Mapped[str] = mapped_column(Computed(HOME_WORDS, persisted=True))
    found: Mapped[list[Any]] = mapped_column(Json, default=list, server_default="[]")
    former: Mapped[list[Any]] = mapped_column(
        Json, default=list, server_default="[]", info=PERSONAL
    )
    others: Mapped[list[Any]] = mapped_column(
        Json, default=list, server_default="[]", info=PERSONAL
    )
    merged_into: Mapped[UUID | None] = mapped_column(ForeignKey("homes.id", ondelete="CASCADE"))
    brought: Mapped[dict[str, Any] | None] = mapped_column(JsonOrNull, info=PERSONAL)
    there: Mapped[list[Any]] = mapped_column(Json, Computed(STANDS_THERE, persisted=True))
    __mapper_args__ = compared(version)
    __table_args__ = (
        _by_json("found"),
        _by_json("there"),
        Index(
            "homes_by_words",
            "words",
            postgresql_using="gin",
            postgresql_ops={"words": "gin_trgm_ops"},
        ),
        Index("homes_in_order", "firm_id", "words", "id"),
        Index("homes_merged", "merged_into", postgresql_where=sql("merged_into is not null")),
        Index("homes_by_place", "firm_id", sql("lower(home ->> 'place')")),
    )


class VisitRow(Base):
    """A visit, with the settings and rules of its day.

    ``request``: digest of what started it, so that a repeat is told from another; ``brought``: what
    a file said, for a visit that came in by one; ``own_items``: catalog items that this visit
    alone knows. ``terms_at``: the moment whose settings, rules and prices are the visit's, all of
    them together; ``made_at``: when it was begun, empty while it is only planned; ``closed``: how a
    visit that was never made ended.
    """

    __tablename__ = "visits"
    id: Mapped[UUID] = mapped_column(primary_key=True)
    firm_id: Mapped[UUID] = mapped_column(ForeignKey("firms.id", ondelete="CASCADE"))
    home_id: Mapped[UUID] = mapped_column(ForeignKey("homes.id", ondelete="CASCADE"), index=True)
    consultant_id: Mapped[UUID | None] = mapped_column(ForeignKey("users.id"))
    consultant: Mapped[str]
    started_at: Mapped[datetime]
    complaints: Mapped[list[Any]] = mapped_column(info=PERSONAL)
    step: Mapped[str] = mapped_column(default="before")
    recommended: Mapped[str | None]
    horizon: Mapped[int] = mapped_column(default=10)
    assumptions_off: Mapped[list[Any]]
    note: Mapped[Words] = mapped_column(default="")
    settings: Mapped[dict[str, Any]]
    rules: Mapped[dict[str, Any]]
    version: Mapped[int] = mapped_column(default=1)
    request: Mapped[str] = mapped_column(default="")
    brought: Mapped[dict[str, Any] | None] = mapped_column(info=PERSONAL)
    own_items: Mapped[list[Any]] = mapped_column(default=list)
    terms_at: Mapped[datetime | None]
    made_at: Mapped[datetime | None]
    closed: Mapped[dict[str, Any] | None] = mapped_column(JsonOrNull, info=PERSONAL)
    __mapper_args__ = compared(version)
    __table_args__ = (
        Index("visits_by_day", "firm_id", "started_at"),
        Index(
            "visits_to_be_made",
            "firm_id",
            "started_at",
            postgresql_where=sql("made_at is null and closed is null"),
        ),
    )


class SampleRow(Base):
    """One glass of water of a visit; its readings are rows of their own."""

    __tablename__ = "samples"
    id: Mapped[UUID] = mapped_column(primary_key=True)
    firm_id: Mapped[UUID] = mapped_column(ForeignKey("firms.id", ondelete="CASCADE"))
    visit_id: Mapped[UUID] = mapped_column(ForeignKey("visits.id", ondelete="CASCADE"), index=True)
    position: Mapped[int]
    data: Mapped[dict[str, Any]] = mapped_column(info=PERSONAL)
    version: Mapped[int] = mapped_column(default=1)
    __mapper_args__ = compared(version)


class ReadingRow(Base):
    """A reading as made. Its observation never changes; a correction strikes it and
    adds another.
    """

    __tablename__ = "readings"
    id: Mapped[UUID] = mapped_column(primary_key=True)
    firm_id: Mapped[UUID] = mapped_column(ForeignKey("firms.id", ondelete="CASCADE"))
    visit_id: Mapped[UUID] = mapped_column(ForeignKey("visits.id", ondelete="CASCADE"), index=True)
    sample_id: Mapped[UUID] = mapped_column(ForeignKey("samples.id", ondelete="CASCADE"))
    position: Mapped[int]
    data: Mapped[dict[str, Any]] = mapped_column(info=PERSONAL)
    struck_at: Mapped[datetime | None]
    struck_because: Mapped[Words] = mapped_column(default="")
    kept_at: Mapped[datetime | None]


class LabSampleRow(Base):
    """A bottle on its way to the laboratory, with its chain."""

    __tablename__ = "lab_samples"
    id: Mapped[UUID] = mapped_column(primary_key=True)
    firm_id: Mapped[UUID] = mapped_column(ForeignKey("firms.id", ondelete="CASCADE"))
    visit_id: Mapped[UUID] = mapped_column(ForeignKey("visits.id", ondelete="CASCADE"), index=True)
    position: Mapped[int]
    data: Mapped[dict[str, Any]] = mapped_column(info=PERSONAL)
    version: Mapped[int] = mapped_column(default=1)
    __mapper_args__ = compared(version)


class DemonstrationRow(Base):
    """A demonstration of a visit, as it was made."""

    __tablename__ = "demonstrations"
    id: Mapped[UUID] = mapped_column(primary_key=True)
    firm_id: Mapped[UUID] = mapped_column(ForeignKey("firms.id", ondelete="CASCADE"))
    visit_id: Mapped[UUID] = mapped_column(ForeignKey("visits.id", ondelete="CASCADE"), index=True)
    position: Mapped[int]
    data: Mapped[dict[str, Any]] = mapped_column(info=PERSONAL)
    request: Mapped[str] = mapped_column(default="")
    version: Mapped[int] = mapped_column(default=1)
    __mapper_args__ = compared(version)


class InstrumentRow(Base):
    """A kit or meter of the firm."""

    __tablename__ = "instruments"
    id: Mapped[UUID] = mapped_column(primary_key=True)
    firm_id: Mapped[UUID] = mapped_column(ForeignKey("firms.id", ondelete="CASCADE"))
    key: Mapped[str]
    position: Mapped[int]
    data: Mapped[dict[str, Any]]
    version: Mapped[int] = mapped_column(default=1)
    __mapper_args__ = compared(version)
    __table_args__ = (UniqueConstraint("firm_id", "key"),)


class ItemRow(Base):
    """A catalog item."""

    __tablename__ = "items"
    id: Mapped[UUID] = mapped_column(primary_key=True)
    firm_id: Mapped[UUID] = mapped_column(ForeignKey("firms.id", ondelete="CASCADE"))
    code: Mapped[str]
    data: Mapped[dict[str, Any]]
    retired: Mapped[bool] = mapped_column(default=False)
    version: Mapped[int] = mapped_column(default=1)
    __mapper_args__ = compared(version)
    __table_args__ = (UniqueConstraint("firm_id", "code"),)


class PastItemRow(Base):
    """A catalog item as it was until a moment, for visits that are judged by an earlier day."""

    __tablename__ = "past_items"
    firm_id: Mapped[UUID] = mapped_column(
        ForeignKey("firms.id", ondelete="CASCADE"), primary_key=True
    )
    code: Mapped[str] = mapped_column(primary_key=True)
    until: Mapped[datetime] = mapped_column(primary_key=True)
    data: Mapped[dict[str, Any]]
    retired: Mapped[bool]


class OptionRow(Base):
    """A line the consultant considers."""

    __tablename__ = "options"
    id: Mapped[UUID] = mapped_column(primary_key=True)
    firm_id: Mapped[UUID] = mapped_column(ForeignKey("firms.id", ondelete="CASCADE"))
    visit_id: Mapped[UUID] = mapped_column(ForeignKey("visits.id", ondelete="CASCADE"), index=True)
    position: Mapped[int]
    data: Mapped[dict[str, Any]] = mapped_column(info=PERSONAL)
    version: Mapped[int] = mapped_column(default=1)
    __mapper_args__ = compared(version)


#: a proposal's day (YYYY-MM-DD) and state, from its document: counted without reading it
PROPOSAL_DAY = "left(data->>'created_at', 10)"
PROPOSAL_STATE = "data->>'state'"


class ProposalRow(Base):
    """One revision of a proposal; ``snapshot`` holds every figure it shows and never changes once
    presented.

    ``basis``: the visit of that day as JSON, from which the job is made. ``stale``: the database
    saw a change at the home since what is presented was compared with it; ``moved``: what that
    comparison found. ``money``: what a signed one comes to, as ``Sold``.
    """

    __tablename__ = "proposals"
    id: Mapped[UUID] = mapped_column(primary_key=True)
    firm_id: Mapped[UUID] = mapped_column(ForeignKey("firms.id", ondelete="CASCADE"))
    visit_id: Mapped[UUID] = mapped_column(ForeignKey("visits.id", ondelete="CASCADE"), index=True)
    position: Mapped[int]
    data: Mapped[dict[str, Any]] = mapped_column(info=PERSONAL)
    request: Mapped[str] = mapped_column(default="")
    made_by: Mapped[UUID | None]
    seal: Mapped[str] = mapped_column(default="")
    seal_key: Mapped[str] = mapped_column(default="")
    basis: Mapped[Words] = mapped_column(default="", deferred=True)
    stale: Mapped[bool] = mapped_column(default=False)
    moved: Mapped[dict[str, Any] | None] = mapped_column(JsonOrNull, info=PERSONAL)
    money: Mapped[dict[str, Any] | None] = mapped_column(JsonOrNull)
    version: Mapped[int] = mapped_column(default=1)
    written_on: Mapped[str | None] = mapped_column(Computed(PROPOSAL_DAY, persisted=True))
    state: Mapped[str | None] = mapped_column(Computed(PROPOSAL_STATE, persisted=True))
    __mapper_args__ = compared(version)
    __table_args__ = (Index("proposals_by_outcome", "firm_id", "state", "written_on"),)


class LinkRow(Base):
    """A customer's link to one proposal; only the hash of its token is kept."""

    __tablename__ = "links"
    id: Mapped[UUID] = mapped_column(primary_key=True)
    firm_id: Mapped[UUID] = mapped_column(ForeignKey("firms.id", ondelete="CASCADE"))
    proposal_id: Mapped[UUID] = mapped_column(
        ForeignKey("proposals.id", ondelete="CASCADE"), index=True
    )
    token_hash: Mapped[str] = mapped_column(unique=True)
    made_at: Mapped[datetime]
    made_by: Mapped[str]
    expires_at: Mapped[datetime]
    revoked_at: Mapped[datetime | None]
    opened_at: Mapped[datetime | None]
    opened: Mapped[int] = mapped_column(default=0)


class MailRow(Base):
    """A message: kept to be looked at where nothing is sent, else waiting, sent or failed.

    ``text`` is what may be read afterward, with a place for the link; ``fresh`` names what gets
    its secret address only when the message goes out, so that none is kept. ``about``: what came by
    a customer's link: a question, the wish for a visit, or a signature; ``answered_at``: when
    somebody said that it was answered.
    """

    __tablename__ = "mails"
    id: Mapped[UUID] = mapped_column(primary_key=True)
    firm_id: Mapped[UUID] = mapped_column(ForeignKey("firms.id", ondelete="CASCADE"), index=True)
    proposal_id: Mapped[UUID | None] = mapped_column(
        ForeignKey("proposals.id", ondelete="SET NULL")
    )
    at: Mapped[datetime]
    by: Mapped[str]
    to: Mapped[Words]
    subject: Mapped[Words]
    text: Mapped[Words]
    attachment: Mapped[str]
    simulated: Mapped[bool]
    request: Mapped[str] = mapped_column(default="")
    state: Mapped[str] = mapped_column(default="kept")
    tries: Mapped[int] = mapped_column(default=0)
    next_try: Mapped[datetime | None]
    error: Mapped[str] = mapped_column(default="")
    fresh: Mapped[str] = mapped_column(default="")
    about: Mapped[str] = mapped_column(default="")
    answered_at: Mapped[datetime | None]
    __table_args__ = (
        Index("mails_waiting", "next_try", postgresql_where=sql("state = 'waiting'")),
    )


class Audit(Base):
    """Who changed what, when, and from what to what. Rows are added and never changed: the database
    refuses it.

    ``before`` and ``after`` are JSON texts of the fields that changed; ``hash`` covers the row and
    the hash of the firm's row before it (``records/audit.py``). ``taken_out``: a keyed digest of
    what the row said before a person was erased from it.
    """

    __tablename__ = "audit"
    id: Mapped[int] = mapped_column(primary_key=True, autoincrement=True)
    firm_id: Mapped[UUID] = mapped_column(ForeignKey("firms.id"))
    user_id: Mapped[UUID | None]
    who: Mapped[str]
    at: Mapped[datetime]
    target: Mapped[UUID]
    action: Mapped[str]
    version: Mapped[int]
    fields: Mapped[list[Any]]
    before: Mapped[str] = mapped_column(default="")
    after: Mapped[str] = mapped_column(default="")
    previous: Mapped[str] = mapped_column(default="")
    hash: Mapped[str] = mapped_column(default="")
    taken_out: Mapped[str] = mapped_column(default="", server_default="")
    __table_args__ = (
        Index("audit_by_target", "target", "version"),
        Index("audit_by_firm", "firm_id", "id"),
    )

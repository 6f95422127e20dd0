"""What goes over the wire of people, invitations, tokens, the second factor and the audit."""

from __future__ import annotations

from datetime import datetime
from typing import Literal
from uuid import UUID

from pydantic import BaseModel, Field

from ..core.bounds import INT_MOST
from .may import Role
from .schemas import Body

Scope = Literal["read", "personal", "readings", "proposals", "catalogue"]


class PersonView(BaseModel):
    """Somebody of the firm."""

    id: UUID
    version: int
    name: str
    email: str
    role: Role
    active: bool
    second_factor: bool


class InvitationView(BaseModel):
    """An invitation that is open, or a new password that may be chosen; without its code."""

    id: UUID
    email: str
    name: str
    role: Role
    made_by: str
    expires_at: datetime
    for_a_new_password: bool


class People(BaseModel):
    """Everybody of the firm; ``mail``: invitations can go by mail; ``more``: where the next page
    begins.
    """

    people: list[PersonView]
    invitations: list[InvitationView]
    mail: bool
    more: str


class InviteBody(Body):
    """Somebody to invite; ``by_mail``: else with a code to be printed or told."""

    id: UUID
    email: str = Field(max_length=200)
    name: str = Field(max_length=200)
    role: Role
    by_mail: bool = False


class ResetBody(Body):
    """Let somebody choose a new password."""

    id: UUID
    by_mail: bool = False


class Invited(BaseModel):
    """An invitation with its code, shown this once; empty when it goes by mail, or was made
    already."""

    id: UUID
    code: str
    path: str


class PersonChange(Body):
    """A name and role, on top of a version."""

    version: int = Field(ge=0, le=INT_MOST)
    name: str = Field(max_length=200)
    role: Role


class TakeOutBody(Body):
    """Take somebody out; ``to``: who takes on their visits."""

    version: int = Field(ge=0, le=INT_MOST)
    to: UUID | None = None


class LetInBody(Body):
    """Let somebody in again."""

    version: int = Field(ge=0, le=INT_MOST)


class JoinView(BaseModel):
    """Who is invited, for whoever holds the code."""

    firm: str
    name: str
    email: str
    for_a_new_password: bool


class CodeBody(Body):
    """An invitation's code."""

    code: str = Field(max_length=100)


class JoinBody(Body):
    """A password chosen with a code."""

    code: str = Field(max_length=100)
    name: str = Field(default="", max_length=200)
    password: str = Field(max_length=300)


class ForgottenBody(Body):
    """An address whose password was forgotten."""

    email: str = Field(max_length=300)


class PasswordBody(Body):
    """One's own new password."""

    old: str = Field(max_length=300)
    new: str = Field(max_length=300)


class FactorBegun(BaseModel):
    """A second factor that is not in force yet: its secret, shown this once, and a picture of it
    (SVG)."""

    secret: str
    picture: str


class FactorBody(Body):
    """The six digits that show now."""

    code: str = Field(max_length=20)


class RecoveryCodes(BaseModel):
    """Codes for paper, shown this once; each opens one time."""

    codes: list[str]


class TokenBody(Body):
    """A token for a script."""

    id: UUID
    name: str = Field(max_length=200)
    scopes: list[Scope] = Field(min_length=1, max_length=5)
    days: int = Field(default=90, ge=1, le=366)


class TokenView(BaseModel):
    """A token, without itself."""

    id: UUID
    name: str
    scopes: list[Scope]
    made_at: datetime
    expires_at: datetime
    revoked_at: datetime | None
    used_at: datetime | None


class TokenMade(BaseModel):
    """A new token, shown this once."""

    id: UUID
    token: str


class AuditLine(BaseModel):
    """One line of the audit trail; ``before`` and ``after`` are JSON of the fields that changed."""

    id: int
    at: datetime
    who: str
    action: str
    target: UUID
    version: int
    fields: list[str]
    before: str
    after: str


class AuditPage(BaseModel):
    """Lines, the latest first; ``next``: where the following page begins, None at the end."""

    lines: list[AuditLine]
    next: int | None

"""What goes over the wire of signing in and of who is signed in."""

from __future__ import annotations

from datetime import datetime
from uuid import UUID

from pydantic import BaseModel, Field

from .schemas import Body


class SignInBody(Body):
    """Address and password; ``code``: of the second factor, where the account has one."""

    email: str = Field(max_length=200)
    password: str = Field(max_length=500)
    code: str = Field(default="", max_length=40)


class Me(BaseModel):
    """Who is signed in, and the token that unsafe requests carry."""

    id: UUID
    name: str
    role: str
    firm: str
    token: str
    second_factor: bool = False


class ProveBody(Body):
    """The password again."""

    password: str = Field(max_length=500)


class SessionView(BaseModel):
    """A session of the person who asks; ``device`` is what the browser said of itself."""

    id: UUID
    created_at: datetime
    seen_at: datetime
    device: str
    this: bool

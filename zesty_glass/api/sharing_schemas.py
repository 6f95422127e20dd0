"""What goes over the wire of links, mail and the customer’s own page."""

from __future__ import annotations

from datetime import date, datetime
from typing import Literal
from uuid import UUID

from pydantic import BaseModel, Field

from ..core.aftercare.care import State
from ..core.aftercare.proof import Proved
from ..core.aftercare.steps import Sheet
from ..core.presenting.offer import Offer
from ..core.record import record
from ..messages.catalogue import ORIGINAL, Language
from ..work.seals import Standing
from .schemas import Body


class LinkBody(Body):
    """A link to make; it expires after so many days."""

    id: UUID
    days: int = Field(default=30, ge=1, le=90)


class LinkView(BaseModel):
    """A link without its address: open, expired or revoked, and how often it was opened."""

    id: UUID
    made_at: datetime
    made_by: str
    expires_at: datetime
    opened: int
    opened_at: datetime | None
    standing: str


class LinkMade(BaseModel):
    """A new link with its path, shown this once, and as a picture (SVG) that a telephone reads."""

    link: LinkView
    path: str
    picture: str


class MailBody(Body):
    """A message with a proposal's link."""

    id: UUID
    to: str = Field(max_length=300)
    text: str = Field(default="", max_length=6000)
    days: int = Field(default=30, ge=1, le=90)
    language: Language = ORIGINAL


class MailView(BaseModel):
    """A message; ``simulated``: the stand-in kept it, nothing was sent; ``error``: why it was not
    sent yet, or failed; ``about``: what came by a customer's link; ``answered_at``: when somebody
    said that it was answered.
    """

    id: UUID
    at: datetime
    by: str
    to: str
    subject: str
    text: str
    attachment: str
    simulated: bool
    proposal: UUID | None
    state: Literal["kept", "waiting", "sending", "sent", "failed"]
    error: str
    about: str = ""
    answered_at: datetime | None = None


class AskBody(Body):
    """A customer's question, or their wish for a visit."""

    id: UUID
    about: Literal["question", "visit"]
    text: str = Field(max_length=2500)


class AcceptBody(Body):
    """A customer's acceptance by the link."""

    digest: str = Field(max_length=100, description="Of the proposal as it was shown.")
    name: str = Field(max_length=200, description="The full name of who signs.")
    path: str = Field(default="", max_length=60_001, description="Drawn strokes, as an SVG path.")
    typed: bool = Field(default=False, description="Signed by typing the name instead.")
    language: Language = Field(default=ORIGINAL, description="That it was read in.")
    read: list[str] = Field(default=[], max_length=200, description="Sentences ticked as read.")


@record
class CareLine:
    """A part that falls due, as its customer sees it; with its steps where they do it
    themselves.
    """

    label: str
    due_on: date
    state: State
    own: bool
    months: float
    steps: Sheet | None = None


@record
class KeptLine:
    """A promise and what was measured of it, as its customer sees it; ``tried``: what is done about
    one that fell short.
    """

    proved: Proved
    tried: str = ""


@record
class OfferedView:
    """A proposal as its customer sees it through a link."""

    state: str
    presented_at: datetime | None
    decided_at: datetime | None
    offer: Offer
    seal: Standing
    care: tuple[CareLine, ...] = ()
    kept: tuple[KeptLine, ...] = ()
    digest: str = ""
    signed_by: str = ""
    until: date | None = None
    two_sign: bool = False
    replaced: bool = False
    news: tuple[str, ...] = ()
    moved: bool = False

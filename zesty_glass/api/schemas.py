"""What goes over the wire beside the core's own value objects."""

from __future__ import annotations

from datetime import date, datetime
from decimal import Decimal
from typing import Annotated, Any, Literal, cast
from uuid import UUID

from pydantic import BaseModel, ConfigDict, Field, GetCoreSchemaHandler
from pydantic_core import CoreSchema

from ..core.aftercare.care import State
from ..core.aftercare.proof import Proved
from ..core.aftercare.steps import Sheet
from ..core.assess import Assessment
from ..core.bounds import bounded
from ..core.demonstrating.about import About, NotOffered
from ..core.home import Customer, Home
from ..core.presenting.appliance import Told
from ..core.presenting.offer import Offer
from ..core.record import record
from ..core.testing.bottles import SuggestedBottle
from ..core.testing.complaints import Complaint
from ..core.testing.laboratory import LabStatus
from ..core.testing.observations import Observation
from ..core.testing.reading import Reading
from ..core.testing.value import Value
from ..core.visit import Visit
from ..messages.catalogue import ORIGINAL, Language
from ..work.mending import Unreadable
from ..work.planning import Closed
from ..work.seals import Standing

#: in which units an answer is said; None: the visit's own
Units = Literal["us", "metric"] | None


class ToldQuery(BaseModel):
    """What the household says of an appliance; what is left out was not asked."""

    uses_year: float | None = Field(None, ge=0, le=5000)
    litres: float | None = Field(None, ge=0, le=2000)
    dose_here: float | None = Field(None, ge=0, le=1000)
    dose_soft: float | None = Field(None, ge=0, le=1000)
    dose_price: Decimal | None = Field(None, ge=0, le=1000)
    salt_kg: float | None = Field(None, ge=0, le=1000)
    salt_price: Decimal | None = Field(None, ge=0, le=1000)

    def told(self) -> Told:
        """As the core reads it."""
        return Told(**self.model_dump())


class Body(BaseModel):
    """A request body: unknown fields are refused, every field is bounded by its name."""

    model_config = ConfigDict(extra="forbid")

    @classmethod
    def __get_pydantic_core_schema__(cls, source: Any, handler: GetCoreSchemaHandler) -> CoreSchema:
        """The body's schema with the bounds of ``core/bounds.py``."""
        schema = handler(source)
        bounded(cast(dict[str, Any], handler.resolve_ref_schema(schema)))
        return schema


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


class VisitSummary(BaseModel):
    """A visit in the list of the day."""

    id: UUID
    started_at: datetime
    customer: str
    home: str
    place: str
    source: str
    complaints: list[str]
    readings: int
    options: int
    proposals: int
    step: str
    made: bool
    closed: dict[str, str] | None


class StartBody(Body):
    """A new visit; the id is made by the client."""

    id: UUID
    customer: Customer
    home: Home
    complaints: list[Complaint] = Field(default=[], max_length=20)
    started_at: datetime | None = None


class AgainBody(Body):
    """Another visit to a home that was visited before; the id is made by the client."""

    id: UUID
    started_at: datetime | None = None


class KnownHome(BaseModel):
    """A home visited before, with its last visit."""

    visit: UUID
    last: datetime
    visits: int
    customer: str
    home: str
    place: str


@record
class OtherVisit:
    """Another visit to the same home."""

    id: str
    started_at: datetime


@record
class ReadingWith:
    """A reading made with a kit of the firm, which the address names."""

    id: str
    observation: Observation
    made_at: datetime
    by: str = ""
    note: str = ""


class VisitChange(Body):
    """Fields to change, on top of a version; absent fields stay."""

    version: int
    complaints: list[Complaint] | None = Field(default=None, max_length=20)
    step: str | None = None
    recommended: str | None = None
    horizon: int | None = None
    assumptions_off: list[str] | None = None
    note: str | None = Field(default=None, max_length=5000)


class VisitPlan(Body):
    """When a visit is made, and by whom (None: as it is), on top of a version."""

    version: int
    started_at: datetime
    consultant: UUID | None = None


class CloseBody(Body):
    """How a visit that is not made ended, and why; without ``how`` it is open again."""

    version: int
    how: Closed | None = None
    because: str = Field(default="", max_length=600)


class Versioned(Body):
    """A change on top of a version."""

    version: int


class HomeChange(Body):
    """Customer and home as they should be, on top of a version."""

    version: int
    customer: Customer
    home: Home


class StrikeBody(Body):
    """Why a reading is struck."""

    because: str = Field(default="", max_length=500)


class Saved(BaseModel):
    """What was stored, and its version."""

    id: str
    version: int


@record
class KeptReading:
    """A reading as stored, worked out."""

    id: str
    sample: str
    reading: Reading
    value: Value


@record
class VisitView:
    """A visit with everything worked out.

    ``versions``: by the id of each editable part; ``lab``: where each bottle stands now;
    ``suggested``: bottles to draw; ``others``: the home's other visits; ``reports``: when the
    laboratory's report on a bottle is expected; ``unreadable``: parts that cannot be read or worked
    out any more, left out of all the rest; ``terms_on``: the day whose prices, taxes and limits are
    the visit's; ``terms_differ``: the firm's are others by now; ``made``: it was begun; ``closed``:
    how one that is not made ended, and why.
    """

    visit: Visit
    versions: dict[str, int]
    step: str
    assessment: Assessment
    lab: dict[str, LabStatus]
    suggested: tuple[SuggestedBottle, ...]
    others: tuple[OtherVisit, ...]
    reports: dict[str, datetime]
    unreadable: tuple[Unreadable, ...]
    terms_on: date
    terms_differ: bool
    made: bool
    closed: dict[str, str] | None


class TastingBody(Body):
    """A blind tasting to draw: glasses, names of tasters, and glasses behind a unit that was
    sanitised and flushed.
    """

    id: UUID
    samples: list[UUID] = Field(min_length=2, max_length=5)
    tasters: list[Annotated[str, Field(min_length=1, max_length=60)]] = Field(
        min_length=1, max_length=6
    )
    sanitised: list[UUID] = Field(default=[], max_length=5)


@record
class DemonstrationWords:
    """Every demonstration in words, and what is not offered."""

    offered: tuple[About, ...]
    not_offered: tuple[NotOffered, ...]


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


class SignView(BaseModel):
    """A kind of complaint to choose from."""

    id: str
    name: str
    next: str


class AnalyteView(BaseModel):
    """An analyte as the page needs it."""

    id: str
    name: str
    unit: str
    kind: str
    laboratory_only: bool
    test: str
    decimals: int


class Reference(BaseModel):
    """What the page needs to know once: signs, analytes, what a visit looks for, and what eyes and
    nose look at.
    """

    signs: list[SignView]
    analytes: list[AnalyteView]
    looked_for: list[str]
    looked_at: list[str]


JsonObject = dict[str, Any]

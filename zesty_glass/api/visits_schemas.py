"""What goes over the wire of a visit."""

from __future__ import annotations

from datetime import date, datetime
from decimal import Decimal
from uuid import UUID

from pydantic import BaseModel, Field

from ..core.assess import Assessment
from ..core.home import Customer, Home
from ..core.presenting.appliance import Told
from ..core.record import record
from ..core.testing.bottles import SuggestedBottle
from ..core.testing.complaints import Complaint
from ..core.testing.laboratory import LabStatus
from ..core.testing.observations import Observation
from ..core.testing.reading import Reading
from ..core.testing.value import Value
from ..core.visit import Visit
from ..work.mending import Unreadable
from ..work.planning import Closed
from .schemas import Body


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


class HomeChange(Body):
    """Customer and home as they should be, on top of a version."""

    version: int
    customer: Customer
    home: Home


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

"""What goes over the wire of jobs and of what falls due."""

from __future__ import annotations

from dataclasses import field
from datetime import date
from decimal import Decimal
from uuid import UUID

from pydantic import BaseModel, Field

from ..core.aftercare.care import State
from ..core.aftercare.disinfecting import Plumbing
from ..core.aftercare.equipment import Fate
from ..core.aftercare.job import Job, Standing
from ..core.presenting.paying import Payment
from ..core.record import record
from ..work.waiting import Kind
from .schemas import Body


@record
class Amount:
    """How much water one thing holds [L]."""

    name: str
    litres: float


@record
class Disinfection:
    """How much bleach a home's plumbing takes [mL], and what it is worked out from."""

    amounts: tuple[Amount, ...]
    litres: float
    dose_mg_l: float
    bleach_ml: float
    hours: float
    method: str
    source: str


@record
class JobView:
    """A job, how it stands today, whose it is, and what they pay for it, in the firm's currency.

    ``changed_by``: the sheet that changes a part, by the part's key.
    """

    id: str
    visit: str
    version: int
    customer: str
    phone: str
    home: str
    place: str
    job: Job
    standing: Standing
    disinfection: Disinfection
    payments: tuple[Payment, ...]
    currency: str
    changed_by: dict[str, str] = field(default_factory=dict)


@record
class JobLine:
    """A job as a list names it."""

    id: str
    customer: str
    home: str
    place: str
    line: str
    state: str
    planned_on: date | None
    planned_at: str
    fitter: str
    steps_done: int
    steps: int
    short: int
    fitter_id: str = ""


@record
class DueLine:
    """A part that falls due, and whose it is; ``person``: who fitted it, else who visited."""

    job: str
    key: str
    customer: str
    home: str
    place: str
    stage: str
    label: str
    kind: str
    own: bool
    minutes: int
    due_on: date
    state: State
    person: str = ""


@record
class DueList:
    """What falls due up to a day; ``more``: where the next page begins, or nothing; ``areas``: in
    the order in which a round drives through them.
    """

    today: date
    until: date
    lines: tuple[DueLine, ...]
    more: str = ""
    areas: tuple[str, ...] = ()


@record
class WaitingLine:
    """Something that waits beside the parts: until when, whose, and where it is looked at."""

    kind: Kind
    what: str
    whose: str
    on: date
    state: State
    path: str


class PlanBody(Body):
    """When a job is done, and by whom."""

    version: int
    planned_on: date | None = None
    planned_at: str = Field("", max_length=5, pattern="^([01][0-9]|2[0-3]):[0-5][0-9]$|^$")
    fitter: str = Field("", max_length=120)
    fitter_id: UUID | None = None
    note: str = ""
    anyway: bool = False


class FirmFitter(BaseModel):
    """A person of the firm who can fit a job."""

    id: UUID
    name: str


class Fitters(BaseModel):
    """Who can be planned for a job; ``outside``: names of others who were planned before."""

    firm: list[FirmFitter]
    outside: list[str]


class EndBody(Body):
    """Why a job ends, or is opened again."""

    version: int
    because: str = Field(max_length=600)


class PlumbingBody(Body):
    """What holds water in the home."""

    version: int
    plumbing: Plumbing


class FittedBody(Body):
    """The day on which a line went into use; null: not fitted after all. ``left_out``: why the
    steps that nobody ticked were left out.
    """

    version: int
    on: date | None
    left_out: str = Field("", max_length=200)


class TickBody(Body):
    """A step that was done, left out with a reason, or is not done after all."""

    sheet: str = Field(max_length=120)
    step: int = Field(ge=0, le=50)
    done: bool = True
    left_out: str = Field("", max_length=200)


class ChangeBody(Body):
    """A part that was changed."""

    part: str = Field(max_length=200)
    on: date
    before: str = Field("", max_length=200)
    after: str = Field("", max_length=200)
    note: str = ""


class MoveBody(Body):
    """What became of a piece of what was sold."""

    piece: int = Field(ge=0, le=100)
    fate: Fate
    on: date
    because: str = Field(max_length=200)
    price: Decimal = Field(Decimal(0), ge=0, le=1_000_000, decimal_places=2)


class GaugeBody(Body):
    """What was read at a part: a lamp's days powered, what is left of a bed in per cent."""

    part: str = Field(max_length=200)
    on: date
    value: float


class FollowUpBody(Body):
    """What is tried after a short result, by when, and what was found."""

    analyte: str = Field(max_length=40)
    what: str = Field(max_length=400)
    on: date
    closed: str = Field("", max_length=400)


class CareBody(Body):
    """Equipment in place, by its id in the home."""

    device: str


class JobMade(Body):
    """The job that a proposal became."""

    id: UUID

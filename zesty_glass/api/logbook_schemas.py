"""What goes over the wire of the firm's memory."""

from __future__ import annotations

from datetime import date, datetime
from uuid import UUID

from pydantic import BaseModel, Field

from ..core.aftercare.care import State
from ..core.aftercare.logbook import HomeEvent, Kept, Lasted, Outcome, Series, WaterPair
from ..core.home import Customer
from ..core.record import record
from ..work.instrument_checks import NoteKind


@record
class HomeLine:
    """A home as a list names it: its last visit, and what falls due at it next."""

    id: str
    customer: str
    home: str
    place: str
    source: str
    visits: int
    last_at: datetime | None
    last: str | None
    due_on: date | None
    state: State | None


@record
class HomePage:
    """A page of homes, and how many there are in all; ``more``: where the next one begins."""

    homes: tuple[HomeLine, ...]
    total: int
    more: str = ""


@record
class HomeJob:
    """A job at a home."""

    id: str
    line: str
    fitted_on: date | None


@record
class HomeNote:
    """Why something changed at a home, with its day, or a case; ``struck``: the reason, where it
    is; ``outcome``: what came of a case, and when it was closed.
    """

    id: str
    on: date
    text: str
    by: str
    struck: str = ""
    kind: NoteKind = "note"
    closed_on: date | None = None
    outcome: str = ""


class NoteBody(BaseModel):
    """A note on a home."""

    on: date = Field(description="The day it happened.")
    text: str = Field(max_length=2000, description="Why, in a sentence.")
    kind: NoteKind = Field("note", description="A note, a complaint, or a warranty case.")


class CloseCase(BaseModel):
    """What came of a case; empty opens it again."""

    outcome: str = Field(default="", max_length=500)


class OwnerBody(BaseModel):
    """Who owns a home from a day on."""

    version: int = Field(description="The version of the home that is changed.")
    customer: Customer
    since: date = Field(description="The first day that it is theirs.")


class PeopleBody(BaseModel):
    """Who is at a home, the customer first."""

    version: int = Field(description="The version of the home that is changed.")
    people: tuple[Customer, ...] = Field(max_length=20)


class OneHome(BaseModel):
    """A home that turned out to be another."""

    version: int = Field(description="The version of the home that is kept.")
    with_home: UUID = Field(description="The home that is given up.")


class Elsewhere(BaseModel):
    """A home that a colleague looks after; asked: this person asked for it already."""

    id: UUID
    place: str
    asked: bool


class GiveHome(BaseModel):
    """An answer to somebody who asks for a home."""

    to: UUID = Field(description="Who asks.")
    give: bool = Field(description="Whether they get it.")


class StrikeNote(BaseModel):
    """Why a note is crossed out; empty takes the strike back."""

    because: str = Field(default="", max_length=200)


@record
class AlikeHome:
    """A home that may be the same one."""

    id: str
    customer: str
    home: str
    visits: int


@record
class MergedHome:
    """A home that turned out to be this one, and whether that can still be undone."""

    id: str
    customer: str
    home: str
    undo: bool


@record
class AskedFor:
    """Somebody of the firm who asks for this home."""

    id: str
    name: str
    at: datetime


@record
class HomeYears:
    """A home over the years; ``visits`` with their times, the latest first; ``people``: the
    customer first, then who else is there; ``former``: who owned it before, and until which day.
    """

    id: str
    customer: str
    home: str
    place: str
    source: str
    visits: tuple[tuple[str, str], ...]
    series: tuple[Series, ...]
    events: tuple[HomeEvent, ...]
    jobs: tuple[HomeJob, ...]
    version: int = 0
    people: tuple[Customer, ...] = ()
    former: tuple[tuple[str, str], ...] = ()
    alike: tuple[AlikeHome, ...] = ()
    merged: tuple[MergedHome, ...] = ()
    asked_by: tuple[AskedFor, ...] = ()
    notes: tuple[HomeNote, ...] = ()


@record
class Track:
    """The firm's own record."""

    kept: tuple[Kept, ...]
    by_maker: tuple[Kept, ...]
    pairs: tuple[WaterPair, ...]


@record
class TrackMore:
    """How long parts lasted, and what became of proposals."""

    lasted: tuple[Lasted, ...]
    outcomes: tuple[Outcome, ...]


class BehindLine(BaseModel):
    """A job or a proposal behind a number, and whose it is."""

    id: UUID
    customer: str
    place: str


class TrackBehind(BaseModel):
    """The jobs, or proposals, behind one number."""

    lines: list[BehindLine]

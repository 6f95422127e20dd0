"""A job: what was sold, how it is fitted, whether it keeps its promise, and what falls due."""

from __future__ import annotations

from datetime import date, datetime

from .. import words
from ..errors import RuleError
from ..home import Home, Source
from ..occupancy import ALL_YEAR, DAYS_OF_YEAR, Occupancy
from ..record import Words, record
from ..testing.reading import work_out
from ..testing.value import Value
from ..treating.line import LineReport
from ..treating.stages import service_of
from . import drift
from .care import Change, Falling, Part, falling, parts_of
from .disinfecting import Plumbing, usual_plumbing
from .drift import Alarm
from .equipment import Bought, Move, Rented, rents, stages_gone, swapped_on
from .gauging import Gauge, gauged
from .proof import Promise, Proof, Proved, Where, first_proved, open_promises, promises, proved
from .second_test import SecondTest, second_test
from .steps import Sheet, sheets

MOST_TICKS, MOST_PROOFS, MOST_CHANGES = 400, 400, 2000


@record
class FittedStage:
    """A stage as it was sold: what is dialled on its valve, and whose work it is."""

    code: str
    name: str
    kind: str
    scope: str
    settings: tuple[tuple[str, str], ...]


def _bought(line: LineReport) -> tuple[Bought, ...]:
    return tuple(
        Bought(
            label=p.label,
            terms="buy" if p.let is None else p.let.kind,
            fitter=p.fitter,
            months=0 if p.let is None else p.let.months,
            stages=tuple(n for n, s in enumerate(line.stages) if s.code in (p.parts or (p.code,))),
        )
        for p in line.purchases
    )


@record
class Tick:
    """A step that was done, by whom and when; or left out, with the reason."""

    sheet: str
    step: int
    by: str
    at: datetime
    left_out: Words = ""


@record
class FollowUp:
    """What a short result leads to: what is tried, by when; closed with what was found."""

    id: str
    analyte: str
    what: Words
    on: date
    closed: Words = ""


@record
class Ended:
    """That a job came to nothing, or what it fitted was taken out: why, by whom and when."""

    because: Words
    by: str
    at: datetime


@record
class Job:
    """A job of the firm.

    Args:
        visit, proposal, option: what it was made from. line: the name of what was sold.
        planned_on, planned_at: when; fitter: who, by name; fitter_id: the person of the firm, empty
            for somebody outside it.
        fitted_on: the day it went into use; None while it is not fitted.
        lived, lived_year: when somebody is there, and on how many days a year [days/year].
        ended: set once nothing more is done at it, and nothing of it falls due.
        reopened: when it was opened again after it was proved: only what is read since counts.
        moves: what became of what was sold, piece by piece.
    """

    id: str
    visit: str
    proposal: str
    option: str
    line: Words
    units: str
    made_at: datetime
    stages: tuple[FittedStage, ...]
    sheets: tuple[Sheet, ...]
    parts: tuple[Part, ...]
    promises: tuple[Promise, ...]
    plumbing: Plumbing = Plumbing()
    planned_on: date | None = None
    planned_at: str = ""
    fitter: Words = ""
    fitter_id: str = ""
    fitted_on: date | None = None
    ticks: tuple[Tick, ...] = ()
    proofs: tuple[Proof, ...] = ()
    changes: tuple[Change, ...] = ()
    follow_ups: tuple[FollowUp, ...] = ()
    note: Words = ""
    gauges: tuple[Gauge, ...] = ()
    bought: tuple[Bought, ...] = ()
    moves: tuple[Move, ...] = ()
    lived: Occupancy = ALL_YEAR
    lived_year: float = DAYS_OF_YEAR
    ended: Ended | None = None
    reopened: tuple[Ended, ...] = ()


@record
class LastRead:
    """What was read last of one thing behind the line, and at first where that was another time.

    ``held``: what a membrane held back at first, now, and at the least [0 to 1].
    """

    analyte: str
    where: Where
    at: datetime
    said: str
    first_at: datetime | None = None
    first: str = ""
    held: tuple[float, float, float] | None = None


@record
class Standing:
    """How a job stands today."""

    state: str
    steps_done: int
    steps: int
    due: tuple[Falling, ...]
    proved: tuple[Proved, ...]
    unproved: tuple[Promise, ...]
    values: tuple[Value, ...]
    alarms: tuple[Alarm, ...]
    second: SecondTest | None = None
    first: tuple[Proved, ...] = ()
    rents: tuple[Rented, ...] = ()
    read: tuple[LastRead, ...] = ()


def job_of(
    line: LineReport,
    home: Home,
    *,
    id: str,
    visit: str,
    proposal: str,
    units: str,
    made_at: datetime,
) -> Job:
    """A job from the line that was accepted."""
    plumbing = usual_plumbing(home.well, home.source is Source.WELL_DRILLED)
    return Job(
        id=id,
        visit=visit,
        proposal=proposal,
        option=line.option,
        line=line.name,
        units=units,
        made_at=made_at,
        stages=tuple(
            FittedStage(code=s.code, name=s.name, kind=s.kind, scope=s.scope, settings=s.settings)
            for s in line.stages
        ),
        sheets=sheets(line, home, plumbing),
        parts=parts_of(line.as_paid, home.days_lived),
        promises=promises(line, units),
        plumbing=plumbing,
        bought=_bought(line),
        lived=home.calendar,
        lived_year=home.days_lived,
    )


def ended_on(job: Job) -> date | None:
    """The day on which a job ended; None while it goes on."""
    return None if job.ended is None else job.ended.at.date()


def standing_stages(job: Job) -> tuple[FittedStage, ...]:
    """The stages that still stand there."""
    gone = stages_gone(job.bought, job.moves)
    return tuple(s for n, s in enumerate(job.stages) if n not in gone)


def _stage_of(part: Part) -> int:
    """The how-manieth stage a part belongs to, from 0."""
    return int(part.key.partition(":")[0])


def _standing_parts(job: Job) -> tuple[Part, ...]:
    gone = stages_gone(job.bought, job.moves)
    return tuple(p for p in job.parts if _stage_of(p) not in gone)


def _by_swaps(job: Job) -> tuple[Change, ...]:
    """Every part of a swapped piece is new with it."""
    days = swapped_on(job.bought, job.moves)
    return tuple(
        Change(id="", part=p.key, on=days[_stage_of(p)], by="")
        for p in job.parts
        if _stage_of(p) in days
    )


@record
class Served:
    """How long a part served: from the change before, or from the fitting, to its change.

    ``time``: the how-manieth change; ``months``: as it was predicted; ``days``: as it was.
    """

    key: str
    time: int
    label: str
    kind: str
    months: float
    days: int


def served(job: Job) -> tuple[Served, ...]:
    """Every time that a part of a job served; a second change on one day served nothing."""
    out = []
    for part in job.parts:
        since, time = job.fitted_on, 0
        new = swapped_on(job.bought, job.moves).get(_stage_of(part))
        for on in sorted(c.on for c in job.changes if c.part == part.key):
            if new is not None and since is not None and since < new <= on:
                since = new
            days = 0 if since is None else (on - since).days
            since = on
            if days > 0:
                time += 1
                out.append(
                    Served(
                        key=part.key,
                        time=time,
                        label=part.label,
                        kind=part.kind,
                        months=part.months,
                        days=days,
                    )
                )
    return tuple(out)


def part_since(job: Job, key: str) -> tuple[str | None, date | None]:
    """The kind of a part at which something is read, and since when it is in; no kind for another
    part, or one that is not here.
    """
    part = next((p for p in job.parts if p.key == key), None)
    stage = next((s.kind for n, s in enumerate(job.stages) if key.startswith(f"{n}:")), "")
    if part is None or gauged(part.kind, stage) is None:
        return None, job.fitted_on
    return part.kind, max((c.on for c in job.changes if c.part == key), default=job.fitted_on)


def fitting_sheets(job: Job) -> tuple[Sheet, ...]:
    """The sheets whose steps make a line fitted."""
    return tuple(s for s in job.sheets if s.purpose in ("fit", "disinfect"))


def open_steps(job: Job) -> tuple[tuple[str, int], ...]:
    """Steps of the fitting that are neither ticked nor left out, as (sheet, step)."""
    done = {(t.sheet, t.step) for t in job.ticks}
    wanted = ((s.key, n) for s in fitting_sheets(job) for n in range(len(s.steps)))
    return tuple(x for x in wanted if x not in done)


def check_tick(job: Job, tick: Tick) -> None:
    """RuleError for a step that is not in this job."""
    sheet = next((s for s in job.sheets if s.key == tick.sheet), None)
    if sheet is None or not 0 <= tick.step < len(sheet.steps):
        raise RuleError(
            "job.step", "This step is not in this job.", "step", "Choose one of its steps."
        )


def _best(job: Job, values: tuple[Value, ...], analyte: str, where: str) -> list[float]:
    """Best values of what was measured of an analyte at a place, in the order of time."""
    made = [
        (p.reading.made_at, v.range.best)
        for p, v in zip(job.proofs, values, strict=True)
        if p.reading.analyte == analyte
        and p.where == where
        and p.reading.struck_at is None
        and v.range is not None
    ]
    return [best for _, best in sorted(made)]


def _drifts(job: Job) -> set[str]:
    """What is looked at over the years behind what stands."""
    return {service_of(s.kind).drift for s in standing_stages(job)}


def _held(job: Job, values: tuple[Value, ...]) -> tuple[float, float, float] | None:
    """What a membrane held back at first, now, and at the least [0 to 1]."""
    feed = next((p.before for p in job.promises if p.analyte == "tds"), None)
    tds = _best(job, values, "tds", "tap")
    membrane = "rejection" in _drifts(job)
    if not membrane or not tds or feed is None or feed.best <= 0:
        return None
    first, last = (drift.rejection(feed.best, x) for x in (tds[0], tds[-1]))
    return first, last, drift.rejection_alarm(first)


def last_read(job: Job, values: tuple[Value, ...]) -> tuple[LastRead, ...]:
    """Everything that was read behind the line: the last of it, and the first; struck readings
    count for nothing.
    """
    by: dict[tuple[str, Where], list[tuple[datetime, str]]] = {}
    for p, v in zip(job.proofs, values, strict=True):
        if p.reading.struck_at is None:
            name = p.reading.analyte
            said = words.value(name, v.range, v.below, job.units, v.words)
            by.setdefault((name, p.where), []).append((p.reading.made_at, said))
    out = []
    for (name, where), made in by.items():
        made.sort()
        (first_at, first), (at, said) = made[0], made[-1]
        again = len(made) > 1
        out.append(
            LastRead(
                analyte=name,
                where=where,
                at=at,
                said=said,
                first_at=first_at if again else None,
                first=first if again else "",
                held=_held(job, values) if (name, where) == ("tds", "tap") else None,
            )
        )
    return tuple(out)


def _promised_hardness(job: Job) -> float:
    """The most hardness that the line was promised to leave: a clock that waits too long lets raw
    water through, and such a reading is no fault [mg/L as CaCO3].
    """
    for p in job.promises:
        if (p.analyte, p.where) == ("hardness", "house") and p.predicted is not None:
            return p.predicted.top
    return 0.0


def alarms(job: Job, values: tuple[Value, ...]) -> tuple[Alarm, ...]:
    """What the last readings behind the line ask for: see ``drift``."""
    drifts = _drifts(job)
    held = _held(job, values)
    chlorine = _best(job, values, "chlorine_free", "house")
    hardness = _best(job, values, "hardness", "house")
    found: list[Alarm | None] = []
    if held is not None:
        found.append(drift.membrane(held[0], held[1]))
    if "chlorine" in drifts and chlorine:
        found.append(drift.carbon(chlorine[-1]))
    if "hardness" in drifts and hardness and hardness[-1] > _promised_hardness(job):
        found.append(drift.softener(hardness[-1]))
    return tuple(a for a in found if a is not None)


def state_of(job: Job, shown: tuple[Proved, ...], open_: bool) -> str:
    """In one word where a job is: to plan, planned, fitted, short, or proved; in care where others
    fitted it; ended. ``open_``: a step is neither ticked nor left out, or a test is to come.
    """
    if job.ended is not None:
        return "ended"
    if not job.proposal:
        return "in care"
    if job.fitted_on is None:
        return "to plan" if job.planned_on is None else "planned"
    if any(x.verdict == "short" for x in shown) or any(not f.closed for f in job.follow_ups):
        return "short"
    return "fitted" if open_ else "proved"


def _since(job: Job, made: tuple[tuple[Proof, Value], ...]) -> tuple[tuple[Proof, Value], ...]:
    """What was read since a job was last opened again; all of it where it never was."""
    if not job.reopened:
        return made
    return tuple(x for x in made if x[0].reading.made_at >= job.reopened[-1].at)


def standing(job: Job, today: date) -> Standing:
    """How a job stands on a day."""
    values = tuple(work_out(p.reading) for p in job.proofs)
    house = frozenset(s.kind for s in job.stages if s.scope == "house")
    kinds: dict[Where, frozenset[str]] = {
        "house": house,
        "tap": frozenset(s.kind for s in job.stages),
    }
    made = tuple(zip(job.proofs, values, strict=True))
    shown = proved(job.promises, made, kinds, job.units)
    left = open_promises(job.promises, proved(job.promises, _since(job, made), kinds, job.units))
    due = (
        ()
        if job.fitted_on is None or job.ended is not None
        else falling(
            _standing_parts(job),
            (*job.changes, *_by_swaps(job)),
            job.fitted_on,
            today,
            job.gauges,
            job.lived,
            job.lived_year,
        )
    )
    steps, open_ = sum(len(s.steps) for s in fitting_sheets(job)), len(open_steps(job))
    return Standing(
        state=state_of(job, shown, bool(left) or open_ > 0),
        steps_done=steps - open_,
        steps=steps,
        due=due,
        proved=shown,
        unproved=left,
        values=values,
        alarms=alarms(job, values),
        second=None
        if job.ended is not None
        else second_test(job.promises, job.proofs, job.fitted_on),
        first=first_proved(job.promises, made, kinds, job.units),
        rents=rents(job.bought, job.moves, job.fitted_on, ended_on(job), today),
        read=last_read(job, values),
    )

"""Customers of earlier months: homes like the seven, under other names, with lines that were
fitted, proved and looked after, so that jobs and what falls due have something to say.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable
from dataclasses import replace
from datetime import UTC, date, datetime, time, timedelta
from uuid import UUID

from sqlalchemy.orm import Session

from ..core.aftercare.care import Change
from ..core.aftercare.job import FollowUp, Job, Tick, fitting_sheets
from ..core.aftercare.proof import Proof
from ..core.home import Customer
from ..core.record import record
from ..core.testing.observations import DropCount, MeterDisplays, Observation, OneDisplay
from ..core.testing.reading import Reading
from ..core.testing.water import Sample
from ..core.visit import Visit
from ..documents.codec import load_json, to_json
from ..records import jobs as records
from ..records import signing
from ..work import bringing_in, deciding, jobs, proposing
from ..work.person import Person
from . import homes
from .kits import demo_instruments
from .people import FITTER, FITTER_EMAIL

_UUID = re.compile("[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}")
SIGNED = "M60,110 L80,60 L96,112 L120,70 L140,108 L176,84 M200,104 L230,66 L250,110 L300,80"


@record
class Earlier:
    """A customer of earlier: like which home, what was sold, and what came after.

    Args:
        option: which of that home's lines. fitted: days ago; None: it is planned for tomorrow.
        changed: days ago at which every part the household changes was changed.
        drops: drops of hardness behind the line a day after; ph: pH there; short ones are followed
            up.
        salts, lime: the raw water's dissolved solids and its drops of hardness, as multiples of
            that home's. declined: nothing was bought.
        tds: what the meter showed at the drinking tap, by days after the fitting.
    """

    key: str
    like: Callable[[datetime], Visit]
    name: str
    home: str
    place: str
    option: int
    email: str = ""
    fitted: int
    changed: tuple[int, ...] = ()
    drops: int | None = None
    ph: float | None = None
    tds: tuple[tuple[int, float], ...] = ()
    salts: float = 1.0
    lime: float = 1.0
    declined: bool = False


EARLIER: tuple[Earlier, ...] = (
    Earlier(
        key="past-1",
        like=homes.home_1,
        name="Orrin Kettleby",
        home="Lane house, 3 Chalk Steps",
        place="Marl End",
        option=1,
        email="orrin@chalksteps.example",
        fitted=760,
        changed=(372,),
        drops=0,
        tds=((1, 22.0), (380, 41.0), (752, 118.0)),
    ),
    Earlier(
        key="past-2",
        like=homes.home_2,
        name="Odile Brackenreed",
        home="Upper Withy",
        place="Cinderlow",
        option=0,
        fitted=411,
        salts=2.2,
    ),
    Earlier(
        key="past-3",
        like=homes.home_6,
        name="Sabra Lindlow",
        home="Flat over the saddler’s",
        place="Marl End",
        option=0,
        fitted=58,
        salts=1.4,
        changed=(52,),
    ),
    Earlier(
        key="past-4",
        like=homes.home_1,
        name="Tolland Wray-Pike",
        home="2 Kiln Row",
        place="Marl End",
        option=1,
        fitted=19,
        salts=0.7,
        drops=5,
    ),
    Earlier(
        key="past-5",
        like=homes.home_5,
        name="Lys Marrowby",
        home="The Scree house",
        place="Cinderlow",
        option=0,
        fitted=355,
        salts=3.4,
        tds=((2, 14.0), (270, 17.0)),
    ),
)


def _visit(c: Earlier, now: datetime) -> Visit:
    """The home's visit as this customer's: other names, other identifiers, some weeks earlier."""
    at = datetime.combine(now.date(), time(9), UTC) - timedelta(days=c.fitted + 20)
    like = replace(c.like(at), demonstrations=())
    text = to_json(like, Visit).decode()
    own: Visit = load_json(Visit, _UUID.sub(lambda m: homes.uid(f"{c.key}-{m[0]}"), text))
    return replace(
        own,
        samples=tuple(_salted(s, c.salts, c.lime) for s in own.samples),
        customer=Customer(name=c.name, email=c.email),
        home=replace(own.home, name=c.home, place=c.place),
        recommended=own.options[c.option].id,
    )


def _salted(sample: Sample, times: float, lime: float) -> Sample:
    """A glass with more or less dissolved solids on the meter, and hardness in the vial."""

    def read(r: Reading) -> Reading:
        seen = r.observation
        if r.analyte == "hardness" and isinstance(seen, DropCount):
            return replace(r, observation=replace(seen, drops=round(seen.drops * lime)))
        if r.analyte != "tds" or not isinstance(seen, MeterDisplays):
            return r
        shown = tuple(float(round(d * times)) for d in seen.displays)
        return replace(r, observation=replace(seen, displays=shown))

    return replace(sample, readings=tuple(read(r) for r in sample.readings))


def _reading(c: Earlier, n: int, kit: str, seen: Observation, on: date) -> Reading:
    instrument = next(k for k in demo_instruments(on) if k.id == kit)
    return Reading(
        id=homes.uid(f"{c.key}-proof-{n}"),
        analyte=instrument.analyte,
        instrument=instrument,
        observation=seen,
        made_at=datetime.combine(on, time(14), UTC),
        by=FITTER,
    )


def _after(c: Earlier, job: Job, today: date) -> Job:
    """What came after the sale, told from how many days ago it was."""
    on = today - timedelta(days=c.fitted)
    done = datetime.combine(on, time(11), UTC)
    ticks = tuple(
        Tick(sheet=s.key, step=n, by=FITTER, at=done + timedelta(minutes=4 * n))
        for s in fitting_sheets(job)
        for n in range(len(s.steps))
    )
    proofs = _behind_the_line(c, on)
    for n, (days, shown) in enumerate(c.tds, 1):
        seen = MeterDisplays(displays=(shown, shown), zero=1.0)
        reading = _reading(c, n, "tds-1", seen, on + timedelta(days=days))
        proofs.append(Proof(where="tap", phase="later", reading=reading))
    return replace(
        job,
        planned_on=on,
        planned_at="09:00",
        fitter=FITTER,
        fitted_on=on,
        ticks=ticks,
        proofs=tuple(proofs),
        changes=tuple(
            Change(
                id=homes.uid(f"{c.key}-change-{ago}-{p.key}"),
                part=p.key,
                on=today - timedelta(days=ago),
                by=FITTER,
                before="as it was found",
                after="new, flushed",
            )
            for ago in c.changed
            for p in job.parts
            if p.own and p.months <= 13
        ),
        follow_ups=_follow_ups(c, today),
    )


def _short(c: Earlier) -> bool:
    return (c.drops is not None and c.drops > 1) or (c.ph is not None and c.ph < 7)


#: days after which a short result was looked at, tested again and closed
SETTLED = 30


def _behind_the_line(c: Earlier, on: date) -> list[Proof]:
    """Hardness and pH behind the line a day after the fitting, and again some days later."""
    out = []
    for n, kit, seen, good in (
        (0, "hard-1", None if c.drops is None else DropCount(drops=c.drops), DropCount(drops=0)),
        (9, "ph-1", None if c.ph is None else OneDisplay(value=c.ph), OneDisplay(value=7.4)),
    ):
        if seen is None:
            continue
        first = _reading(c, n, kit, seen, on + timedelta(days=1))
        out.append(Proof(where="house", phase="flushed", reading=first))
        if c.fitted > SETTLED:
            seen = good if _short(c) else seen
            again = _reading(c, n + 20, kit, seen, on + timedelta(days=12))
            out.append(Proof(where="house", phase="later", reading=again))
    return out


def _follow_ups(c: Earlier, today: date) -> tuple[FollowUp, ...]:
    """What is to be looked at where a promise fell short; closed where it is long ago."""
    if not _short(c):
        return ()
    acid = c.ph is not None
    what = "the bed topped up" if acid else "set to this water’s hardness"
    settled = c.fitted > SETTLED
    on = today - timedelta(days=c.fitted - 12) if settled else today + timedelta(days=2)
    made = FollowUp(
        id=homes.uid(f"{c.key}-follow"),
        analyte="ph" if acid else "hardness",
        what=f"Bypass looked at; {what}; test it again.",
        on=on,
        closed="The bypass stood half open." if settled else "",
    )
    return (made,)


def load_past(db: Session, who: Person, now: datetime, more: Iterable[Earlier] = ()) -> None:
    """Store the customers of earlier months with their jobs, and plan the job that was signed
    today.
    """
    for c in (*EARLIER, *more):
        visit = _visit(c, now)
        bringing_in.store_visit(db, who, visit)
        id = UUID(homes.uid(f"{c.key}-proposal"))
        best = visit.recommended or "today"
        at = visit.started_at + timedelta(hours=1)
        made = proposing.make(db, who, UUID(visit.id), id, best, "", None, at=at)
        for state in ("presented", "declined" if c.declined else "accepted"):
            known = proposing.opened(db, made).offer.before_signing
            read = tuple(k.sentence for k in known)
            by = deciding.Signed(c.name, SIGNED, read)
            made = deciding.decide(db, who, id, made.version, state, by, at)
        row = records.of_proposal(db, who.firm_id, id)
        if row is not None:
            jobs.keep(db, who, row, _after(c, jobs.opened(row), now.date()), "fitted")
    signed = records.of_proposal(db, who.firm_id, UUID(homes.uid("home-2-proposal")))
    if signed is not None:
        tomorrow = now.date() + timedelta(days=1)
        fitter = signing.user_by_email(db, FITTER_EMAIL)
        planned = replace(
            jobs.opened(signed),
            planned_on=tomorrow,
            planned_at="09:30",
            fitter=FITTER,
            fitter_id="" if fitter is None else str(fitter.id),
        )
        jobs.keep(db, who, signed, planned, "planned")

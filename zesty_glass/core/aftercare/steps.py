"""The library of steps: fitting, first use, changes, disinfection and seasons, made for one line at
one home. Each sheet has at most eight lines; what applies to nothing here is not made.

A sheet is general practice. The item's own manual and local code come before it, and plumbing,
electrical and drainage work is done by people who are licensed for it.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Literal

from ..home import Home
from ..record import record
from ..treating.line import LineReport
from ..treating.report import StageReport
from .disinfecting import CONTACT_H, DOSE_MG_L, Plumbing, bleach_ml, litres

Purpose = Literal["fit", "change", "disinfect", "season"]
MOST_LINES = 8


@record
class SheetStep:
    """One line of a sheet; ``wait_min``: a time that is waited, with its clock [min]."""

    text: str
    wait_min: float = 0.0


@record
class Sheet:
    """Steps for one piece of work, as they are ticked.

    Args:
        key: one name in the job. tools: what is taken along. caution: where the hand is.
        parts: kinds of parts that it changes, so that a part finds its steps.
    """

    key: str
    title: str
    purpose: Purpose
    tools: tuple[str, ...]
    caution: str
    steps: tuple[SheetStep, ...]
    source: str
    year: int
    parts: tuple[str, ...] = ()


@record
class About:
    """What a sheet's blanks are filled from."""

    line: LineReport
    home: Home
    plumbing: Plumbing
    stage: StageReport | None = None

    def blanks(self) -> dict[str, str]:
        """Quantities of this home, as words."""
        amount = sum(x for _, x in litres(self.plumbing))
        ml = bleach_ml(amount, DOSE_MG_L, self.plumbing.bleach_pct)
        s = self.stage
        settings = "; ".join(f"{k}: {v}" for k, v in s.settings) if s else ""
        return {
            "name": s.name if s else "the line",
            "settings": settings or "as its manual says",
            "litres": f"{amount:.0f}",
            "ml": f"{ml:.0f}",
            "pct": f"{self.plumbing.bleach_pct:g}",
            "dose": f"{DOSE_MG_L:g}",
            "hours": f"{CONTACT_H:g}",
            "flush": "10" if s is None or s.scope == "house" else "2",
            "place": "the yard or a dry well, not the septic" if self.home.septic else "the drain",
        }


@record
class Template:
    """A sheet before it is made for a home.

    Args:
        kinds: technologies it is made for, one sheet a stage; empty: one for the whole line.
        holds: whether it applies to a line at a home.
        lines: text with blanks, or (text, minutes to wait).
    """

    id: str
    title: str
    purpose: Purpose
    kinds: tuple[str, ...] = ()
    tools: tuple[str, ...]
    caution: str
    lines: tuple[str | tuple[str, float], ...]
    holds: Callable[[LineReport, Home], bool] = lambda line, home: True
    parts: tuple[str, ...] = ()
    source: str = "trade practice"
    year: int = 2024


_HOUSE_VALVES = ("softener", "iron_filter", "tannin", "mixed_bed", "neutraliser")


def _has(*kinds: str) -> Callable[[LineReport, Home], bool]:
    return lambda line, home: any(s.kind in kinds for s in line.stages)


def _house(line: LineReport, home: Home) -> bool:
    return any(s.scope == "house" for s in line.stages)


BLEACH = (
    "Gloves, goggles, window open. Plain bleach, never with another cleaner. Carbon, membranes and"
    " resin on bypass. Not into a septic system or a stream."
)

LIBRARY: tuple[Template, ...] = (
    Template(
        id="pipe",
        title="Open the pipe and fit the line",
        purpose="fit",
        tools=("pipe cutter", "bonding jumper", "towels", "pressure gauge"),
        caution=(
            "Water off and pressure let off before the pipe is cut. Where metal pipe is cut, the"
            " bonding jumper goes on first, by a licensed electrician."
        ),
        holds=_house,
        lines=(
            "Photograph the place as it is; say where the outdoor tap branches off.",
            "Main off, pressure let off at the lowest tap. Heater off.",
            "Bonding jumper across the cut, before the cut.",
            "Cut to length; keep clear of what is opened later: lamp, lid, housing.",
            "Stages in their order, each flow arrow with the flow, each with its bypass.",
            "Drain line with an air gap, secured, no longer than the manual allows.",
            ("Water back slowly, a tap open. Watch every joint for two minutes.", 2),
            "Pressure and flow as before? Write both down.",
        ),
    ),
    Template(
        id="valve",
        title="Set and start: {name}",
        purpose="fit",
        kinds=_HOUSE_VALVES,
        tools=("the settings of this job", "drop kit"),
        caution="A stuck valve can hold the pump on: stay until the first rinse has ended.",
        lines=(
            "Fill slowly from below, bypass half open, until no air comes.",
            "Dial: {settings}.",
            "Time of day. No two stages rinse at one hour.",
            "Salt or media in, where it takes any; water line above the grid.",
            "First rinse by hand, to {place}, until it runs clear.",
            "Bypass closed, a tap run for two minutes.",
            "Test behind it. Write it down as a reading of this job.",
        ),
    ),
    Template(
        id="carbon_start",
        title="Rinse the carbon: {name}",
        purpose="fit",
        kinds=("carbon",),
        tools=("bucket", "chlorine kit"),
        caution="Behind carbon there is no disinfectant left: keep what is behind it clean.",
        lines=(
            "Soak it where the manual says so.",
            "Flush {flush} gal to {place}, until no black fines come.",
            "Test for chlorine behind it.",
        ),
    ),
    Template(
        id="uv_start",
        title="Start the lamp: {name}",
        purpose="fit",
        kinds=("uv",),
        tools=("clean gloves", "lint-free cloth"),
        caution="Power off before the chamber is opened. Never look at a lit lamp.",
        lines=(
            "Sleeve and lamp in with clean gloves, no fingers on the glass.",
            "Clear height above the chamber to draw the lamp again.",
            "Water on slowly; joint dry for two minutes, then power.",
            "The whole plumbing is disinfected before it counts: see its steps.",
            "Alarm tried by the button; lamp’s day written on the chamber.",
        ),
    ),
    Template(
        id="membrane_start",
        title="Fit at the tap: {name}",
        purpose="fit",
        kinds=("membrane",),
        tools=("drill and bit for the tap", "plastic line", "TDS meter", "food-safe grease"),
        caution=(
            "No copper line behind a membrane. Drain connection with an air gap, to local code."
        ),
        lines=(
            "Cold line tapped, shut-off reached by hand.",
            "Tank’s pre-charge with the tank empty, as the manual says.",
            "O-rings cleaned, greased, seated; housings hand-tight and a nudge.",
            "Water on slowly; every joint dry for two minutes.",
            "First tank to the drain, and the second.",
            "Seconds to fill a glass; feed and tap by one meter.",
        ),
    ),
    Template(
        id="fibre_start",
        title="Start: {name}",
        purpose="fit",
        kinds=("ultrafiltration",),
        tools=("bucket",),
        caution="Fibres break when they freeze or dry out.",
        lines=(
            "Screen ahead of it in place.",
            "Fill slowly, air out, rinse {flush} gal to {place}.",
            "First rinse backwards by hand, clear at its end.",
            "Its own test of the fibres, as the manual says.",
        ),
    ),
    Template(
        id="disinfect",
        title="Disinfect the plumbing",
        purpose="disinfect",
        tools=("plain bleach {pct} %", "chlorine strips to 100 mg/L", "gloves", "goggles"),
        caution=BLEACH,
        holds=_has("uv", "chlorinator"),
        source="AWWA C651 and US CDC",
        year=2018,
        lines=(
            "Carbon, membranes, resin on bypass or taken out; aerators off.",
            "{ml} mL of bleach for {litres} L, into the empty sediment housing.",
            "Every tap, hot and cold, until it smells; strip at {dose} mg/L.",
            ("Stand {hours} hours. Nobody drinks or washes.", CONTACT_H * 60),
            "Flush by hose to the yard until the strip shows 0; then every tap.",
            "Cartridges new, lamp on, bypasses back.",
            "Coliform bottle when chlorine is gone and after some days of use.",
        ),
    ),
    Template(
        id="cartridge",
        title="Change the cartridge: {name}",
        purpose="change",
        kinds=("sediment", "carbon", "cartridge", "salt_free"),
        parts=("filter", "part"),
        tools=("the spare", "housing wrench", "food-safe grease", "bucket"),
        caution="Let the pressure off before the wrench. Never pull harder when it drips: seat it.",
        lines=(
            "Spare is the right one: size and rating.",
            "Water off, bypass open.",
            "Pressure let off at a tap.",
            "Housing open, old cartridge out, housing washed.",
            "Ring wiped, greased, in its groove; new cartridge in.",
            ("Hand-tight and a nudge. Water back slowly; watch the joint.", 2),
            "Flush {flush} gal to {place}.",
        ),
    ),
    Template(
        id="lamp",
        title="Change the lamp: {name}",
        purpose="change",
        kinds=("uv",),
        parts=("lamp", "part"),
        tools=("lamp", "ring", "clean gloves", "white vinegar"),
        caution="Power off and the lamp cold. No bare fingers on the glass, no eyes on a lit lamp.",
        lines=(
            "Power off, plug out; five minutes to cool.",
            "Water off, pressure let off.",
            "Lamp out; sleeve out, cleaned with vinegar, rinsed.",
            "New ring, sleeve in, hand-tight.",
            ("Water on slowly; joint dry for two minutes.", 2),
            "New lamp in with gloves; power; days set back to 0.",
            "While it was dark water passed: disinfect, or boil until it is done.",
        ),
    ),
    Template(
        id="media",
        title="Top up the media: {name}",
        purpose="change",
        kinds=("neutraliser",),
        parts=("media",),
        tools=("media, one bag", "funnel", "pH meter", "dust mask"),
        caution="Dust: mask on. Bypass and pressure off before the tank is opened.",
        lines=(
            "pH behind it, before.",
            "Bypass; pressure let off.",
            "Level seen or felt; written down.",
            "Media in through the funnel to the mark; thread wiped.",
            "Closed; filled slowly; rinsed by hand until clear.",
            "pH behind it, after some hours.",
        ),
    ),
    Template(
        id="resin",
        title="Clean the resin: {name}",
        purpose="change",
        kinds=("softener", "tannin", "mixed_bed"),
        parts=("resin", "media", "service"),
        tools=("resin cleaner", "drop kit"),
        caution=(
            "Never cleaner and bleach together. The house drinks nothing until it is rinsed out."
        ),
        lines=(
            "Hardness behind it, before.",
            "Salt bridge broken, brine well seen.",
            "Cleaner into the brine well, as much as its label says.",
            "Renewal by hand, to its end.",
            "A second one where it was brown.",
            "Hardness behind it, after.",
        ),
    ),
    Template(
        id="tap_set",
        title="Change filters and membrane: {name}",
        purpose="change",
        kinds=("membrane",),
        parts=("membrane", "filter", "sanitising"),
        tools=("filters", "membrane", "grease", "TDS meter", "unscented bleach, a teaspoon"),
        caution="Sanitise as its manual says; never bleach onto the membrane.",
        lines=(
            "Feed and tap by one meter, before.",
            "Feed off, tank shut, tap open until nothing comes.",
            "Housings open, washed, sanitised with the membrane out; rinsed.",
            "Membrane and filters in; every O-ring greased.",
            ("Feed on slowly; joints dry for two minutes.", 2),
            "First tank to the drain, and the second.",
            "Feed and tap by one meter, after.",
        ),
    ),
    Template(
        id="pitcher",
        title="Change the filter: {name}",
        purpose="change",
        kinds=("pitcher",),
        parts=("filter",),
        tools=("the spare",),
        caution="Wash your hands first; do not touch its lower end.",
        lines=(
            "Soak or rinse the new one as its box says.",
            "Pitcher washed.",
            "In, and the first two fillings to the plants.",
            "The day written on it.",
        ),
    ),
    Template(
        id="winter",
        title="Drain for the winter",
        purpose="season",
        tools=("hose", "bucket", "tags"),
        caution="A heater that is drained stays off at the breaker until it is full again.",
        holds=lambda line, home: bool(home.freezing) or home.occupied_days < 250,
        lines=(
            "Pump and heater off at the breaker, tagged.",
            "Pressure off; all taps open, lowest last.",
            "Tank, heater and traps drained.",
            "Bypasses open; housings emptied, cartridges thrown away.",
            "UV: lamp off, chamber drained. Membrane out, damp, kept from frost.",
            "Brine and resin kept from frost, or as the manual says.",
        ),
    ),
    Template(
        id="spring",
        title="Start in the spring",
        purpose="season",
        tools=("cartridges", "lamp where its days are used", "chlorine strips"),
        caution=BLEACH,
        holds=lambda line, home: bool(home.freezing) or home.occupied_days < 250,
        lines=(
            "Traps, drains and housings closed; cartridges new.",
            "Pump on, fill slowly, air out at every tap; heater only when full.",
            "{ml} mL of bleach for {litres} L, as in Disinfect the plumbing.",
            ("Stand {hours} hours, then flush until the strip shows 0.", CONTACT_H * 60),
            "Lamp on; valves set to the day and the hour.",
            "Coliform bottle after some days of use.",
        ),
    ),
    Template(
        id="low_yield",
        title="Keep rinses within a weak well",
        purpose="season",
        tools=("the settings of this job",),
        caution="A pump that runs dry burns.",
        holds=lambda line, home: bool(home.low_yield) and _house(line, home),
        lines=(
            "Rinses at different nights, not one after the other.",
            "Longest interval that the load allows; written on the valve.",
            "No rinse by hand after washing day.",
        ),
    ),
)


def _made(t: Template, about: About, key: str) -> Sheet:
    blanks = about.blanks()
    steps = []
    for x in t.lines:
        text, wait = x if isinstance(x, tuple) else (x, 0.0)
        steps.append(SheetStep(text=text.format_map(blanks), wait_min=wait))
    return Sheet(
        key=key,
        title=t.title.format_map(blanks),
        purpose=t.purpose,
        tools=tuple(x.format_map(blanks) for x in t.tools),
        caution=t.caution,
        steps=tuple(steps),
        source=t.source,
        year=t.year,
        parts=t.parts,
    )


def sheets(line: LineReport, home: Home, plumbing: Plumbing) -> tuple[Sheet, ...]:
    """The steps for a line at a home, in the order of the work; what applies to nothing is left
    out.
    """
    out: list[Sheet] = []
    for t in LIBRARY:
        if not t.holds(line, home):
            continue
        if not t.kinds:
            out.append(_made(t, About(line=line, home=home, plumbing=plumbing), t.id))
            continue
        for n, s in enumerate(line.stages):
            if s.kind in t.kinds and _fits(t, s, line):
                about = About(line=line, home=home, plumbing=plumbing, stage=s)
                out.append(_made(t, about, f"{t.id}:{n}:{s.code}"))
    return tuple(out)


#: at a drinking tap with a membrane these are part of its own sheets
_WITH_THE_MEMBRANE = frozenset({"cartridge", "carbon_start"})


def _fits(t: Template, s: StageReport, line: LineReport) -> bool:
    """A change of parts is written only for a stage that has such parts, and once at a tap."""
    membrane = any(x.kind == "membrane" and x.scope == "tap" for x in line.stages)
    if s.scope == "tap" and membrane and t.id in _WITH_THE_MEMBRANE:
        return False
    return t.purpose != "change" or any(d.kind in t.parts for d in s.dues)

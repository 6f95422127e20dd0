"""Sheets for fitting and first use, one a technology or one for the whole line."""

from __future__ import annotations

from ..treating.stages import does, service_of
from .templates import (
    About,
    Step,
    Template,
    contact_min,
    has_a_well,
    house,
    in_a_housing,
    with_parts,
)

BLEACH = (
    "Gloves, goggles, window open. Plain bleach, never with another cleaner. Carbon, membranes and"
    " resin on bypass. Not into a septic system or a stream."
)


def _drains(a: About) -> bool:
    return any(s.drains for s in a.line.stages)


def _bed_of_calcite(a: About) -> bool:
    """Not a feed of soda ash, which a stage that raises the pH says of itself."""
    return a.stage is not None and "raises pH" in does(a.stage.kind) and a.stage.summary != "feed"


def _rinses(a: About) -> bool:
    return a.stage is not None and ("exchanges" in does(a.stage.kind) or bool(a.stage.drains))


def _for_the_house(a: About) -> bool:
    return a.stage is None or a.stage.scope == "house"


def _at_the_tap(a: About) -> bool:
    return not _for_the_house(a)


def _disinfected(a: About) -> bool:
    return any(s.scope == "house" and service_of(s.kind).after_bleach for s in a.line.stages)


def _metal(a: About) -> bool:
    return a.may_be_metal


def _pumped(a: About) -> bool:
    return a.home.well


FITTING: tuple[Template, ...] = (
    Template(
        id="pipe",
        title="Open the pipe and fit the line",
        purpose="fit",
        of_stage=False,
        tools=("pipe cutter", "towels", "pressure gauge"),
        caution="Water off and pressure let off before the pipe is cut.",
        metal=(
            "Where metal pipe is cut, the bonding jumper goes on first, by a licensed electrician."
        ),
        when=house,
        lines=(
            "Photograph the place as it is; say where the outdoor tap branches off.",
            "Main off, pressure let off at the lowest tap. Heater off.",
            Step(text="Bonding jumper across the cut, before the cut.", when=_metal),
            "Cut to length; keep clear of what is opened later: lamp, lid, housing.",
            "Stages in their order, each flow arrow with the flow, each with its bypass.",
            Step(
                text="Drain line with an air gap, secured, no longer than the manual allows.",
                when=_drains,
            ),
            Step(text="Water back slowly, a tap open; watch each joint two minutes.", wait_min=2),
            "Pressure and flow as before? Write both down.",
        ),
    ),
    Template(
        id="valve",
        title="Set and start: {name}",
        purpose="fit",
        when=lambda a: _rinses(a) or _bed_of_calcite(a),
        tools=("the settings of this job", "the kit for what it takes out"),
        caution="A stuck valve can hold the pump on: stay until the first rinse has ended.",
        lines=(
            "Fill slowly from below, bypass half open, until no air comes.",
            "Dial: {settings}.",
            Step(text="Time of day. No two stages rinse at one hour.", when=_rinses),
            "Salt or media in, where it takes any; water line above the grid.",
            Step(text="First rinse by hand, to {place}, until it runs clear.", when=_rinses),
            "Bypass closed, a tap run for two minutes.",
            "Test behind it. Write it down as a reading of this job.",
        ),
    ),
    Template(
        id="carbon_start",
        title="Rinse the carbon: {name}",
        purpose="fit",
        when=with_parts("media"),
        rinses=("media",),
        tools=("bucket", "chlorine kit"),
        caution="Behind carbon there is no disinfectant left: keep what is behind it clean.",
        lines=(
            "Soak it where the manual says so.",
            "Flush {flush} gal to {place}, until no black fines come.",
            "Test for chlorine behind it.",
        ),
    ),
    Template(
        id="bed_start",
        title="Rinse the bed: {name}",
        purpose="fit",
        when=with_parts("media"),
        rinses=("media",),
        tools=("bucket", "bottle of the laboratory"),
        caution="Nobody drinks from it before it is rinsed and tested.",
        lines=(
            "Fill slowly from below, until no air comes.",
            "Soak it where the manual says so.",
            "Flush {flush} gal to {place}, until it runs clear.",
            "Test behind it: what it was bought for. A laboratory’s bottle for arsenic.",
        ),
    ),
    Template(
        id="housing_start",
        title="Fit the cartridge: {name}",
        purpose="fit",
        when=in_a_housing,
        rinses=("filter",),
        tools=("housing wrench", "food-safe grease", "bucket", "the cartridge"),
        caution="Never pull harder when it drips: let the pressure off and seat the ring anew.",
        lines=(
            "Room below to drop the housing, and a bucket under it.",
            "Flow arrow with the flow; a valve ahead and behind.",
            "Ring wiped, greased, in its groove; cartridge in, wrapping off.",
            Step(text="Hand-tight and a nudge. Water on slowly; watch the joint.", wait_min=2),
            "Air let out by the button, or at the tap.",
            "Flush {flush} gal to {place}.",
            "The day written on the housing.",
        ),
    ),
    Template(
        id="uv_start",
        title="Start the lamp: {name}",
        purpose="fit",
        tools=("clean gloves", "lint-free cloth"),
        caution="Power off before the chamber is opened. Never look at a lit lamp.",
        lines=(
            "Sleeve and lamp in with clean gloves, no fingers on the glass.",
            "Clear height above the chamber to draw the lamp again.",
            "Water on slowly; joint dry for two minutes, then power.",
            Step(
                text="The whole plumbing is disinfected before it counts: see its steps.",
                when=_for_the_house,
            ),
            Step(text="Line and tap behind it disinfected, as its manual says.", when=_at_the_tap),
            "Alarm tried by the button; lamp’s day written on the chamber.",
        ),
    ),
    Template(
        id="membrane_start",
        title="Fit at the tap: {name}",
        purpose="fit",
        tools=("drill and bit for the tap", "plastic line", "TDS meter", "food-safe grease"),
        caution=(
            "No copper line behind a membrane. Drain connection with an air gap, to local code."
        ),
        lines=(
            "Cold line tapped, shut-off reached by hand.",
            "Tank’s pre-charge with the tank empty, as the manual says.",
            "O-rings cleaned, greased, seated; housings hand-tight and a nudge.",
            Step(text="Water on slowly; every joint dry for two minutes.", wait_min=2),
            "First tank to the drain, and the second.",
            "Seconds to fill a glass; feed and tap by one meter.",
        ),
    ),
    Template(
        id="fibre_start",
        title="Start: {name}",
        purpose="fit",
        rinses=("membrane",),
        tools=("bucket",),
        caution="Fibers break when they freeze or dry out.",
        lines=(
            "Screen ahead of it in place.",
            "Fill slowly, air out, rinse {flush} gal to {place}.",
            "First rinse backwards by hand, clear at its end.",
            "Its own test of the fibers, as the manual says.",
        ),
    ),
    Template(
        id="air_start",
        title="Start: {name}",
        purpose="fit",
        tools=("vent pipe", "pressure gauge", "bottles of the laboratory"),
        caution=(
            "Radon leaves with its air: never into the house, a garage or under a window. Fitted by"
            " a specialist; blower and pump by a licensed electrician."
        ),
        lines=(
            "Vent to the outside air, above the roof’s edge, before water enters.",
            "Float, overflow and drain with an air gap; lid tight.",
            "Blower first, then water: it runs whenever water runs.",
            "Pump behind it set to the house’s pressure.",
            "Tank and plumbing disinfected: see its steps.",
            "A bottle behind it after some days, and the indoor air again.",
        ),
    ),
    Template(
        id="feed_start",
        title="Start: {name}",
        purpose="fit",
        tools=(
            "plain bleach {pct} %",
            "soft water",
            "chlorine kit",
            "goggles",
            "gloves",
        ),
        caution=(
            "Goggles, gloves, window open. Plain bleach, never with another cleaner or an acid."
            " Wiring by a licensed electrician."
        ),
        lines=(
            "Injection ahead of the contact tank, check valve with its arrow.",
            "Solution mixed as its manual says, lid on; strength and day on the tank.",
            "Stroke and speed: {settings}.",
            Step(text="It runs with the well’s pump and with nothing else: try it.", when=_pumped),
            "Free chlorine behind the contact tank, once its time has passed.",
            "Behind the carbon: none. Both written down as readings of this job.",
            "Level of the solution written down: it tells what is fed.",
        ),
    ),
    Template(
        id="dose_start",
        title="Start: {name}",
        purpose="fit",
        when=lambda a: not _bed_of_calcite(a),
        tools=("pH meter", "soft water", "dust mask", "goggles"),
        caution="Dust: mask and goggles. Wiring by a licensed electrician.",
        lines=(
            "Injection with its check valve, ahead of a tank or a length where it mixes.",
            "Solution mixed as its manual says, lid on; strength and day on the tank.",
            Step(text="It runs with the well’s pump and with nothing else: try it.", when=_pumped),
            "pH behind it by meter, after ten minutes of running; stroke set by it.",
            "pH again at the far tap. Written down as a reading of this job.",
            "Level of the solution written down: it tells what is fed.",
        ),
    ),
    Template(
        id="still_start",
        title="Set it up: {name}",
        purpose="fit",
        tools=("TDS meter", "clean carboy"),
        caution="Steam and a hot boiler: out of children’s reach, opened when it is cold.",
        lines=(
            "On a firm place that bears heat, air around it, an outlet of its own.",
            "Boiler rinsed; filter at its spout soaked and in.",
            "One batch run and poured away.",
            "Feed and distillate by one meter.",
            "What stays in the boiler is poured off after every batch.",
        ),
    ),
    Template(
        id="physical_start",
        title="Fit: {name}",
        purpose="fit",
        tools=("the hardness kit",),
        caution="Hardness stays as it is; whether it does anything else is disputed.",
        lines=(
            "Where its manual says: kind of pipe, direction, away from motors.",
            "Hardness ahead and behind, both written down.",
            "A kettle or an element photographed: the only thing to hold it against.",
        ),
    ),
    Template(
        id="regulator_start",
        title="Set the pressure: {name}",
        purpose="fit",
        tools=("pressure gauge",),
        caution="A closed system needs room for what the heater expands.",
        lines=(
            "Gauge behind it; no water drawn.",
            "Set: {settings}. Then with a tap open.",
            "Heater run up: its relief valve stays dry.",
        ),
    ),
    Template(
        id="expansion_start",
        title="Charge: {name}",
        purpose="fit",
        tools=("pressure gauge", "hand pump"),
        caution="Pressure let off before the tank’s air is measured.",
        lines=(
            "Its air charged to the house’s pressure, the tank empty.",
            "Held by its own bracket, where it can be changed.",
            "Heater run up: its relief valve stays dry.",
        ),
    ),
    Template(
        id="booster_start",
        title="Fit: {name}",
        purpose="fit",
        tools=("pressure gauge",),
        caution="An outlet with protection against ground faults; keep its plug dry.",
        lines=(
            "Ahead of the membrane, its arrow with the flow.",
            "It stops when the tank is full: draw a glass, wait, listen.",
            "Pressure at the membrane while it runs, written down.",
        ),
    ),
    Template(
        id="raw_line_start",
        title="Fit: {name}",
        purpose="fit",
        tools=("hardness test",),
        caution="No cross connection: the raw line meets the treated pipe nowhere behind its tee.",
        lines=(
            "A tee ahead of everything that treats the house, a shut-off valve behind it.",
            "The line to the kitchen cold tap alone; the dishwasher and the hot tap stay treated.",
            "Label the tap: untreated water.",
            "Hardness at the kitchen cold tap and at the bath: raw there, soft here.",
        ),
    ),
    Template(
        id="pitcher_start",
        title="Assemble: {name}",
        purpose="fit",
        rinses=("filter",),
        tools=("the filter", "clean cloth"),
        caution="Wash your hands first; do not touch the filter’s lower end.",
        lines=(
            "Wash what water touches; rinse it.",
            "Soak or rinse the filter as its box says.",
            "Pressed home, so that nothing runs past its rim.",
            "First {flush} gal to the plants.",
            "The day written on it; the day of the next beside it.",
        ),
    ),
    Template(
        id="disinfect",
        title="Disinfect the plumbing",
        purpose="disinfect",
        of_stage=False,
        tools=(
            "plain bleach {pct} %",
            "chlorine strips to {dose} mg/L",
            "gloves",
            "goggles",
        ),
        caution=BLEACH,
        when=_disinfected,
        source="IPC 610.1, UPC 609.9; AWWA C652 where it applies",
        year=2021,
        lines=(
            "Carbon, membranes, resin on bypass or taken out; aerators off.",
            Step(
                text="{well_ml} mL of bleach into the well, in a bucket of water; run back by hose"
                " down the casing until it smells.",
                when=has_a_well,
            ),
            "{house_ml} mL of bleach for {house_litres} L, into the empty sediment housing.",
            "Every tap, hot and cold, until it smells; strip at {dose} mg/L.",
            Step(text="Stand {hours} hours. Nobody drinks or washes.", wait_min=contact_min),
            "Flush by hose to the yard until the strip shows 0; then every tap.",
            "Cartridges new, lamp on, bypasses back.",
            "Coliform bottle when chlorine is gone and after some days of use.",
        ),
    ),
)

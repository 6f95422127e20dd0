"""Sheets for what falls due: parts, media, resin, and the seasons."""

from __future__ import annotations

from .disinfecting import CONTACT_H
from .fitting import BLEACH
from .templates import About, Step, Template, house, not_in_a_set


def _left_alone(a: About) -> bool:
    return bool(a.home.freezing) or a.home.occupied_days < 250


KEEPING: tuple[Template, ...] = (
    Template(
        id="cartridge",
        title="Change the cartridge: {name}",
        purpose="change",
        kinds=("sediment", "carbon", "cartridge", "salt_free", "polish", "physical"),
        parts=("filter", "part"),
        when=not_in_a_set,
        tools=("housing wrench", "food-safe grease", "bucket"),
        caution="Let the pressure off before the wrench. Never pull harder when it drips: seat it.",
        lines=(
            "Spare is the right one: size and rating.",
            "Water off, bypass open.",
            "Pressure let off at a tap.",
            "Housing open, old cartridge out, housing washed.",
            "Ring wiped, greased, in its groove; new cartridge in.",
            Step(text="Hand-tight and a nudge. Water back slowly; watch the joint.", wait_min=2),
            "Air let out by the button, or at the tap.",
            "Flush {flush} gal to {place}.",
        ),
    ),
    Template(
        id="lamp",
        title="Change the lamp: {name}",
        purpose="change",
        kinds=("uv",),
        parts=("lamp", "part"),
        tools=("ring", "clean gloves", "white vinegar"),
        caution="Power off and the lamp cold. No bare fingers on the glass, no eyes on a lit lamp.",
        lines=(
            "Power off, plug out; five minutes to cool.",
            "Water off, pressure let off.",
            "Lamp out; sleeve out, cleaned with vinegar, rinsed.",
            "New ring, sleeve in, hand-tight.",
            Step(text="Water on slowly; joint dry for two minutes.", wait_min=2),
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
        tools=("media{top_up}", "funnel", "pH meter", "dust mask"),
        caution="Dust: mask on. Bypass and pressure off before the tank is opened.",
        lines=(
            "pH behind it, before.",
            "Bypass; pressure let off.",
            "Level seen or felt; written down.",
            "Media in through the funnel to the mark{top_up}; thread wiped.",
            "Closed; filled slowly; rinsed by hand until clear.",
            "pH behind it, after some hours.",
        ),
    ),
    Template(
        id="rebed",
        title="Change the bed: {name}",
        purpose="change",
        kinds=(
            "carbon",
            "arsenic",
            "salt_free",
            "iron_filter",
            "sediment",
            "softener",
            "tannin",
            "mixed_bed",
            "nitrate",
        ),
        parts=("media", "resin"),
        tools=("the media, weighed", "funnel", "siphon or vacuum", "dust mask", "food-safe grease"),
        caution=(
            "A full tank is heavy: two people. Dust: mask on. Media that took out arsenic, radium"
            " or uranium goes where local rules send it."
        ),
        lines=(
            "Test behind it, before.",
            "Bypass; pressure let off; water out by the drain line.",
            "Valve off, riser capped; old media out and bagged.",
            "Screen at the riser’s foot sound; gravel, then media, riser kept in the middle.",
            "Ring greased, valve on; filled slowly from below.",
            "Rinsed to {place} until clear, at least {flush} gal.",
            "Test behind it, after.",
        ),
    ),
    Template(
        id="resin",
        title="Clean the resin: {name}",
        purpose="change",
        kinds=("softener", "tannin", "mixed_bed", "nitrate"),
        tools=("resin cleaner", "the kit for what it takes out"),
        caution=(
            "Never cleaner and bleach together. The house drinks nothing until it is rinsed out."
        ),
        lines=(
            "Test behind it, before.",
            "Salt bridge broken, brine well seen.",
            "Cleaner into the brine well, as much as its label says.",
            "Renewal by hand, to its end.",
            "A second one where it was brown.",
            "Test behind it, after.",
        ),
    ),
    Template(
        id="fibres",
        title="Clean or change the fibres: {name}",
        purpose="change",
        kinds=("ultrafiltration",),
        parts=("membrane", "service"),
        tools=("the cleaner of its manual", "bucket", "food-safe grease"),
        caution="Only the cleaner that its manual names, never two. Fibres stay wet.",
        lines=(
            "Flow and pressure ahead and behind, before.",
            "Bypass; pressure let off.",
            "Cleaner in and left as its manual says; or the module changed.",
            "Rings greased; filled slowly, air out.",
            "Flush {flush} gal to {place}.",
            "Its own test of the fibres; flow and pressure, after.",
        ),
    ),
    Template(
        id="tap_set",
        title="Change filters and membrane: {name}",
        purpose="change",
        kinds=("membrane",),
        parts=("membrane", "filter", "sanitising"),
        tools=("filters", "grease", "TDS meter", "unscented bleach, a teaspoon"),
        caution="Sanitise as its manual says; never bleach onto the membrane.",
        lines=(
            "Feed and tap by one meter, before.",
            "Feed off, tank shut, tap open until nothing comes.",
            "Housings open, washed, sanitised with the membrane out; rinsed.",
            "Membrane and filters in; every O-ring greased.",
            Step(text="Feed on slowly; joints dry for two minutes.", wait_min=2),
            "First tank to the drain, and the second.",
            "Feed and tap by one meter, after.",
        ),
    ),
    Template(
        id="still",
        title="Clean: {name}",
        purpose="change",
        kinds=("distiller",),
        parts=("filter", "service"),
        tools=("the acid its manual names", "TDS meter"),
        caution="Plug out, boiler cold. Acid and bleach never meet.",
        lines=(
            "What is left in the boiler poured off.",
            "Scale dissolved as its manual says; rinsed twice.",
            "New filter soaked and in, where it is due.",
            "One batch run and poured away.",
            "Feed and distillate by one meter.",
        ),
    ),
    Template(
        id="pitcher",
        title="Change the filter: {name}",
        purpose="change",
        kinds=("pitcher",),
        parts=("filter",),
        tools=("clean cloth",),
        caution="Wash your hands first; do not touch its lower end.",
        lines=(
            "Soak or rinse the new one as its box says.",
            "What holds it washed.",
            "In; the first {flush} gal to the plants.",
            "The day written on it.",
        ),
    ),
    Template(
        id="winter",
        title="Drain for the winter",
        purpose="season",
        tools=("hose", "bucket", "tags"),
        caution="A heater that is drained stays off at the breaker until it is full again.",
        when=_left_alone,
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
        when=_left_alone,
        lines=(
            "Traps, drains and housings closed; cartridges new.",
            "Pump on, fill slowly, air out at every tap; heater only when full.",
            "{ml} mL of bleach for {litres} L, as in Disinfect the plumbing.",
            Step(
                text="Stand {hours} hours, then flush until the strip shows 0.",
                wait_min=CONTACT_H * 60,
            ),
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
        when=lambda a: bool(a.home.low_yield) and house(a),
        lines=(
            "Rinses at different nights, not one after the other.",
            "Longest interval that the load allows; written on the valve.",
            "No rinse by hand after washing day.",
        ),
    ),
)

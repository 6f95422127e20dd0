"""What costs nothing, or little, and comes before anything is bought: settings, cleaning, another
test, one jug.
"""

from __future__ import annotations

from ..analytes import ANALYTES, MICROBES
from ..home import SURFACE
from .first_health import HEALTH
from .first_rule import PRACTICE, First
from .looked_at import (
    At,
    acid,
    beyond_a_bed,
    cold_tap_smells,
    good_at_the_tap,
    hard_behind,
    idle_filter,
)

LEAST_UVT = 75.0
"""Transmittance under which a class A lamp of a house is not sold [%]: trade practice (2024), the
lowest of makers' tables."""
MOST_STATIC_PSI = 80.0
"""What a building's pipe may stand under while nothing runs [psi]: IPC 604.8, UPC 608.2 (2021)."""

FIRST: tuple[First, ...] = (
    *HEALTH,
    First(
        id="anode",
        sentence=(
            "Only the hot tap smells, so the cause is in the water heater. Have its anode"
            " checked, and the heater flushed and run hot, before you buy anything for it."
        ),
        source=PRACTICE,
        year=2024,
        holds=lambda at: at.complained("egg_smell_hot") and not cold_tap_smells(at),
    ),
    First(
        id="disinfect_sulfide",
        sentence=(
            "Bacteria often make the smell of eggs in a well. Have the well disinfected and"
            " measure again on the spot: the smell may be gone for a long time."
        ),
        source=PRACTICE,
        year=2024,
        holds=lambda at: at.home.well and cold_tap_smells(at),
    ),
    First(
        id="slime",
        sentence=(
            "Slime with iron points to iron bacteria, which clog beds and resins. Have a"
            " laboratory test for them, and have a licensed person disinfect the well and"
            " plumbing, before you buy a filter."
        ),
        source="US CDC, private wells; trade practice",
        year=2024,
        holds=lambda at: at.complained("slime") and at.over("iron.stains"),
    ),
    First(
        id="beyond_a_bed",
        sentence=(
            "This is more iron or sulfide than a filter bed takes for long. A specialist should"
            " design a feed of chlorine or air, a contact tank, a filter and carbon. First have"
            " the well, its screen and its pump checked, and have a laboratory confirm the"
            " figure."
        ),
        source=PRACTICE,
        year=2024,
        holds=beyond_a_bed,
    ),
    First(
        id="aquarium",
        sentence=(
            "Chlorine and chloramine harm the fish in an aquarium, and a softener changes the"
            " water they live in. A conditioner for the tank costs little; say so before"
            " anything changes."
        ),
        source=PRACTICE,
        year=2024,
        holds=lambda at: at.home.care.aquarium,
    ),
    First(
        id="set_softener",
        sentence=(
            "The softener here lets hard water through. Check its hardness setting and clock,"
            " break up any salt bridge, clean the resin and the injector, and test again. Only"
            " then think of a new one."
        ),
        source=PRACTICE,
        year=2024,
        holds=hard_behind,
    ),
    First(
        id="salty_softener",
        sentence=(
            "Taste the water from the softener next to the water before it. If it is salty,"
            " most of all after it regenerated, the rinse, the injector or a brine valve needs"
            " service. You need no new softener."
        ),
        source=PRACTICE,
        year=2024,
        holds=lambda at: (
            at.complained("taste") and any("softens" in d.of.does for d in at.home.in_place)
        ),
    ),
    First(
        id="change_filter",
        sentence=(
            "The filter here is overdue for replacement, or changes nothing that was measured."
            " Put in a fresh cartridge, flush it and test again: that shows what it is good for."
        ),
        source=PRACTICE,
        year=2024,
        holds=idle_filter,
    ),
    First(
        id="good_at_the_tap",
        sentence=(
            "The filter at the drinking tap already takes out what you taste. Taste a glass"
            " from it next to one from the kitchen tap before you buy another filter."
        ),
        source=PRACTICE,
        year=2024,
        holds=good_at_the_tap,
    ),
    First(
        id="jug",
        sentence=(
            "For a taste or smell of chlorine, leave a jug of water open in the refrigerator"
            " overnight: it costs nothing. Free chlorine goes, and chloramine mostly stays."
        ),
        source=PRACTICE,
        year=2024,
        holds=lambda at: (
            at.complained("bleach_smell", "taste")
            and at.finding("chlorine_free", "chlorine_combined", "chlorine_total") is not None
        ),
    ),
    First(
        id="panel",
        sentence=(
            "Dissolved solids this high can be tasted. Have a laboratory’s panel of minerals"
            " done first: it says which they are, before you choose anything for the taste."
        ),
        source="WHO, guidelines for drinking-water quality",
        year=2017,
        holds=lambda at: (
            any(f.id == "tds.taste" for f in at.meaning.findings)
            and not {"sulfate", "chloride", "sodium"} <= at.water.values.keys()
        ),
    ),
    First(
        id="heater",
        sentence=(
            "Against crust, set the water heater no hotter than 60 °C (140 °F), flush it as its"
            " manual says, and use vinegar in the kettle. Scale forms mostly where water is"
            " heated."
        ),
        source=PRACTICE,
        year=2024,
        holds=lambda at: at.complained("white_crust") and at.finding("hardness") is not None,
    ),
    First(
        id="standing",
        sentence=(
            "If the water is hazy, let a glass stand. Air clears from below within minutes and"
            " needs nothing. What settles or stays needs measuring."
        ),
        source=PRACTICE,
        year=2024,
        holds=lambda at: at.complained("haze"),
    ),
    First(
        id="rusted_haze",
        sentence=(
            "For haze with iron, do the three cups before a filter is chosen: they show whether"
            " it is rusted iron. An iron filter takes rusted iron out, and a sediment filter"
            " soon plugs with it."
        ),
        source=PRACTICE,
        year=2024,
        holds=lambda at: (
            (at.complained("haze") or at.finding("turbidity") is not None)
            and at.over("iron.stains")
            and at.water.cups is None
        ),
    ),
    First(
        id="screens",
        sentence=(
            "For a weak shower, clean the aerators and shower heads, and check the pressure"
            " regulator and any filter that is there."
        ),
        source=PRACTICE,
        year=2024,
        holds=lambda at: at.complained("low_pressure"),
    ),
    First(
        id="pressure",
        sentence="Measure the static and the running pressure before a pump is chosen.",
        source=PRACTICE,
        year=2024,
        holds=lambda at: at.complained("low_pressure") and not at.pressures_known,
    ),
    First(
        id="transmittance",
        sentence=(
            "A UV system is chosen by UV transmittance. Send the laboratory a sample, drawn"
            " where the lamp will be, before you buy one."
        ),
        source="NSF/ANSI 55",
        year=2022,
        holds=lambda at: (
            at.health(*MICROBES)
            and "uvt" not in at.water.values
            and at.home.private
            and not at.home.tenant
        ),
    ),
    First(
        id="clear_first",
        sentence=(
            "Too little light passes through this water for a UV lamp. Clear it first (haze,"
            " iron, then tannin), have the transmittance measured again after that, and choose"
            " the lamp by it. Until then, drink none of it untreated."
        ),
        source="NSF/ANSI 55",
        year=2022,
        holds=lambda at: (
            at.home.private
            and (at.home.source in SURFACE or at.health(*MICROBES))
            and at.surely_under("uvt", LEAST_UVT)
        ),
    ),
    First(
        id="regulator",
        sentence=(
            f"The pressure is more than {MOST_STATIC_PSI:g} psi while nothing runs. Have a licensed"
            " plumber fit a pressure regulator before everything else, with room behind it for the"
            " heater’s water to expand, to local code."
        ),
        source="International Plumbing Code 604.8, UPC 608.2",
        year=2021,
        holds=lambda at: at.static_psi is not None and at.static_psi > MOST_STATIC_PSI,
    ),
    First(
        id="surface_untested",
        sentence=(
            "Lake or cistern water needs a laboratory test of bacteria and UV transmittance"
            " before a system is chosen. Every system for it ends with disinfection, after"
            " something that clears the water."
        ),
        source="US EPA, private drinking water wells and surface sources; NSF/ANSI 55",
        year=2022,
        holds=lambda at: (
            at.home.source in SURFACE
            and not at.health(*MICROBES)
            and not {"coliform", "uvt"} <= at.water.values.keys()
        ),
    ),
    First(
        id="surface_clean",
        sentence=(
            "Lake or cistern water needs disinfection whatever one sample said. Every system"
            " here ends with a UV lamp after fine filtration, chosen by the measured"
            " transmittance."
        ),
        source="US EPA, private drinking water wells and surface sources; NSF/ANSI 55",
        year=2022,
        holds=lambda at: (
            at.home.source in SURFACE
            and not at.health(*MICROBES)
            and {"coliform", "uvt"} <= at.water.values.keys()
        ),
    ),
    First(
        id="manganese",
        sentence=(
            "Iron often brings manganese, which needs another pH. Test for it before a filter"
            " is chosen."
        ),
        source=PRACTICE,
        year=2024,
        holds=lambda at: (
            at.home.private and at.over("iron.stains") and "manganese" not in at.water.values
        ),
    ),
    First(
        id="copper",
        sentence=(
            "Acid water dissolves metal pipes. Test a first draw for copper and lead now, and"
            " again some weeks after the pH is corrected, to see what that did."
        ),
        source="US EPA, lead and copper rule",
        year=1991,
        holds=lambda at: acid(at) and "copper" not in at.water.values,
    ),
    First(
        id="utility_ph",
        sentence=(
            "This acid water comes from a town main, and the supply answers for its pH. Ask for"
            " its report, and tell it what was measured, before you buy anything."
        ),
        source="US EPA, lead and copper rule",
        year=1991,
        holds=lambda at: acid(at) and not at.home.private,
    ),
)


def first_steps(at: At) -> tuple[str, ...]:
    """What to do before anything is bought: health first, and what looks for the cause of a
    complaint that nothing explains yet.
    """
    words = {c.id: c.words for c in at.complaints}
    open_ones = tuple(
        f"“{words.get(u.complaint, u.complaint)}” is not explained yet. The next test: {u.next}."
        for u in at.meaning.unexplained
    )
    untested = tuple(
        f"Less {ANALYTES[w.analyte].said} is wanted, but it is not tested yet:"
        f" {ANALYTES[w.analyte].test}."
        for w in at.home.wishes
        if w.analyte not in at.water.values
    )
    return tuple(f.sentence for f in FIRST if f.holds(at)) + open_ones + untested

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
            "Only the hot tap smells: have the water heater’s anode looked at, and the heater"
            " flushed and run hot, before anything is bought for it."
        ),
        source=PRACTICE,
        year=2024,
        holds=lambda at: at.complained("egg_smell_hot") and not cold_tap_smells(at),
    ),
    First(
        id="disinfect_sulfide",
        sentence=(
            "Smell of eggs in a well: have the well disinfected and measure again on the spot;"
            " bacteria make much of it, and then it may be gone for a long time."
        ),
        source=PRACTICE,
        year=2024,
        holds=lambda at: at.home.well and cold_tap_smells(at),
    ),
    First(
        id="slime",
        sentence=(
            "Slime with iron: iron bacteria are likely. The laboratory’s test for them, and well"
            " and plumbing disinfected by a licensed person, come before any bed or resin: they"
            " clog both."
        ),
        source="US CDC, private wells; trade practice",
        year=2024,
        holds=lambda at: at.complained("slime") and at.over("iron.stains"),
    ),
    First(
        id="beyond_a_bed",
        sentence=(
            "More iron or sulfide than a filter bed takes for long: chlorine or air fed ahead of a"
            " contact tank, with a filter and carbon behind it, designed by a specialist. Well,"
            " screen and pump are looked at first, and the figure is confirmed by a laboratory."
        ),
        source=PRACTICE,
        year=2024,
        holds=beyond_a_bed,
    ),
    First(
        id="aquarium",
        sentence=(
            "An aquarium: chlorine and chloramine harm fish, and a softener changes what they live"
            " in. The tank’s own conditioner costs little; say so before anything changes."
        ),
        source=PRACTICE,
        year=2024,
        holds=lambda at: at.home.care.aquarium,
    ),
    First(
        id="set_softener",
        sentence=(
            "The softener that stands here lets hard water through: its hardness setting and"
            " clock, salt without a bridge, a cleaned resin and injector, then measure again."
            " Only then a new one."
        ),
        source=PRACTICE,
        year=2024,
        holds=hard_behind,
    ),
    First(
        id="salty_softener",
        sentence=(
            "A taste behind a softener: taste the water ahead of it beside it. Salt there, most of"
            " all after it regenerated, is its rinse, its injector or a brine valve that sticks:"
            " service, nothing new."
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
            "The filter that stands here is overdue for replacement, or changes nothing that was"
            " measured: a fresh cartridge, flushed, and the same tests again show what it is good"
            " for."
        ),
        source=PRACTICE,
        year=2024,
        holds=idle_filter,
    ),
    First(
        id="good_at_the_tap",
        sentence=(
            "What stands at the drinking tap takes out what is tasted: a glass from it beside one"
            " from the tap, tasted, before another filter is bought."
        ),
        source=PRACTICE,
        year=2024,
        holds=good_at_the_tap,
    ),
    First(
        id="jug",
        sentence=(
            "Taste or smell of chlorine: a jug left open in the refrigerator overnight costs"
            " nothing; free chlorine goes, chloramine mostly stays."
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
            "Dissolved solids this high can be tasted: a laboratory’s panel of minerals says which,"
            " before anything is chosen for it."
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
            "Crust: the water heater no hotter than 60 °C, flushed as its hardness asks, and"
            " vinegar in the kettle cost nothing; scale forms mostly where water is heated."
        ),
        source=PRACTICE,
        year=2024,
        holds=lambda at: at.complained("white_crust") and at.finding("hardness") is not None,
    ),
    First(
        id="standing",
        sentence=(
            "Haze: let a glass stand. Air clears from below within minutes, and asks for nothing;"
            " what settles or stays is measured."
        ),
        source=PRACTICE,
        year=2024,
        holds=lambda at: at.complained("haze"),
    ),
    First(
        id="rusted_haze",
        sentence=(
            "Haze with iron: the three cups say whether it is rusted iron, before a filter is"
            " chosen for either; an iron filter takes rusted iron out, and a sediment filter soon"
            " plugs with it."
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
            "A weak shower: clean aerators and shower heads, look at the pressure regulator and"
            " any filter that stands there."
        ),
        source=PRACTICE,
        year=2024,
        holds=lambda at: at.complained("low_pressure"),
    ),
    First(
        id="pressure",
        sentence="Measure the static and the running pressure, before a pump is chosen for it.",
        source=PRACTICE,
        year=2024,
        holds=lambda at: at.complained("low_pressure") and not at.pressures_known,
    ),
    First(
        id="transmittance",
        sentence=(
            "A lamp is chosen by UV transmittance: a sample to the laboratory, drawn where the"
            " lamp will be, before one is sold."
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
            "Too little light passes this water for a lamp: clear it first (haze, iron, then"
            " tannin), have the transmittance measured again behind that, and choose the lamp by"
            " it. Until then nothing untreated is drunk."
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
            f"More than {MOST_STATIC_PSI:g} psi while nothing runs: a pressure regulator ahead of"
            " everything, and room for the heater’s water to expand behind it, before anything is"
            " fitted. A licensed plumber, to local code."
        ),
        source="International Plumbing Code 604.8, UPC 608.2",
        year=2021,
        holds=lambda at: at.static_psi is not None and at.static_psi > MOST_STATIC_PSI,
    ),
    First(
        id="surface_untested",
        sentence=(
            "Lake or cistern water: bacteria and UV transmittance to a laboratory before a line is"
            " chosen. Every line here wants disinfection at its end, and what clears the water"
            " ahead of it."
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
            "Lake or cistern water wants disinfection whatever one sample said: a lamp, by the"
            " transmittance that was measured, behind fine filtration, ends every line here."
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
        sentence="Iron brings manganese: test it before a filter is chosen; it wants another pH.",
        source=PRACTICE,
        year=2024,
        holds=lambda at: (
            at.home.private and at.over("iron.stains") and "manganese" not in at.water.values
        ),
    ),
    First(
        id="copper",
        sentence=(
            "Acid water: a first draw for copper and lead now, and again some weeks after the pH"
            " was corrected, shows what the correction did."
        ),
        source="US EPA, lead and copper rule",
        year=1991,
        holds=lambda at: acid(at) and "copper" not in at.water.values,
    ),
    First(
        id="utility_ph",
        sentence=(
            "Acid water from a town main: the supply answers for its pH; ask for its report, and"
            " tell it what was measured, before anything is bought."
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
        f"“{words.get(u.complaint, u.complaint)}” is not explained yet: next, {u.next}."
        for u in at.meaning.unexplained
    )
    untested = tuple(
        f"They wish less {ANALYTES[w.analyte].said}: it is not tested; {ANALYTES[w.analyte].test}."
        for w in at.home.wishes
        if w.analyte not in at.water.values
    )
    return tuple(f.sentence for f in FIRST if f.holds(at)) + open_ones + untested

"""What comes before anything is bought where something of health was found."""

from __future__ import annotations

from ..analytes import ANALYTES, MICROBES, Kind, until_then
from ..home import SURFACE
from ..rules import NITRATE_NEAR
from ..testing.finding import Weight
from ..treating.walking import FROM_PLUMBING
from .first_rule import PRACTICE, First
from .looked_at import acid, astride, at_limit, brackish, kit_says_health, radon_with_the_air

#: what a town's supply brings, and answers for; lead and copper come from the pipes
SUPPLY_ANSWERS = frozenset(
    a.id for a in ANALYTES.values() if a.kind is Kind.HEALTH and a.id not in FROM_PLUMBING
) - {"radon"}

HEALTH: tuple[First, ...] = (
    First(
        id="service_line",
        sentence=(
            "The supply’s line to this house is of lead, or of galvanized steel, which holds lead."
            " Ask the utility to replace it: no filter makes up for that. Until then drink from a"
            " filter certified for lead (NSF/ANSI 53 or 58), and run the cold tap for five minutes"
            " after the water has stood. Boiling does not take lead out."
        ),
        source="US EPA, lead and copper rule improvements",
        year=2024,
        holds=lambda at: at.home.lead_line is True,
    ),
    First(
        id="first_draw",
        sentence=(
            "Have a certified laboratory test a first draw for lead: the first liter from the cold"
            " kitchen tap, after six hours of standing."
        ),
        source="US EPA, lead and copper rule improvements",
        year=2024,
        holds=lambda at: at.home.lead_line is True and "lead" not in at.water.values,
    ),
    First(
        id="way_in",
        sentence=(
            "Bacteria were found. First look for the way in: cap, casing, seal or a dead end of"
            " pipe. Have a licensed person get the well and plumbing disinfected, and test again"
            " some days after the chlorine is gone. Treatment is for what comes back."
        ),
        source="US CDC, private ground water wells",
        year=2024,
        holds=lambda at: at.home.well and at.health(*MICROBES),
    ),
    First(
        id="flood",
        sentence=(
            "The well stood under water: do not drink from it untreated. Have a licensed person"
            " check its cap, casing and wiring and disinfect it. Have a laboratory test for"
            " coliform bacteria some days after the chlorine is gone, and again some weeks"
            " later."
        ),
        source="US CDC and US EPA, what to do with your private well after a flood",
        year=2023,
        holds=lambda at: at.home.well and at.complained("flood"),
    ),
    First(
        id="bloom",
        sentence=(
            "The lake is in a bloom: drink bottled water. Neither boiling nor UV helps against"
            " its toxins. Ask the health authority, and have a laboratory test for cyanotoxins,"
            " before anything is chosen."
        ),
        source="US EPA, cyanotoxin management in drinking water",
        year=2019,
        holds=lambda at: at.home.source in SURFACE and at.complained("bloom"),
    ),
    First(
        id="turbid_well",
        sentence=(
            "A cloudy well may be drawing surface water. Have a certified laboratory test for"
            " coliform bacteria before anything clears the water, and have the cap, the casing"
            " and the ground around them checked. Until then, drink bottled water."
        ),
        source="US CDC, drinking water from private wells",
        year=2024,
        holds=lambda at: (
            at.home.well
            and at.surely("turbidity", 1.0)
            and not set(MICROBES) & at.water.values.keys()
        ),
    ),
    First(
        id="utility_microbes",
        sentence=(
            "Bacteria were found in town water. Call the supply and the health authority today,"
            " and have a second sample drawn. The supply answers for it; buy nothing against it"
            " before it has."
        ),
        source="US EPA, revised total coliform rule",
        year=2013,
        holds=lambda at: not at.home.private and at.health(*MICROBES),
    ),
    First(
        id="utility_health",
        sentence=(
            "This town water is over a health limit. Tell the utility and the health authority"
            " what the laboratory found, and have a second sample confirm it. The utility answers"
            " for its water; buy nothing against it before it has."
        ),
        source="US EPA, public notification rule, 40 CFR 141 subpart Q",
        year=2000,
        holds=lambda at: (
            not at.home.private and at.health(*(a for a in SUPPLY_ANSWERS if a not in MICROBES))
        ),
    ),
    First(
        id="surface",
        sentence=(
            "Surface water always carries microbes: do not drink it untreated. Have a licensed"
            " person get all plumbing disinfected before treatment is started, and have the"
            " laboratory test again after it."
        ),
        source="US EPA, surface water treatment rules",
        year=1989,
        holds=lambda at: at.home.private and not at.home.well and at.health(*MICROBES),
    ),
    First(
        id="indoor_air",
        sentence=(
            "Radon was found. Test the indoor air before anything is bought: most radon in air"
            " comes from the ground, and the water’s share is judged with it."
        ),
        source="US EPA, a citizen’s guide to radon",
        year=2016,
        holds=lambda at: at.health("radon") and radon_with_the_air(at.water),
    ),
    First(
        id="indoor_air_too",
        sentence=(
            "Radon was found. Test the indoor air as well: most radon in air comes from the"
            " ground, and treating the water does nothing about that part."
        ),
        source="US EPA, a citizen’s guide to radon",
        year=2016,
        holds=lambda at: at.health("radon") and not radon_with_the_air(at.water),
    ),
    First(
        id="flush",
        sentence=(
            "Lead and copper come from the pipe and the tap. Run the cold tap until it is colder"
            " before you drink, and look at what the tap and the pipe are made of."
        ),
        source="US EPA, basic information about lead in drinking water",
        year=2024,
        holds=lambda at: at.health("lead", "copper"),
    ),
    First(
        id="flushed_draw",
        sentence=(
            "This was a first draw. Send a flushed sample from the same tap to the laboratory: the"
            " difference shows how much the pipes add."
        ),
        source="US EPA, basic information about lead in drinking water",
        year=2024,
        holds=lambda at: at.health("lead", "copper") and "copper_flushed" not in at.water.values,
    ),
    First(
        id="service_line_unknown",
        sentence=(
            "Nobody knows what the supply’s line to the house is made of. Look where it enters"
            " and scratch it with a coin. Lead is soft and shines like silver, copper shows its"
            " color, and a magnet holds on galvanized steel. The utility keeps a record of it:"
            " ask."
        ),
        source="US EPA, protect your tap: a quick check for lead",
        year=2023,
        holds=lambda at: (
            not at.home.private
            and at.home.lead_line is None
            and (at.health("lead") or at.home.care.infant or at.home.care.pregnancy)
        ),
    ),
    First(
        id="owner",
        sentence=(
            "This home is rented: the owner answers for the well, the pipes and what is fitted"
            " to them. Tell the owner in writing what was measured. Have nothing plumbed without"
            " the owner’s word."
        ),
        source=PRACTICE,
        year=2024,
        holds=lambda at: (
            at.home.tenant
            and (acid(at) or any(f.weight is Weight.HEALTH for f in at.meaning.findings))
        ),
    ),
    First(
        id="brackish",
        sentence=(
            "Sodium, chloride and dissolved solids are high together, as in sea water. Sea"
            " water, old brine in the rock, road salt or a softener’s drain may reach this well."
            " Ask the laboratory for bromide, which tells them apart, before anything is bought"
            " for the taste."
        ),
        source="US Geological Survey, chloride to bromide ratios in ground water",
        year=2007,
        holds=brackish,
    ),
    First(
        id="at_limit",
        sentence=(
            "A health value is right at its limit: it complies, with nothing to spare. Send a"
            " second sample to a certified laboratory to see whether it stays there."
        ),
        source=PRACTICE,
        year=2024,
        holds=at_limit,
    ),
    First(
        id="astride",
        sentence=(
            "A health value is too close to its limit to call. Send a second sample to a"
            " certified laboratory. Until then, treat it as over the limit."
        ),
        source=PRACTICE,
        year=2024,
        holds=astride,
    ),
    First(
        id="confirm_kit",
        sentence=(
            "This field kit reads at or above a health limit. Have a certified laboratory confirm"
            " it before you buy anything for it. Until then, treat it as too high, and do not use"
            " it for baby formula."
        ),
        source="WHO, manganese in drinking-water",
        year=2021,
        holds=kit_says_health,
    ),
    First(
        id="confirm_nitrate",
        sentence=(
            "Nitrate was found. Have a second sample confirm it, and look for what feeds it: a"
            " septic field, manure, or a shallow or open well."
        ),
        source="US CDC, nitrate and drinking water from private wells",
        year=2024,
        holds=lambda at: at.home.private and at.health("nitrate_n", "nitrite_n"),
    ),
    First(
        id="nitrate_near",
        sentence=(
            "Nitrate is at half its limit or more, and it moves with rain and season. Test it"
            " every three months, sooner with an infant or a pregnancy in the house, to see"
            " whether it goes over."
        ),
        source="US EPA, 40 CFR 141.23 (from half the limit: every quarter)",
        year=1991,
        holds=lambda at: (
            at.home.private
            and at.surely("nitrate_n", NITRATE_NEAR)
            and not at.health("nitrate_n", "nitrite_n")
        ),
    ),
    First(
        id="infant_nitrate",
        sentence=(
            "Nitrate is at half its limit or more, and an infant lives here. Have a second sample"
            " tested within a month, and ask the pediatrician; use bottled water for formula until"
            " both have answered."
        ),
        source="US CDC, nitrate and drinking water from private wells",
        year=2024,
        holds=lambda at: (
            at.home.care.infant
            and (r := at.water.range("nitrate_n")) is not None
            and r.top >= NITRATE_NEAR
            and not at.health("nitrate_n", "nitrite_n")
        ),
    ),
    First(
        id="pfas_source",
        sentence=(
            "PFAS were found. For town water, ask the supply for its own results; for a well,"
            " ask the health department what is known nearby. Have a certified laboratory test a"
            " second sample, because the amounts are tiny."
        ),
        source="US EPA, PFAS national primary drinking water regulation",
        year=2024,
        holds=lambda at: at.health("pfoa", "pfos"),
    ),
    First(
        id="utility_chlorine",
        sentence=(
            "Chlorine is above its limit. Repeat the test on site with another kit, then call"
            " the utility: the limit is a running average."
        ),
        source="US EPA, disinfectants and disinfection by-products rule",
        year=1998,
        holds=lambda at: not at.home.private and at.over("chlorine.maximum"),
    ),
    First(
        id="one_tap",
        sentence=(
            "What matters here is what you drink and cook with: one tap is enough, and the"
            " whole house need not be treated for it."
        ),
        source="US CDC, drinking water from private wells",
        year=2024,
        holds=lambda at: (
            at.health("lead", *until_then("never_boil", "pfas"))
            or (at.health("copper") and not acid(at))
        ),
    ),
    First(
        id="species",
        sentence="Ask the laboratory which form of arsenic this is: claims hold for As(V) only.",
        source="NSF/ANSI 58",
        year=2022,
        holds=lambda at: at.health("arsenic") and at.water.values["arsenic"].form == "",
    ),
)

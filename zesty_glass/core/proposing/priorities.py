"""What stands first among the lines, and why: one ordered table of named priorities, the strongest
first. Each says when it holds, what it moves ahead of all others, and the sentence that is shown.

Where a first step says "before anything is bought", a priority stands here for it: what is said
first and what is proposed first agree.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import replace
from typing import Literal

from ..analytes import ANALYTES, MICROBES
from ..home import SURFACE
from ..in_place import KINDS as IN_PLACE
from ..record import record
from ..testing.finding import Finding, Weight
from ..testing.tonight import brings_water
from ..treating.existing_equipment import code_of
from ..treating.in_place import Judged
from .first import FIRST
from .first_health import SUPPLY_ANSWERS
from .first_rule import PRACTICE
from .looked_at import At, acid, beyond_a_bed, certified, confirmed_microbes, good_at_the_tap
from .ranking import WAIT
from .suggested import Suggested

#: what neither stains nor eats pipes, and is lived with where nobody complains of it
OF_COMFORT = frozenset({"hardness", "tds", "chlorine_free", "chlorine_total", "chlorine_combined"})
#: what acid water takes from the pipes: its own finding goes with the pH
WITH_THE_PH = frozenset({"ph"} | {a.id for a in ANALYTES.values() if a.from_plumbing})
_FIRST = {f.id: f for f in FIRST}


@record
class Situation:
    """What priorities look at.

    Args:
        at: water, meaning, home, complaints and glasses. lines: as they are ordered by their grade.
        presses: something asks for more than comfort though no limit of health governs it.
        of_need: health, an explained complaint, acid water or a wish asks for something.
        untested_wish: something is wished less of that is not tested. wanted: what is looked for.
        in_place: what stands there, judged.
    """

    at: At
    lines: tuple[Suggested, ...]
    presses: bool
    of_need: bool
    untested_wish: bool
    wanted: tuple[str, ...]
    in_place: tuple[Judged, ...]

    @property
    def health(self) -> frozenset[str]:
        """Analytes with a finding of health."""
        return frozenset(f.analyte for f in self.at.meaning.findings if f.weight is Weight.HEALTH)

    @property
    def acts(self) -> frozenset[str]:
        """Analytes that ask to act."""
        return frozenset(f.analyte for f in self.at.meaning.findings if f.weight is Weight.ACT)

    @property
    def told(self) -> frozenset[str]:
        """Analytes that explain a complaint."""
        return frozenset(
            f.analyte for f in self.at.meaning.findings if f.explains and f.analyte != "colour"
        )

    @property
    def signs(self) -> frozenset[str]:
        """Of what they complain."""
        return frozenset(c.sign for c in self.at.complaints)

    def says(self, first: str) -> bool:
        """Whether a first step is said here, by its id."""
        return _FIRST[first].holds(self.at)

    @property
    def services(self) -> frozenset[str]:
        """Ways on with what stands there that come before anything new: it fails at all that is
        asked for; a health finding that it does not work on is not made to wait for it.
        """
        return frozenset(
            code_of(j.id, j.verdict)
            for j in self.in_place
            if j.verdict in ("service", "set_right") and self.works_on_all(j)
        )

    @property
    def asked(self) -> frozenset[str]:
        """What anybody asks for: health, and what explains a complaint; else microbes that nobody
        has looked for, and what acts and is more than comfort. Comfort that nobody complains of
        asks for nothing.
        """
        acts = (self.acts & set(self.wanted)) - OF_COMFORT
        return self.told | self.health or self.feared or acts

    @property
    def feared(self) -> frozenset[str]:
        """Microbes, where the water is not to be drunk because nobody has looked for them: what
        stands at a tap and does nothing against them is no answer to that.
        """
        unknown = "coliform" not in self.at.water.values and brings_water(self.at.meaning.tonight)
        untested = unknown or self.says("surface_untested")
        return frozenset(MICROBES) if untested else frozenset()

    def works_on_all(self, j: Judged) -> bool:
        """Whether what stands there works on all that is asked for."""
        there = j.scope == "house" or not self.at.meaning.unexplained
        return there and self.asked <= set(IN_PLACE[j.kind].works_on)


@record
class Priority:
    """One reason for something to stand first.

    Args:
        moves: "nothing", the line that buys nothing; "service", what stands there and is serviced
            or set right.
        why: the sentence that is shown with what it moved. brings_water: until then drinking water
            is brought, whatever tonight's card says.
    """

    id: str
    moves: Literal["nothing", "service"]
    why: str
    source: str
    year: int
    holds: Callable[[Situation], bool]
    brings_water: bool = False


def _waits_for_comfort(s: Situation) -> bool:
    """Water is brought, nobody complains or wishes, and no line answers anything of health."""
    asked = s.presses or bool(s.at.home.wishes) or any(f.explains for f in s.at.meaning.findings)
    if asked or any(x.health > 0 for x in s.lines):
        return False
    return brings_water(s.at.meaning.tonight)


def _of_comfort_alone(s: Situation) -> bool:
    """Neither health nor a wish asks for anything, and what acts is lived with."""
    return not s.of_need and not s.acts - OF_COMFORT


def _own_well(s: Situation) -> bool:
    """A well of their own that bacteria were not yet found in twice: they are what treatment is
    for.
    """
    return s.at.home.well and not confirmed_microbes(s.at)


def _kits_alone(s: Situation) -> bool:
    """Something of health is over by a field kit alone, or too close to its limit to call, and
    nothing else is complained of or wished.
    """
    open_ = s.says("confirm_kit") or s.says("astride")
    return open_ and not s.at.home.wishes and not s.told and not _settled(s)


def _settled(s: Situation) -> bool:
    """A certified laboratory found something of health over its limit, on its whole range."""
    return any(
        f.weight is Weight.HEALTH
        and f.settled
        and certified(s.at, f.analyte)
        and not _astride(s, f)
        for f in s.at.meaning.findings
    )


def _astride(s: Situation, f: Finding) -> bool:
    r = s.at.water.range(f.analyte)
    return f.limit is not None and r is not None and r.low <= f.limit < r.top


def _asks_only(s: Situation, analytes: Iterable[str]) -> bool:
    """Nothing of health, no wish, and no complaint that anything else explains."""
    return not s.health and not s.at.home.wishes and s.told <= set(analytes)


def _form_decides(s: Situation) -> bool:
    """All of health that was found is arsenic whose form nobody told, and no line is sure of it."""
    sure = any(x.answers.get("arsenic", 0.0) >= 1.0 for x in s.lines)
    return s.says("species") and s.health == {"arsenic"} and not sure and not s.told


def _not_judged_yet(s: Situation) -> bool:
    """Something that stands here is made for all that is asked, acid water among it, and no glass
    behind it was tested; a cartridge, of which nobody knows what it is for, holds nothing up.
    """
    pipes = {"ph"} if acid(s.at) else set()
    return bool(s.asked) and any(
        j.verdict == "not_judged"
        and IN_PLACE[j.kind].does
        and s.works_on_all(j)
        and pipes <= set(IN_PLACE[j.kind].works_on)
        for j in s.in_place
    )


SERVICE_FIRST = "Service what is here and test again before anything new is bought for this."
WAITING_FIRST = (
    "Nothing in this catalog treats the health finding. Use bottled water, and buy nothing for"
    " comfort before that is settled."
)
CAUSE_FIRST = (
    "The complaint is not explained yet, and nobody complains of anything else. Do its next test"
    " before anything is bought."
)
WISH_FIRST = (
    "Less is wanted of something that is not tested yet, and nobody complains of anything else."
    " Do that test before anything is bought."
)
BEYOND_FIRST = (
    "This is more than a filter bed takes for long. Have the well checked and a specialist"
    " design the treatment before a bed is bought."
)
TASTE_THERE = (
    "The filter at the drinking tap already takes out what you taste. Keep it, and drink from it."
)
SUPPLY_FIRST = (
    "This town water is over a health limit. The utility answers for it: buy nothing against it"
    " before it has."
)
WAY_IN_FIRST = (
    "Bacteria were found in a well or spring. Look for the way in, have the plumbing disinfected"
    " and take a second sample before anything is bought. Treatment is for what comes back."
)
FLOOD_FIRST = (
    "The well stood under water. Have a licensed person check and disinfect it, and have it"
    " tested twice, before anything is bought."
)
BLOOM_FIRST = (
    "The lake is in a bloom. Neither boiling nor UV helps against its toxins: buy nothing"
    " against them before a laboratory and the health authority have answered."
)
SURFACE_FIRST = (
    "Lake and cistern water carries microbes. The laboratory’s results for bacteria and UV"
    " transmittance decide the system; use bottled water until they are in."
)
TURBID_FIRST = (
    "A cloudy well may be drawing in surface water. Have it tested for bacteria, and its cap and"
    " casing checked, before anything is bought to clear it."
)
SECOND_FIRST = (
    "Only a certified laboratory can settle this. Have it tested before anything is bought, and"
    " until then treat the water as over the limit."
)
SPECIES_FIRST = (
    "The form of the arsenic is not known, and nothing here is sure to work without it. Ask the"
    " laboratory for it first, and use bottled water until then."
)
JUDGE_FIRST = (
    "The equipment already here treats this, and nobody has tested how well. Test a glass from"
    " behind it before anything is bought."
)
SLIME_FIRST = (
    "Slime with iron points to iron bacteria. Have them tested for, and the well and plumbing"
    " disinfected, before a filter or softener is bought: they would clog it."
)
TOWN_ACID_FIRST = (
    "The town supply answers for the pH of its water: ask it before anything is bought."
)
MINERALS_FIRST = "Ask a laboratory which minerals cause the taste before anything is bought for it."
ANODE_FIRST = "Only the hot tap smells: have the water heater’s anode checked first."
CLINIC_FIRST = (
    "Somebody here has dialysis at home. Change nothing on this water before the clinic has"
    " answered."
)

#: the strongest first; of two that hold, the stronger one's line stands ahead, with its sentence
PRIORITIES: tuple[Priority, ...] = (
    Priority(
        id="clinic",
        moves="nothing",
        why=CLINIC_FIRST,
        source="US CDC, dialysis water; a health finding keeps its order",
        year=2024,
        holds=lambda s: s.at.home.care.dialysis and not s.health,
    ),
    Priority(
        id="bloom",
        moves="nothing",
        why=BLOOM_FIRST,
        source="US EPA, cyanotoxins in drinking water",
        year=2024,
        holds=lambda s: s.at.home.source in SURFACE and "bloom" in s.signs,
    ),
    Priority(
        id="flood",
        moves="nothing",
        why=FLOOD_FIRST,
        source="US CDC and US EPA, what to do with your private well after a flood",
        year=2023,
        holds=lambda s: _own_well(s) and "flood" in s.signs,
    ),
    Priority(
        id="service",
        moves="service",
        why=SERVICE_FIRST,
        source=PRACTICE,
        year=2024,
        holds=lambda s: bool(s.services),
    ),
    Priority(
        id="way_in",
        moves="nothing",
        why=WAY_IN_FIRST,
        source="US CDC, private ground water wells",
        year=2024,
        holds=lambda s: _own_well(s) and bool(s.health & set(MICROBES)),
    ),
    Priority(
        id="surface_untested",
        moves="nothing",
        why=SURFACE_FIRST,
        source="US EPA, surface water treatment rules",
        year=1989,
        holds=lambda s: s.says("surface_untested"),
        brings_water=True,
    ),
    Priority(
        id="second_sample",
        moves="nothing",
        why=SECOND_FIRST,
        source="US EPA, certification of laboratories for drinking water",
        year=2024,
        holds=_kits_alone,
        brings_water=True,
    ),
    Priority(
        id="species",
        moves="nothing",
        why=SPECIES_FIRST,
        source="US EPA, arsenic treatment technology evaluation handbook",
        year=2003,
        holds=_form_decides,
        brings_water=True,
    ),
    Priority(
        id="turbid_well",
        moves="nothing",
        why=TURBID_FIRST,
        source="US CDC, private ground water wells",
        year=2024,
        holds=lambda s: s.says("turbid_well") and _asks_only(s, ("turbidity",)),
        brings_water=True,
    ),
    Priority(
        id="slime",
        moves="nothing",
        why=SLIME_FIRST,
        source="US CDC, private wells; trade practice",
        year=2024,
        holds=lambda s: s.says("slime") and not s.health,
    ),
    Priority(
        id="judge",
        moves="nothing",
        why=JUDGE_FIRST,
        source=PRACTICE,
        year=2024,
        holds=_not_judged_yet,
    ),
    Priority(
        id="beyond",
        moves="nothing",
        why=BEYOND_FIRST,
        source=PRACTICE,
        year=2024,
        holds=lambda s: beyond_a_bed(s.at) and not s.health,
    ),
    Priority(
        id="taste_there",
        moves="nothing",
        why=TASTE_THERE,
        source=PRACTICE,
        year=2024,
        holds=lambda s: good_at_the_tap(s.at) and not s.health,
    ),
    Priority(
        id="supply",
        moves="nothing",
        why=SUPPLY_FIRST,
        source="US EPA, national primary drinking water regulations",
        year=2024,
        holds=lambda s: not s.at.home.private and bool(s.health & SUPPLY_ANSWERS),
    ),
    Priority(
        id="town_acid",
        moves="nothing",
        why=TOWN_ACID_FIRST,
        source=PRACTICE,
        year=2024,
        holds=lambda s: (
            s.says("utility_ph") and not s.at.home.wishes and (s.told | s.health) <= WITH_THE_PH
        ),
    ),
    Priority(
        id="minerals",
        moves="nothing",
        why=MINERALS_FIRST,
        source=PRACTICE,
        year=2024,
        holds=lambda s: (
            (s.says("panel") and _asks_only(s, ("tds",)))
            or (s.says("brackish") and _asks_only(s, ("tds", "sodium", "chloride")))
        ),
    ),
    Priority(
        id="anode",
        moves="nothing",
        why=ANODE_FIRST,
        source=PRACTICE,
        year=2024,
        holds=lambda s: (
            s.says("anode") and not s.acts - OF_COMFORT and _asks_only(s, ("hydrogen_sulfide",))
        ),
    ),
    Priority(
        id="cause",
        moves="nothing",
        why=CAUSE_FIRST,
        source=PRACTICE,
        year=2024,
        holds=lambda s: _of_comfort_alone(s) and bool(s.at.meaning.unexplained),
    ),
    Priority(
        id="wish",
        moves="nothing",
        why=WISH_FIRST,
        source=PRACTICE,
        year=2024,
        holds=lambda s: _of_comfort_alone(s) and s.untested_wish,
    ),
    Priority(
        id="waiting",
        moves="nothing",
        why=WAITING_FIRST,
        source=PRACTICE,
        year=2024,
        holds=_waits_for_comfort,
    ),
)


def prioritized(s: Situation) -> tuple[Suggested, ...]:
    """Lines with what a priority moves ahead, each with why; the rest in their order."""
    holding = [p for p in PRIORITIES if p.holds(s)]
    services = s.services

    def moved_by(line: Suggested) -> int:
        kind = _kind(line, services)
        return next((n for n, p in enumerate(holding) if p.moves == kind), len(holding))

    placed = sorted(((moved_by(x), x) for x in s.lines), key=lambda p: p[0])
    return tuple(_moved(x, holding[n]) if n < len(holding) else x for n, x in placed)


def _moved(line: Suggested, by: Priority) -> Suggested:
    """A line that a priority put ahead, with why."""
    waits = by.brings_water and not line.option.stages
    option = replace(line.option, name=WAIT) if waits else line.option
    return replace(line, ahead=by.why, option=option)


def _kind(line: Suggested, services: Iterable[str]) -> str:
    """What a line is to the priorities: nothing bought, service alone, or another."""
    codes = [c.item for c in line.option.stages]
    if not codes:
        return "nothing"
    return "service" if len(codes) == 1 and codes[0] in services else ""

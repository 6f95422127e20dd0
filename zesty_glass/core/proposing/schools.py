"""Where the trade is of two minds: both ways, each with its condition, and which of the two holds
in this home. Nothing is decided by it; it is said, so that the consultant can say it too.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from ..home import Home
from ..ranges import Range
from ..record import record
from ..testing.water import Water
from ..treating.site import Site
from ..units import MG_L_PER_GPG


@record
class Facts:
    """What a school hangs on: the water, the home, the analytes looked for and what the stages of
    the lines do.
    """

    water: Water
    home: Home
    site: Site
    wanted: frozenset[str]
    does: frozenset[str]

    def range(self, name: str) -> Range | None:
        """What was measured of it."""
        return self.water.range(name)

    def at_most(self, name: str, limit: float) -> bool | None:
        """Whether a value is surely no more than a limit; None where it may be either."""
        r = self.range(name)
        if r is None:
            return None
        if r.high is not None and r.high <= limit:
            return True
        return False if r.low > limit else None


Holds = Callable[[Facts], bool | None]


class _Way(NamedTuple):
    """One way: what is done, where it is right, and a word why; ``holds`` tells it of a home."""

    name: str
    where: str
    why: str
    holds: Holds


class _School(NamedTuple):
    """A question, when it is asked, and its ways."""

    id: str
    question: str
    applies: Callable[[Facts], bool]
    ways: tuple[_Way, ...]
    source: str = "trade practice"
    year: int = 2024


@record
class Way:
    """A way as it stands in this home; ``holds`` None: not enough was tested to say."""

    name: str
    where: str
    why: str
    holds: bool | None


@record
class School:
    """A question on which the trade is of two minds."""

    id: str
    question: str
    ways: tuple[Way, ...]
    source: str
    year: int


def _no(x: bool | None) -> bool | None:
    return None if x is None else not x


def _both(*parts: bool | None) -> bool | None:
    """Both, as far as is known."""
    if any(p is False for p in parts):
        return False
    return None if None in parts else True


LITTLE_IRON = 2.0  # [mg/L] the most that resin takes of dissolved iron, trade practice 2024
CLEAN_IRON, CLEAN_NTU = 0.3, 1.0  # [mg/L], [NTU] that an upflow bed bears
SOFT_ENOUGH = 5 * MG_L_PER_GPG  # [mg/L as CaCO3] a mixed bed still carries
TASTED_TDS = 600.0  # [mg/L] above it taste falls from good to fair: WHO, 2003
BACKWASHES_GPM = 8.0  # [gpm] that a backwashing bed of a house asks at the least


def _clean(f: Facts) -> bool | None:
    return _both(f.at_most("iron", CLEAN_IRON), f.at_most("turbidity", CLEAN_NTU))


def _dissolved_little(f: Facts) -> bool | None:
    cups, ferrous = f.water.cups, f.range("iron_ferrous")
    if cups is not None and cups.drawn in ("coloured", "clears_top_down"):
        return False
    seen = True if cups is not None or ferrous is not None else None
    return _both(f.at_most("iron", LITTLE_IRON), seen)


def _pumps_enough(f: Facts) -> bool | None:
    gpm = f.home.pump_gpm
    if not f.home.well:
        return True
    if f.home.low_yield:
        return False
    return None if gpm is None else gpm >= BACKWASHES_GPM


def _fed_clean(f: Facts) -> bool | None:
    if f.site.unsafe_likely:
        return False
    return None if f.home.private and f.site.bacteria is None else True


def _iron_to_take(f: Facts) -> bool:
    r = f.range("iron")
    return r is not None and CLEAN_IRON < r.best <= LITTLE_IRON and "iron" in f.wanted


def _acid(f: Facts) -> bool:
    r = f.range("ph")
    return r is not None and r.best < 7.0 and "raises pH" in f.does


def _without_salt(f: Facts) -> bool | None:
    """Iron coats its media; otherwise it is what is left where brine is forbidden, and disputed."""
    if f.at_most("iron", CLEAN_IRON) is False:
        return False
    return True if f.home.brine_forbidden else None


def _mixed(f: Facts) -> bool | None:
    return _both(f.at_most("hardness", SOFT_ENOUGH), "hardness" in f.wanted)


def _tastes_of_it(f: Facts) -> bool:
    r = f.range("tds")
    return r is not None and r.best > TASTED_TDS


SCHOOLS = (
    _School(
        id="uv_membrane",
        question="A lamp ahead of the membrane, or behind it?",
        applies=lambda f: (
            "holds back" in f.does and ("inactivates" in f.does or f.site.unsafe_likely)
        ),
        ways=(
            _Way(
                "Ahead of it",
                "where bacteria were found, or are likely",
                "a membrane and its tank are not to be fed with living water",
                lambda f: f.site.unsafe_likely,
            ),
            _Way(
                "Behind it",
                "where the feed is without bacteria and the tank stands for days",
                "its water lets the most light through; it guards the tap, not the membrane",
                _fed_clean,
            ),
        ),
    ),
    _School(
        id="neutraliser_flow",
        question="A neutralizer that flows upwards, or one that backwashes?",
        applies=_acid,
        ways=(
            _Way(
                "Upflow",
                "where iron and sediment are low",
                "no drain, no valve to wear; iron would set the bed fast, and nothing loosens it",
                _clean,
            ),
            _Way(
                "Backwashing",
                "where iron or sediment comes with the water, and the pump has the flow for it",
                "its bed is lifted against channels; the valve wears and water goes to the drain",
                lambda f: _both(_no(_clean(f)), _pumps_enough(f)),
            ),
        ),
    ),
    _School(
        id="little_iron",
        question="A little iron: the softener alone, or a filter of its own?",
        applies=_iron_to_take,
        ways=(
            _Way(
                "The softener takes it",
                "where it is dissolved, 2 mg/L at most, and the water is to be softened anyway",
                "one unit less; it regenerates every four days and its resin wants a cleaner",
                lambda f: _both(_dissolved_little(f), "hardness" in f.wanted),
            ),
            _Way(
                "An iron filter ahead",
                "where some of it is rusted, or the resin is to last",
                "resin stays clean and the salt goes further; a backwash and a drain more",
                lambda f: _no(_dissolved_little(f)) if "hardness" in f.wanted else True,
            ),
        ),
    ),
    _School(
        id="tannin_bed",
        question="Tannin resin in a tank of its own, or mixed with softening resin?",
        applies=lambda f: "against tannin" in f.does and "tannin" in f.wanted,
        ways=(
            _Way(
                "A tank of its own, behind a softener where the water is hard",
                "where the water is hard, or needs no softening at all",
                "each resin is regenerated by its own rule, and the hard water does not foul it",
                lambda f: _no(_mixed(f)),
            ),
            _Way(
                "A mixed bed",
                "where the water is 5 gpg at most, is to be softened too, and room is for one tank",
                "one valve and one brine tank; its media lasts shorter, neither part at its best",
                _mixed,
            ),
        ),
    ),
    _School(
        id="salt_free",
        question="Hard water: a softener, or a conditioner without salt?",
        applies=lambda f: "hardness" in f.wanted and bool({"softens", "leaves minerals"} & f.does),
        ways=(
            _Way(
                "A softener",
                "where soap, skin or laundry are minded too, and brine is allowed",
                "it takes the hardness out, for salt, rinse water and sodium in the water",
                lambda f: _no(f.home.brine_forbidden),
            ),
            _Way(
                "A conditioner without salt",
                "where scale alone is minded or brine is forbidden, in water without iron",
                "disputed: tests of its effect on scale do not agree, so ask for one to a protocol;"
                " the minerals stay, and soap lathers no better",
                _without_salt,
            ),
        ),
        source="DVGW W 512 (a test of scale); trade practice",
        year=1996,
    ),
    _School(
        id="house_or_tap",
        question="Fluoride or arsenic: the whole house, or the drinking tap?",
        applies=lambda f: bool({"fluoride", "arsenic"} & f.wanted),
        ways=(
            _Way(
                "The drinking tap",
                "where only what is drunk and cooked with matters",
                "it is taken in by drinking; a tap’s unit treats a hundredth of the water",
                lambda f: True,
            ),
            _Way(
                "The whole house",
                "where children drink at every tap, or the authority asks for it",
                "no tap is forgotten; a specialist’s unit, with its own tests behind it",
                lambda f: None,
            ),
        ),
    ),
    _School(
        id="tds_chart",
        question="Dissolved solids: the colors printed on a meter, or bands of taste?",
        applies=_tastes_of_it,
        ways=(
            _Way(
                "The meter’s own chart",
                "nowhere: it is no standard",
                "its colors are its maker’s; they tell neither hardness nor health",
                lambda f: False,
            ),
            _Way(
                "Bands of taste",
                "where dissolved solids are talked about at all",
                "they rank what tasters liked, and say nothing about health",
                lambda f: True,
            ),
        ),
        source="WHO, Total dissolved solids in drinking-water (taste bands)",
        year=2003,
    ),
)


def schools(facts: Facts) -> tuple[School, ...]:
    """The questions that this home raises, each with both ways and which of them holds here."""
    return tuple(
        School(
            id=s.id,
            question=s.question,
            ways=tuple(
                Way(name=w.name, where=w.where, why=w.why, holds=w.holds(facts)) for w in s.ways
            ),
            source=s.source,
            year=s.year,
        )
        for s in SCHOOLS
        if s.applies(facts)
    )

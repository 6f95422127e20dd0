"""What is known of one thing that can be in water."""

from __future__ import annotations

from enum import StrEnum
from typing import Literal

from .limits import Limit
from .record import record


class Kind(StrEnum):
    """What a finding about this analyte is about."""

    HEALTH = "health"
    LOOKS_TASTE = "looks_taste"
    EQUIPMENT = "equipment"
    CONTEXT = "context"


#: what to do with water over a health limit until the laboratory and the authority have answered:
#: boil it, never boil it (boiling makes it stronger), flush the tap, use bottled water or a filter
#: certified for PFAS, ventilate, or bottled water alone; the sentences stand in
#: ``testing/tonight.py``
UntilThen = Literal["", "boil", "never_boil", "flush", "pfas", "ventilate", "bottled"]


#: a form of arsenic, told apart by its charge
Form = Literal["as5", "as3"]


@record
class Analyte:
    """One measurable thing, with all that is known of it.

    Args:
        id: identifier used in files and code. name: name on screen. also: other names on reports.
        unit: canonical unit. decimals: digits shown. shown: where it is shown in a smaller unit:
            factor, unit, digits.
        kind: what a finding about it is about. explains: complaints that it explains.
        test: the test to make when it is unknown. why: why it belongs to a full visit.
        laboratory_only: only a certified laboratory may judge it. bottles: kinds of laboratory
            sample that are drawn for it. reported_from: what laboratories report down to.
        until_then: what is done until it is answered; every analyte of health says it.
        limits: what it is judged by. decides: no good and no bad by itself; it decides what
            treatment does.
        visible: it changes how the drawn glass looks.
        at_the_tap: judged at the drinking tap, as all of health is; else at the house's taps.
        from_plumbing: it comes from the house's own pipes.
        on_site: a test on the spot counts for more than a laboratory's. changes_daily: two values
            of two days say nothing of each other.
        bases: what a report's mg/L may be counted as, each with its factor to the canonical unit;
            the first is meant where a report names none, unless it ``states_basis``.
        forms: what a report may say beside the total. half_life_d: of what decays on its way [d].
        of_tds: what it weighs of TDS as a dissolved ion [mg/mg].
        by_resin: what cation exchange takes of it while it softens, as shares (low, best, high).
        by_membrane: whether a reverse osmosis membrane holds it back.
    """

    id: str
    name: str
    unit: str
    kind: Kind
    test: str
    decimals: int = 2
    visible: bool = False
    laboratory_only: bool = False
    until_then: UntilThen = ""
    why: str = ""
    limits: tuple[Limit, ...] = ()
    explains: tuple[str, ...] = ()
    decides: bool = False
    at_the_tap: bool = False
    on_site: bool = False
    changes_daily: bool = False
    from_plumbing: bool = False
    bottles: tuple[str, ...] = ()
    bases: tuple[tuple[str, float], ...] = ()
    states_basis: bool = False
    forms: tuple[tuple[str, Form], ...] = ()
    half_life_d: float | None = None
    shown: tuple[float, str, int] | None = None
    of_tds: float = 0.0
    by_resin: tuple[float, float, float] | None = None
    by_membrane: bool = False
    also: tuple[str, ...] = ()
    reported_from: float = 0.01

    @property
    def stains(self) -> bool:
        """Whether it stains at every tap of the house."""
        return any(limit.about == "stains" for limit in self.limits)

    @property
    def said(self) -> str:
        """The name within a sentence: "total iron", "pH", "nitrate as N"."""
        return mid_sentence(self.name)


def mid_sentence(name: str) -> str:
    """A name as it stands within a sentence: "Iron, total" is total iron, "Lead, first draw" is
    first-draw lead, and pH, PFOA or E. coli stay as they are.
    """
    thing, _, how = name.partition(", ")
    words = f"{how.replace(' ', '-')} {thing.lower()}" if how and " and " not in how else name
    return words[0].lower() + words[1:] if words.split(" ")[0][1:].islower() else words

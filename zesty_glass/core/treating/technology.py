"""A technology is one value: what it is called, where it stands, what it needs, reads and changes,
and how it is worked out. Everything else in the program that tells technologies apart is made from
these values; a field that is left out is an error when the program starts.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import TYPE_CHECKING, Literal

from ..doing import Does
from ..record import record
from .adjusting import Adjustable
from .checks import Says
from .figures import Figures
from .items import Item, Need
from .report import StageReport
from .stream import Stream

if TYPE_CHECKING:
    from .stages.common import StageInput

#: facts about the water and the line, beside the analytes, that a stage may look at or change
FACTS = frozenset({"@particulate_iron", "@coloured", "@uvt_here", "@fine", "@disinfected"})


@record
class Company:
    """What the place of an item depends on beside the item itself: which others stand on its
    branch, on this raw water.

    Args:
        fine_ahead: one that wants a fine sediment filter right ahead of it.
        iron_wants_ph: one whose least pH is above the raw water's.
        chlorine_max: the least chlorine that one of them wants carbon against [mg/L].
    """

    fine_ahead: bool = False
    iron_wants_ph: bool = False
    chlorine_max: float | None = None


Place = Callable[[Item, Company, Stream], int]


def at(*, house: int, tap: int) -> Place:
    """A place in the line that hangs on the branch alone; smaller stands earlier."""

    def place(item: Item, beside: Company, stream: Stream) -> int:
        del beside, stream
        return tap if item.scope == "tap" else house

    return place


def judges_nothing(item: Item) -> tuple[Need, ...]:
    """Of a technology that holds no need against the water."""
    del item
    return ()


#: what drifts behind it over the years and is looked at again: what a membrane holds back, the
#: chlorine behind carbon, the hardness behind resin
Drift = Literal["", "rejection", "chlorine", "hardness"]


@record
class Service:
    """How a technology is fitted and kept.

    Args:
        sheets: of the work on it, by their ids in ``aftercare``.
        specialist: a licensed specialist fits it in any case.
        after_bleach: it counts, or stays clean, only behind plumbing that was disinfected.
        gauges: kinds of its parts at which something is read between two changes.
        causes: of a promise that is not kept, beside those of every line, by their ids.
        drift: what is looked at over the years.
    """

    sheets: tuple[str, ...] = ()
    specialist: bool = False
    after_bleach: bool = False
    gauges: tuple[str, ...] = ()
    causes: tuple[str, ...] = ()
    drift: Drift = ""


@record
class Technology:
    """All that is known of one technology.

    Args:
        kind, name: in files, and on screen and paper.
        figures: the record of what is special to its items.
        run: works a stage out, in the order load, size, effect, what it says.
        place: its place in the branch on a raw water; smaller stands earlier.
        needs: of the water that reaches it, where an item states none of its own.
        judges: needs of an item that are held against the water: of their analytes only the verdict
            decides.
        reads: analytes and facts whose value decides what it does, beside claims.
        also_reads: the same of one item, beside those of all of them.
        asks: analytes of which it matters only whether they were tested.
        touches: facts that it changes; changes: analytes that it changes by its nature.
        by_use: its size, drain or running costs hang on how much water is used.
        rinses: its valve rinses by a clock. repeats: a line may hold two of it.
        chlorine_max: from here carbon stands ahead of it [mg/L]; None: at any.
        fine_ahead: wants a fine sediment filter right ahead of it.
        psi_min: least running pressure where an item states none [psi].
        sets_pressure: whether an item's ``sets_psi`` raises the pressure or caps it.
        size: the figure that makes one larger than another; None: its largest flow.
        style: figures that two sizes of one thing share.
        does: what rules ask it by. service: how it is fitted and kept.
        caution: what stands where the work is done. drawing: its picture on the page.
        settings: what may be set on a stage of it.
        checks: what it can say beside the checks of every stage.
    """

    kind: str
    name: str
    figures: type[Figures]
    run: Callable[[StageInput], StageReport]
    place: Place
    needs: tuple[Need, ...]
    judges: Callable[[Item], tuple[Need, ...]]
    reads: frozenset[str]
    asks: frozenset[str]
    touches: frozenset[str]
    changes: frozenset[str]
    by_use: bool
    rinses: bool
    repeats: bool
    chlorine_max: float | None
    fine_ahead: bool
    psi_min: float
    sets_pressure: Literal["raises", "caps"]
    size: str | None
    style: tuple[str, ...]
    does: frozenset[Does]
    service: Service
    caution: str
    drawing: str
    settings: tuple[Adjustable, ...]
    checks: Mapping[str, Says]
    also_reads: Callable[[Item], frozenset[str]] = lambda item: frozenset()


def chlorine_is_too_much(most: float | None, stream: Stream) -> bool:
    """Whether a water has more chlorine than the resins of a line take [mg/L]."""
    have = max(stream.best("chlorine_free") or 0.0, stream.best("chlorine_total") or 0.0)
    return most is not None and have > most

"""A line that is proposed, and all that is proposed with its reasons."""

from __future__ import annotations

from dataclasses import field

from ..record import record
from ..searching.found import LeftOut
from ..treating.in_place import Judged
from ..treating.option import Option
from .schools import School


@record
class Suggested:
    """A line that no other beats.

    Args:
        meets: things found that it brings to what is wanted, on their whole range; of all
            ``wanted``.
        watch, open: its warnings and what is not known, in words; health: shares of health findings
            it answers, summed;
        answers: the share of each thing found that it answers, 0 to 1; leaves: findings of health
            and complaints that it goes less than half the way for; against_diet: how often it goes
            against a diet somebody of the house keeps;
        ahead: why it stands before the next idea, in words.
        price: what it costs to buy and have fitted [money]; badges: what it is the best at, and of
            how many.
        burden: what its warnings, and the tests still to make for it, weigh.
        cost: over the horizon, running costs unrounded [money], at least where something is
            ``missing`` to price the rest; counted_cost: what it counts at in the order, where what
            nobody can price is dear; own_minutes: the household's own
            work [min/year].
    """

    option: Option
    names: tuple[str, ...]
    meets: int
    wanted: int
    not_met: tuple[str, ...]
    unknown: tuple[str, ...]
    cost: float
    waste_gal_year: float
    own_minutes: float
    tap_only: bool
    watch: tuple[str, ...] = ()
    open: tuple[str, ...] = ()
    health: float = 0.0
    answers: dict[str, float] = field(default_factory=dict)
    leaves: tuple[str, ...] = ()
    against_diet: int = 0
    ahead: str = ""
    missing: tuple[str, ...] = ()
    counted_cost: float = 0.0
    price: float = 0.0
    badges: tuple[str, ...] = ()
    burden: float = 0.0


@record
class TurningPoint:
    """A test, or a change of the place, that would put another system first.

    Args:
        id: which test or change; first: the idea that would stand first then, and its ``price``
            today [money].
    """

    id: str
    sentence: str
    first: str
    price: float


@record
class Suggestion:
    """The answer: best first, with what was left out and how much of the space was walked.

    Args:
        finer: what to measure finer before anything is sold for it.
        tonight: the emergency, said alone and before anything else.
        first: what is drunk until then and because of who lives there, and what costs nothing or
            little and comes before buying.
        unanswered: said ahead of the lines where none of them answers what is of health, or what is
            complained of.
        wished: of ``wanted``, what they wish less of.
        in_place: what stands there already, judged.
        goals: what each goal of the household does to the order, and what it costs.
        turning: what would put another system first.
        schools: questions on which the trade is of two minds, and what holds here.
    """

    wanted: tuple[str, ...]
    nothing_needed: bool
    lines: tuple[Suggested, ...]
    left_out: tuple[LeftOut, ...]
    combinations: int
    walked: int
    stages: int
    never: int
    why: str
    years: int
    finer: tuple[str, ...] = ()
    still_to_test: str = ""
    unanswered: str = ""
    first: tuple[str, ...] = ()
    tonight: tuple[str, ...] = ()
    wished: tuple[str, ...] = ()
    in_place: tuple[Judged, ...] = ()
    schools: tuple[School, ...] = ()
    turning: tuple[TurningPoint, ...] = ()
    goals: tuple[str, ...] = ()

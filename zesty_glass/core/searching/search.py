"""The search that proposes lines of its own: exact over all combinations that the rules let stand.

A combination holds at most one item of each kind on each branch; beside a system for the drinking
tap stands only what a check asks for (a booster pump, a lamp). A line that a rule stops is dropped.
Of the rest those are kept that no other beats on what is left of each thing found, on water to the
drain, on lifetime cost and on chores. Figures are ranges: a line is held to be as good as another
in a thing found only when both its best value and its worst end are at least as good, so that no
option is lost to another's lucky best value, and one whose range is merely narrower can stay.

How it stays exact without walking every combination:

- The order of stages is settled by the rules. It depends on few facts (is there a UV chamber, an
  iron filter that wants more pH, a resin that wants carbon ahead); the search runs once for each
  way these facts can be.
- Two lines that have come to the same water, pressure and prefilter at the same place go on alike,
  so of these only those are carried on that no other beats on cost, drain, chores and pressure
  left.
- A stage that stops makes every longer line that begins so stop too: the line is cut there.
- A stage looks at some analytes and facts only, and of some only whether they meet a need, as its
  technology declares; where these are the same, its answer is the same and is not worked out again
  (``answers``). What it claims to take out hangs on each analyte alone, and is worked out apart.
- Evidence and notes of a quantity decide nothing further on, and a pressure only by whether a later
  stage still gets what it wants: what differs in these alone is the same.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable

from ..home import Home
from ..rules import Settings
from ..testing.colour import ColourFinding
from ..testing.water import Water
from ..treating.items import Item
from ..treating.measured import Measured
from .answering import Answering
from .candidates import Candidates
from .drinking_tap import DrinkingTap
from .found import Found, combinations
from .front import best
from .question import Question, Targets
from .refusals import Refusals
from .states import Front, merge
from .stepping import Stepping
from .whole_house import WholeHouse

#: hears of each way the facts can be: what is looked at, how many are done, of how many
Progress = Callable[[str, int, int], None]


def _unheard(_what: str, _done: int, _of: int) -> None:
    """Nobody waits to hear how far it is."""


def search(
    water: Water,
    colour: ColourFinding | None,
    home: Home,
    settings: Settings,
    catalogue: Iterable[Item],
    wanted: tuple[str, ...],
    years: int = 10,
    measured: Measured | None = None,
    targets: Targets | None = None,
    progress: Progress | None = None,
) -> Found:
    """All lines that no other beats; see the head of this file; ``Question``: what is asked."""
    return answer(
        Question(water, colour, home, settings, catalogue, wanted, years, measured, targets),
        progress or _unheard,
    )


def answer(question: Question, progress: Progress = _unheard) -> Found:
    """The answer to a question."""
    candidates = Candidates(question)
    answering, refusals = Answering(question), Refusals(candidates)
    stepping = Stepping(answering, refusals)
    house = WholeHouse(candidates, stepping)
    behind: Front = {}
    ways = house.ways()
    for n, way in enumerate(ways):
        progress("lines of the whole house", n, len(ways))
        for state, labels in house.behind(way).items():
            merge(behind, state, labels)
    progress("the drinking tap", len(ways), len(ways) + 1)
    finals = DrinkingTap(candidates, stepping).ends(behind)
    lines = best(finals, answering, candidates.every)
    return Found(
        wanted=question.wanted,
        lines=lines,
        left_out=refusals.left_out(lines, answering),
        combinations=combinations(candidates.play.items, question.by_code),
        ended=sum(len(labels) for labels in finals.values()),
        stages=answering.stages_run,
    )

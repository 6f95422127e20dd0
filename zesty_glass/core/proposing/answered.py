"""What a line leaves unanswered: of health, and of what bothers them."""

from __future__ import annotations

from ..analytes import ANALYTES, MICROBES
from ..searching.found import LeftOut
from ..testing.complaints import Complaint
from ..testing.finding import Weight
from ..testing.findings import Meaning
from ..treating.walking import FROM_PLUMBING
from .suggested import Suggested

FROM_THE_PIPES = (
    "Lead and copper come from the pipes. Correcting acid water slows what dissolves them, which is"
    " expected and not predicted: the same first draw again after some weeks shows it. A unit at"
    " the drinking tap takes out what is in the glass. Until then cold water only, flushed."
)
NOTHING_ON_SALE = (
    "The firm’s catalog is empty: no equipment can be proposed. A manager brings in a catalog"
    " under Kits, catalog, limits."
)
ANSWERED = 0.9  # a health finding counts as answered from here on


def unanswered(
    meaning: Meaning, lines: tuple[Suggested, ...], left_out: tuple[LeftOut, ...]
) -> str:
    """Said first where no line answers every health finding: the nearest way, what is open, and
    until then.
    """
    found = [f for f in meaning.findings if f.weight is Weight.HEALTH]
    wanted = {f.analyte for f in found}
    top = max(lines, key=lambda x: x.health, default=None)
    if any(all(x.answers.get(a, 0.0) >= ANSWERED for a in wanted) for x in lines) or not found:
        return ""
    if all(f.analyte in FROM_PLUMBING for f in found):
        return FROM_THE_PIPES
    held = {} if top is None else top.answers
    short = dict.fromkeys(f.analyte for f in found if held.get(f.analyte, 0.0) < ANSWERED)
    names = ", ".join(ANALYTES[a].said for a in short)
    parts = [f"No system in this catalog is sure to treat: {names}.", *_nearest(lines, set(short))]
    if short.keys() & set(MICROBES):
        parts += _lamp(left_out)
    if not meaning.tonight:
        parts.append("Until it is answered bring drinking water.")
    return " ".join(parts)


def _nearest(lines: tuple[Suggested, ...], short: set[str]) -> list[str]:
    """The line that goes furthest for what no line answers, and what is open in it."""

    def goes(x: Suggested) -> list[float]:
        return [x.answers.get(a, 0.0) for a in short]

    near = max(lines, key=lambda x: sum(goes(x)), default=None)
    if near is None or not any(share > 0 for share in goes(near)):
        return []
    return [f"The nearest is “{near.option.name}”.", *near.open[:3]]


def _lamp(left_out: tuple[LeftOut, ...]) -> list[str]:
    """Why a lamp was left out: one that would do but for this water says more than one that is not
    for it at all.
    """
    lamps = [x for x in left_out if x.rule.startswith("uv.")]
    lamps.sort(key=lambda x: (x.rule == "uv.class", not x.rule.startswith("uv.uvt")))
    return [f"{x.name}: {x.sentence}" for x in lamps[:1]]


def complaints_left(
    meaning: Meaning, lines: tuple[Suggested, ...], complaints: tuple[Complaint, ...]
) -> str:
    """Said first where no line goes even half the way for something complained of."""
    said = {c.id: c.words for c in complaints}
    left = [
        f
        for f in meaning.findings
        if f.explains and all(f.analyte in x.leaves for x in lines) and lines
    ]
    if not left:
        return ""
    words = ", ".join(dict.fromkeys(f"“{said.get(c, c)}”" for f in left for c in f.explains))
    names = ", ".join(dict.fromkeys(ANALYTES[f.analyte].said for f in left))
    near = next((x for x in lines if any(x.answers.get(f.analyte, 0.0) > 0 for f in left)), None)
    nearest = "" if near is None else f" The nearest is “{near.option.name}”."
    return f"No system in this catalog treats {words} ({names}).{nearest}"


def reaches(analyte: str, worst: float, target: float, op: str) -> bool:
    """Whether the worst end reaches what is wanted; scores are turned so that higher is better.

    >>> reaches("iron", -0.3, 0.3, "at_most"), reaches("iron", -0.31, 0.3, "at_most")
    (True, False)
    """
    if analyte == "ph":
        return worst >= 0
    return worst >= target - 1e-12 if op == "at_least" else -worst <= target + 1e-12

"""Smell, stains and slime that somebody looked for at a tap, beside what the customer
complains of.
"""

from __future__ import annotations

from collections.abc import Collection, Sequence

from .complaints import SIGNS, Complaint
from .observations import Noticed
from .water import Sample

#: signs that are seen or smelled at a tap, in the order of the station
LOOKED_AT = (
    "bleach_smell",
    "egg_smell",
    "earth_smell",
    "haze",
    "white_crust",
    "orange_streaks",
    "black_stains",
    "blue_green",
    "slime",
)


def _last(sample: Sample) -> tuple[str, ...] | None:
    seen = [
        r.observation.signs
        for r in sample.readings
        if r.struck_at is None and isinstance(r.observation, Noticed)
    ]
    return seen[-1] if seen else None


def _at_the_hot_tap(cold: Sequence[Collection[str]]) -> str:
    """Whose the smell of eggs at the hot tap is, by what was smelled at the cold ones."""
    if any("egg_smell" in c for c in cold):
        return "egg_smell"
    return "egg_smell_hot" if cold else "egg_smell_unsure"


def noticed(
    samples: tuple[Sample, ...], complaints: tuple[Complaint, ...] = ()
) -> tuple[Complaint, ...]:
    """What was noticed and is not among the complaints already, each once, in our words and never
    in the customer's.

    A smell of eggs is told apart by where it is: at a cold tap it is in the water; at the hot tap
    alone it is the heater's; at the hot tap with no cold tap smelled yet, nobody can say.
    """
    at = [(s, found) for s in samples if (found := _last(s)) is not None]
    cold = [found for s, found in at if s.draw != "hot" and s.kind in ("tap", "source")]
    have = {c.sign for c in complaints}
    eggs = have & {"egg_smell", "egg_smell_hot", "egg_smell_unsure"}
    out: dict[str, Complaint] = {}
    for sample, found in at:
        for sign in found:
            told = sign
            if sign == "egg_smell" and sample.draw == "hot":
                told = _at_the_hot_tap(cold)
            if told in have or told in out or (told.startswith("egg_smell") and eggs):
                continue
            out[told] = Complaint(
                id=f"noticed:{told}",
                sign=told,
                words=f"{SIGNS[told].name}, noticed at “{sample.name}”",
            )
    return tuple(out.values())

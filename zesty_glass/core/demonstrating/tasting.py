"""Blind tasting: who may taste what, secret codes, rank sums, agreement and the
chance of guessing.
"""

from __future__ import annotations

import random
from collections import Counter
from collections.abc import Sequence
from datetime import datetime, timedelta
from functools import lru_cache
from itertools import permutations
from math import prod

from ..home import Home
from ..own_water import OwnWater, lacking
from ..record import record
from ..testing.finding import Weight
from ..testing.findings import Meaning
from ..testing.observations import LaboratoryResult
from ..testing.water import Sample
from .demonstrations import TASTED, TastedWater, Taster, Tasting

LETTERS = "BCDFGHJKLMNPQRSTVWXZ"  # without vowels no code reads as a word
REPORT_IS_RECENT = timedelta(days=365)
_NEEDED = ("coliform", "nitrate_n")
_REPORT_NAMES = {"coliform": "bacteria", "nitrate_n": "nitrate"}


def draw(samples: Sequence[str], tasters: Sequence[str], chance: random.Random) -> Tasting:
    """A tasting with codes and orders drawn at random by ``chance``; two taster orders differ where
    they can.
    """
    codes: list[str] = []
    while len(codes) < len(samples):
        code = "".join(chance.sample(LETTERS, 3))
        if code not in codes:
            codes.append(code)
    orders: list[tuple[str, ...]] = []
    for _ in tasters:
        order = tuple(chance.sample(codes, len(codes)))
        for _ in range(20):
            if order not in orders:
                break
            order = tuple(chance.sample(codes, len(codes)))
        orders.append(order)
    waters = tuple(TastedWater(sample=s, code=c) for s, c in zip(samples, codes, strict=True))
    return Tasting(
        waters=waters,
        tasters=tuple(Taster(name=n, order=o) for n, o in zip(tasters, orders, strict=True)),
    )


def refusals(
    sample: Sample,
    home: Home,
    meaning: Meaning | None,
    sanitised: bool,
    at: datetime,
    own: OwnWater = OwnWater(),
) -> tuple[str, ...]:
    """All reasons why a water may not be tasted; empty when it may.

    Bottled water, a regulated supply, or water with a laboratory report of the last year that finds
    nothing; the firm's own by its card, or by a report on this very glass.

    Args:
        meaning: what this sample's own readings mean. own: the card of the firm's carried water.
    """
    over = [f for f in (meaning.findings if meaning else ()) if f.weight is Weight.HEALTH]
    why = [f"“{sample.name}” has a health finding: {f.shown}." for f in over[:1]]
    if sample.kind == "bottled":
        return tuple(why)
    if sample.unflushed:
        why.append(f"The filter behind “{sample.name}” was just changed and not flushed.")
    if (sample.treated or sample.kind in ("pitcher", "own")) and not sanitised:
        why.append(
            f"“{sample.name}” comes from a unit: say first that it was sanitized and flushed."
        )
    if sample.draw == "hot":
        why.append(f"“{sample.name}” is from the hot tap: only cold water is tasted.")
    missing = [n for n in _NEEDED if n not in _reported_clean(sample, at)]
    if missing and sample.kind == "own":
        lacks = lacking(own, at.date())
        if lacks:
            said = "; ".join(lacks)
            why.append(f"“{sample.name}” is our own water, and its card lacks: {said}.")
    elif missing and home.private:
        why.append(_unreported(sample, missing))
    return tuple(why)


def _reported_clean(sample: Sample, at: datetime) -> set[str]:
    """What a certified laboratory reported on this water within a year."""
    return {
        r.analyte
        for r in sample.readings
        if r.struck_at is None
        and isinstance(r.observation, LaboratoryResult)
        and r.observation.report == "laboratory"
        and r.observation.certified
        and at.date() - (r.observation.report_date or r.made_at.date()) <= REPORT_IS_RECENT
    }


def _unreported(sample: Sample, missing: list[str]) -> str:
    what = " and ".join(_REPORT_NAMES[n] for n in missing)
    return (
        f"“{sample.name}” comes from a private supply: without a recent clean laboratory report"
        f" ({what}) it is not tasted."
    )


def places(ranks: dict[str, int], codes: Sequence[str]) -> tuple[float, ...]:
    """Ranks in the order of ``codes``; ties share the average of the places they take."""
    values = [ranks[c] for c in codes]
    return tuple(sum(v < r for v in values) + (sum(v == r for v in values) + 1) / 2 for r in values)


@record
class Agreement:
    """Rank sums by code, and how far the tasters agree.

    Args:
        w: Kendall's coefficient of concordance, with the correction for ties; None when nobody told
            any waters apart.
        as_good, of: so many of so many equally likely panels of guessers agree at least as well.
    """

    sums: tuple[float, ...]
    w: float | None
    as_good: int
    of: int
    chance: float


def concordance(ranked: Sequence[tuple[float, ...]]) -> float | None:
    """Kendall's W = 12 S / (m²(n³ − n) − m ΣT), T = Σ(t³ − t) over ties (Kendall and Babington
    Smith, 1939; ties: Kendall, 1970).
    """
    m, n = len(ranked), len(ranked[0])
    ties = sum(t**3 - t for r in ranked for t in Counter(r).values())
    full = m * m * (n**3 - n) - m * ties
    return None if full == 0 else 12 * _spread(tuple(map(sum, zip(*ranked, strict=True))), m) / full


def _spread(sums: Sequence[float], m: int) -> float:
    mean = m * (len(sums) + 1) / 2
    return sum((s - mean) ** 2 for s in sums)


@lru_cache(maxsize=256)
def _guessing(patterns: tuple[tuple[int, ...], ...], at_least: int) -> tuple[int, int]:
    """How many equally likely panels spread their (doubled) rank sums by ``at_least`` or more, and
    how many panels there are.

    Dynamic programming over the rank sums, sorted: every guesser's order is as likely as any, so
    waters may change names.
    """
    m, n = len(patterns), len(patterns[0])
    states: dict[tuple[int, ...], int] = {(0,) * n: 1}
    for p in patterns:
        orders = Counter(permutations(p))
        after: Counter[tuple[int, ...]] = Counter()
        for sums, ways in states.items():
            for order, times in orders.items():
                after[tuple(sorted(a + b for a, b in zip(sums, order, strict=True)))] += (
                    ways * times
                )
        states = after
    mean = m * (n + 1)  # doubled ranks: n + 1 on average a taster
    hit = sum(
        ways for sums, ways in states.items() if sum((s - mean) ** 2 for s in sums) >= at_least
    )
    return hit, prod(sum(Counter(permutations(p)).values()) for p in patterns)


def agreement(t: Tasting) -> Agreement | None:
    """Rank sums, W and the exact chance of so much agreement by guessing; None while a taster is
    still ranking.
    """
    codes = [w.code for w in t.waters]
    ranked = [places(x.ranks, codes) for x in t.tasters if x.ranks is not None]
    if len(ranked) < len(t.tasters):
        return None
    doubled = [tuple(int(2 * r) for r in row) for row in ranked]
    sums = tuple(sum(column) for column in zip(*ranked, strict=True))
    mean = len(ranked) * (len(codes) + 1)
    seen = sum((2 * s - mean) ** 2 for s in sums)
    hit, of = _guessing(tuple(sorted(tuple(sorted(d)) for d in doubled)), int(seen))
    return Agreement(sums=sums, w=concordance(ranked), as_good=hit, of=of, chance=hit / of)


def words_of(t: Tasting) -> dict[str, tuple[tuple[str, int], ...]]:
    """What was said of each code, the most often said first, with how many said it."""
    out = {}
    for w in t.waters:
        counted = Counter(word for x in t.tasters for word in dict.fromkeys(x.said.get(w.code, ())))
        ordered = sorted(counted.items(), key=lambda c: (-c[1], TASTED.index(c[0])))
        out[w.code] = tuple(ordered)
    return out


def how_little(a: Agreement, tasters: int) -> str:
    """What the panel proves, in a sentence."""
    odds = (
        f"By guessing, {a.as_good:,} of {a.of:,} such panels agree as well or better"
        f" ({100 * a.chance:.1f}\u00a0%)."
    )
    if a.w is None:
        return "Nobody told any of the waters apart."
    if tasters == 1:
        return "One taster says what one taster likes, no more."
    if a.chance > 0.05:
        return f"{odds} This panel proves nothing: it shows a liking at most."
    return f"{odds} That is rare, and still only what {tasters} tasters liked today."

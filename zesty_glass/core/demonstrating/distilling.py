"""Distilling with a mass balance: C_feed·V_feed = C_dist·V_dist + C_res·V_res."""

from __future__ import annotations

from typing import Literal

from ..ranges import Range
from ..record import record
from ..testing.by_meter import meter
from ..testing.instruments import Flag
from ..testing.water import Water
from .demonstrations import Distilling
from .kettle import scale_mg_l


@record
class Balance:
    """What went in and came out.

    Args:
        feed, distillate, residue: concentrations [mg/L].
        fed_mg, out_mg: mass in and out [mg]; ``scale_mg``: what may have fallen out as scale [mg].
        verdict: "closes", "closes with scale", "too much", "too little" or "open" (a part not
            measured).
        residue_l: residue that should remain [L] for the residue's display; ``residue_mg_l``:
            display that the amounts lead to [mg/L].
    """

    feed: Range
    distillate: Range | None
    residue: Range | None
    fed_mg: Range
    out_mg: Range | None
    scale_mg: float
    verdict: Literal["closes", "closes with scale", "too much", "too little", "open"]
    residue_l: float | None
    residue_mg_l: Range | None
    flags: tuple[Flag, ...]


def residue_volume(feed: float, feed_l: float, distillate: float, residue: float) -> float | None:
    """Liters that remain when the residue reads ``residue`` [all mg/L]: V·(C_feed − C_dist)/(C_res
    − C_dist); None when it never can.

    >>> residue_volume(400.0, 2.0, 10.0, 1570.0)  # 2 x 390 / 1,560
    0.5
    """
    return (
        None
        if residue <= distillate or feed < distillate
        else feed_l * (feed - distillate) / (residue - distillate)
    )


def volume(litres: float, share: float) -> Range:
    """An amount with the jug's own range [L].

    >>> volume(2.0, 0.05)
    Range(best=2.0, low=1.9, high=2.1)
    """
    return Range.of(litres * (1 - share), litres, litres * (1 + share))


def mass(concentration: Range, litres: Range) -> Range:
    """Concentration × volume, end by end [mg].

    >>> mass(Range.exact(400.0), Range.of(1.9, 2.0, 2.1)).high
    840.0
    """
    high = (
        None
        if concentration.high is None or litres.high is None
        else concentration.high * litres.high
    )
    return Range.of(concentration.low * litres.low, concentration.best * litres.best, high)


def verdict(
    fed: Range, out: Range, scale_mg: float
) -> Literal["closes", "closes with scale", "too much", "too little"]:
    """Closed when the ranges of in and out share a value; a residue low by no more than the scale
    that may have fallen out closes too.

    >>> verdict(Range.of(780, 800, 820), Range.of(700, 720, 740), 50.0)  # 740 + 50 reach 780
    'closes with scale'
    """
    if fed.overlaps(out):
        return "closes"
    if fed.high is not None and out.low > fed.high:
        return "too much"
    return (
        "closes with scale"
        if out.high is not None and out.high + scale_mg >= fed.low
        else "too little"
    )


def balance(d: Distilling, water: Water | None) -> Balance:
    """The mass balance of a distilling, as far as it was measured; ``water``: the feed's sample,
    for hardness and alkalinity.
    """
    parts = {
        n: meter(d.instrument, seen) if (seen := getattr(d, n)) is not None else None
        for n in ("feed", "distillate", "residue")
    }
    flags = tuple(
        Flag(id=f"{n}.{f.id}", sentence=f"{n.capitalize()}: {f.sentence}")
        for n, v in parts.items()
        if v is not None
        for f in v.flags
    )
    feed = parts["feed"]
    assert feed is not None and feed.range is not None
    dist = None if parts["distillate"] is None else parts["distillate"].range
    res = None if parts["residue"] is None else parts["residue"].range
    fed = mass(feed.range, volume(d.feed_l, d.volume_share))
    found = None if water is None else scale_mg_l(water)
    fallen = 0.0 if found is None else found[0].seen_top * d.feed_l
    out, said, expected = None, "open", None
    steam_l = d.distillate_l
    if steam_l is None and d.residue_l is not None:
        steam_l = d.feed_l - d.residue_l
    came = dist or Range.exact(0.0)
    if d.residue_l is not None and steam_l is not None:
        over = mass(came, volume(steam_l, d.volume_share))
        expected = fed.minus(over).scale(1 / d.residue_l)
        if res is not None:
            out = mass(res, volume(d.residue_l, d.volume_share)).plus(over)
            said = verdict(fed, out, fallen)
    should = None if res is None else residue_volume(feed.range.best, d.feed_l, came.best, res.best)
    return Balance(
        feed=feed.range,
        distillate=dist,
        residue=res,
        fed_mg=fed,
        out_mg=out,
        scale_mg=fallen,
        verdict=said,  # type: ignore[arg-type]
        residue_l=should,
        residue_mg_l=expected,
        flags=flags,
    )

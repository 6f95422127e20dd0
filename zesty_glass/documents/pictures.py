"""The glass, the cost curves and the bars as SVG for paper. The page draws the same from the same
``glass.json``.

Everything drawn is made of numbers and of constants of this module; the few words that come from
data (a currency, a line's letter) go through ``_words``, which is the only way that text gets into
a picture.
"""

from __future__ import annotations

import itertools
import json
import math
from collections.abc import Mapping, Sequence
from decimal import Decimal
from pathlib import Path
from typing import Any

from markupsafe import Markup, escape

from ..core.proposing.rows import Cell, Row
from ..core.ranges import Range
from ..core.treating.stream import Quantity
from ..messages.catalogue import ORIGINAL
from ..messages.spoken import Say, Spoken

SCALE: dict[str, Any] = json.loads((Path(__file__).parent / "glass.json").read_text())
INK, YUZU, PAPER = "#10302A", "#F0D01F", "#FFFFFA"
_RIM, _FOOT, _DEEP, _FLOOR, _RW, _FW, _YS = 8.0, 129.0, 137.0, 116.0, 36.0, 29.0, 29.0


def _words(x: float, y: float, text: object, *, fill: str = "#3B554E", **more: str) -> str:
    """A text of a picture, escaped."""
    attributes = "".join(f' {k.replace("_", "-")}="{v}"' for k, v in more.items())
    return f'<text x="{x}" y="{y:.1f}"{attributes} fill="{fill}">{escape(str(text))}</text>'


def _picture(parts: Sequence[str]) -> Markup:
    """The finished picture: its parts hold numbers, constants and what ``_words`` escaped."""
    return Markup("".join(parts))


def _outer(y: float) -> float:
    return _RW - (_RW - _FW) * (y - _RIM) / (_FOOT - _RIM)


def _half(y: float) -> float:
    return _outer(y) - 2.9


def halton(index: int, base: int) -> float:
    """The ``index``-th point of the Halton sequence: scattered, and never changing."""
    f, r = 1.0, 0.0
    while index > 0:
        f /= base
        r += f * (index % base)
        index //= base
    return r


def tint(tannin: float, ferric: float) -> tuple[int, int, int]:
    """Color of a water: Beer–Lambert by channel on a pale clear water (coefficients chosen by
    eye).
    """
    r, g, b = (
        round(c * math.exp(-(kt * tannin + kf * ferric)))
        for c, kt, kf in zip(SCALE["clear"], SCALE["tannin"], SCALE["rust"], strict=True)
    )
    return r, g, b


def _rgb(c: Sequence[int], by: float = 1.0) -> str:
    return "rgb({},{},{})".format(*(min(255, round(v * by)) for v in c))


def _best(values: Mapping[str, Quantity], name: str) -> float:
    q = values.get(name)
    return q.range.best if q is not None and q.range is not None else 0.0


def _crystals(r: Range) -> str:
    unit, most = SCALE["crystal_mg_l"], SCALE["crystals_most"]
    low, high = (
        min(most, round(r.low / unit)),
        min(most, round((r.low * 1.3 if r.high is None else r.high) / unit)),
    )
    solids: list[str] = []
    hollows: list[str] = []
    for i in range(high):
        y = _YS + 9 + halton(i + 3, 2) * (_FLOOR - _YS - 13)
        x = 50 + (halton(i + 3, 3) * 2 - 1) * (_half(y) - 7)
        s = 2.15 * (0.85 + 0.35 * halton(i + 1, 7))
        a = math.radians(halton(i + 1, 5) * 70 - 35)
        corners = ((-s, s * 0.55), (-s * 0.45, -s * 0.75), (s, -s * 0.55), (s * 0.45, s * 0.75))
        cos, sin = math.cos(a), math.sin(a)
        turned = "L".join(
            f"{x + u * cos - v * sin:.2f},{y + u * sin + v * cos:.2f}" for u, v in corners
        )
        (solids if i < low else hollows).append(f"M{turned}Z")
    return (
        f'<path d="{"".join(solids)}" fill="#FFFFFC" stroke="{INK}" stroke-width="1"/><path'
        f' d="{"".join(hollows)}" fill="none" stroke="{INK}" stroke-width="1" stroke-dasharray="1.3'
        ' 1"/>'
    )


def _bubbles(n: int, pair: bool, seed: int) -> str:
    out = []
    for i in range(n):
        y = _FLOOR - 4 - halton(i + 1 + seed, 2) * (_FLOOR - _YS - 6)
        x = 50 + (-0.62, 0.1, 0.66)[i % 3] * (_half(y) - 6) + (halton(i + 2 + seed, 3) - 0.5) * 9
        r = 2.1 * (0.7 + 0.7 * (_FLOOR - y) / (_FLOOR - _YS))
        style = f'fill="#FFFFFC" fill-opacity=".6" stroke="{INK}" stroke-width=".9"'
        out.append(f'<circle cx="{x:.1f}" cy="{y:.1f}" r="{r:.2f}" {style}/>')
        if pair:
            out.append(
                f'<circle cx="{x + r * 1.7:.1f}" cy="{y - 0.6:.1f}" r="{r * 0.75:.2f}" {style}/>'
            )
    return "".join(out)


def _crust(ring: float) -> str:
    if ring <= 0:
        return ""
    e, n, t = 4.2 * _half(_YS) / 33, 24, 3.2 * (0.2 + 0.85 * min(2.0, ring))
    up, down = [], []
    for i in range(n + 1):
        a = math.pi * i / n
        x, y, f = 50 - math.cos(a) * _half(_YS), _YS + math.sin(a) * e, math.sin(a) * 0.5 + 0.5
        up.append(f"{x:.1f},{y - t * f * (0.25 + 0.95 * halton(i + 1, 2)):.1f}")
        down.append(f"{x:.1f},{y + t * f * (0.1 + 0.45 * halton(i + 4, 3)):.1f}")
    return (
        f'<path d="M{"L".join(up)}L{"L".join(reversed(down))}Z" fill="#FFFFFC" stroke="{INK}"'
        ' stroke-width=".9"/>'
    )


def _slice(x: float, y: float, r: float) -> str:
    seg = []
    for i in range(9):
        a, b = i / 9 * 6.2832 + 0.2, (i + 1) / 9 * 6.2832 + 0.08
        m, big, q = (a + b) / 2, r * 0.74, r * 0.16
        inner = f"{x + q * math.cos(m):.2f},{y + q * math.sin(m):.2f}"
        start = f"{x + big * math.cos(a + 0.05):.2f},{y + big * math.sin(a + 0.05):.2f}"
        end = f"{x + big * math.cos(b):.2f},{y + big * math.sin(b):.2f}"
        seg.append(f"M{inner}L{start}A{big},{big} 0 0 1 {end}Z")
    return (
        f'<circle cx="{x}" cy="{y}" r="{r}" fill="{YUZU}" stroke="{INK}"'
        f' stroke-width="1.9"/><circle cx="{x}" cy="{y}" r="{r * 0.84}" fill="#FFFBE6"/><path'
        f' d="{"".join(seg)}" fill="{YUZU}" stroke="{INK}" stroke-opacity=".55" stroke-width=".5"/>'
    )


def glass(
    values: Mapping[str, Quantity],
    h: float,
    *,
    ferric: bool | None = None,
    scale: float | None = None,
    predicted: bool = False,
    chosen: bool = False,
) -> Markup:
    """A water as an SVG glass ``h`` px high."""
    iron = _best(values, "iron")
    unsure = 0.0 if ferric is False else iron * 0.1
    rusted = iron if ferric else unsure
    c = tint(_best(values, "tannin"), rusted)
    body = (
        f"M{50 - _half(_YS)},{_YS} L{50 - _half(_FLOOR)},{_FLOOR - 2}"
        f" Q{50 - _half(_FLOOR) + 1},{_FLOOR + 2.4} 31,{_FLOOR + 3.6} Q50,{_FLOOR + 5.6}"
        f" 69,{_FLOOR + 3.6} Q{50 + _half(_FLOOR) - 1},{_FLOOR + 2.4}"
        f" {50 + _half(_FLOOR)},{_FLOOR - 2} L{50 + _half(_YS)},{_YS} Z"
    )
    outer = (
        f"M{50 - _RW},{_RIM} L{50 - _outer(126)},126 Q{50 - _outer(129) + 0.3},{_FOOT + 3.4}"
        f" 28,{_DEEP - 2.2} Q50,{_DEEP + 1.6} 72,{_DEEP - 2.2}"
        f" Q{50 + _outer(129) - 0.3},{_FOOT + 3.4} {50 + _outer(126)},126 L{50 + _RW},{_RIM}"
    )
    dash = ' stroke-dasharray="5 3.6"' if predicted else ""
    parts = [
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{h * 100 / 140:.1f}" height="{h}"'
        ' viewBox="-2 -10 110 150">'
    ]
    parts.append(
        f'<ellipse cx="62" cy="{_DEEP}" rx="40" ry="3.4" fill="{_rgb(c, 0.8)}"'
        f' opacity="{0.3 if predicted else 0.55}"/>'
    )
    parts.append(f'<path d="{outer}Z" fill="#FFFEFA"/><path d="{body}" fill="{_rgb(c)}"/>')
    ntu = _best(values, "turbidity")
    if ntu > 0:
        parts.append(
            f'<path d="{body}" fill="#F6F2E6"'
            f' opacity="{(1 - math.exp(-SCALE["haze"] * ntu)) * 0.55:.2f}"/>'
        )
    if rusted > 0.15:
        parts.append(
            f'<path d="M{50 - _half(_FLOOR) + 2},{_FLOOR + 1}'
            f" Q40,{_FLOOR - 2 - 2 * min(3, rusted):.1f} 60,{_FLOOR}"
            f" T{50 + _half(_FLOOR) - 2},{_FLOOR + 1} Q50,{_FLOOR + 6}"
            f' {50 - _half(_FLOOR) + 2},{_FLOOR + 1}Z" fill="#8A4A1D" opacity=".55"/>'
        )
    hard = values.get("hardness")
    if hard is not None and hard.range is not None:
        parts.append(_crystals(hard.range))
    parts.append(
        _bubbles(min(24, round(_best(values, "chlorine_free") / 0.1)), False, 0)
        + _bubbles(min(12, round(_best(values, "chlorine_combined") / 0.1)), True, 9)
    )
    parts.append(
        f'<ellipse cx="50" cy="{_YS}" rx="{_half(_YS)}" ry="{4.2 * _half(_YS) / 33:.2f}"'
        f' fill="{_rgb(c, 1.03)}" stroke="{INK}" stroke-width="1"/>' + _crust(scale or 0.0)
    )
    parts.append(f'<path d="{body}" fill="none" stroke="{INK}" stroke-width=".9" opacity=".55"/>')
    tds = values.get("tds")
    if tds is not None and tds.range is not None:
        y = _FLOOR - (_FLOOR - _YS - 8) * min(1.0, tds.range.best / SCALE["tds_top"])
        parts.append(f'<path d="M{50 + _outer(y) + 1.4},{y:.1f} l5.5,-3.2 v6.4Z" fill="{INK}"/>')
    parts.append(
        f'<path d="{outer}" fill="none" stroke="{INK}" stroke-width="1.9"'
        f' stroke-linejoin="round"{dash}/><ellipse cx="50" cy="{_RIM}" rx="{_RW}" ry="4.8"'
        f' fill="none" stroke="{INK}" stroke-width="1.9"{dash}/>'
    )
    if chosen:
        parts.append(_slice(86, 6, 14))
    parts.append("</svg>")
    return _picture(parts)


def _top(r: Range) -> float:
    """The upper end of a bar; the best value where a range has none."""
    return r.best if r.high is None else r.high


def _year(k: int, years: int, say: Say) -> str | int:
    """What stands under a year of a chart: words at both ends, a number between."""
    if k == 0:
        return say("now")
    return say("{0} years", k) if k == years else k


def range_bar(row: Row, cell: Cell, today: Cell) -> Markup:
    """Today and after as bars against the wanted zone."""
    r, t = cell.range, today.range
    if r is None:
        return Markup()
    r_high, t_high = _top(r), 0.0 if t is None else _top(t)
    top = max(r_high, t_high, row.target or 0.0) * 1.12 or 1.0

    def x(v: float) -> float:
        return v / top * 118

    def bar(a: float, b: float, solid: bool) -> str:
        return (
            f'<rect x="{x(a):.1f}" y="6" width="{max(3.0, x(b) - x(a)):.1f}" height="8"'
            f' fill="{INK if solid else PAPER}" stroke="{INK}" stroke-width="1.2"/>'
        )

    parts = [
        '<svg xmlns="http://www.w3.org/2000/svg" width="120" height="20" viewBox="-1 0 120 20">'
    ]
    if row.target:
        zone = (
            f'x="0" width="{x(row.target):.1f}"'
            if row.op == "at_most"
            else f'x="{x(row.target):.1f}" width="{118 - x(row.target):.1f}"'
        )
        parts.append(
            f'<rect {zone} y="1" height="16" fill="#E2EFE9"/><path d="M{x(row.target):.1f},1V17"'
            ' stroke="#1D6A4C" stroke-width="1.6"/>'
        )
    parts.append('<path d="M0,17H118" stroke="#586D65" stroke-width=".8"/>')
    if t is not None and cell.change not in ("today", "stays", "no_claim"):
        parts.append(bar(t.low, t_high, False))
    parts.append(bar(r.low, r_high, True) + "</svg>")
    return _picture(parts)


def _axis_step(most: float) -> int:
    """The distance of lines on an axis [money]: 1, 2 or 5 times a power of ten, five lines or
    fewer, at least 100.
    """
    power = 10 ** max(2, math.floor(math.log10(max(most, 1.0))) - 1)
    return next(int(f * power) for f in (1, 2, 5, 10, 20, 50) if most / (f * power) <= 5.2)


OPEN_DASH = "2 5"  # of a curve that costs more than is known


def cost_chart(
    curves: Sequence[tuple[str, Sequence[Decimal], bool, bool]],
    years: int,
    currency: str,
    say: Say = Spoken(ORIGINAL).message,
) -> Markup:
    """Cumulative cost curves: (letter or "Today", monthly totals, recommended, whether it costs
    more than is known, which leaves its curve open).
    """
    most = max((float(m[-1]) for _, m, *_ in curves if m), default=1.0) or 1.0
    step = _axis_step(most)
    top = math.ceil(most / step) * step
    left, right, high, low = 46.0, 440.0, 12.0, 218.0

    def x(m: float) -> float:
        return left + m / (12 * years) * (right - left)

    def y(v: float) -> float:
        return low - v / top * (low - high)

    parts = [
        '<svg xmlns="http://www.w3.org/2000/svg" width="510" height="250" viewBox="0 0 510 250"'
        ' font-family="Text" font-size="11">'
    ]
    for k in range(round(top / step) + 1):
        v = k * step
        parts.append(
            f'<path d="M{left},{y(v):.1f}H{right}" stroke="{"#D9D2BE" if v else INK}"'
            f' stroke-width="{1 if v else 1.4}"/>'
            + _words(left - 6, y(v) + 4, f"{v:,}" if v else f"{currency}0", text_anchor="end")
        )
    for k in range(0, years + 1, max(1, years // 5)):
        parts.append(
            _words(
                round(x(12 * k), 1),
                low + 18,
                _year(k, years, say),
                text_anchor="middle",
            )
        )
    styles = [
        ("#586D65", 1.6, "2 3"),
        ("#2F7468", 2.4, ""),
        (INK, 2.4, ""),
        ("#3B554E", 2.4, "7 3"),
        ("#2F7468", 2.4, "2 2"),
    ]
    ends: list[list[Any]] = []
    for i, (name, monthly, chosen, more) in enumerate(curves):
        d = f"M{x(0):.1f},{y(0):.1f}" + "".join(
            f"L{x(m):.1f},{y(float(v)):.1f}" for m, v in enumerate(monthly)
        )
        colour, width, dash = styles[i % len(styles)]
        dash = OPEN_DASH if more else dash
        if chosen and not more:
            parts.append(
                f'<path d="{d}" fill="none" stroke="{INK}" stroke-width="5.6"/><path d="{d}"'
                f' fill="none" stroke="{YUZU}" stroke-width="3"/>'
            )
        else:
            dashed = f' stroke-dasharray="{dash}"' if dash else ""
            parts.append(
                f'<path d="{d}" fill="none" stroke="{colour}" stroke-width="{width}"{dashed}/>'
            )
        ends.append([y(float(monthly[-1])), f"≥ {name}" if more else name])
    ends.sort()
    for before, e in itertools.pairwise(ends):
        e[0] = max(e[0], before[0] + 15)
    parts += [_words(right + 8, e[0] + 4, e[1], fill=INK, font_weight="600") for e in ends]
    return _picture([*parts, "</svg>"])


MOST_TUBS = 40


#: gallons that a drawn tub stands for, from more than so many gallons a year on
TUB_STANDS_FOR = ((24000.0, 4000.0), (8000.0, 1600.0), (2000.0, 400.0), (-1.0, 160.0))


def _per_tub(total: float) -> float:
    """How many gallons a drawn tub stands for: 4, 10, 40 or 100 baths of 40 gal, and tenfold as
    long as they are too many.
    """
    per = next(per for least, per in TUB_STANDS_FOR if total > least)
    while total / per > MOST_TUBS:
        per *= 10
    return per


def tubs(parts: Mapping[str, float]) -> Markup:
    """Gallons a year as bathtubs; a tub stands for so many baths of 40 gal that ``MOST_TUBS`` are
    enough.
    """
    per = _per_tub(sum(parts.values()))
    fills = {"membrane": "#BFDACF", "regeneration": "#7FB0A3", "backwash": "#C98B4A"}
    out, n = [], 0
    for kind, gal in parts.items():
        left = gal / per
        while left > 0.04:
            gx, gy = n % 8 * 24, n // 8 * 16
            out.append(
                f'<g transform="translate({gx} {gy})"><path d="M1,2.5h17.5l-1.6,6.2q-.6,2.3'
                f' -3,2.3h-8.3q-2.4,0 -3,-2.3Z" fill="{fills.get(kind, "#BFDACF")}"'
                f' fill-opacity="{max(0.15, min(1.0, left)):.2f}" stroke="{INK}"'
                ' stroke-width="1.1"/></g>'
            )
            left, n = left - 1, n + 1
    if not n:
        return Markup()
    high = (n - 1) // 8 * 16 + 16
    head = (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="196" height="{high}" viewBox="0 0 196'
        f' {high}">'
    )
    return _picture([head, *out, "</svg>"])

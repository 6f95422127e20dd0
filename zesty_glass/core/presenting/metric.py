"""Sentences and figures in metric units: what the core says of a line in gallons, pounds, inches
and grains is said in liters, kilograms, centimetres and mg/L where the home is shown so.

Rules and sizes are kept and worked in the trade's US units; this is the one place where their text
is turned. Names of the catalog are the firm's own words and stay. A working keeps the units of
its formula, and says its title's result in both.
"""

from __future__ import annotations

import math
import re
from collections.abc import Iterable
from dataclasses import fields, is_dataclass, replace
from decimal import Decimal
from functools import lru_cache
from itertools import chain
from typing import Any, NamedTuple, TypeVar, cast

from ..ranges import Range
from ..treating.items import Item
from ..units import (
    BQ_L_PER_PCI_L,
    CM_PER_IN,
    KG_PER_LB,
    KPA_PER_PSI,
    L_PER_GAL,
    MG_L_PER_GPG,
)
from ..visit import Visit
from ..words import number
from ..working import Working

_T = TypeVar("_T")
L_PER_FT3 = (12 * CM_PER_IN) ** 3 / 1000
G_PER_GRAIN = KG_PER_LB / 7  # 7,000 grains are a pound
M2_PER_FT2 = (0.12 * CM_PER_IN) ** 2
M3_H_PER_L_MIN = 0.06
LARGE_FLOW = "m³/h"
LARGE_L_MIN = 100.0  # from here on a flow is said in m³/h, as pumps and large units are sold


class Turned(NamedTuple):
    """A US unit turned into a metric one: its name, and how many of it one US unit is."""

    unit: str
    factor: float


#: US unit, as the core writes it -> metric; the longer before what it begins with
UNITS: dict[str, Turned] = {
    "grains a pound of salt": Turned("g a kilogram of salt", G_PER_GRAIN / KG_PER_LB),
    "gr/lb": Turned("g/kg", G_PER_GRAIN / KG_PER_LB),
    "grains": Turned("g as CaCO₃", G_PER_GRAIN),
    "gallon": Turned("liter", L_PER_GAL),
    "gal/day": Turned("L/day", L_PER_GAL),
    "gal/ft³": Turned("L/L", L_PER_GAL / L_PER_FT3),
    "gal": Turned("L", L_PER_GAL),
    "gpm/ft²": Turned("m/h", L_PER_GAL * M3_H_PER_L_MIN / M2_PER_FT2),
    "gpm": Turned("L/min", L_PER_GAL),
    "pCi/L": Turned("Bq/L", BQ_L_PER_PCI_L),
    "psi": Turned("kPa", KPA_PER_PSI),
    "lb/ft³": Turned("g/L", KG_PER_LB * 1000 / L_PER_FT3),
    "ft³": Turned("L", L_PER_FT3),
    "lb": Turned("kg", KG_PER_LB),
    "gpg": Turned("mg/L", MG_L_PER_GPG),
    "in": Turned("cm", CM_PER_IN),
    "ft": Turned("m", 0.12 * CM_PER_IN),
}
_NUMBER = r"\d[\d,]*(?:\.\d+)?"
_UNIT = "|".join(re.escape(u) for u in UNITS if u not in ("in", "ft"))
#: inches and feet are told from words by what follows: "62 in of height", not "1 in the morning"
LENGTH = r"(?:in|ft)(?=\s(?:of|are|free|above|wide|long|deep)\b|[,.;)]|$)"
_AMOUNT = re.compile(
    rf"(?P<low>{_NUMBER})(?:(?P<to> to )(?P<high>{_NUMBER}))?(?P<gap>[\s-])"
    rf"(?P<unit>{_UNIT}|{LENGTH})(?![\w³²/])"
)
_PRICED = re.compile(rf"(?P<price>{_NUMBER}) a 1,000 gal\b")
_EACH = re.compile(rf"(?P<each>{_NUMBER}) a gallon\b")
_DIALLED = re.compile(rf"{_NUMBER} gpg")  # on a valve, which may know grains alone
_BOTH_WAYS = re.compile(r"°dH|gpg = ")  # hardness that is said in every unit is left so


def _digits(text: str) -> float:
    return float(text.replace(",", ""))


def _said(us: str, factor: float) -> str:
    """A number turned: whole from ten on, to as many figures as it had where it was rounded."""
    value = _digits(us) * factor
    if value == 0 or not math.isfinite(value):
        return number(value, 0)
    if abs(value) < 10:
        return number(value, 1)
    known = len(us.replace(",", "").replace(".", "").strip("0"))
    place = max(0, math.floor(math.log10(abs(value))) - max(2, known))
    return number(round(value, -place), 0)


def _turned(m: re.Match[str]) -> str:
    us = m["unit"]
    unit, factor = UNITS[us]
    if us == "gpm" and _digits(m["high"] or m["low"]) * factor >= LARGE_L_MIN:
        unit, low = LARGE_FLOW, number(_digits(m["low"]) * factor * M3_H_PER_L_MIN, 1)
        high = "" if m["high"] is None else number(_digits(m["high"]) * factor * M3_H_PER_L_MIN, 1)
    else:
        low = _said(m["low"], factor)
        high = "" if m["high"] is None else _said(m["high"], factor)
    return f"{low}{m['to'] or ''}{high}{m['gap']}{unit}"


@lru_cache(8192)
def said_metric(text: str) -> str:
    """A sentence with its US amounts in metric units.

    >>> said_metric("Peak flow is 9 gpm; this passes 30 gpm.")
    'Peak flow is 34 L/min; this passes 6.8 m³/h.'
    >>> said_metric("Needs 62 in of height, at 1 in the morning.")
    'Needs 157 cm of height, at 1 in the morning.'
    """
    if _BOTH_WAYS.search(text):
        return text
    if _DIALLED.fullmatch(text):
        return f"{_AMOUNT.sub(_turned, text)} ({text})"
    text = _EACH.sub(lambda m: f"{_digits(m['each']) / L_PER_GAL:.2f} a liter", text)
    text = _PRICED.sub(lambda m: f"{_digits(m['price']) / L_PER_GAL:.2f} a m³", text)
    return _AMOUNT.sub(_turned, text)


def _working(w: Working) -> Working:
    """A working keeps its units; its title names the figure in both."""
    title = said_metric(w.title)
    if title == w.title:
        return w
    us = w.title.removeprefix("Why ").rstrip("?")
    return replace(w, title=title, note=f"{w.note} In the formula’s units: {us}.".strip())


#: fields that are no sentence of the core: keys, what names a source, and what people wrote
_KEYS = frozenset(
    {"id", "code", "item", "kind", "analyte", "source", "option", "sample", "key"}
    | {"complaints", "customer", "answers", "words", "home", "place", "firm"}
)


_NUMBERS = frozenset({float, int, bool, type(None), Decimal, Range})


_TEXTS: dict[type[Any], tuple[str, ...]] = {}


def _texts(cls: type[Any]) -> tuple[str, ...]:
    """Fields of a record that may hold texts; none of what is no record."""
    if cls not in _TEXTS:
        named = fields(cls) if is_dataclass(cls) else ()
        _TEXTS[cls] = tuple(f.name for f in named if f.name not in _KEYS)
    return _TEXTS[cls]


class _Turner:
    """Walks what was worked out and turns its texts; what does not change is left as it is."""

    def __init__(self, names: Iterable[str]) -> None:
        own = sorted({n for n in names if _AMOUNT.search(n)}, key=len, reverse=True)
        self.own = re.compile("|".join(map(re.escape, own))) if own else None

    def text(self, text: str) -> str:
        """A sentence turned around the firm's own names."""
        said = said_metric(text)
        if said == text or self.own is None or not self.own.search(text):
            return said
        kept: list[str] = []

        def keep(m: re.Match[str]) -> str:
            kept.append(m[0])
            return f"\x00{len(kept) - 1}\x00"

        turned = said_metric(self.own.sub(keep, text))
        return re.sub("\x00(\\d+)\x00", lambda m: kept[int(m[1])], turned)

    def of(self, x: Any) -> Any:
        """Anything turned."""
        if type(x) is str:  # a member of an enumeration is a key
            return self.text(x)
        if isinstance(x, Working):
            return _working(x)
        if isinstance(x, tuple):
            return self._row(x)
        if isinstance(x, dict):
            made = {k: self.of(v) for k, v in x.items()}
            return made if any(made[k] is not v for k, v in x.items()) else x
        if _texts(type(x)):
            return self._record(x)
        return x

    def _row(self, x: tuple[Any, ...]) -> Any:
        made = [self.of(v) for v in x]
        if all(a is b for a, b in zip(made, x, strict=True)):
            return x
        return type(x)(*made) if hasattr(x, "_fields") else tuple(made)

    def _record(self, x: Any) -> Any:
        told: dict[str, Any] = {}
        value, unit = getattr(x, "value", None), getattr(x, "unit", None)
        if isinstance(value, str) and isinstance(unit, str) and unit in UNITS and value:
            turned = _AMOUNT.sub(_turned, f"{value} {unit}")
            *before, last = turned.split(" ")
            told = {"value": " ".join(before), "unit": last}
        for name in _texts(type(x)):
            if name in told:
                continue
            was = getattr(x, name)
            if name == "reasons" and isinstance(was, str):
                continue  # the consultant's own
            if type(was) not in _NUMBERS:
                now = self.of(was)
                if now is not was:
                    told[name] = now
        return replace(x, **told) if told else x


def _own_words(visit: Visit, on_sale: Iterable[Item]) -> Iterable[str]:
    """Names of the firm's catalog, of its parts and of what stands there."""
    items = ((i.name, *(c.name for c in i.consumables)) for i in (*visit.catalogue, *on_sale))
    kits = (r.instrument.name for s in visit.samples for r in s.readings)
    return chain(chain.from_iterable(items), kits, (o.name for o in visit.options))


def in_units(worked: _T, visit: Visit, on_sale: Iterable[Item] = ()) -> _T:
    """What was worked out of a visit, its texts in the units that the visit is shown in.

    Args:
        on_sale: items beside those of the visit, whose names are the firm's own words too.
    """
    if visit.settings.units != "metric":
        return worked
    return cast(_T, _Turner(_own_words(visit, on_sale)).of(worked))

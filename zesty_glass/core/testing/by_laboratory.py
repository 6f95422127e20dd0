"""Values of a laboratory's report: basis, unit, detection limit, radon's decay."""

from __future__ import annotations

import math
from typing import Any, Literal

from ..analyte import Analyte, Form
from ..analytes import analyte
from ..ranges import Range
from ..units import convert
from .instruments import Flag, Instrument
from .observations import (
    LaboratoryResult,
)
from .value import Value, refused

LONGEST_RADON_H, FLAGGED_RADON_H = 720.0, 96.0  # [h] drawing to mid-count: refused, flagged


#: [d] Rn-222, evaluated nuclear data (DDEP, 2010)
RADON_HALF_LIFE_D = analyte("radon").half_life_d or math.inf


def radon_at_drawing(measured: float, hours: float) -> float:
    """Radon at drawing, from the activity as of counting: measured · 2^(hours / 24 / 3.8235), in
    the unit of ``measured`` [pCi/L or Bq/L].

    Args:
        hours: between drawing and counting [h].

    Source: half-life of radon-222, 3.8235 d (Decay data evaluation project, 2010).

    >>> round(radon_at_drawing(1000.0, 91.764))  # one half-life
    2000
    """
    return measured * math.exp2(hours / 24.0 / RADON_HALF_LIFE_D)


_PLAIN_MASS = ("", "mg/L", "ppm", "µg/L", "ug/L", "ppb")


#: [unit] what a report may be typed in, beside the canonical unit; the first is taken for granted
_TYPED_IN = {
    "pCi/L": ("pCi/L", "Bq/L"),
    "mg/L as CaCO3": ("mg/L", "gpg", "°dH", "mmol/L"),
    "mg/L": ("mg/L", "µg/L", "ppb", "ng/L"),
}


def _form(name: str, seen: LaboratoryResult) -> Form | Literal[""]:
    """The form that a report tells; RuleError for one that is none."""
    known = dict(analyte(name).forms)
    if not known or not seen.basis:
        return ""
    if seen.basis not in known:
        raise refused(
            "laboratory.basis",
            f"{analyte(name).name} is told apart as {' or '.join(known)}, not as {seen.basis}.",
            "As(V): all of it; As(III): some of it. Leave it empty where the report is silent.",
            "observation.basis",
        )
    return known[seen.basis]


def report_units(name: str) -> tuple[str, ...]:
    """Units a report on this analyte is typed in.

    >>> report_units("radon")
    ('pCi/L', 'Bq/L')
    """
    canonical = analyte(name).unit
    return _TYPED_IN.get(canonical, (canonical,))


def report_bases(name: str) -> tuple[str, ...]:
    """What a report's mg/L may be counted as; empty where there is only one way.

    >>> report_bases("magnesium")
    ('Mg', 'CaCO3')
    """
    a = analyte(name)
    if a.half_life_d is not None:
        return COLLECTION, COUNTING
    return tuple(basis for basis, _ in (*a.bases, *a.forms))


#: as of when an activity is reported
COLLECTION, COUNTING = "collection", "counting"
LATE_RADON = "Counted more than 96 hours after drawing: the laboratory asks for 4 days at most."


def _mass_basis(a: Analyte, seen: LaboratoryResult) -> float:
    """Factor of a result that may be counted as one thing or another, as N or as NO3, as an ion or
    as CaCO3.
    """
    known = dict(a.bases)
    if a.states_basis and seen.basis not in known:
        raise refused(
            "laboratory.basis",
            f"The result does not say whether it is as {' or as '.join(known)}.",
            "Read the basis off the report.",
            "observation.basis",
        )
    if not a.states_basis and seen.unit not in _PLAIN_MASS:
        # gpg, degrees and "mg/L as CaCO3" say what they are
        return 0.5 if seen.unit == "mmol/L" and a.id == "alkalinity" else 1.0
    basis = seen.basis or next(iter(known))
    if basis not in known:
        raise refused(
            "laboratory.basis",
            f"{a.name} is reported as {' or as '.join(known)}, not as {basis}.",
            "Read the basis off the report.",
            "observation.basis",
        )
    return known[basis]


def _drawn_basis(seen: LaboratoryResult) -> float:
    """Factor of an activity, from the time that the report counts from back to drawing."""
    if seen.basis not in (COLLECTION, COUNTING):
        raise refused(
            "laboratory.radon_basis",
            "The report’s activity is as of collection or as of counting: this one does not say.",
            "Read it off the report.",
            "observation.basis",
        )
    if seen.basis == COLLECTION:
        return 1.0
    if seen.hours_to_count is not None and seen.hours_to_count > LONGEST_RADON_H:
        raise refused(
            "laboratory.radon_late",
            f"{seen.hours_to_count:g} hours to mid-count: nothing of the radon is left by then.",
            f"At most {LONGEST_RADON_H:g} hours. Check the two times; else draw again.",
            "observation.hours_to_count",
        )
    if seen.hours_to_count is None or seen.hours_to_count < 0:
        raise refused(
            "laboratory.radon_hours",
            "As of counting needs the hours from drawing to mid-count.",
            "Work them out from the two times.",
            "observation.hours_to_count",
        )
    return radon_at_drawing(1.0, seen.hours_to_count)


def _basis(a: Analyte, seen: LaboratoryResult) -> float:
    """Factor from the reported to the stored basis; what can be given on two bases must state its
    own.
    """
    if a.bases:
        return _mass_basis(a, seen)
    return 1.0 if a.half_life_d is None else _drawn_basis(seen)


def laboratory(instrument: Instrument, seen: LaboratoryResult) -> Value:
    """A report's result in the canonical unit, with the basis settled and radon brought back to
    drawing.
    """
    name = instrument.analyte
    canonical = analyte(name).unit
    lab = seen.report == "laboratory"
    common: dict[str, Any] = {
        "analyte": name,
        "unit": canonical,
        "laboratory": lab,
        "certified": lab and seen.certified is True,
        "form": _form(name, seen),
    }
    if seen.qualifier in ("absent", "present"):
        if canonical != "per 100 mL":
            raise refused(
                "laboratory.words",
                f"“{seen.qualifier}” is an answer for bacteria, not for {analyte(name).name}.",
                "Type a number, or < and the limit.",
                "observation.qualifier",
            )
        return Value(range=None, words=seen.qualifier, **common)
    if seen.value is None or not math.isfinite(seen.value) or seen.value < 0:
        raise refused(
            "laboratory.value",
            "The result has no number that can be used.",
            "Type the number on the report.",
            "observation.value",
        )
    unit = seen.unit or canonical
    if name == "temperature":
        c, v = 1.0, convert(seen.value, unit, canonical)
    elif name == "ph":
        c, v = 1.0, seen.value
    else:
        c = convert(1.0, unit, canonical) * _basis(analyte(name), seen)
        v = seen.value * c
    if v == 0 and seen.qualifier == "=" and canonical not in ("per 100 mL", "NTU", "%"):
        raise refused(
            "laboratory.zero",
            "No laboratory measures 0: it is under a detection limit.",
            "Write < and the detection limit of the report.",
            "observation.value",
        )
    if seen.qualifier == "<":
        return Value(range=Range.of(0.0, v / 2, v), below=v, **common)
    u = seen.uncertainty * c
    late = (seen.hours_to_count or 0) > FLAGGED_RADON_H and analyte(name).half_life_d is not None
    flags = (Flag(id="radon.late", sentence=LATE_RADON),) if late else ()
    r = (
        Range(low=v, best=v, high=None)
        if seen.qualifier == ">"
        else Range.of(max(0.0, v - u), v, v + u)
    )
    return Value(range=r, flags=flags, open_ended=r.high is None, **common)

"""How each kit is used, step by step, as data: what stands beside the station.

Times are those the common methods give (free chlorine within one minute of its reagent, total
after three: Standard Methods 4500-Cl G, 23rd ed., 2017); an instrument's own ``wait_s`` is what
its clock counts.
"""

from __future__ import annotations

from ..record import record
from .instruments import Instrument, InstrumentKind

REAGENTS = "Reagents: keep them off skin and eyes."
_K = InstrumentKind


@record
class Procedure:
    """One way to use a kit.

    Args:
        analyte: what is read; empty for any analyte of this kind of instrument.
        kind: how the instrument is read.
        title: heading of its station.
        steps: what is done, in order.
        caution: what to mind where it is done.
        reagent: something is added to the water, so it can be blanked, timed and diluted.
    """

    kind: InstrumentKind
    title: str
    steps: tuple[str, ...]
    analyte: str = ""
    caution: str = ""
    reagent: bool = False


def _colorimeter(analyte: str, title: str, *steps: str) -> Procedure:
    return Procedure(
        kind=_K.DISPLAY, analyte=analyte, title=title, steps=steps, caution=REAGENTS, reagent=True
    )


def _display(analyte: str, title: str, *steps: str) -> Procedure:
    return Procedure(kind=_K.DISPLAY, analyte=analyte, title=title, steps=steps)


def _drops(analyte: str, title: str, *steps: str) -> Procedure:
    return Procedure(
        kind=_K.DROPS, analyte=analyte, title=title, steps=steps, caution=REAGENTS, reagent=True
    )


_FILL, _SWIRL = "Rinse the vial, fill it to the mark", "One drop at a time, bottle upright; swirl"
_BLANK = "Blank on this water"

PROCEDURES = (
    Procedure(
        kind=_K.METER,
        analyte="tds",
        title="Dissolved solids",
        steps=("Cup and probe rinsed", "Fill to the mark, stir", "Wait until it is steady"),
    ),
    _drops("hardness", "Hardness, by drops", _FILL, "Buffer and indicator in, swirl", _SWIRL),
    _drops("calcium", "Calcium hardness, by drops", _FILL, "High-pH buffer, indicator", _SWIRL),
    _drops("alkalinity", "Alkalinity, by drops", _FILL, "Indicator in, swirl", _SWIRL),
    _colorimeter(
        "chlorine_free",
        "Free chlorine",
        _BLANK,
        "Add the reagent, swirl",
        "Read within one minute",
    ),
    _colorimeter(
        "chlorine_total",
        "Total chlorine",
        "Within fifteen minutes of drawing",
        "Add the reagent, swirl",
        "Read after three minutes",
    ),
    _colorimeter("iron", "Iron, total", _BLANK, "Add the powder, swirl", "Read after its wait"),
    _colorimeter(
        "iron_ferrous",
        "Iron, dissolved",
        "Filter the sample at once",
        "Blank, then the powder",
        "Read after its wait",
    ),
    _colorimeter("manganese", "Manganese", _BLANK, "Add the reagent", "Read after its wait"),
    _colorimeter("tannin", "Tannin", _BLANK, "Add the reagent", "Read after 25 minutes"),
    _display("ph", "pH", "On site, never posted", "Rinse, stir gently", "Wait until it is steady"),
    Procedure(
        kind=_K.COMPARATOR,
        analyte="ph",
        title="pH, by drops",
        steps=(
            "On site, never posted",
            "Rinse the tube with this water, fill to the mark",
            "The kit’s drops in, turn it over once",
            "Against white, in daylight: touch the color it matches",
        ),
        caution=REAGENTS,
        reagent=True,
    ),
    _display("temperature", "Temperature", "In running water", "Wait until it is steady"),
    Procedure(
        kind=_K.DISPLAY,
        analyte="turbidity",
        title="Turbidity",
        steps=("Wipe the vial dry", "Turn it over gently, no bubbles"),
        reagent=True,
    ),
    _display("pressure_static", "Static pressure", "No tap open", "Gauge on a hose tap"),
    _display("pressure_running", "Running pressure", "A tap open", "Read when it stands still"),
    Procedure(
        kind=_K.COMPARATOR,
        title="",
        steps=(
            "Two tubes of this water: one with its reagent, one without",
            "Wait its own minutes",
            "Against white, in daylight: touch the color it matches, or the gap between two",
        ),
        caution=REAGENTS,
        reagent=True,
    ),
    Procedure(
        kind=_K.STRIP,
        title="",
        steps=(
            "Dip without moving it",
            "Wait its own seconds",
            "Touch the pad it matches, or the gap between two",
        ),
        reagent=True,
    ),
)

_BY = {(p.kind, p.analyte): p for p in PROCEDURES}


def procedure(kit: Instrument) -> Procedure:
    """How this kit is used: its own procedure, else that of its kind, else its manual.

    >>> from zesty_glass.core.testing.instruments import Instrument, InstrumentKind
    >>> procedure(Instrument(id="t", name="Thermometer", kind=InstrumentKind.DISPLAY,
    ...                      analyte="temperature")).steps
    ('In running water', 'Wait until it is steady')
    """
    found = _BY.get((kit.kind, kit.analyte)) or _BY.get((kit.kind, ""))
    if found is not None:
        return found
    return Procedure(kind=kit.kind, title=kit.name, steps=("Read as its manual says",))

"""Short ways of making values for tests."""

from __future__ import annotations

from datetime import UTC, datetime
from decimal import Decimal

from zesty_glass.core.home import Home, Source
from zesty_glass.core.ranges import Range
from zesty_glass.core.rules import Settings
from zesty_glass.core.testing.instruments import Instrument, InstrumentKind
from zesty_glass.core.testing.observations import (
    DropCount,
    LaboratoryResult,
    MeterDisplays,
    OneDisplay,
)
from zesty_glass.core.testing.reading import Reading
from zesty_glass.core.testing.value import Value
from zesty_glass.core.testing.water import Sample, Water
from zesty_glass.core.treating.items import Item
from zesty_glass.core.treating.stages.membrane_flow import MembraneFigures
from zesty_glass.core.treating.stages.softener_size import SoftenerFigures

NOON = datetime(2026, 11, 20, 12, 0, tzinfo=UTC)


def tds_meter(of: str | None = "reading", factor: float = 0.5, **more) -> Instrument:
    base = {
        "id": "tds",
        "name": "Pocket meter",
        "kind": InstrumentKind.METER,
        "analyte": "tds",
        "accuracy_share": 0.02,
        "accuracy_of": of,
        "full_scale": 999,
        "resolution": 1,
        "factor": factor,
    }
    return Instrument(**{**base, **more})


def drop_kit(analyte: str = "hardness", unit: str = "gpg", value: float = 1.0) -> Instrument:
    return Instrument(
        id=f"{analyte}-drops",
        name="Drop kit",
        kind=InstrumentKind.DROPS,
        analyte=analyte,
        unit=unit,
        drop_value=value,
    )


def number_kit(
    analyte: str, plus: float = 0.0, resolution: float = 0.1, limit: float | None = None
) -> Instrument:
    return Instrument(
        id=f"{analyte}-meter",
        name="Meter",
        kind=InstrumentKind.DISPLAY,
        analyte=analyte,
        accuracy_plus=plus,
        resolution=resolution,
        detection_limit=limit,
    )


def lab(analyte: str) -> Instrument:
    return Instrument(
        id=f"{analyte}-lab", name="Laboratory", kind=InstrumentKind.LABORATORY, analyte=analyte
    )


def reading(analyte: str, instrument: Instrument, observation, id: str = "", **more) -> Reading:
    return Reading(
        id=id or f"r-{analyte}",
        analyte=analyte,
        instrument=instrument,
        observation=observation,
        made_at=NOON,
        **more,
    )


def tds(*displays: float, of: str | None = "reading", **more) -> Reading:
    return reading("tds", tds_meter(of), MeterDisplays(displays=displays, **more))


def hardness(drops: int, dilution: float = 1) -> Reading:
    return reading("hardness", drop_kit(), DropCount(drops=drops, dilution=dilution))


def shown(analyte: str, value: float, plus: float = 0.0) -> Reading:
    return reading(analyte, number_kit(analyte, plus), OneDisplay(value=value))


def from_lab(analyte: str, value: float | None = None, qualifier: str = "=", **more) -> Reading:
    return reading(
        analyte, lab(analyte), LaboratoryResult(qualifier=qualifier, value=value, **more)
    )


def sample(*readings: Reading, **more) -> Sample:
    base = {"id": "raw", "name": "Kitchen cold", "raw": True, "drawn_at": NOON}
    return Sample(**{**base, **more}, readings=tuple(readings))


def water(**best: float | Range) -> Water:
    """A water with exact (or given) ranges, in canonical units."""
    values = {
        k: Value(
            analyte=k,
            unit="",
            range=v if isinstance(v, Range) else Range.exact(float(v)),
            laboratory=True,
            certified=True,
        )
        for k, v in best.items()
    }
    return Water(sample="raw", values=values)


def home(**more) -> Home:
    base = {
        "name": "A house",
        "people": 4,
        "bathrooms": 2,
        "source": Source.WELL_DRILLED,
        "drain": True,
        "socket": True,
        "septic": False,
        "running_psi": 52.0,
        "pump_gpm": 10.0,
        "headroom_in": 80.0,
    }
    return Home(**{**base, **more})


def settings(**more) -> Settings:
    return Settings(**more)


def softener(ft3: float = 1.5, **more) -> Item:
    figures = {k: more.pop(k) for k in list(more) if k in SoftenerFigures.__dataclass_fields__}
    base = {
        "code": f"soft-{ft3:g}",
        "name": f"Softener {ft3:g}",
        "maker": "A maker",
        "scope": "house",
        "price": Decimal("1500"),
        "figures": SoftenerFigures(resin_ft3=ft3, **figures),
    }
    return Item(**{**base, **more})


def membrane(**more) -> Item:
    figures = {"rated_gpd": 75.0, "rated_ratio": 3.0, "rejection": 0.94}
    figures |= {k: more.pop(k) for k in list(more) if k in MembraneFigures.__dataclass_fields__}
    base = {
        "code": "mem",
        "name": "Membrane",
        "maker": "A maker",
        "scope": "tap",
        "price": Decimal("480"),
        "installation": Decimal("220"),
        "figures": MembraneFigures(**figures),
    }
    return Item(**{**base, **more})

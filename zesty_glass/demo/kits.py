"""The demo firm's kits and meters: simulated instruments, as data."""

from __future__ import annotations

from dataclasses import replace
from datetime import date, timedelta

from ..core.analytes import ANALYTES
from ..core.testing.instruments import Instrument, InstrumentKind


def laboratory(analyte: str) -> Instrument:
    """The laboratory as the instrument of one analyte."""
    return Instrument(
        id=f"lab-{analyte}",
        name="Certified laboratory",
        kind=InstrumentKind.LABORATORY,
        analyte=analyte,
    )


def demo_instruments(today: date) -> tuple[Instrument, ...]:
    """All kits of the firm on a day; checks and expiries are counted from it."""
    fresh, checked = today + timedelta(days=300), today - timedelta(days=6)
    k = InstrumentKind

    def kit(id: str, name: str, kind: InstrumentKind, analyte: str, **more: object) -> Instrument:
        told = {"id": id, "name": name, "kind": kind, "analyte": analyte, **more}
        return Instrument(simulated=True, **told)  # type: ignore[arg-type]

    return (
        kit(
            "tds-1",
            "Pocket TDS meter",
            k.METER,
            "tds",
            accuracy_share=0.02,
            accuracy_of="reading",
            full_scale=999.0,
            resolution=1.0,
            factor=0.5,
            last_check=checked,
            check_every_days=30,
        ),
        kit(
            "tds-2",
            "Old TDS meter",
            k.METER,
            "tds",
            accuracy_share=0.02,
            full_scale=999.0,
            resolution=1.0,
            factor=0.7,
            last_check=today - timedelta(days=90),
            check_every_days=30,
            note="accuracy not stated: of full scale",
        ),
        kit(
            "hard-1",
            "Hardness drop set",
            k.DROPS,
            "hardness",
            unit="gpg",
            drop_value=1.0,
            sample_ml=5.0,
            reagent_expiry=fresh,
            change_of_colour="red, purple, blue: the first drop that leaves no purple",
        ),
        kit(
            "hard-s",
            "Hardness strip",
            k.STRIP,
            "hardness",
            unit="mg/L as CaCO3",
            steps=(0.0, 25.0, 50.0, 120.0, 180.0, 250.0, 425.0),
            reagent_expiry=fresh,
            wait_s=15,
        ),
        kit(
            "ca-1",
            "Calcium drop set",
            k.DROPS,
            "calcium",
            unit="mg/L as CaCO3",
            drop_value=5.0,
            sample_ml=10.0,
            reagent_expiry=fresh,
            change_of_colour="pink to blue",
        ),
        kit(
            "alk-1",
            "Alkalinity drop set",
            k.DROPS,
            "alkalinity",
            unit="mg/L as CaCO3",
            drop_value=10.0,
            sample_ml=5.0,
            reagent_expiry=fresh,
            change_of_colour="green to pink",
        ),
        kit(
            "fe-1",
            "Iron colorimeter",
            k.DISPLAY,
            "iron",
            accuracy_plus=0.03,
            resolution=0.01,
            detection_limit=0.05,
            reagent_expiry=fresh,
            wait_s=180,
        ),
        kit(
            "fe-d",
            "Iron colorimeter, filtered sample",
            k.DISPLAY,
            "iron_ferrous",
            accuracy_plus=0.03,
            resolution=0.01,
            detection_limit=0.05,
            reagent_expiry=fresh,
            wait_s=180,
        ),
        kit(
            "fe-c",
            "Iron comparator",
            k.COMPARATOR,
            "iron",
            steps=(0.0, 0.1, 0.2, 0.3, 0.5, 0.7, 1.0, 2.0, 3.0, 5.0),
            reagent_expiry=today - timedelta(days=40),
            wait_s=300,
        ),
        kit(
            "mn-1",
            "Manganese colorimeter",
            k.DISPLAY,
            "manganese",
            accuracy_plus=0.01,
            resolution=0.01,
            detection_limit=0.02,
            reagent_expiry=fresh,
            wait_s=120,
        ),
        kit(
            "tan-1",
            "Tannin comparator",
            k.DISPLAY,
            "tannin",
            accuracy_plus=0.1,
            resolution=0.1,
            detection_limit=0.2,
            reagent_expiry=fresh,
            wait_s=1500,
        ),
        kit(
            "clf-1",
            "Free chlorine colorimeter",
            k.DISPLAY,
            "chlorine_free",
            accuracy_plus=0.05,
            resolution=0.01,
            detection_limit=0.05,
            reagent_expiry=fresh,
            wait_s=60,
        ),
        kit(
            "clt-1",
            "Total chlorine colorimeter",
            k.DISPLAY,
            "chlorine_total",
            accuracy_plus=0.05,
            resolution=0.01,
            detection_limit=0.05,
            reagent_expiry=fresh,
            wait_s=180,
        ),
        kit(
            "ph-1",
            "pH meter",
            k.DISPLAY,
            "ph",
            accuracy_plus=0.1,
            resolution=0.01,
            last_check=today,
            check_every_days=1,
            note="two-point calibration this morning",
        ),
        kit(
            "ph-d",
            "pH drops",
            k.DISPLAY,
            "ph",
            accuracy_plus=0.5,
            resolution=0.5,
            reagent_expiry=fresh,
        ),
        kit("temp-1", "Thermometer", k.DISPLAY, "temperature", accuracy_plus=0.3, resolution=0.1),
        kit(
            "ntu-1",
            "Turbidity meter",
            k.DISPLAY,
            "turbidity",
            accuracy_share=0.05,
            accuracy_of="reading",
            accuracy_plus=0.1,
            resolution=0.1,
            detection_limit=0.2,
        ),
        kit(
            "h2s-1",
            "Hydrogen sulfide strip",
            k.STRIP,
            "hydrogen_sulfide",
            steps=(0.0, 0.1, 0.3, 0.5, 1.0, 2.0),
            reagent_expiry=fresh,
            wait_s=60,
        ),
        kit("bucket", "Bucket and stopwatch", k.BUCKET, "flow"),
        kit(
            "gauge-s",
            "Pressure gauge, no tap open",
            k.DISPLAY,
            "pressure_static",
            accuracy_plus=1.0,
            resolution=1.0,
        ),
        kit(
            "gauge-r",
            "Pressure gauge, a tap open",
            k.DISPLAY,
            "pressure_running",
            accuracy_plus=1.0,
            resolution=1.0,
        ),
        kit("cups", "Three white cups", k.DISPLAY, "colour", reagent_expiry=fresh, wait_s=1200),
        kit("senses", "Eyes and nose", k.SENSES, "noticed"),
        *(
            laboratory(a.id)
            for a in ANALYTES.values()
            if a.id
            not in (
                "colour",
                "noticed",
                "flow",
                "pressure_static",
                "pressure_running",
                "temperature",
                "chlorine_combined",
            )
        ),
    )


#: kits of the demo that a new firm does not begin with
_NOT_USUAL = frozenset({"tds-2"})


def usual_kits(today: date) -> tuple[Instrument, ...]:
    """Kits that a new firm begins with: none of them simulated, none checked yet, their expiry
    dates not known. What its own kits say goes over what stands here.
    """
    return tuple(
        replace(
            k,
            simulated=False,
            last_check=None,
            reagent_expiry=None,
            note="as usual for its kind: put in what your own kit says",
        )
        for k in demo_instruments(today)
        if k.id not in _NOT_USUAL
    )

"""Seven homes in the Okvell valley, each as a visit document in a different state."""

from __future__ import annotations

import uuid
from datetime import datetime, timedelta
from decimal import Decimal
from typing import Any

from ..core.demonstrating.records import (
    Body,
    Demonstration,
    Kettle,
    Lather,
    SideBySide,
    TastedWater,
    Taster,
    Tasting,
    Vial,
)
from ..core.home import Care, Customer, Home, Source
from ..core.rules import Rules, Settings
from ..core.testing.complaints import Complaint
from ..core.testing.instruments import Instrument
from ..core.testing.observations import (
    BucketRuns,
    CupsSeen,
    DropCount,
    LaboratoryResult,
    MeterDisplays,
    Observation,
    OneDisplay,
)
from ..core.testing.reading import Reading
from ..core.testing.water import Sample
from ..core.treating.items import Item, SystemFigures
from ..core.treating.line import Option, StageChoice
from ..core.visit import Visit
from .catalogue import demo_items
from .kits import demo_instruments

FIRM = "Larkspout"
CONSULTANT = "Perrin Oakhalse"
_SPACE = uuid.UUID("6f4f2b7e-5d0a-4c55-9a3d-1c0e6d1f7a10")
TOWN_WATER, TOWN_SEWER = Decimal("4.20"), Decimal("6.10")


def uid(name: str) -> str:
    """A fixed identifier for a named thing of the demo."""
    return str(uuid.uuid5(_SPACE, name))


class _Bench:
    """Makes samples and readings of one home at one time."""

    def __init__(self, key: str, at: datetime) -> None:
        self.key, self.at, self.n = key, at, 0
        self.kits: dict[str, Instrument] = {i.id: i for i in demo_instruments(at.date())}

    def read(self, kit: str, seen: Observation, note: str = "") -> Reading:
        self.n += 1
        k = self.kits[kit]
        return Reading(
            id=uid(f"{self.key}-reading-{self.n}"),
            analyte=k.analyte,
            instrument=k,
            observation=seen,
            made_at=self.at + timedelta(minutes=2 * self.n),
            by=CONSULTANT,
            note=note,
        )

    def tds(self, *displays: float, **more: Any) -> Reading:
        return self.read("tds-1", MeterDisplays(displays=displays, zero=1.0, **more))

    def drops(self, kit: str, n: int) -> Reading:
        return self.read(kit, DropCount(drops=n))

    def shows(self, kit: str, value: float) -> Reading:
        return self.read(kit, OneDisplay(value=value))

    def lab(
        self, analyte: str, value: float | None = None, qualifier: Any = "=", **more: Any
    ) -> Reading:
        return self.read(
            f"lab-{analyte}",
            LaboratoryResult(
                qualifier=qualifier, value=value, laboratory="Okvell Assay Office", **more
            ),
        )

    def cups(self, **seen: Any) -> Reading:
        return self.read("cups", CupsSeen(**seen))

    def sample(self, name: str, *readings: Reading, **more: Any) -> Sample:
        base: dict[str, Any] = {
            "id": uid(f"{self.key}-sample-{name}"),
            "name": name,
            "drawn_at": self.at,
            "by": CONSULTANT,
        }
        return Sample(**{**base, **more}, readings=readings)


def _option(key: str, id: str, name: str, *codes: str, **overrides: float) -> Option:
    return Option(
        id=uid(f"{key}-option-{id}"), name=name, stages=tuple(StageChoice(item=c) for c in codes)
    )


def _shown(name: str, at: datetime, body: Body) -> Demonstration:
    return Demonstration(id=uid(name), made_at=at + timedelta(minutes=40), by=CONSULTANT, body=body)


def used_items(options: tuple[Option, ...], items: dict[str, Item]) -> tuple[Item, ...]:
    """The catalogue items that options use, systems with their stages, in order of code."""
    codes: set[str] = set()

    def add(code: str) -> None:
        if code in codes or code not in items:
            return
        codes.add(code)
        f = items[code].figures
        if isinstance(f, SystemFigures):
            for part in f.parts:
                add(part)

    for o in options:
        for c in o.stages:
            add(c.item)
    return tuple(items[c] for c in sorted(codes))


def _visit(
    key: str,
    at: datetime,
    who: Customer,
    home: Home,
    complaints: tuple[tuple[str, str], ...],
    samples: tuple[Sample, ...],
    options: tuple[Option, ...] = (),
    **more: Any,
) -> Visit:
    items = {i.code: i for i in demo_items()}
    return Visit(
        id=uid(f"{key}-visit"),
        firm=FIRM,
        consultant=CONSULTANT,
        started_at=at,
        customer=who,
        home=home,
        complaints=tuple(
            Complaint(id=uid(f"{key}-complaint-{s}"), sign=s, words=w) for s, w in complaints
        ),
        samples=samples,
        options=options,
        settings=Settings(),
        rules=Rules(),
        catalogue=used_items(options, items),
        **more,
    )


def home_1(at: datetime) -> Visit:
    """Terrace in Marl End: chalk-fed main with chloramine."""
    b = _Bench("home-1", at)
    raw = b.sample(
        "Kitchen cold",
        b.tds(448, 452, 449),
        b.drops("hard-1", 19),
        b.shows("clf-1", 0.3),
        b.shows("clt-1", 1.6),
        b.shows("fe-1", 0.0),
        b.shows("ph-1", 7.6),
        b.drops("alk-1", 27),
        b.shows("temp-1", 14.0),
        b.shows("gauge-s", 74),
        b.shows("gauge-r", 62),
        b.read("bucket", BucketRuns(volume_gal=5.0, seconds=(27.3, 27.2, 27.4), full_bore=True)),
        raw=True,
    )
    old = b.sample(
        "Refrigerator",
        b.tds(441, 446),
        kind="tap",
        place="refrigerator",
        treated=True,
        after="refrigerator filter, 14 months old",
        past_life=True,
    )
    home = Home(
        name="Terrace, 4 Flintlock Row",
        place="Marl End",
        source=Source.CITY,
        people=4,
        bathrooms=2.5,
        flow_gpm=11.0,
        flow_full_bore=True,
        static_psi=74.0,
        running_psi=62.0,
        drain=True,
        socket=True,
        septic=False,
        headroom_in=84.0,
        floor_ok=True,
        freezing=False,
        water_price=TOWN_WATER,
        sewer_price=TOWN_SEWER,
        bottled_month=Decimal("26"),
        pipe_material="copper, 1978",
        care=Care(consent=True, low_sodium=True),
    )
    options = (
        _option("home-1", "a", "Drinking tap only", "DT-1"),
        _option("home-1", "b", "Softener and drinking tap", "CC-45", "SO-20", "DT-1"),
        _option("home-1", "c", "Without salt", "CC-45", "SF-12", "DT-1"),
    )
    vials = (
        Vial(
            id=uid("home-1-vial-tap"),
            name="Your tap",
            role="tap",
            sample=raw.id,
            steps=(3,) * 11,
            held=True,
            cloud=True,
        ),
        Vial(
            id=uid("home-1-vial-mid"),
            name="Conditioned, no salt",
            role="conditioned",
            sample=raw.id,
            steps=(3,) * 6,
            held=True,
            cloud=True,
        ),
        Vial(
            id=uid("home-1-vial-soft"),
            name="Softened",
            role="softened",
            steps=(3, 3),
            held=True,
            cloud=False,
        ),
    )
    shown = (
        _shown("home-1-lather", at, Lather(vials=vials, spoon_killed=True)),
        _shown("home-1-kettle", at, Kettle(sample=raw.id, litres_day=4.0)),
    )
    said = (
        ("white_crust", "White crust on the kettle"),
        ("dry_skin", "Dry skin after every shower"),
        ("bleach_smell", "It smells like a pool"),
    )
    return _visit(
        "home-1",
        at,
        Customer(name="Ottoline Marrash"),
        home,
        said,
        (raw, old),
        options,
        recommended=uid("home-1-option-b"),
        demonstrations=shown,
    )


def home_2(at: datetime) -> Visit:
    """Farmhouse, Cinderlow: an acid well."""
    b = _Bench("home-2", at)
    raw = b.sample(
        "Kitchen cold",
        b.shows("ph-1", 6.2),
        b.drops("alk-1", 3),
        b.shows("temp-1", 12.0),
        b.tds(90, 91, 90),
        b.drops("hard-1", 2),
        b.lab("calcium", 25.0, basis="CaCO3"),
        b.shows("fe-1", 0.1),
        b.lab("coliform", qualifier="absent"),
        raw=True,
    )
    first = b.sample("First draw", b.lab("copper", 1.6), draw="first")
    flushed = b.sample("Flushed, for copper", b.lab("copper_flushed", 0.2))
    home = Home(
        name="Withy Bank farmhouse",
        place="Cinderlow",
        source=Source.WELL_DRILLED,
        people=3,
        bathrooms=1.5,
        pump_gpm=5.0,
        low_yield=True,
        running_psi=48.0,
        static_psi=58.0,
        drain=False,
        socket=False,
        septic=True,
        headroom_in=78.0,
        floor_ok=True,
        freezing=False,
        pipe_material="copper, 1985",
    )
    options = (
        _option("home-2", "a", "Upflow calcite", "AC-U15"),
        _option("home-2", "b", "Backwashing calcite", "AC-B15"),
        _option("home-2", "c", "Upflow calcite and softener", "AC-U15", "SO-10"),
    )
    return _visit(
        "home-2",
        at,
        Customer(name="Hesper Dunnoway"),
        home,
        (("blue_green", "Blue-green stains in the basin"),),
        (raw, first, flushed),
        options,
        recommended=uid("home-2-option-a"),
    )


def home_3(at: datetime) -> Visit:
    """Bungalow, Cinderlow: iron, manganese, and another seller's clock softener."""
    b = _Bench("home-3", at)
    raw = b.sample(
        "Outside tap, raw",
        b.shows("fe-1", 3.4),
        b.shows("mn-1", 0.12),
        b.shows("ph-1", 6.6),
        b.drops("alk-1", 9),
        b.drops("hard-1", 11),
        b.tds(235, 236, 237),
        b.shows("tan-1", 0.0),
        b.cups(drawn="clear", stood="coloured", stood_minutes=90.0),
        b.shows("temp-1", 11.0),
        raw=True,
        place="outside tap, ahead of the softener",
    )
    soft = b.sample(
        "After the softener",
        b.drops("hard-1", 5),
        b.shows("fe-1", 1.9),
        treated=True,
        after="clock softener, 1 ft³",
        after_item="SO-10C",
    )
    home = Home(
        name="Bungalow, Tinder Lane",
        place="Cinderlow",
        source=Source.WELL_DRILLED,
        people=6,
        bathrooms=2,
        pump_gpm=9.0,
        running_psi=50.0,
        static_psi=60.0,
        drain=True,
        socket=True,
        septic=True,
        headroom_in=80.0,
        floor_ok=True,
        low_yield=False,
        freezing=False,
        bottled_month=Decimal("38"),
    )
    options = (
        _option("home-3", "a", "Acid, iron, then softener", "AC-B15", "FE-L12", "SO-20"),
        _option("home-3", "b", "Dense iron filter", "AC-B15", "FE-D10", "SO-20"),
        _option("home-3", "c", "A softener alone", "SO-10C"),
    )
    said = (
        ("orange_streaks", "Orange streaks down the bath"),
        ("egg_smell_hot", "Eggs, but only at the hot tap"),
    )
    return _visit(
        "home-3",
        at,
        Customer(name="Jory Pellmarsh"),
        home,
        said,
        (raw, soft),
        options,
        recommended=uid("home-3-option-a"),
    )


def home_4(at: datetime) -> Visit:
    """Cabin 6, Oskel lake: peat-brown surface water."""
    b = _Bench("home-4", at)
    raw = b.sample(
        "Kitchen cold",
        b.cups(drawn="coloured", stood="darkens", stood_minutes=30.0, reducer="partly"),
        b.shows("tan-1", 1.8),
        b.shows("fe-1", 0.5),
        b.shows("ntu-1", 3.0),
        b.drops("hard-1", 2),
        b.shows("ph-1", 6.9),
        b.tds(44, 44),
        b.lab("coliform", qualifier="present"),
        b.lab("uvt", 62.0),
        b.shows("temp-1", 9.0),
        raw=True,
    )
    home = Home(
        name="Cabin 6",
        place="Oskel lake",
        source=Source.LAKE,
        people=8,
        bathrooms=1,
        occupied_days=70.0,
        drain=True,
        socket=True,
        septic=True,
        headroom_in=36.0,
        floor_ok=True,
        freezing=True,
        running_psi=44.0,
        static_psi=50.0,
        bottled_month=Decimal("22"),
        note="Crawl space. Laid up from October to April.",
    )
    options = (
        _option("home-4", "a", "Whole cabin", "SD-50", "FE-A08L", "TN-20", "SD-20B", "UV-12H"),
        _option("home-4", "b", "UV on today’s water", "SD-20B", "UV-12H"),
        _option("home-4", "c", "Drinking tap only", "DT-1"),
        _option("home-4", "d", "Tannin cartridge", "TC-T"),
    )
    return _visit(
        "home-4",
        at,
        Customer(name="Ismeray Foltwick"),
        home,
        (("tea_colour", "The bath looks like tea"),),
        (raw,),
        options,
    )


def home_5(at: datetime) -> Visit:
    """New house on granite above Cinderlow: fluoride, arsenic, radon, and an infant."""
    b = _Bench("home-5", at)
    raw = b.sample(
        "Pressure tank",
        b.tds(309, 310, 311),
        b.drops("hard-1", 7),
        b.shows("ph-1", 7.9),
        b.shows("fe-1", 0.0),
        b.lab("fluoride", 2.6),
        b.lab("arsenic", 0.014),
        b.lab("nitrate_n", 3.0, basis="N"),
        b.lab("coliform", qualifier="absent"),
        b.lab("radon", 2150.0, unit="pCi/L", basis="counting", hours_to_count=62.0),
        b.shows("temp-1", 10.0),
        raw=True,
        place="pressure tank",
    )
    home = Home(
        name="The Scar house",
        place="above Cinderlow",
        source=Source.WELL_DRILLED,
        people=3,
        bathrooms=2,
        pump_gpm=7.0,
        running_psi=52.0,
        static_psi=62.0,
        drain=True,
        socket=True,
        septic=True,
        headroom_in=84.0,
        floor_ok=True,
        freezing=False,
        care=Care(consent=True, infant=True),
        note="New well, drilled this spring.",
    )
    options = (
        _option("home-5", "a", "Drinking tap, membrane", "DT-2"),
        _option("home-5", "b", "Alumina at the tap", "FL-A"),
        _option("home-5", "c", "Carbon for the house", "CB-15", "DT-2"),
    )
    return _visit(
        "home-5",
        at,
        Customer(name="Corvane Stillbrook"),
        home,
        (),
        (raw,),
        options,
        recommended=uid("home-5-option-a"),
    )


def home_6(at: datetime) -> Visit:
    """Flat above the bakery, Marl End: a tenant who asks about taste."""
    b = _Bench("home-6", at)
    raw = b.sample(
        "Kitchen cold",
        b.tds(447, 450),
        b.drops("hard-1", 19),
        b.shows("clf-1", 0.3),
        b.shows("clt-1", 1.5),
        b.shows("ph-1", 7.6),
        raw=True,
    )
    bottled = b.sample("Their bottled", b.tds(152, 153), kind="bottled", place="bottle")
    new = b.sample(
        "Pitcher, new",
        b.tds(428, 436),
        kind="pitcher",
        place="pitcher",
        treated=True,
        after="pitcher, not flushed",
        after_item="PT-1",
        just_changed=True,
    )
    good = b.sample(
        "Pitcher, flushed",
        b.tds(402, 404),
        b.shows("clt-1", 0.4),
        kind="pitcher",
        place="pitcher",
        treated=True,
        after="pitcher, flushed",
        after_item="PT-1",
    )
    home = Home(
        name="Flat above the bakery",
        place="Marl End",
        source=Source.CITY,
        people=1,
        bathrooms=1,
        tenant=True,
        running_psi=58.0,
        socket=True,
        drain=None,
        water_price=TOWN_WATER,
        sewer_price=TOWN_SEWER,
        bottled_month=Decimal("19"),
    )
    options = (
        _option("home-6", "a", "Pitcher", "PT-1"),
        _option("home-6", "b", "Counter filter", "CT-1"),
        _option("home-6", "c", "Softener", "SO-10"),
    )
    ranks = ((1, 2, 3), (1, 3, 2), (2, 1, 3))
    codes = ("KLP", "MND", "TWB")
    tasters = tuple(
        Taster(
            name=n,
            order=tuple(codes[(i + j) % 3] for j in range(3)),
            ranks=dict(zip(codes, r, strict=True)),
        )
        for i, (n, r) in enumerate(zip(("Wilmer", "Ansa", "Bettrice"), ranks, strict=True))
    )
    tasted = Tasting(
        waters=tuple(
            TastedWater(sample=s.id, code=c)
            for s, c in zip((bottled, good, raw), codes, strict=True)
        ),
        tasters=tasters,
        sanitised=(good.id,),
        shown_at=at + timedelta(minutes=50),
    )
    shown = (
        _shown("home-6-side", at, SideBySide(samples=(raw.id, bottled.id, new.id, good.id))),
        _shown("home-6-tasting", at, tasted),
    )
    return _visit(
        "home-6",
        at,
        Customer(name="Wilmer Tansett"),
        home,
        (("taste", "It tastes of the pool"),),
        (raw, bottled, new, good),
        options,
        recommended=uid("home-6-option-a"),
        demonstrations=shown,
    )


def home_7(at: datetime) -> Visit:
    """House 22, the new estate: nothing needed."""
    b = _Bench("home-7", at)
    raw = b.sample(
        "Kitchen cold",
        b.tds(58, 58),
        b.drops("hard-1", 2),
        b.shows("clf-1", 0.5),
        b.shows("clt-1", 0.5),
        b.shows("ph-1", 7.3),
        b.shows("fe-1", 0.0),
        b.shows("temp-1", 11.0),
        raw=True,
    )
    home = Home(
        name="House 22",
        place="the new estate",
        source=Source.CITY,
        people=3,
        bathrooms=2,
        running_psi=55.0,
        static_psi=64.0,
        drain=True,
        socket=True,
        septic=False,
        water_price=TOWN_WATER,
        sewer_price=TOWN_SEWER,
    )
    return _visit(
        "home-7",
        at,
        Customer(name="Aldith Crane-Pomfrey"),
        home,
        (("solids", "A caller said it is full of solids"),),
        (raw,),
        (_option("home-7", "a", "Carbon pitcher", "PT-1"),),
        recommended="today",
    )


def demo_visits(now: datetime) -> tuple[Visit, ...]:
    """All visits of the demo, around ``now``."""
    day = now.replace(hour=9, minute=0, second=0, microsecond=0)
    return (
        home_1(day),
        home_2(day + timedelta(hours=2)),
        home_7(day + timedelta(hours=5)),
        home_3(day - timedelta(days=1)),
        home_4(day - timedelta(days=2)),
        home_5(day - timedelta(days=3)),
        home_6(day - timedelta(days=3, hours=-4)),
    )


__all__ = ["CONSULTANT", "FIRM", "demo_visits", "uid", "used_items"]

"""A demonstration as it was made: what was seen and counted, kept as seen."""

from __future__ import annotations

from dataclasses import field
from datetime import datetime
from typing import Annotated, Literal

from ..errors import RuleError
from ..record import Personal, TaggedBy, Words, record
from ..striking import check_struck
from ..testing.instruments import Instrument
from ..testing.observations import MeterDisplays

MOST_DROPS_IN_A_STEP, MOST_STEPS = 50, 200
Smell = Literal["none", "faint", "strong"]
Looks = Literal["clear", "faint", "coloured"]


def _fail(code: str, what: str, where: str, remedy: str) -> RuleError:
    return RuleError(code, what, where, remedy)


@record
class SideBySide:
    """Samples held side by side; ``option``: a line whose expected water stands beside them."""

    kind: Literal["side_by_side"] = "side_by_side"
    samples: tuple[str, ...]
    option: str | None = None

    def __post_init__(self) -> None:
        if not 1 <= len(self.samples) <= 8 or len(set(self.samples)) != len(self.samples):
            raise _fail(
                "demo.samples",
                "One to eight different glasses can stand side by side.",
                "body.samples",
                "Choose each once.",
            )


@record
class Vial:
    """One vial of the lather test.

    Args:
        steps: soap drops added, step by step; ``held``: the lather held after the last one.
        cloud: undissolved soap seen; None: nobody looked.
        sample: the glass it was filled from, when it is one of the visit.
        shakes: how often it was shaken since the last drop [count]; suds_mm: lather that stood then
            [mm].
    """

    id: str
    name: Words
    role: Literal["tap", "conditioned", "softened", "other"] = "tap"
    sample: str | None = None
    steps: tuple[int, ...] = ()
    held: bool = False
    cloud: bool | None = None
    shakes: int | None = None
    suds_mm: float | None = None

    def __post_init__(self) -> None:
        for name, low, high in (("shakes", 1, 200), ("suds_mm", 0, 300)):
            v = getattr(self, name)
            if v is not None and not low <= v <= high:
                raise _fail(
                    f"lather.{name}",
                    f"“{self.name}”: {v:g} is not possible here.",
                    "body.vials",
                    f"Use {low} to {high}.",
                )
        if len(self.steps) > MOST_STEPS or any(
            not 1 <= s <= MOST_DROPS_IN_A_STEP for s in self.steps
        ):
            raise _fail(
                "lather.steps",
                f"“{self.name}” holds a step of soap that cannot be counted.",
                "body.vials",
                f"Add 1 to {MOST_DROPS_IN_A_STEP} drops at a time.",
            )
        if self.held and not self.steps:
            raise _fail(
                "lather.no_soap",
                f"“{self.name}” lathers with no soap in it.",
                "body.vials",
                "Add at least one drop.",
            )


@record
class Lather:
    """Vials with soap counted in. ``volume_ml`` of water in each; ``spoon_ml`` of tap water killed
    the softened lather.
    """

    kind: Literal["lather"] = "lather"
    vials: tuple[Vial, ...]
    volume_ml: float = 25.0
    spoon_ml: float = 5.0
    spoon_killed: bool | None = None
    soap_mg_per_drop: float = 2.5
    lather_drops: float = 2.0

    def __post_init__(self) -> None:
        if not 1 <= len(self.vials) <= 5:
            raise _fail(
                "lather.vials",
                "A lather test has one to five vials.",
                "body.vials",
                "Take one away.",
            )
        if sum(v.role == "softened" for v in self.vials) > 1:
            raise _fail(
                "lather.two_softened",
                "Two vials are called softened: the others are held against one.",
                "body.vials",
                "Call one of them another.",
            )
        for name, low, high in (
            ("volume_ml", 1, 1000),
            ("spoon_ml", 0.1, 100),
            ("soap_mg_per_drop", 0.05, 100),
            ("lather_drops", 0, 50),
        ):
            if not low <= getattr(self, name) <= high:
                raise _fail(
                    f"lather.{name}",
                    f"{getattr(self, name):g} is not possible here.",
                    f"body.{name}",
                    f"Use {low:g} to {high:g}.",
                )


@record
class ColourColumn:
    """Color before and after a small column of tannin resin, equal volumes in equal cups."""

    kind: Literal["colour"] = "colour"
    sample: str
    after: str | None = None
    option: str | None = None
    looked_before: Looks | None = None
    looked_after: Looks | None = None
    equal_volumes: bool = True


@record
class ChlorineTest:
    """Chlorine before and after carbon; what the customer smelled."""

    kind: Literal["chlorine"] = "chlorine"
    sample: str
    after: str | None = None
    option: str | None = None
    smell_before: Smell | None = None
    smell_after: Smell | None = None


@record
class Kettle:
    """Scale from heating ``litres_day`` [L/day] of a sample."""

    kind: Literal["kettle"] = "kettle"
    sample: str
    litres_day: float = 4.0

    def __post_init__(self) -> None:
        if not 0 < self.litres_day <= 1000:
            raise _fail(
                "kettle.litres",
                f"{self.litres_day:g} L a day is not possible.",
                "body.litres_day",
                "Use more than 0, at most 1,000.",
            )


PH_LEAST, PH_MOST = 0.0, 14.0
MOST_POURS = 200


@record
class BreathTest:
    """pH of a glass as it comes, after breathing into it through a straw, and of a second glass
    after pouring it to and fro in air; what was not measured is empty.

    Args:
        seconds: breathed into [s]; pours: from glass to glass [count].
    """

    kind: Literal["breath"] = "breath"
    sample: str
    before: float | None = None
    breathed: float | None = None
    seconds: int = 60
    aired: float | None = None
    pours: int = 20

    def __post_init__(self) -> None:
        for name in ("before", "breathed", "aired"):
            v = getattr(self, name)
            if v is not None and not PH_LEAST <= v <= PH_MOST:
                raise _fail(
                    "breath.ph",
                    f"A pH of {v:g} is not possible.",
                    f"body.{name}",
                    "Type what the meter shows, 0 to 14.",
                )
        for name, most in (("seconds", 600), ("pours", MOST_POURS)):
            if not 1 <= getattr(self, name) <= most:
                raise _fail(
                    f"breath.{name}",
                    f"{getattr(self, name)} is not possible here.",
                    f"body.{name}",
                    f"Use 1 to {most}.",
                )


@record
class Distilling:
    """Feed, distillate and residue, each with its amount [L] and its displays on one meter; a part
    not measured yet is empty.

    Args:
        volume_share: how well the amounts are known, as a share (0.02 = a measuring jug).
    """

    kind: Literal["distilling"] = "distilling"
    sample: str
    instrument: Instrument
    feed_l: float
    distillate_l: float | None = None
    residue_l: float | None = None
    feed: MeterDisplays
    distillate: MeterDisplays | None = None
    residue: MeterDisplays | None = None
    volume_share: float = 0.02

    def __post_init__(self) -> None:
        for name in ("feed_l", "distillate_l", "residue_l"):
            v = getattr(self, name)
            if v is not None and not 0 < v <= 100:
                raise _fail(
                    "distilling.volume",
                    f"{v:g} L is not possible.",
                    f"body.{name}",
                    "Use more than 0, at most 100.",
                )
        if (self.residue_l or 0) > self.feed_l * 1.05 or (self.residue_l or 0) + (
            self.distillate_l or 0
        ) > self.feed_l * 1.1:
            raise _fail(
                "distilling.more_than_fed",
                "More water came out than went in.",
                "body.residue_l",
                "Read the amounts again.",
            )
        if not 0 <= self.volume_share <= 0.5:
            raise _fail(
                "distilling.volume_share",
                f"{self.volume_share:g} is not a share.",
                "body.volume_share",
                "Use 0 to 0.5.",
            )


@record
class TastedWater:
    """A water of a tasting, known to the tasters by its code alone."""

    sample: str
    code: str


#: words for smell, then for flavour and feel, that a panel without training tells apart: after
#: the wheel of tastes and odours of Standard Methods 2170 (1997), short
SMELLS = ("chlorine", "earthy", "musty", "eggs", "fishy", "medicine")
FLAVOURS = ("metal", "salty", "bitter", "sweet", "flat", "fresh", "chalky", "plastic")
TASTED = (*SMELLS, *FLAVOURS)


@record
class Taster:
    """One taster: the order of pouring, and the place given to each code (1 the best; the same
    place twice is a tie); ``said``: words for smell and flavour, by code.
    """

    name: Annotated[str, Personal("{n}")]
    order: tuple[str, ...]
    ranks: dict[str, int] | None = None
    said: dict[str, tuple[str, ...]] = field(default_factory=dict)


@record
class Tasting:
    """A blind tasting. ``sanitized``: samples behind a unit known to be sanitized and flushed;
    ``shown_at``: when the key was shown.
    """

    kind: Literal["tasting"] = "tasting"
    waters: tuple[TastedWater, ...]
    tasters: tuple[Taster, ...]
    sanitised: tuple[str, ...] = field(default=())
    shown_at: datetime | None = None

    def __post_init__(self) -> None:
        codes = [w.code for w in self.waters]
        if (
            not 2 <= len(codes) <= 5
            or len(set(codes)) != len(codes)
            or len({w.sample for w in self.waters}) != len(codes)
        ):
            raise _fail(
                "tasting.waters",
                "Two to five different waters can be tasted.",
                "body.waters",
                "Choose each once.",
            )
        if not 1 <= len(self.tasters) <= 6 or len(
            {t.name.strip().casefold() for t in self.tasters}
        ) != len(self.tasters):
            raise _fail(
                "tasting.tasters",
                "One to six tasters, each with a name of their own.",
                "body.tasters",
                "Name each once.",
            )
        for t in self.tasters:
            if sorted(t.order) != sorted(codes):
                raise _fail(
                    "tasting.order",
                    f"{t.name}’s order does not hold every code once.",
                    "body.tasters",
                    "Draw the orders again.",
                )
            strange = {w for told in t.said.values() for w in told} - set(TASTED)
            twice = any(len(set(told)) < len(told) for told in t.said.values())
            if strange or twice or set(t.said) - set(codes):
                raise _fail(
                    "tasting.words",
                    f"{t.name} said a word twice, of no water here, or none for a taste.",
                    "body.tasters",
                    f"Use {', '.join(TASTED)}.",
                )
            if t.ranks is not None and (
                set(t.ranks) != set(codes)
                or not all(1 <= r <= len(codes) for r in t.ranks.values())
            ):
                raise _fail(
                    "tasting.ranks",
                    f"{t.name} has not given every code a place from 1 to {len(codes)}.",
                    "body.tasters",
                    "Give each code one place.",
                )
        if self.shown_at is not None and any(t.ranks is None for t in self.tasters):
            raise _fail(
                "tasting.early",
                "The key cannot be shown while a taster is still ranking.",
                "body.shown_at",
                "Wait for every taster.",
            )


@record
class Through:
    """This water through a line."""

    kind: Literal["through"] = "through"
    option: str


Body = Annotated[
    SideBySide
    | Lather
    | ColourColumn
    | ChlorineTest
    | Kettle
    | BreathTest
    | Distilling
    | Tasting
    | Through,
    TaggedBy("kind"),
]


@record
class Demonstration:
    """One demonstration of a visit. ``simulated``: shown from readings, with no water
    in the hand.
    """

    id: str
    made_at: datetime
    by: Words = ""
    simulated: bool = False
    note: Words = ""
    struck_at: datetime | None = None
    struck_because: Words = ""
    body: Body

    def __post_init__(self) -> None:
        check_struck(self.struck_at, self.struck_because)
        if self.simulated and isinstance(self.body, Tasting):
            raise _fail(
                "tasting.simulated",
                "A taste cannot be simulated.",
                "simulated",
                "Taste, or leave it out.",
            )

"""Limits, bands and settings: data with a source and a year, editable by a firm, never ``if``
statements.
"""

from __future__ import annotations

from decimal import Decimal
from typing import Literal

from .analytes import ANALYTES
from .clock import time_of_day
from .errors import RuleError
from .limits import EPA_SECONDARY, Limit
from .own_water import OwnWater
from .record import record
from .units import MG_L_PER_GPG


@record
class Band:
    """A named band from ``start`` (which belongs to it) up to the next band's start [canonical
    unit].
    """

    start: float
    name: str


@record
class BandSet:
    """Bands of one analyte, rising from 0, with where they come from."""

    id: str
    analyte: str
    title: str
    bands: tuple[Band, ...]
    source: str
    year: int

    def __post_init__(self) -> None:
        starts = [b.start for b in self.bands]
        if not starts or starts[0] != 0 or starts != sorted(set(starts)):
            raise RuleError(
                "bands.order",
                f"The bands of {self.title} must start at 0 and rise.",
                f"bands[{self.id}]",
                "Put them in order.",
            )

    def of(self, low: float, high: float | None) -> tuple[Band, ...]:
        """Every band that a range from ``low`` to ``high`` touches; no upper end reaches the last
        band.
        """
        top = float("inf") if high is None else high
        ends = [b.start for b in self.bands[1:]] + [float("inf")]
        return tuple(
            b
            for b, end in zip(self.bands, ends, strict=True)
            if b.start <= max(top, low) and end > low
        )


#: every published limit, in the order of the analytes
LIMITS: tuple[Limit, ...] = tuple(limit for a in ANALYTES.values() for limit in a.limits)

_TDS_BANDS = BandSet(
    id="tds.taste_panel",
    analyte="tds",
    title="taste panel",
    source="WHO, background document on total dissolved solids",
    year=2003,
    bands=tuple(
        Band(start=s, name=n)
        for s, n in (
            (0, "excellent"),
            (300, "good"),
            (600, "fair"),
            (900, "poor"),
            (1200, "unacceptable"),
        )
    ),
)
_TDS_SECONDARY = BandSet(
    id="tds.secondary",
    analyte="tds",
    title="secondary standard",
    source=EPA_SECONDARY,
    year=1991,
    bands=(
        Band(start=0, name="within the secondary standard"),
        Band(start=500, name="above the secondary standard"),
    ),
)
_HARDNESS_MG = BandSet(
    id="hardness.mg",
    analyte="hardness",
    title="hardness, mg/L bands",
    source="Durfor and Becker, USGS water-supply paper 1812",
    year=1964,
    bands=tuple(
        Band(start=s, name=n)
        for s, n in ((0, "soft"), (60, "moderately hard"), (120, "hard"), (180, "very hard"))
    ),
)
_HARDNESS_GPG = BandSet(
    id="hardness.gpg",
    analyte="hardness",
    title="hardness, gpg bands",
    source="trade bands in grains per gallon",
    year=2019,
    bands=tuple(
        Band(start=s * MG_L_PER_GPG, name=n)
        for s, n in (
            (0, "soft"),
            (1, "slightly hard"),
            (3.5, "moderately hard"),
            (7, "hard"),
            (10.5, "very hard"),
        )
    ),
)

_BY_ID = {limit.id: limit for limit in LIMITS}


@record
class Former:
    """A published limit as it stood before a revision; ``was`` is None where it came with it."""

    revision: int
    id: str
    was: Limit | None


#: grows with every change of the published limits
PUBLISHED = 3
#: what each revision changed: firms that knew the former value are told both
FORMER: tuple[Former, ...] = (Former(revision=3, id="sodium.taste", was=None),)


@record
class Rules:
    """The limits and bands a visit is judged by; a visit keeps those of its day.

    ``version`` grows with the firm's changes; ``published`` is the revision of the published limits
    they lie over.
    """

    version: int = 1
    limits: tuple[Limit, ...] = LIMITS
    bands: tuple[BandSet, ...] = (_TDS_BANDS, _HARDNESS_GPG)
    published: int = PUBLISHED

    def limit(self, id: str) -> Limit:
        """A limit by its id, as the firm has it; the published one where a firm's own set, of an
        older day, lacks it. KeyError for an id that nobody published.
        """
        own = next((limit for limit in self.limits if limit.id == id), None)
        return own or _BY_ID[id]

    def at(self, id: str) -> float:
        """The value of a limit [canonical unit of its analyte].

        >>> Rules().at("iron.stains")
        0.3
        """
        return self.limit(id).value

    def band_set(self, analyte: str) -> BandSet | None:
        """The band set in force for an analyte."""
        return next((b for b in self.bands if b.analyte == analyte), None)


#: signs of money that a firm may use beside the codes of ISO 4217:2015 (lists of 2025)
CURRENCY_SIGNS = frozenset(
    [
        "$",
        "€",
        "£",
        "¥",
        "₹",
        "₩",
        "₺",
        "₫",
        "₪",
        "₦",
        "₱",
        "₴",
        "₸",
        "₡",
        "₲",
        "₵",
        "₭",
        "₮",
        "₼",
        "₾",
        "₽",
        "฿",
        "kr",
        "kr.",
        "zł",
        "Kč",
        "Ft",
        "lei",
        "лв",
        "R",
        "R$",
        "S/",
        "Fr.",
        "C$",
        "A$",
        "NZ$",
        "US$",
        "HK$",
    ]
)
CURRENCY_CODES = frozenset(
    [
        "AED",
        "AFN",
        "ALL",
        "AMD",
        "AOA",
        "ARS",
        "AUD",
        "AWG",
        "AZN",
        "BAM",
        "BBD",
        "BDT",
        "BHD",
        "BIF",
        "BMD",
        "BND",
        "BOB",
        "BRL",
        "BSD",
        "BTN",
        "BWP",
        "BYN",
        "BZD",
        "CAD",
        "CDF",
        "CHF",
        "CLP",
        "CNY",
        "COP",
        "CRC",
        "CUP",
        "CVE",
        "CZK",
        "DJF",
        "DKK",
        "DOP",
        "DZD",
        "EGP",
        "ERN",
        "ETB",
        "EUR",
        "FJD",
        "FKP",
        "GBP",
        "GEL",
        "GHS",
        "GIP",
        "GMD",
        "GNF",
        "GTQ",
        "GYD",
        "HKD",
        "HNL",
        "HTG",
        "HUF",
        "IDR",
        "ILS",
        "INR",
        "IQD",
        "IRR",
        "ISK",
        "JMD",
        "JOD",
        "JPY",
        "KES",
        "KGS",
        "KHR",
        "KMF",
        "KPW",
        "KRW",
        "KWD",
        "KYD",
        "KZT",
        "LAK",
        "LBP",
        "LKR",
        "LRD",
        "LSL",
        "LYD",
        "MAD",
        "MDL",
        "MGA",
        "MKD",
        "MMK",
        "MNT",
        "MOP",
        "MRU",
        "MUR",
        "MVR",
        "MWK",
        "MXN",
        "MYR",
        "MZN",
        "NAD",
        "NGN",
        "NIO",
        "NOK",
        "NPR",
        "NZD",
        "OMR",
        "PAB",
        "PEN",
        "PGK",
        "PHP",
        "PKR",
        "PLN",
        "PYG",
        "QAR",
        "RON",
        "RSD",
        "RUB",
        "RWF",
        "SAR",
        "SBD",
        "SCR",
        "SDG",
        "SEK",
        "SGD",
        "SHP",
        "SLE",
        "SOS",
        "SRD",
        "SSP",
        "STN",
        "SVC",
        "SYP",
        "SZL",
        "THB",
        "TJS",
        "TMT",
        "TND",
        "TOP",
        "TRY",
        "TTD",
        "TWD",
        "TZS",
        "UAH",
        "UGX",
        "USD",
        "UYU",
        "UZS",
        "VED",
        "VES",
        "VND",
        "VUV",
        "WST",
        "XAF",
        "XCD",
        "XOF",
        "XPF",
        "YER",
        "ZAR",
        "ZMW",
        "ZWG",
    ]
)


def currency_fits(text: str) -> bool:
    """Whether a text is a code of ISO 4217 or one of the known signs of money.

    >>> currency_fits("EUR"), currency_fits("gold")
    (True, False)
    """
    return text in CURRENCY_SIGNS or text in CURRENCY_CODES


#: band sets a firm may choose from
BAND_SETS = {b.id: b for b in (_TDS_BANDS, _TDS_SECONDARY, _HARDNESS_MG, _HARDNESS_GPG)}


@record
class Settings:
    """A firm's settings; money is in ``currency``.

    Args:
        iron_factor: gpg of compensated hardness for each mg/L iron (3, 4 or 5).
        gal_per_person: daily use [gal] a person when no bill is known (50 to 75).
        drinking_gal_per_person: drinking and cooking [gal/day] a person.
        price_growth: yearly rise of prices (0.03 = 3 %).
        discount: yearly discount rate.
        electricity: price [money/kWh].
        salt_bag: price of a 40-lb bag [money]; potassium_bag: of one of potassium chloride [money];
            salt_delivery: of bringing one to the house [money],
            0 where the household carries its salt.
        heater_c: water heater [°C].
        tax_equipment, tax_labour: sales tax on equipment and on labor (0.06 = 6 %).
        keep_years: people are erased when their home was last visited so many years ago; 0: never.
        soap_share: the firm's own cautious estimate of the soap a softened house does without, as a
            share (0 to 1).
        cancel_days: business days after the signature in which a sale can be cancelled without a
            penalty; ``cancel_text`` says so on the paper.
        laboratory, laboratory_address: where bottles go.
        post_cutoff: by when the post is handed in, "HH:MM"; empty: 16:00.
        reminder_text: what a reminder says; {customer}, {parts} and {firm} are filled in.
        drain_price, outlet_price: what a plumber asks for a drain with its air gap, and a licensed
            electrician for an outlet [money]; None is not known.
        own_water: the card of the water that the firm carries.
        areas: places in the order in which a day's round drives through them.
    """

    units: Literal["us", "metric"] = "us"
    currency: str = "$"
    iron_factor: float = 4.0
    gal_per_person: float = 60.0
    drinking_gal_per_person: float = 0.7
    price_growth: Decimal = Decimal("0.03")
    discount: Decimal = Decimal("0")
    electricity: Decimal = Decimal("0.16")
    salt_bag: Decimal = Decimal("9.50")
    potassium_bag: Decimal = Decimal("32.00")
    salt_delivery: Decimal = Decimal("0")
    heater_c: float = 60.0
    soap_share: float = 0.2
    valid_days: int = 30
    cancel_text: str = (
        "You may cancel this sale without penalty until midnight of the third business day after"
        " you sign. Local law decides."
    )
    cancel_days: int = 3
    local_rules: str = ""
    laboratory: str = ""
    laboratory_address: str = ""
    post_cutoff: str = ""
    keep_years: int = 0
    tax_equipment: Decimal = Decimal("0")
    tax_labour: Decimal = Decimal("0")
    reminder_text: str = (
        "Hello {customer},\n\nthis falls due at your water treatment:\n\n{parts}\n\nWhat you do"
        " yourself is said with it. For a visit, call us.\n\n{firm}"
    )
    drain_price: Decimal | None = None
    outlet_price: Decimal | None = None
    own_water: OwnWater = OwnWater()
    areas: tuple[str, ...] = ()

    def __post_init__(self) -> None:
        if not currency_fits(self.currency):
            raise RuleError(
                "settings.currency",
                "This is no currency that is known.",
                "settings.currency",
                "Use a code such as USD or EUR, or a sign such as $ or €.",
            )
        for name, low, high in (
            ("iron_factor", 0, 10),
            ("gal_per_person", 1, 500),
            ("drinking_gal_per_person", 0.05, 10),
            ("price_growth", -0.2, 0.5),
            ("discount", 0, 0.5),
            ("heater_c", 30, 90),
            ("soap_share", 0, 0.6),
            ("tax_equipment", 0, 0.5),
            ("tax_labour", 0, 0.5),
        ):
            value = float(getattr(self, name))
            if not low <= value <= high:
                raise RuleError(
                    f"settings.{name}",
                    f"{name.replace('_', ' ')} of {value:g} is out of range.",
                    f"settings.{name}",
                    f"Use {low:g} to {high:g}.",
                )
        if len(set(self.areas)) < len(self.areas) or not all(a.strip() for a in self.areas):
            raise RuleError(
                "settings.areas",
                "An area stands twice, or a line is empty.",
                "settings.areas",
                "Name each once, in the order one drives.",
            )
        if self.post_cutoff:
            time_of_day(self.post_cutoff, "settings.post_cutoff")
        prices = (self.electricity, self.salt_bag, self.potassium_bag, self.salt_delivery)
        if min((*prices, self.drain_price or 0, self.outlet_price or 0)) < 0:
            raise RuleError(
                "settings.price", "A price cannot be negative.", "settings", "Use 0 or more."
            )


#: [mg/L as N] half of its limit: nitrate is watched from here on: US EPA, 40 CFR 141.23 (1991)
NITRATE_NEAR = 5.0

"""The home and its people, as far as the job needs to know them."""

from __future__ import annotations

from decimal import Decimal
from enum import StrEnum
from typing import Annotated
from unicodedata import category

from .errors import RuleError
from .goals import GoalId
from .in_place import InPlace
from .occupancy import ALL_YEAR, Occupancy
from .record import Personal, Words, record


class Source(StrEnum):
    """Where the water comes from."""

    CITY = "city"
    WELL_DRILLED = "well_drilled"
    WELL_DUG = "well_dug"
    SPRING = "spring"
    LAKE = "lake"
    CISTERN = "cistern"


WELLS = frozenset({Source.WELL_DRILLED, Source.WELL_DUG})
SURFACE = frozenset({Source.LAKE, Source.CISTERN})
SOURCE_NAMES = {
    Source.CITY: "town main",
    Source.WELL_DRILLED: "drilled well",
    Source.WELL_DUG: "dug well",
    Source.SPRING: "spring",
    Source.LAKE: "lake intake",
    Source.CISTERN: "cistern",
}


MOST_FLOW_GPM, MOST_PSI = 500, 300  # more than any home has: a slip of the finger
MOST_PIPE_IN = 8.0  # inside width; wider is a street's main
#: what the house's own pipe is of, as it is asked; another may be written
PIPES = ("copper", "galvanized steel", "plastic", "lead")
_METALS = ("copper", "galvan", "steel", "iron", "brass", "lead")


class Relation(StrEnum):
    """What somebody is to a home."""

    OWNER = "owner"
    TENANT = "tenant"
    DECIDES = "decides"  # decides with the customer, and may have to sign too
    OTHER = "other"


@record
class Customer:
    """Who the visit is for, or somebody else at the home.

    Args:
        language: in which they read, as "en". reminders: they agreed to be reminded by mail of what
            falls due.
    """

    name: Words
    phone: Words = ""
    email: Words = ""
    part: Relation = Relation.OWNER
    language: str = "en"
    reminders: bool = True


#: control characters, ends of lines and of paragraphs (Unicode 15, general categories)
_NO_LETTERS = frozenset({"Cc", "Zl", "Zp"})


def check_one_line(text: str, where: str) -> None:
    """RuleError for a name, number or address that is more than one line, or holds what is no
    letter.
    """
    if any(category(letter) in _NO_LETTERS for letter in text):
        raise RuleError(
            "text.one_line", "This is more than one line.", where, "Write it on one line."
        )


def check_names(customer: Customer, where: str = "customer") -> None:
    """RuleError where a customer’s name, number or address is more than one line."""
    for name in ("name", "phone", "email"):
        check_one_line(getattr(customer, name), f"{where}.{name}")


@record
class Care:
    """Told only with consent, and no more than needed."""

    consent: bool = False
    infant: bool = False
    pregnancy: bool = False
    weak_immunity: bool = False
    low_sodium: bool = False
    low_potassium: bool = False
    dialysis: bool = False
    aquarium: bool = False


#: what a customer may wish less of at the drinking tap, whatever its limit says
WISHED = (
    "fluoride",
    "sodium",
    "chlorine_free",
    "chlorine_combined",
    "hardness",
    "tds",
    "nitrate_n",
    "iron",
    "sulfate",
    "chloride",
    "pfoa",
    "pfos",
)


@record
class Wish:
    """Less of something at the drinking tap, because somebody wishes it: no limit, and no reason of
    health.

    Args:
        analyte: one of ``WISHED``; target: at most so much [canonical unit], None for "less".
    """

    analyte: str
    target: float | None = None

    def __post_init__(self) -> None:
        if self.analyte not in WISHED:
            raise RuleError(
                "home.wish",
                f"“{self.analyte}” is nothing that can be wished less of.",
                "home.wishes",
                f"Use one of {', '.join(WISHED)}.",
            )
        if self.target is not None and self.target < 0:
            raise RuleError(
                "home.wish",
                "A wish cannot be for less than nothing.",
                "home.wishes",
                "Type 0 or more, or leave it empty.",
            )


@record
class Home:
    """One home. Three-valued answers (True, False, None = not asked yet) are carried as such.

    Args:
        bill_gal_day: indoor use from the water bill [gal/day]; wins over the people estimate.
        told_peak_gpm: peak flow of a larger building, by its designer or a count of its fixtures
            [gpm]; wins over the table of bathrooms. pipe_in: inside width of the pipe that enters
            [in], which says the peak beyond that table where nobody does.
        pipe_material: what the house's pipe is of.
        flow_gpm: measured flow [gpm]; ``flow_full_bore`` when taken full bore or with two outlets
            open.
        running_psi: pressure with a tap open [psi].
        pump_gpm: what the well pump delivers [gpm]; cut_in_psi, cut_out_psi: where the switch of
            its pressure tank starts and stops it [psi].
        occupied_days: days a year somebody lives there; occupancy: in which months, or on weekends
            alone, where that was asked.
        headroom_in: free height where a unit may stand [in].
        bottled_month, soap_month: spent on bottled water, and on soap and detergent [money a
            month].
        water_price, sewer_price: [money per 1,000 gal]; None is not known, and never counts as 0 on
            a town main; sewer counts 0 on septic, and a private water costs nothing unless a price
            is given.
        goals: what is asked of whatever is bought, beside good water.
        in_place: equipment that stands there already, whoever sold it.
    """

    name: Words
    place: Words = ""
    source: Source = Source.CITY
    people: float = 2
    bathrooms: float = 1
    occupied_days: float = 365.25
    occupancy: Occupancy | None = None
    bill_gal_day: float | None = None
    told_peak_gpm: float | None = None
    pipe_in: float | None = None
    flow_gpm: float | None = None
    flow_full_bore: bool = False
    static_psi: float | None = None
    running_psi: float | None = None
    pump_gpm: float | None = None
    cut_in_psi: float | None = None
    cut_out_psi: float | None = None
    low_yield: bool | None = None
    drain: bool | None = None
    socket: bool | None = None
    septic: bool | None = None
    headroom_in: float | None = None
    floor_ok: bool | None = None
    freezing: bool | None = None
    tenant: bool = False
    brine_forbidden: bool | None = None
    water_price: Decimal | None = None
    sewer_price: Decimal | None = None
    bottled_month: Decimal = Decimal("0")
    soap_month: Decimal = Decimal("0")
    pipe_material: Words = ""
    service_line: Words = ""
    note: Words = ""
    care: Annotated[Care, Personal()] = Care()
    wishes: tuple[Wish, ...] = ()
    goals: tuple[GoalId, ...] = ()
    in_place: tuple[InPlace, ...] = ()

    def __post_init__(self) -> None:
        for field, low, high, unit in (
            ("people", 0, 500, ""),
            ("bathrooms", 0, 100, ""),
            ("occupied_days", 0, 366, "days"),
            ("bill_gal_day", 0, 100000, "gal/day"),
            ("told_peak_gpm", 0, MOST_FLOW_GPM, "gpm"),
            ("pipe_in", 0, MOST_PIPE_IN, "in"),
            ("flow_gpm", 0, MOST_FLOW_GPM, "gpm"),
            ("static_psi", 0, MOST_PSI, "psi"),
            ("running_psi", 0, MOST_PSI, "psi"),
            ("pump_gpm", 0, MOST_FLOW_GPM, "gpm"),
            ("cut_in_psi", 0, MOST_PSI, "psi"),
            ("cut_out_psi", 0, MOST_PSI, "psi"),
            ("headroom_in", 0, 1000, "in"),
            ("water_price", 0, 10000, ""),
            ("sewer_price", 0, 10000, ""),
            ("bottled_month", 0, 100000, ""),
            ("soap_month", 0, 100000, ""),
        ):
            value = getattr(self, field)
            if value is not None and not low <= value <= high:
                raise RuleError(
                    f"home.{field}",
                    f"{field.replace('_', ' ')} of {value} {unit} is not possible.".replace(
                        "  ", " "
                    ),
                    f"home.{field}",
                    f"Use {low} to {high}.",
                )
        if self.tank_psi is not None and self.tank_psi[0] >= self.tank_psi[1]:
            raise RuleError(
                "home.tank_psi",
                "The pump stops below the pressure at which it starts.",
                "home.cut_out_psi",
                "Look at the switch: cut-in is the lower, cut-out the higher.",
            )
        ids = [d.id for d in self.in_place]
        if len(ids) != len(set(ids)):
            raise RuleError(
                "home.in_place",
                "Two pieces of equipment in place have one id.",
                "home.in_place",
                "Give each its own.",
            )

    @property
    def calendar(self) -> Occupancy:
        """When it is lived in; all year where nobody asked."""
        return self.occupancy or ALL_YEAR

    @property
    def days_lived(self) -> float:
        """Days a year that somebody is there: no more than its calendar has [days/year]."""
        return min(self.occupied_days, self.calendar.days_year)

    @property
    def well(self) -> bool:
        """Whether a pump on the ground's water feeds it."""
        return self.source in WELLS or self.source is Source.SPRING

    @property
    def tank_psi(self) -> tuple[float, float] | None:
        """Between which pressures the well's tank works [psi]; None where it is not known."""
        if self.cut_in_psi is None or self.cut_out_psi is None:
            return None
        return self.cut_in_psi, self.cut_out_psi

    @property
    def lead_line(self) -> bool | None:
        """Whether the supply's line to the house is of lead, or of galvanized steel, which holds
        lead; None: not known. A home of its own source has none, and its pipes are asked apart.
        """
        if self.private:
            return None
        told = self.service_line.lower()
        if not told or "unknown" in told:
            return None
        return "lead" in told or "galvan" in told

    @property
    def metal_pipe(self) -> bool:
        """Whether what is said of its pipe names a metal."""
        return any(metal in self.pipe_material.lower() for metal in _METALS)

    @property
    def drain_price(self) -> Decimal | None:
        """Water and sewer [money per 1,000 gal]; None where one of them is not known."""
        own = Decimal(0) if self.private else None
        water = own if self.water_price is None else self.water_price
        sewer = Decimal(0) if self.septic or self.private else None
        sewer = sewer if self.sewer_price is None or self.septic else self.sewer_price
        return None if water is None or sewer is None else water + sewer

    @property
    def diets(self) -> frozenset[str]:
        """Analytes that a diet of the house minds, told with consent."""
        return frozenset({"sodium"} if self.care.low_sodium else ())

    @property
    def private(self) -> bool:
        """No utility stands behind this water."""
        return self.source is not Source.CITY

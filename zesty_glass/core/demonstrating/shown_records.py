"""What demonstrations come to, as it is shown."""

from __future__ import annotations

from dataclasses import field
from typing import Annotated, Literal

from ..ranges import Range
from ..record import TaggedBy, record
from ..testing.instruments import Flag
from ..testing.removal import Removal
from .distilling import Balance
from .kettle import Scale
from .lather import Ratio
from .tasting import Agreement


@record
class Bar:
    """One water of a side by side [mg/L]; ``beside``: what the difference to the
    first one shows; ``hardness``: measured or expected hardness, as it is said.
    """

    sample: str
    name: str
    range: Range | None
    shown: str
    span: str
    predicted: bool
    beside: str
    hardness: str = ""


@record
class Bars:
    """Bars on one scale from 0 to ``scale`` [mg/L]."""

    kind: Literal["side_by_side"] = "side_by_side"
    bars: tuple[Bar, ...]
    scale: float


@record
class VialShown:
    """A vial: drops counted or expected, how many times the softened one, and its lather for each
    shake [mm].
    """

    id: str
    name: str
    drops: Range | None
    expected: Range | None
    times: Ratio | None
    suds_a_shake: float | None = None


@record
class LatherShown:
    """The vials, the spoonful and the cautious household estimate [share 0 to 1]."""

    kind: Literal["lather"] = "lather"
    vials: tuple[VialShown, ...]
    spoon: Range | None
    spoon_share: float
    household: float | None
    breakthrough: str


@record
class BeforeAfter:
    """Analytes before and after, with the removal."""

    kind: Literal["before_after"] = "before_after"
    rows: tuple[tuple[str, str, str, str], ...]
    removals: dict[str, Removal]
    predicted: bool


@record
class KettleShown:
    """Scale a year."""

    kind: Literal["kettle"] = "kettle"
    scale: Scale | None


@record
class BreathShown:
    """What breath is expected to make of this water, and of one without minerals [pH]; None where
    its alkalinity is not known.
    """

    kind: Literal["breath"] = "breath"
    expected: float | None
    bare: float


@record
class DistillingShown:
    """The mass balance."""

    kind: Literal["distilling"] = "distilling"
    balance: Balance


@record
class TastingShown:
    """Rank sums and agreement; names of the waters only once the key was shown, and with them
    what was said of each: a word and how many said it.
    """

    kind: Literal["tasting"] = "tasting"
    agreement: Agreement | None
    key: dict[str, str]
    said: dict[str, tuple[tuple[str, int], ...]] = field(default_factory=dict)


@record
class ThroughShown:
    """The line that is shown; its waters are in the assessment."""

    kind: Literal["through"] = "through"
    option: str


Result = Annotated[
    Bars
    | LatherShown
    | BeforeAfter
    | KettleShown
    | BreathShown
    | DistillingShown
    | TastingShown
    | ThroughShown,
    TaggedBy("kind"),
]


@record
class Shown:
    """A demonstration worked out. ``refused``: why it may not be shown; then there is no result."""

    id: str
    sentences: tuple[str, ...]
    flags: tuple[Flag, ...] = ()
    refused: str = ""
    result: Result | None = None

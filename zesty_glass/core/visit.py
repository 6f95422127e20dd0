"""The visit: one document that holds everything a home visit found, considered and proposed. The
open format of the product.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from datetime import datetime
from typing import Literal

from .demonstrating.demonstrations import Demonstration
from .home import Customer, Home
from .proposing.proposal import Proposal
from .record import Words, record
from .rules import Rules, Settings
from .testing.complaints import Complaint
from .testing.laboratory import LabSample
from .testing.water import Sample, Water
from .treating.existing_equipment import kept_items
from .treating.items import Item
from .treating.option import Option

FORMAT = "zesty-glass-visit"
VERSION = 1


@record
class BroughtIn:
    """That a visit came in by a file: nobody here vouches for what the file said.

    Args:
        at, by: when it came in, and through whom; consultant: who made the visit, as the file says.
        taken: the file's settings and rules hold for this visit; else the firm's do, and
            ``differences`` says where the file's were others.
    """

    at: datetime
    by: str
    consultant: Words
    taken: bool = False
    differences: tuple[str, ...] = ()


@record
class Visit:
    """A whole visit.

    Args:
        catalogue: every item used by an option, as it was (systems with their stages).
        assumptions_off: ids of assumptions that were switched off.
        recommended: id of the option recommended; "today" for do nothing.
        brought: set when the visit came in by a file.
    """

    format: Literal["zesty-glass-visit"] = "zesty-glass-visit"
    version: Literal[1] = 1
    id: str
    firm: str
    consultant: str
    started_at: datetime
    customer: Customer
    home: Home
    complaints: tuple[Complaint, ...] = ()
    samples: tuple[Sample, ...] = ()
    lab_samples: tuple[LabSample, ...] = ()
    options: tuple[Option, ...] = ()
    recommended: str | None = None
    horizon: int = 10
    assumptions_off: tuple[str, ...] = ()
    note: Words = ""
    settings: Settings = Settings()
    rules: Rules = Rules()
    catalogue: tuple[Item, ...] = ()
    proposals: tuple[Proposal, ...] = ()
    demonstrations: tuple[Demonstration, ...] = ()
    brought: BroughtIn | None = None

    @property
    def bottles(self) -> tuple[LabSample, ...]:
        """Laboratory samples that count: those that were not struck."""
        return tuple(b for b in self.lab_samples if b.struck_at is None)

    @property
    def shown(self) -> tuple[Demonstration, ...]:
        """Demonstrations that count, likewise."""
        return tuple(d for d in self.demonstrations if d.struck_at is None)


def of_one_line(visit: Visit, option: str) -> Visit:
    """What one line of a visit is worked out from, without the customer's name and words."""
    line = tuple(o for o in visit.options if o.id == option)
    return replace(
        visit,
        customer=Customer(name="(as in the proposal)"),
        complaints=(),
        options=line,
        recommended=option,
        note="",
        lab_samples=(),
        proposals=(),
    )


def kept_of(visit: Visit, raw: Water, waters: Mapping[str, Water]) -> dict[str, Item]:
    """Every way to go on with what stands in a visit's home, as items by code; judged on the day of
    the visit. ``waters``: by sample."""
    return kept_items(
        visit.home, visit.samples, waters, raw, visit.settings, visit.started_at.date()
    )

"""Checks of the place: drain, outlet, height, floor, tenancy, frost, flow, pump, septic and
pressure.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping

from ..home import MOST_FLOW_GPM, MOST_PSI, PIPES, Home
from ..record import record
from .checks import met, told
from .demand import beyond_the_table
from .items import Item
from .report import Check, Drain
from .site import Site
from .stream import Stream


@record
class AskedOfPlace:
    """What of the place answers a check that is not known yet: the home's field and the question;
    ``unit`` and ``most`` of one that is a number, ``choices`` of one that is a word; neither for
    yes or no.
    """

    field: str
    question: str
    unit: str = ""
    most: float = 0.0
    choices: tuple[str, ...] = ()


#: asked where a stage needs it, by the check that wants to know
ASKED: Mapping[str, AskedOfPlace] = {
    "space.drain": AskedOfPlace(field="drain", question="Is a drain within reach?"),
    "space.socket": AskedOfPlace(field="socket", question="Is an outlet within reach?"),
    "space.headroom": AskedOfPlace(
        field="headroom_in",
        question="Free height, in a crawl space from ground to joist",
        unit="in",
        most=1000.0,
    ),
    "space.floor": AskedOfPlace(field="floor_ok", question="Will the floor carry it when full?"),
    "brine.forbidden": AskedOfPlace(
        field="brine_forbidden", question="Is brine forbidden at this place?"
    ),
    "pipe.material": AskedOfPlace(
        field="pipe_material", question="The pipe that is cut is of", choices=PIPES
    ),
    "well.low_yield": AskedOfPlace(field="low_yield", question="Did the well ever run low?"),
    "pipe.service": AskedOfPlace(
        field="service_line", question="The supply’s line to the house is of", choices=PIPES
    ),
    "flow.larger": AskedOfPlace(
        field="told_peak_gpm",
        question="Peak flow as its designer says",
        unit="gpm",
        most=MOST_FLOW_GPM,
    ),
    "well.backwash": AskedOfPlace(
        field="pump_gpm", question="The pump delivers", unit="gpm", most=MOST_FLOW_GPM
    ),
    "pressure.least": AskedOfPlace(
        field="running_psi", question="Pressure, a tap open", unit="psi", most=MOST_PSI
    ),
}


def drop_at(item: Item, flow_gpm: float) -> float | None:
    """Pressure drop [psi] at a flow [gpm]: the stated drop times (flow / stated flow)²; None when
    none is stated.

    Source: turbulent flow, Darcy and Weisbach (1845).
    """
    if item.drop_psi is None or not item.drop_gpm:
        return None
    return item.drop_psi * (flow_gpm / item.drop_gpm) ** 2


def _three(id: str, needed: bool, have: bool | None, good: str, test: str) -> list[Check]:
    if not needed:
        return []
    if have is None:
        return [
            Check(
                id=id,
                status="unknown",
                sentence=f"{good.capitalize()} needed: not looked at yet.",
                test=test,
            )
        ]
    return [met(id, f"{good} within reach")] if have else [told(id, "stop")]


def place_checks(item: Item, site: Site, bed_gpm: float | None = None) -> list[Check]:
    """All that the place decides for one item; ``bed_gpm``: what its bed takes, where that is less
    than the item passes [gpm].
    """
    home = site.home
    out = _three("space.drain", item.drain, home.drain, "drain", "look for a drain")
    out += _three("space.socket", item.socket, home.socket, "outlet", "look for an outlet")
    if item.plumbed and home.tenant:
        out.append(told("space.tenant", "stop"))
    if item.headroom_in is not None and item.scope == "house":
        if home.headroom_in is None:
            out.append(
                Check(
                    id="space.headroom",
                    status="unknown",
                    sentence=f"Needs {item.headroom_in:g} in of height: not measured.",
                    test="measure the free height",
                )
            )
        elif home.headroom_in < item.headroom_in + (item.clearance_in or 0):
            out.append(
                told(
                    "space.headroom",
                    "stop",
                    need=f"{item.headroom_in + (item.clearance_in or 0):g}",
                    have=f"{home.headroom_in:g}",
                )
            )
    out += _floor(item, home)
    if item.scope == "house" and home.freezing:
        out.append(told("space.freezing", "warn"))
    out += _flow(item, site, bed_gpm)
    return out


LARGE_GAL = 50.0  # [gal] at once, from here a well and a septic system mind: practice (2024)
HEAVY_LB = 400.0  # full, from here on a floor is asked about: trade practice (2024)


def _floor(item: Item, home: Home) -> list[Check]:
    """Whether the floor carries a heavy unit when it is full."""
    if item.weight_lb is None or item.weight_lb <= HEAVY_LB:
        return []
    if home.floor_ok is None:
        said = f"Weighs {item.weight_lb:g} lb when full: the floor was not looked at."
        return [Check(id="space.floor", status="unknown", sentence=said, test="look at the floor")]
    if home.floor_ok:
        return [met("space.floor", f"the floor carries {item.weight_lb:g} lb")]
    return [told("space.floor", "warn", need=f"{item.weight_lb:g}")]


def pipe_checks(plumbed: bool, home: Home) -> list[Check]:
    """What the pipe that a line is cut into asks for; nothing where no pipe is cut or it is of
    plastic. It holds nobody up: the fitter's sheet asks for the jumper where nobody knows.
    """
    if not plumbed or (home.pipe_material and not home.metal_pipe):
        return []
    if not home.pipe_material:
        return [told("pipe.material", "say")]
    return [told("pipe.bonding", "say", what=home.pipe_material)]


def service_checks(source: Stream, stages: Iterable[Item], home: Home) -> list[Check]:
    """Where lead was found and a line answers it, what brings it: a service line that nobody looked
    at.
    """
    lead = any(e.analyte == "lead" for i in stages for e in i.effects)
    found = source.best("lead") or 0.0
    if not lead or not found or home.private or home.service_line:
        return []
    return [told("pipe.service", "say")]


def larger_checks(site: Site) -> list[Check]:
    """A building beyond the table of bathrooms, whose peak nobody told: it may be more."""
    by = site.demand.peak_by
    if not beyond_the_table(site.home) or by == "told":
        return []
    peak = f"{site.demand.table_peak_gpm:.0f}"
    how = "what its pipe carries" if by == "pipe" else "where the table of bathrooms ends"
    return [told("flow.larger", "say" if by == "pipe" else "unknown", have=peak, how=how)]


def _flow(item: Item, site: Site, bed_gpm: float | None) -> list[Check]:
    passes = min((x for x in (item.flow_gpm, bed_gpm) if x is not None), default=None)
    if item.scope != "house" or not item.plumbed or passes is None:
        return []
    peak = site.demand.peak_gpm
    if passes < peak:
        return [told("flow.limit", "warn", need=f"{passes:g}", have=f"{peak:g}")]
    return [met("flow.limit", f"peak {peak:g} gpm, passes {passes:g} gpm")]


def backwash_checks(gpm: float | None, gal: float, times_week: float, site: Site) -> list[Check]:
    """What a backwash asks of the well's pump, of a low-yield well and of a septic system."""
    home, out = site.home, []
    if home.well and gpm is not None:
        if home.pump_gpm is None:
            out.append(
                Check(
                    id="well.backwash",
                    status="unknown",
                    sentence=f"Backwash wants {gpm:g} gpm; the pump’s delivery is not measured.",
                    test="pump delivery: drawdown gallons over refill minutes",
                )
            )
        elif home.pump_gpm < gpm:
            out.append(told("well.backwash", "stop", need=f"{gpm:g}", have=f"{home.pump_gpm:g}"))
        else:
            out.append(met("well.backwash", f"backwash {gpm:g} gpm, pump {home.pump_gpm:g} gpm"))
    if home.low_yield and gal >= LARGE_GAL:
        out.append(told("well.low_yield", "warn", need=f"{gal:.0f}"))
    if home.low_yield is None and home.well and gal >= LARGE_GAL:
        sentence = f"Takes {gal:.0f} gal of the well at once: not asked whether it ever ran low."
        out.append(Check(id="well.low_yield", status="say", sentence=sentence))
    out += septic_check(gal, gal * times_week, site)
    return out


def septic_check(largest: float, week: float, site: Site) -> list[Check]:
    """The largest single discharge and the week's total [gal], where a septic system takes them."""
    if not site.home.septic or largest <= 0:
        return []
    return [
        told(
            "septic.discharge",
            "warn" if largest >= LARGE_GAL else "say",
            need=f"{largest:.0f}",
            week=f"{week:.0f}",
        )
    ]


def largest(drains: tuple[Drain, ...]) -> float:
    """Largest single discharge [gal] of several drains."""
    return max((d.largest_gal for d in drains), default=0.0)


def item_pressure(
    item: Item, site: Site, have: float | None, psi_max: float | None = None
) -> list[Check]:
    """Least and most running pressure [psi] against what reaches the stage."""
    out: list[Check] = []
    if item.psi_min is not None:
        if have is None:
            out.append(
                Check(
                    id="pressure.least",
                    status="unknown",
                    sentence=f"Wants at least {item.psi_min:g} psi running: not measured.",
                    test="pressure gauge, a tap open",
                )
            )
        elif have < item.psi_min:
            out.append(told("pressure.least", "stop", need=f"{item.psi_min:g}", have=f"{have:.0f}"))
        else:
            out.append(
                met("pressure.least", f"{have:.0f} psi running, at least {item.psi_min:g} psi")
            )
    static = site.home.static_psi
    if psi_max is not None and static is not None and static > psi_max:
        out.append(told("pressure.most", "stop", need=f"{psi_max:g}", have=f"{static:.0f}"))
    return out

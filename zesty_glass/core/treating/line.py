"""A treatment line: stages in order, the water after each, and what the whole line asks of the
home.
"""

from __future__ import annotations

from dataclasses import replace
from decimal import Decimal

from ..analytes import MICROBES
from ..errors import RuleError
from ..home import MOST_FLOW_GPM, MOST_PSI, Home
from ..ranges import Range
from ..record import record
from ..rules import NITRATE_NEAR, Settings
from ..testing.by_kit import FULL_BORE
from ..testing.colour import ColourFinding
from ..testing.water import Water
from .checks import met, told
from .demand import Demand, demand
from .existing_equipment import PREFIX, technology_of
from .fitter import fitting_check, letting_check
from .hours import at_hour, clock_hours, hour_checks, hours_told
from .items import Item
from .measured import Measured
from .option import Option, Purchase, StageChoice, bought_of, expand
from .order import ordered
from .place import larger_checks, pipe_checks, service_checks
from .report import Check, Drain, Due, Running, StageReport, Status
from .site import Disinfected, Site
from .stages import KIND_NAMES, TECHNOLOGIES
from .stages.common import StageInput
from .stream import Quantity, Stream, source_stream
from .walking import Ahead, Walk, run_stage, with_outlet

SHOWER_PSI, LEAST_LEFT_PSI = 10.0, 30.0


@record
class LineReport:
    """A line worked out: water at every point, checks, drains, pressure, and what is bought.

    ``in_the_rent``: items, by code, whose parts and service the rent covers.
    """

    option: str
    name: str
    source: Stream
    stages: tuple[StageReport, ...]
    house: Stream
    tap: Stream
    checks: tuple[Check, ...]
    purchases: tuple[Purchase, ...]
    drop_psi: float | None
    demand: Demand
    in_the_rent: tuple[str, ...] = ()

    @property
    def dues(self) -> tuple[Due, ...]:
        """All that falls due; what is in the rent at no price of its own."""
        return tuple(d for s in self.as_paid for d in s.dues)

    def _priced(self, due: Due, stage: str) -> Due:
        """What falls due at a stage, by its item's code, at what the household pays for it."""
        if stage not in self.in_the_rent:
            return due
        return replace(due, price=Decimal(0), why="in the rent")

    @property
    def as_paid(self) -> tuple[StageReport, ...]:
        """The stages, with what is in the rent at no price of its own."""
        if not self.in_the_rent:
            return self.stages
        return tuple(
            replace(s, dues=tuple(self._priced(d, s.code) for d in s.dues)) for s in self.stages
        )

    @property
    def rent_month(self) -> Decimal:
        """Rent to begin with [money/month]."""
        return sum((p.let.per_month for p in self.purchases if p.let is not None), Decimal(0))

    @property
    def running(self) -> tuple[Running, ...]:
        """All that runs through the year, but for service that is in the rent."""
        return tuple(
            r
            for s in self.stages
            for r in s.running
            if not (s.code in self.in_the_rent and r.kind == "service")
        )

    @property
    def drains(self) -> tuple[Drain, ...]:
        """All water to the drain."""
        return tuple(d for s in self.stages for d in s.drains)

    @property
    def status(self) -> Status:
        """The gravest status in the line."""
        states = [s.status for s in self.stages] + [c.status for c in self.checks]
        worst: tuple[Status, ...] = ("stop", "unknown", "warn", "say")
        for wanted in worst:
            if wanted in states:
                return wanted
        return "met"


def site_of(home: Home, settings: Settings, water: Water, use_factor: float = 1.0) -> Site:
    """The place as the stages see it; a measured flow, with whether it was taken full bore, and a
    static pressure stand in for what was not typed for the home; a running pressure wins over
    it."""
    flow, running, static = (
        water.range("flow"),
        water.range("pressure_running"),
        water.range("pressure_static"),
    )
    changes: dict[str, object] = {}
    if flow is not None and home.flow_gpm is None:
        # a reading that cannot be is questioned where it was made; it breaks nothing here
        changes["flow_gpm"] = min(flow.best, MOST_FLOW_GPM)
        changes["flow_full_bore"] = water.values["flow"].words == FULL_BORE
    if static is not None and home.static_psi is None:
        changes["static_psi"] = min(static.best, MOST_PSI)
    if changes:
        home = replace(home, **changes)  # type: ignore[arg-type]
    psi = running or _at_the_tap(home)
    return Site(
        home=home,
        settings=settings,
        demand=demand(home, settings, use_factor),
        bacteria=_bacteria(water),
        running_psi=psi,
    )


def _bacteria(water: Water) -> str | None:
    """What a laboratory said of bacteria: "present" or "absent"; None where it did not look, or its
    results cannot tell.
    """
    every = (water.values.get(a) for a in MICROBES)
    found = [v.microbe for v in every if v is not None and v.laboratory]
    if any(found):
        return "present"
    return "absent" if False in found else None


def _place(
    pairs: list[tuple[Item, StageChoice]], source: Stream
) -> tuple[list[tuple[Item, StageChoice]], list[Check]]:
    """Rule order, then the consultant's moves (each with its recorded reason)."""
    order = ordered(tuple(i for i, _ in pairs), source)
    by_id = {id(i): c for i, c in pairs}
    out = [(i, by_id[id(i)]) for i in order]
    checks = []
    for item, choice in list(out):
        if choice.position is None:
            continue
        if not choice.reason.strip():
            raise RuleError(
                "line.reason",
                f"{item.name} was moved without a reason.",
                "option.stages",
                "Write why it stands there.",
            )
        out.remove((item, choice))
        out.insert(max(0, min(choice.position, len(out))), (item, choice))
        checks.append(told("line.moved", "say", what=item.name, why=choice.reason))
    return out, checks


def _twins(pairs: list[tuple[Item, StageChoice]]) -> None:
    seen: set[tuple[str, str]] = set()
    for item, _ in pairs:
        if technology_of(item, TECHNOLOGIES).repeats:
            continue
        key = (item.kind, item.scope)
        if key in seen:
            name = KIND_NAMES[item.kind].lower()
            raise RuleError(
                "line.two_of_a_kind",
                f"This line has two stages of one kind: {name}.",
                "option.stages",
                "Keep one.",
            )
        seen.add(key)


KEPT_GONE = Check(
    id="line.kept_gone",
    status="warn",
    sentence="Equipment that this line keeps is not among what stands there any more.",
)


@record
class Placed:
    """An option's stages in their final order, each with the consultant's settings; what is bought;
    and what is said of the order.
    """

    option: Option
    pairs: tuple[tuple[Item, StageChoice], ...]
    purchases: tuple[Purchase, ...]
    checks: tuple[Check, ...]
    in_the_rent: tuple[str, ...] = ()


def placed(option: Option, catalogue: dict[str, Item], source: Stream) -> Placed:
    """An option's stages in their order for a water.

    Raises:
        RuleError: unknown item, two stages of one kind, a move without a reason.
    """
    pairs: list[tuple[Item, StageChoice]] = []
    purchases: list[Purchase] = []
    gone: list[Check] = []
    in_the_rent: set[str] = set()
    for choice in option.choices:
        if choice.item not in catalogue and choice.item.startswith(PREFIX):
            gone.append(KEPT_GONE)
            continue
        parts = expand(choice, catalogue)
        if choice.item in catalogue:
            top = catalogue[choice.item]
            bought = replace(bought_of(top, choice), parts=tuple(item.code for item, _ in parts))
            purchases.append(bought)
            said = fitting_check(top, choice.fitter), letting_check(top.name, bought.let)
            gone += [c for c in said if c is not None]
        pairs += parts
        if bought.let is not None and bought.let.covers_parts:
            in_the_rent |= {item.code for item, _ in parts}
    _twins(pairs)
    pairs, checks = _place(pairs, source)
    return Placed(
        option=option,
        pairs=tuple(pairs),
        purchases=tuple(purchases),
        checks=(*checks, *dict.fromkeys(gone)),
        in_the_rent=tuple(sorted(in_the_rent)),
    )


def walk(
    option: Option,
    catalogue: dict[str, Item],
    water: Water,
    colour: ColourFinding | None,
    home: Home,
    settings: Settings,
    use_factor: float = 1.0,
    measured: Measured | None = None,
) -> LineReport:
    """Walk a water through an option's line; ``measured``: what an item was measured to do to this
    water, by code.

    Raises:
        RuleError: as ``placed``, or an impossible setting.
    """
    site = site_of(home, settings, water, use_factor)
    source = source_stream(water, colour, site.running_psi)
    return run_stages(placed(option, catalogue, source), Walk(source, site, measured or {}))


def at_other_use(line: LineReport, stages: Placed, site: Site, measured: Measured) -> LineReport:
    """A line that was walked, at another use of water: for its costs, drains and chores. Checks and
    figures stay those of the line.

    Only stages whose work hangs on the use are worked out again, and all behind one that sends on
    another water.
    """
    if len(line.stages) != len(stages.pairs):
        raise ValueError("the line and its stages do not belong together")
    stream = was = house = line.source
    reports: list[StageReport] = []
    ahead = Ahead()
    for (item, choice), old in zip(stages.pairs, line.stages, strict=True):
        if technology_of(item, TECHNOLOGIES).by_use or stream is not was:
            r, outlet = run_stage(
                StageInput(
                    item=item,
                    stream=stream,
                    site=site,
                    overrides=choice.overrides,
                    ahead=ahead.items,
                    brief=True,
                    raw=line.source,
                    disinfected=ahead.disinfected,
                ),
                line.source,
                measured,
            )
            r = r if outlet is r.outlet else with_outlet(r, outlet)
            stream = old.outlet if outlet == old.outlet else outlet
        else:
            gallons = site.gallons_year(item.scope)
            wears = any(
                d.capacity_gal is not None for d in old.dues
            )  # by the gallon; the calendar's parts are as they were
            r = (
                replace(
                    old,
                    dues=tuple(
                        d if d.capacity_gal is None else replace(d, gallons_year=gallons)
                        for d in old.dues
                    ),
                )
                if wears
                else old
            )
            stream = old.outlet
        was = old.outlet
        house = stream if item.scope == "house" else house
        reports.append(r)
        ahead = ahead.then(item, r)
    return replace(line, stages=tuple(reports), house=house, tap=stream, demand=site.demand)


def run_stages(line: Placed, walk: Walk) -> LineReport:
    """Stages in their final order, one after the other."""
    source, site, brief = walk.source, walk.site, walk.brief
    reports, ahead = walk.through(line.pairs)
    house = source
    drop: float | None = 0.0
    for (item, _), r in zip(line.pairs, reports, strict=True):
        if item.scope == "house":
            drop = None if drop is None or r.drop_psi is None else drop + r.drop_psi
            house = r.outlet
    stream = reports[-1].outlet if reports else source
    hours = clock_hours(reports, hours_told(line.pairs))
    if not brief:
        reports = [at_hour(r, hours.get(i)) for i, r in enumerate(reports)]
    return LineReport(
        option=line.option.id,
        name=line.option.name,
        source=source,
        stages=tuple(reports),
        house=house,
        tap=stream,
        checks=(
            *line.checks,
            *_of_the_building([i for i, _ in line.pairs], source, site),
            *_disinfection(ahead, bool(reports), site),
            *_for_an_infant([i for i, _ in line.pairs], source, site.home),
            *_shower(drop, site),
            *hour_checks(reports, hours),
        ),
        purchases=line.purchases,
        drop_psi=drop,
        demand=site.demand,
        in_the_rent=line.in_the_rent,
    )


def _at_the_tap(home: Home) -> Range | None:
    """Running pressure of a home [psi]: as it was told, else between where a well's pump starts and
    stops; None where neither is known.
    """
    if home.running_psi is not None:
        return Range.exact(home.running_psi)
    if home.tank_psi is None:
        return None
    low, high = home.tank_psi
    return Range.of(low, (low + high) / 2, high)


def _of_the_building(stages: list[Item], source: Stream, site: Site) -> list[Check]:
    """What the building's size and its pipe ask, once for what stands in its pipe."""
    cut = any(i.scope == "house" and i.plumbed for i in stages)
    of_the_pipe = [*pipe_checks(cut, site.home), *larger_checks(site)] if cut else []
    return [*of_the_pipe, *service_checks(source, stages, site.home)]


def _disinfection(ahead: Ahead, any_stage: bool, site: Site) -> list[Check]:
    """Whether something disinfects a water that is known or likely to be unsafe."""
    if not any_stage or not site.unsafe_likely or ahead.disinfected is Disinfected.YES:
        return []
    found = site.bacteria == "present"
    have = "bacteria were found" if found else "it is surface or cistern water"
    if ahead.disinfected is Disinfected.OPEN:
        return [told("line.disinfection_open", "unknown", have=have, test="the lamp’s open tests")]
    return [told("line.undisinfected", "warn", have=have)]


def _for_an_infant(stages: list[Item], source: Stream, home: Home) -> list[Check]:
    """What is tested behind a line that takes nitrate out, before an infant drinks of it."""
    r = source.range("nitrate_n")
    treats = any(e.analyte == "nitrate_n" and e.high > 0 for i in stages for e in i.effects)
    if not home.care.infant or not treats or r is None or r.top < NITRATE_NEAR:
        return []
    return [told("nitrate.infant", "warn")]


def _shower(drop: float | None, site: Site) -> list[Check]:
    """What the line's pressure drop at peak leaves for the shower [psi]."""
    if not drop:
        return []
    left = None if site.running_psi is None else site.running_psi.best - drop
    if drop > SHOWER_PSI or (left is not None and left < LEAST_LEFT_PSI):
        return [told("pressure.shower", "warn", need=f"{drop:.0f}")]
    return [met("pressure.shower", f"the system takes {drop:.0f} psi at peak")]


def passes_unchanged(stream: Stream, source: Stream, analyte: str) -> bool:
    """Whether an analyte left the line as it came in."""
    a: Quantity | None = stream.get(analyte)
    return a is not None and a.range == source.range(analyte)

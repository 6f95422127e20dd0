"""What a search is asked: a water, a home, a catalog, and what is wanted of them."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import replace
from functools import cached_property

from ..costing.falling import Rates, rates_for
from ..costing.money import added_cost
from ..home import Home
from ..rules import Settings
from ..testing.colour import ColourFinding
from ..testing.water import Water
from ..treating.items import Item
from ..treating.line import site_of
from ..treating.measured import Measured
from ..treating.option import Purchase
from ..treating.place import drop_at
from ..treating.site import Site
from ..treating.stream import Stream, source_stream
from .found import places
from .stage_answers import looks_at
from .states import MICRO, is_fine

Targets = Mapping[str, tuple[float | None, str]]


class Question:
    """A search's question, with what of it hangs on the home alone.

    Args:
        wanted: analytes that were found; years: horizon of the cost [years]; targets: what is
            wanted of each, as (limit, "at_most" or "at_least").
    """

    def __init__(
        self,
        water: Water,
        colour: ColourFinding | None,
        home: Home,
        settings: Settings,
        catalogue: Iterable[Item],
        wanted: tuple[str, ...],
        years: int = 10,
        measured: Measured | None = None,
        targets: Targets | None = None,
    ) -> None:
        self.site: Site = replace(site_of(home, settings, water), mute=True)
        self.source: Stream = source_stream(water, colour, self.site.running_psi)
        self.items = tuple(sorted(catalogue, key=lambda i: i.code))
        self.by_code = {i.code: i for i in self.items}
        self.wanted, self.years, self.measured = wanted, years, measured or {}
        self.targets = dict(targets or {})
        self.rates: Rates = rates_for(settings.price_growth, settings.discount, years)
        self.places = [(n, p) for n in wanted for p in places(n)]
        self._looks: dict[str, frozenset[str]] = {}

    @cached_property
    def low_psi(self) -> int:
        """The lowest pressure that the house is fed with [millionths of a psi]."""
        return 0 if self.source.psi is None else round(self.source.psi.low * MICRO)

    @cached_property
    def fine(self) -> Item | None:
        """An item that holds fine particles back; any stands for all."""
        return next((i for i in self.items if is_fine(i)), None)

    def judged_at(self, place: str) -> frozenset[str]:
        """Analytes judged at a place."""
        return frozenset(n for n, p in self.places if p == place)

    def looks_at(self, item: Item) -> frozenset[str]:
        """Analytes and facts that decide what an item does, beside those it only passes on
        changed.
        """
        known = self._looks.get(item.code)
        if known is None:
            measured = self.measured.get(item.code, {})
            known = self._looks[item.code] = looks_at(item).union(measured)
        return known

    def drop(self, item: Item) -> int:
        """The pressure that an item takes at peak flow [millionths of a psi]."""
        if item.scope != "house":
            return 0
        return round((drop_at(item, self.site.demand.peak_gpm) or 0.0) * MICRO)

    def once(self, item: Item) -> int:
        """What an item costs once [millionths of money]."""
        bought = Purchase(
            code=item.code,
            label=item.name,
            price=item.price,
            installation=item.installation,
            scope=item.scope,
        )
        return round(added_cost((bought,), (), (), self.rates, self.years) * MICRO)

"""One file a technology; ``TECHNOLOGIES`` is all that is known of them, by kind."""

from __future__ import annotations

from collections.abc import Mapping
from types import MappingProxyType

from ...analytes import ANALYTES
from ...doing import NOTHING, Does
from ..checks import declare
from ..figures import OfAnyTechnology, kinds_of
from ..items import SystemFigures
from ..technology import FACTS, Service, Technology
from . import (
    carbon,
    cartridge,
    conditioner,
    devices,
    distiller,
    iron_filter,
    membrane,
    neutraliser,
    pitcher,
    sediment,
    softener,
    specialists,
    tannin,
    ultrafiltration,
    uv,
)


def registry(*technologies: Technology) -> Mapping[str, Technology]:
    """Technologies by their kind; their checks are declared.

    Raises:
        ValueError: a kind that stands twice, that its figures do not know, or that reads or changes
            what is neither an analyte nor a fact.
    """
    out: dict[str, Technology] = {}
    for t in technologies:
        known = ANALYTES.keys() | FACTS
        strange = (t.reads | t.touches | t.changes | t.asks) - known
        if t.kind in out or t.kind not in kinds_of(t.figures) or strange:
            raise ValueError(f"the technology {t.kind} does not fit: {sorted(strange)}")
        declare(t.checks)
        out[t.kind] = t
    left = {k for t in technologies for k in kinds_of(t.figures)} - out.keys()
    if left:
        raise ValueError(f"figures without a technology: {sorted(left)}")
    return MappingProxyType(out)


TECHNOLOGIES = registry(
    sediment.SEDIMENT,
    carbon.CARBON,
    softener.SOFTENER,
    conditioner.SALT_FREE,
    conditioner.PHYSICAL,
    iron_filter.IRON_FILTER,
    neutraliser.NEUTRALISER,
    tannin.TANNIN,
    tannin.MIXED_BED,
    ultrafiltration.ULTRAFILTRATION,
    uv.UV,
    membrane.MEMBRANE,
    distiller.DISTILLER,
    cartridge.CARTRIDGE,
    pitcher.PITCHER,
    specialists.AERATION,
    specialists.NITRATE,
    specialists.ARSENIC,
    specialists.CHLORINATOR,
    devices.REGULATOR,
    devices.EXPANSION,
    devices.BYPASS,
    devices.BOOSTER,
    devices.POLISH,
    devices.RAW_LINE,
)
OfAnyTechnology.known = (*dict.fromkeys(t.figures for t in TECHNOLOGIES.values()), SystemFigures)
KIND_NAMES = MappingProxyType(
    {t.kind: t.name for t in TECHNOLOGIES.values()} | {"system": "Drinking tap, complete"}
)


#: what is known of the fitting and keeping of what is no technology: equipment in place
_UNKNOWN = Service()


def service_of(kind: str) -> Service:
    """How a technology is fitted and kept; nothing is known of equipment in place.

    >>> service_of("uv").gauges, service_of("in_place").sheets
    (('lamp',), ())
    """
    return TECHNOLOGIES[kind].service if kind in TECHNOLOGIES else _UNKNOWN


def does(kind: str) -> frozenset[Does]:
    """What a technology does, by which rules ask for it; nothing known of equipment in place.

    >>> "softens" in does("softener"), "softens" in does("in_place")
    (True, False)
    """
    return TECHNOLOGIES[kind].does if kind in TECHNOLOGIES else NOTHING


def takes_dissolved_matter(kind: str) -> bool:
    """Whether a technology takes out dissolved solids as a whole, so that its water is held against
    a diet or a taste.

    >>> takes_dissolved_matter("membrane"), takes_dissolved_matter("carbon")
    (True, False)
    """
    return kind in TECHNOLOGIES and "tds" in TECHNOLOGIES[kind].changes

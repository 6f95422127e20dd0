"""One file a technology; ``RUN`` names the function that works a stage out, by kind."""

from __future__ import annotations

from collections.abc import Callable
from types import MappingProxyType

from ..report import StageReport
from . import carbon, iron_filter, membrane, neutraliser, others, sediment, softener, tannin, uv
from .common import StageInput

RUN: MappingProxyType[str, Callable[[StageInput], StageReport]] = MappingProxyType(
    {
        "sediment": sediment.run,
        "carbon": carbon.run,
        "softener": softener.run,
        "iron_filter": iron_filter.run,
        "neutraliser": neutraliser.run,
        "tannin": tannin.run,
        "mixed_bed": tannin.run,
        "uv": uv.run,
        "membrane": membrane.run,
        "salt_free": others.conditioner,
        "physical": others.conditioner,
        "distiller": others.distiller,
        "cartridge": others.cartridge,
        "pitcher": others.pitcher,
        **{
            k: others.other
            for k in (
                "aeration",
                "nitrate",
                "arsenic",
                "chlorinator",
                "regulator",
                "expansion",
                "bypass",
                "booster",
                "polish",
            )
        },
    }
)

"""Bottles to send for a home: what its readings call for, then its source and who lives there."""

from __future__ import annotations

from ..analytes import MICROBES
from ..home import SURFACE, Home, Source
from ..record import record
from ..rules import Rules
from .water import Water


@record
class SuggestedBottle:
    """A laboratory sample to draw, and why."""

    kind: str
    why: str


TASTED_TDS = 600.0  # [mg/L] above it taste falls from good to fair: WHO (2003)


def _follows(water: Water, has: frozenset[str], rules: Rules) -> list[SuggestedBottle]:
    """Bottles that today's readings call for; one whose analytes are known already is not drawn."""
    r, known = water.range, water.values
    microbes = any(known[a].microbe for a in MICROBES if a in known)

    def over(analyte: str, limit: float) -> bool:
        at = r(analyte)
        return at is not None and at.best > limit

    ph, copper = r("ph"), "copper" in known
    told = (
        ("uvt", microbes and "uvt" not in known, "bacteria were found: a lamp is chosen by it"),
        (
            "lead_copper",
            ph is not None and ph.best < rules.at("ph.corrosive") and not copper,
            "acid water: a first draw now, and again some weeks after the pH was corrected",
        ),
        (
            "metals",
            over("iron", rules.at("iron.stains")) and "manganese" not in known,
            "iron brings manganese, which wants another pH",
        ),
        (
            "anions",
            over("tannin", rules.at("tannin.tint")) and "sulfate" not in known,
            "tannin resin is sized by sulfate too",
        ),
        (
            "minerals",
            over("tds", TASTED_TDS) and "sodium" not in known,
            "dissolved solids this high: which minerals they are, before anything is chosen for it",
        ),
    )
    return [SuggestedBottle(kind=k, why=why) for k, wanted, why in told if wanted and k not in has]


def panel(
    home: Home,
    has: frozenset[str] = frozenset(),
    water: Water | None = None,
    rules: Rules = Rules(),
) -> tuple[SuggestedBottle, ...]:
    """Samples to suggest for a home: what its readings call for, then by source and by who lives
    there; kinds already drawn are left out.
    """
    out: list[SuggestedBottle] = [] if water is None else _follows(water, has, rules)

    def add(kind: str, why: str) -> None:
        if kind not in has and all(s.kind != kind for s in out):
            out.append(SuggestedBottle(kind=kind, why=why))

    if home.private:
        add(
            "bacteria",
            "yearly for every private source, and after a flood, a repair or a change of taste",
        )
        add("nitrate", "yearly for every private source")
        add(
            "metals",
            "once for a well, and when it is new" if home.well else "once for a new source",
        )
    if home.source in (Source.WELL_DRILLED, Source.WELL_DUG, Source.SPRING):
        add("fluoride", "granite and deep wells may carry it")
        add("radon", "wells and springs; the indoor air belongs to it")
    if home.source in SURFACE:
        add("uvt", "before any UV is chosen")
    if home.care.infant or home.care.pregnancy:
        add("lead_copper", "an infant or a pregnancy: first draw from the kitchen tap")
        add("nitrate", "an infant: nitrate matters first")
    pipes = home.pipe_material.lower() + home.service_line.lower()
    if any(metal in pipes for metal in ("lead", "copper", "galvan", "brass")):
        add("lead_copper", "pipes that may give off lead or copper")
    return tuple(out)

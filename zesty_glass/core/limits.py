"""One limit or guideline: a figure with who set it, where and when."""

from __future__ import annotations

from typing import Literal

from .record import record

EPA_PRIMARY = "US EPA, national primary drinking water regulations"
EPA_SECONDARY = "US EPA, secondary standards (40 CFR 143)"
EPA_LEAD_AND_COPPER = EPA_PRIMARY + " (lead and copper rule)"
WHO = "WHO, guidelines for drinking-water quality"
CANADA = "Health Canada, guidelines for drinking water quality"

About = Literal["health", "infants", "taste", "stains", "equipment", "diet"]


@record
class Limit:
    """One limit or guideline.

    Args:
        value: in the analyte's canonical unit.
        op: "at_most" or "at_least".
        about: "health", "infants", "taste", "stains", "equipment", "diet".
        place: country or body, e.g. "US", "WHO".
        governs: findings are judged against it; the others are shown for reference.
    """

    id: str
    analyte: str
    op: Literal["at_most", "at_least"] = "at_most"
    value: float
    about: About
    name: str
    place: str
    source: str
    year: int
    governs: bool = True
    note: str = ""


def limit(
    id: str,
    analyte: str,
    value: float,
    about: About,
    name: str,
    place: str,
    source: str,
    year: int,
    governs: bool = True,
    op: Literal["at_most", "at_least"] = "at_most",
    note: str = "",
) -> Limit:
    """A limit, as the table of analytes writes it."""
    return Limit(
        id=id,
        analyte=analyte,
        value=value,
        about=about,
        name=name,
        place=place,
        source=source,
        year=year,
        governs=governs,
        op=op,
        note=note,
    )

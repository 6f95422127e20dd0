"""Clear, brown, or brown later: the three-cup color procedure, as a table."""

from __future__ import annotations

from ..analytes import mid_sentence
from ..record import record
from .observations import CupsSeen

STANDING_MIN = 20.0  # [min] before "stays clear" may be read
RUSTS_BY_MIN = 1440.0  # [min] a day: iron has rusted by then at any pH of a well
STANDS_CLEAR_PH = 7.5  # below this iron oxidises slowly and "stays clear" is not final


@record
class ColourFinding:
    """What the cups say: identifier, sentence and what to do next."""

    id: str
    sentence: str
    next: str = ""
    ferrous: bool | None = None
    particulate_iron: bool | None = None
    tannin: bool | None = None


_F = {
    "clear": ColourFinding(
        id="clear",
        sentence="No visible iron or tannin.",
        ferrous=False,
        particulate_iron=False,
        tannin=False,
    ),
    "not_yet": ColourFinding(
        id="not_yet",
        sentence="Not yet shown: below pH 7.5 iron rusts slowly.",
        next="Hold it 24 hours, or use the iron kit.",
    ),
    "stand": ColourFinding(
        id="stand",
        sentence="Not finished: the cup has stood for less than 20 minutes.",
        next="Let it stand.",
    ),
    "ferrous": ColourFinding(
        id="ferrous",
        sentence="Dissolved (ferrous) iron: clear as drawn, colored after standing.",
        ferrous=True,
        particulate_iron=False,
    ),
    "both_tannin": ColourFinding(
        id="both_tannin",
        sentence="Iron in both forms, and tannin.",
        ferrous=True,
        particulate_iron=True,
        tannin=True,
    ),
    "manganese": ColourFinding(
        id="manganese",
        sentence="Manganese likely: brown-black after standing.",
        next="Manganese kit or laboratory.",
    ),
    "ferric": ColourFinding(
        id="ferric",
        sentence="Oxidised (ferric) iron: the powder clears it wholly.",
        ferrous=False,
        particulate_iron=True,
        tannin=False,
    ),
    "iron_tannin": ColourFinding(
        id="iron_tannin", sentence="Iron and tannin together.", particulate_iron=True, tannin=True
    ),
    "tannin": ColourFinding(
        id="tannin",
        sentence="Tannin or another organic color.",
        next="Confirm by tannin kit or laboratory.",
        particulate_iron=False,
        tannin=True,
    ),
    "sediment": ColourFinding(
        id="sediment",
        sentence="Sediment or flakes of rusted iron settle.",
        next="Filter first, then repeat; test the solids.",
    ),
    "gas": ColourFinding(id="gas", sentence="Gas: it clears from the bottom up."),
    "gas_well": ColourFinding(
        id="gas_well",
        sentence=(
            "Gas: it clears from the bottom up. On a well with spurting taps methane is possible."
        ),
        next="No flame, ventilate, send a sample to a laboratory.",
    ),
    "open": ColourFinding(
        id="open",
        sentence="Colored as drawn.",
        next="Put half aside, stir the reducing powder into the other half, compare equal depths.",
    ),
    "unknown": ColourFinding(
        id="unknown", sentence="Not determined by the cups.", next="Laboratory."
    ),
}

#: what the powder says of a colour as drawn
_BY_POWDER = {"wholly": "ferric", "partly": "iron_tannin", "no_change": "tannin"}

CAUTION = (
    "The reducing powder irritates: keep it dry, away from acids and bleach. It may bleach some"
    " organics and also clears manganese."
)


def find(seen: CupsSeen, ph_low: float | None = None, well: bool = False) -> ColourFinding:
    """The finding for what was seen; ``ph_low`` is the low end of this sample's pH when known."""
    drawn, stood, powder = seen.drawn, seen.stood, seen.reducer
    if drawn == "milky_clears_bottom_up":
        return _F["gas_well" if well else "gas"] if stood in (None, "clear") else _F["unknown"]
    if drawn == "clears_top_down":
        return _F["sediment"] if stood in (None, "settles") else _F["unknown"]
    if drawn in ("clear", "faint") and stood == "brown_black":
        return _F["manganese"]
    if drawn == "clear":
        if stood is None or (stood == "clear" and (seen.stood_minutes or 0) < STANDING_MIN):
            return _F["stand"]
        if stood == "clear":
            quick = ph_low is not None and ph_low >= STANDS_CLEAR_PH
            waited = (seen.stood_minutes or 0) >= RUSTS_BY_MIN
            return _F["clear" if quick or waited else "not_yet"]
        return _F["ferrous"] if stood in ("coloured", "darkens") else _F["unknown"]
    if drawn == "faint" and powder is not None:
        return _faint(stood, powder)
    if drawn == "coloured":
        if powder is None:
            return _F["open"]
        if stood == "darkens":
            return _F["both_tannin"] if powder == "partly" else _F["unknown"]
        if stood in (None, "coloured", "same"):
            return _F[_BY_POWDER[powder]]
    return _F["unknown"]


def _faint(stood: str | None, powder: str) -> ColourFinding:
    """What the powder does to a faint color: a hint, since little of it is hard to see clear."""
    if stood not in (None, "coloured", "same"):
        return _F["unknown"]
    hint = _F[_BY_POWDER[powder]]
    return ColourFinding(
        id=f"faint_{hint.id}",
        sentence=f"Perhaps: {mid_sentence(hint.sentence)}",
        next="The color was faint: confirm by the iron kit and the tannin kit or a laboratory.",
    )

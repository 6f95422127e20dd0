"""The languages there are: a file of messages each, in the form that translators' tools read."""

from __future__ import annotations

from functools import cache
from pathlib import Path

from babel.messages.catalog import Catalog
from babel.messages.pofile import read_po, write_po

from .saying import Speaker

HERE = Path(__file__).parent
CODE = HERE.parent
#: what the code is written in; it needs no file
ORIGINAL = "en"
#: folders of the code whose texts a customer may read
SAID_IN = ("core", "documents", "messages")
#: units and signs that are written the same in every language here
ALIKE = frozenset(
    "mg/L µg/L ng/L g gpg gpm gal L L/min lb ft³ in mm psi kPa °F °C kWh W h min s mL CU NTU pH ppm"
    " pCi/L Bq/L µS/cm mJ/cm² % $ USD TDS UV CO2 µm ft".split()
)


@cache
def languages() -> tuple[str, ...]:
    """Every language that something can be said in, the original first."""
    return (ORIGINAL, *sorted(p.stem for p in HERE.glob("*.po")))


@cache
def read(language: str) -> Catalog:
    """The file of a language."""
    with (HERE / f"{language}.po").open("rb") as f:
        return read_po(f, locale=f"{language}_US", abort_invalid=True)


def write(language: str, catalogue: Catalog) -> None:
    """Write the file of a language anew."""
    with (HERE / f"{language}.po").open("wb") as f:
        write_po(f, catalogue, width=100, omit_header=False, sort_output=False)


@cache
def speaker(language: str) -> Speaker:
    """Who says texts in a language. KeyError: there is no such language."""
    if language not in languages() or language == ORIGINAL:
        raise KeyError(language)
    messages: dict[str, str] = {}
    for message in read(language):
        if message.context is None and message.id and message.string:
            messages[str(message.id)] = str(message.string)
    for source, said in list(messages.items()):
        # a message that others are hung on, without what joins them
        messages.setdefault(source.strip(" \n,;:."), said.strip(" \n,;:."))
        messages.setdefault(source.strip(), said.strip())
    return Speaker(messages, ALIKE)

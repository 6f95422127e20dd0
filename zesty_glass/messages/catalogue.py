"""The languages there are: a file of messages each, in the form that translators' tools read."""

from __future__ import annotations

from collections.abc import Callable
from datetime import date
from functools import cache, lru_cache
from pathlib import Path
from typing import TYPE_CHECKING, Literal

from babel.core import Locale
from babel.dates import format_date
from babel.messages.catalog import Catalog
from babel.messages.pofile import read_po, write_po

from .saying import Message, Speaker, filled, words_of
from .units import in_metric

HERE = Path(__file__).parent
CODE = HERE.parent
CODES = ("en", *sorted(file.stem for file in HERE.glob("*.po")))
if TYPE_CHECKING:
    Language = str
else:
    Language = Literal[CODES]
#: what the code is written in; it needs no file
ORIGINAL: Language = "en"
_ORIGINALS = "en_US"
#: folders of the code whose texts a customer may read
SAID_IN = ("core", "documents")
#: units and signs that are written the same in every language here
ALIKE = frozenset(
    [
        "mg/L",
        "µg/L",
        "ng/L",
        "g",
        "gpg",
        "gpm",
        "gal",
        "L",
        "L/min",
        "lb",
        "ft³",
        "in",
        "mm",
        "psi",
        "kPa",
        "°F",
        "°C",
        "kWh",
        "W",
        "h",
        "min",
        "s",
        "mL",
        "CU",
        "NTU",
        "pH",
        "ppm",
        "pCi/L",
        "Bq/L",
        "µS/cm",
        "mJ/cm²",
        "%",
        "$",
        "USD",
        "TDS",
        "PFOA",
        "PFOS",
        "UV",
        "CO2",
        "µm",
        "ft",
    ]
)
#: what only a document's templates say
PAPER = "paper"


def languages() -> tuple[Language, ...]:
    """Every language that something can be said in, the original first."""
    return CODES


@cache
def read(language: Language) -> Catalog:
    """The file of a language, with the locale that it names; a file that names none has its
    language's.
    """
    with (HERE / f"{language}.po").open("rb") as f:
        found = read_po(f, abort_invalid=True)
    if found.locale is None:
        found.locale = language
    return found


@cache
def locale_of(language: str) -> Locale:
    """How numbers, days and plurals are written in a language; in one that is not there, as in the
    original.
    """
    if language == ORIGINAL or language not in CODES:
        return Locale.parse(_ORIGINALS)
    return Locale.parse(str(read(language).locale))


def own_name(language: Language) -> str:
    """What a language calls itself.

    >>> own_name("es")
    'Español'
    """
    name = locale_of(language).get_language_name() or language
    return name[:1].upper() + name[1:]


def write(language: Language, catalogue: Catalog) -> None:
    """Write the file of a language anew."""
    with (HERE / f"{language}.po").open("wb") as f:
        write_po(f, catalogue, width=100, omit_header=False, sort_output=False)


@cache
def on_paper(language: Language) -> dict[str, str]:
    """What only the templates of documents say, in a language."""
    return {str(m.id): str(m.string) for m in read(language) if m.id and m.context == PAPER}


@cache
def _messages(language: Language) -> dict[str, str]:
    """What the core and the documents say; what others are hung on also without what joins them."""
    known = {str(m.id): str(m.string) for m in read(language) if m.id and m.context is None}
    for source, said in in_metric(dict(known)):
        known.setdefault(source, said)
    for source, said in list(known.items()):
        known.setdefault(source.strip(" \n,;:."), said.strip(" \n,;:."))
        known.setdefault(source.strip(), said.strip())
    return known


@cache
def _filled(language: Language) -> tuple[Message, ...]:
    return filled(_messages(language))


@cache
def _words(language: Language) -> frozenset[str]:
    return words_of(_messages(language))


@lru_cache(512)
def speaker(language: Language, names: frozenset[str] = frozenset()) -> Speaker:
    """Who says texts in a language; ``names`` are said as they are written."""
    messages = _messages(language)
    return Speaker(messages, _filled(language), _words(language), ALIKE, names)


def day_in(language: str, day: date) -> str:
    """A day as it is written in a language."""
    return format_date(day, "long", locale=locale_of(language))


def say_in(language: str, names: frozenset[str] = frozenset()) -> Callable[[str], str]:
    """How a text is said in a language: as it is in the original, and in one that is not there."""
    for known in languages()[1:]:
        if known == language:
            return speaker(known, names).say
    return str

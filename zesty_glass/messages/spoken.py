"""Say the messages of a document, and the texts of a record, in one language."""

from __future__ import annotations

from collections.abc import Callable
from datetime import date, datetime
from typing import NamedTuple

from babel.dates import format_date

from .catalogue import ORIGINAL, Language, locale_of, on_paper, speaker

Say = Callable[..., str]


class Spoken(NamedTuple):
    """A language, and the names that are said as they are written in it."""

    language: Language
    names: frozenset[str] = frozenset()

    def message(self, message: str, *values: object) -> str:
        """A message of a document in the language, with its values.

        >>> Spoken("es").message("stays {0}", "14 gpg")
        'queda en 14 gpg'
        """
        known = message
        if self.language != ORIGINAL:
            known = on_paper(self.language).get(message) or self.say(message)
        return known.format(*values) if values else known

    def say(self, text: str) -> str:
        """A text that the core put together, in the language.

        >>> Spoken("es").say("pH 6.2: below 6.5, secondary standard (US 1991).")
        'pH 6.2: por debajo de 6.5, norma secundaria (EE. UU. 1991).'
        """
        if self.language == ORIGINAL:
            return text
        return speaker(self.language, frozenset(n for n in self.names if n in text)).say(text)

    def day(self, at: date | datetime, how: str = "long") -> str:
        """A day in words.

        >>> Spoken("en").day(date(2026, 11, 5)), Spoken("es").day(date(2026, 11, 5))
        ('November 5, 2026', '5 de noviembre de 2026')
        """
        if self.language == ORIGINAL:
            return at.strftime("%B %-d, %Y" if how == "long" else "%b %-d, %Y")
        return format_date(at, how, locale=locale_of(self.language))

"""A language that nobody speaks: every message as it is, with its letters changed, so that what
goes by the catalog shows, and so does what does not.
"""

import re
from contextlib import contextmanager
from unittest import mock

from babel.messages.catalog import Catalog

from zesty_glass.messages import catalogue

_CHANGED = str.maketrans("aceghijklnorsuwyzACEGHIJKLNORSUWYZ", "áćéğĥíĵķĺńőŕśúŵýźÁĆÉĞĤÍĴĶĹŃŐŔŚÚŴÝŹ")
_VALUE = re.compile(r"(\{\w*\})")
_PLAIN = re.compile(r"\b[A-Za-z]{4,}\b")
_KEPT = (
    catalogue.on_paper,
    catalogue._messages,
    catalogue._filled,
    catalogue._words,
    catalogue.speaker,
)


def changed(text):
    """A message in it; its values stay.

    >>> changed("Hardness {low} to {high}")
    'Ĥáŕdńéśś {low} tő {high}'
    """
    parts = _VALUE.split(text)
    return "".join(p if p.startswith("{") else p.translate(_CHANGED) for p in parts)


@contextmanager
def spoken():
    """Spanish says every message that it has in this language."""
    made = Catalog(locale="es_US")
    for m in catalogue.read("es"):
        if m.id and m.string:
            made.add(m.id, changed(str(m.id)), context=m.context)
    try:
        for kept in _KEPT:
            kept.cache_clear()
        with mock.patch.object(catalogue, "read", lambda _: made):
            yield made
    finally:
        for kept in _KEPT:
            kept.cache_clear()


def unsaid(text, names):
    """Words that did not go by the catalog, but for names and what somebody said."""
    for name in sorted(filter(None, names), key=len, reverse=True):
        text = text.replace(name, "")
    return _PLAIN.findall(re.sub("“[^”]*”", "", text))

"""Say a text of the product in another language: find the message that made it, and its values."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from itertools import pairwise

_VALUE = re.compile(r"\{(\d+)\}")
#: a number with its sign, currency, fraction or multiple; and units and symbols, alike everywhere
_NUMBER = re.compile(r"[-–−+±≥≤<>=~≈×x÷·*/%$€£°#\d.,:;()\s½¼¾²³]*")
_QUOTED = re.compile("“([^“”]*)”")
_QUOTES = re.compile("“[^“”]*”")
_WORD = re.compile(r"[^\W\d_]+")
MOST_LETTERS = 800  # of one sentence
MOST_TRIES = 3_000  # parts of one text that are tried; the longest of the product's need some 100
MOST_TOGETHER = 4  # sentences of one message
MOST_KNOWN = 20_000  # texts and parts of texts kept with what they are in the language


class _TooLong(Exception):
    """A text has too many parts to find out what made it."""


@dataclass(frozen=True)
class Message:
    """A message of the code and what it is in the other language."""

    source: str
    said: str

    @cached_property
    def pieces(self) -> tuple[str, ...]:
        """What stands between its values."""
        return tuple(_VALUE.split(self.source)[::2])

    @cached_property
    def weight(self) -> int:
        """Letters that are its own: the more, the surer it made a text that fits."""
        return sum(c.isalpha() for piece in self.pieces for c in piece)

    @cached_property
    def longest(self) -> str:
        """Its longest piece: a text without it is none of this message."""
        return max(self.pieces, key=len)

    def filled(self, values: Sequence[str]) -> str:
        """What it is in the other language, with its values."""
        return _VALUE.sub(lambda m: values[int(m[1])], self.said)


def filled(messages: Mapping[str, str]) -> tuple[Message, ...]:
    """Messages that have values, those with the most words of their own first."""
    made = (Message(source, said) for source, said in messages.items() if "{0}" in source)
    return tuple(sorted(made, key=lambda m: -m.weight))


def words_of(messages: Iterable[str]) -> frozenset[str]:
    """Every word of some messages, in small letters."""
    return frozenset(_WORD.findall(" ".join(messages).lower()))


@dataclass
class Speaker:
    """Says texts with the messages of one language.

    Args:
        messages: of the code, and what each is in the language; both with their values numbered.
        filled: those of them that have values, as ``filled`` gives them.
        words: that the messages are made of, as ``words_of`` gives them.
        names: what is said as it is written: people, places, makers' names, a firm's own words.
        alike: units and words that are written the same.
    """

    messages: Mapping[str, str]
    filled: tuple[Message, ...]
    words: frozenset[str]
    alike: frozenset[str] = frozenset()
    names: frozenset[str] = frozenset()
    _known: dict[str, str | None] = field(default_factory=dict)
    _tries: int = 0

    def say(self, text: str) -> str:
        """The text in the language; as it is where it has no message, where a number would change,
        or where finding out takes too long.
        """
        self._tries = 0
        try:
            said = self.said(text)
        except _TooLong:
            self._known.clear()
            return text
        return text if said is None or not _same_numbers(text, said) else said

    def said(self, text: str) -> str | None:
        """The text in the language; None where a part of it has no message."""
        if text not in self._known:
            self._tries += 1
            if self._tries > MOST_TRIES:
                raise _TooLong
            if len(self._known) > MOST_KNOWN:
                self._known.clear()
            self._known[text] = None  # a text is no part of itself
            self._known[text] = self._found(text)
        return self._known[text]

    def _found(self, text: str) -> str | None:
        if text in self.messages:
            return self.messages[text]
        if not self._may_be_said(text):
            return None
        if _NUMBER.fullmatch(text) or text in self.names or text in self.alike:
            return text
        quoted = _QUOTED.fullmatch(text)
        if quoted:  # somebody's words
            return f"“{self.said(quoted[1]) or quoted[1]}”"
        sentences = _sentences(text)
        return self._one(text) if len(sentences) == 1 else self._in_turn(tuple(sentences))

    def _one(self, text: str) -> str | None:
        """A text that is one message, or put together from several within a sentence."""
        if text in self.messages:
            return self.messages[text]
        if len(text) > MOST_LETTERS:
            return None
        for way in self._ways:
            said = way(text)
            if said is not None:
                return said
        return None

    def _in_turn(self, sentences: tuple[str, ...]) -> str | None:
        """Sentences one after the other; some are one message together."""
        for some in range(1, min(MOST_TOGETHER, len(sentences)) + 1):
            first = self._one("".join(sentences[:some]))
            rest = None if first is None else self.said("".join(sentences[some:]))
            if first is not None and rest is not None:
                return first + rest
        return None

    def _may_be_said(self, text: str) -> bool:
        """Whether each word outside of quotes is one that a message or a name has."""
        words = _WORD.findall(_QUOTES.sub("", text).lower())
        return all(w in self.words or w in self._own for w in words)

    @cached_property
    def _own(self) -> frozenset[str]:
        return frozenset(_WORD.findall(" ".join((*self.names, *self.alike)).lower()))

    @cached_property
    def _ways(self) -> tuple[Callable[[str], str | None], ...]:
        return (
            self._trimmed,
            self._after_name,
            self._by_message,
            self._by_case,
            self._in_parts,
        )

    def _trimmed(self, text: str) -> str | None:
        core = text.strip()
        if core == text:
            return None
        said, start = self.said(core), text.index(core)
        return None if said is None else text[:start] + said + text[start + len(core) :]

    def _after_name(self, text: str) -> str | None:
        """What is said of a thing by its name: a name, a colon, a text."""
        for joint in re.finditer(r":\s", text):
            name = text[: joint.start()]
            rest = self.said(text[joint.end() :]) if name in self.names else None
            if rest is not None:
                return f"{name}: {rest}"
        return None

    def _by_message(self, text: str) -> str | None:
        for message in self.filled:
            if message.longest not in text:
                continue
            values = self._values_of(message.pieces, text)
            if values is not None:
                return message.filled(values)
        return None

    def _values_of(self, pieces: tuple[str, ...], text: str) -> list[str] | None:
        """What the values of a message are in the language, where a text can be read as it."""
        if not text.startswith(pieces[0]) or not text.endswith(pieces[-1]):
            return None
        end = len(text) - len(pieces[-1])
        return self._read(text, len(pieces[0]), end, pieces[1:-1])

    def _read(self, text: str, start: int, end: int, pieces: tuple[str, ...]) -> list[str] | None:
        """The values from ``start`` to ``end``, with pieces between them; None where one of them
        has no message."""
        if start > end:
            return None
        if not pieces:
            said = self._value(text, start, end)
            return None if said is None else [said]
        for at in _places(text, pieces[0], start, end):
            said = self._value(text, start, at)
            rest = None
            if said is not None:
                rest = self._read(text, at + len(pieces[0]), end, pieces[1:])
            if said is not None and rest is not None:
                return [said, *rest]
        return None

    def _value(self, text: str, start: int, end: int) -> str | None:
        """A value of a message; what stands between quotes may be somebody's words, and is kept."""
        said = self.said(text[start:end])
        quoted = text[start - 1 : start] == "“" and text[end : end + 1] == "”"
        return text[start:end] if said is None and quoted else said

    def _by_case(self, text: str) -> str | None:
        """A message whose first letter was made great or small for where it stands."""
        first, rest = text[0], text[1:]
        other = first.lower() if first.isupper() else first.upper()
        said = None if other == first else self.messages.get(other + rest)
        if said is None:
            return None
        return (said[0].upper() if first.isupper() else said[0].lower()) + said[1:]

    def _in_parts(self, text: str) -> str | None:
        for between in _BETWEEN:
            for joint in between.finditer(text):
                first = self.said(text[: joint.start()])
                rest = None if first is None else self.said(text[joint.end() :])
                if first is not None and rest is not None:
                    return first + self._joint(joint[0]) + rest
        return None

    def _joint(self, joint: str) -> str:
        word = joint.strip()
        return joint.replace(word, self.messages.get(word, word)) if word else joint

    def _all(self, parts: Iterable[str]) -> list[str] | None:
        out = []
        for part in parts:
            said = self.said(part)
            if said is None:
                return None
            out.append(said)
        return out


def _sentences(text: str) -> list[str]:
    """A text in its sentences, each with the blanks behind it."""
    starts = [0, *(m.end() for m in _SENTENCE.finditer(text)), len(text)]
    return [text[a:b] for a, b in pairwise(starts)]


def _places(text: str, piece: str, start: int, end: int) -> Iterator[int]:
    """Where a piece stands; one that is empty, at the edges of words."""
    if not piece:
        yield from (
            at for at in range(start, end + 1) if at in (start, end) or text[at] in " ,;:.)"
        )
        return
    at = text.find(piece, start, end)
    while at >= 0:
        yield at
        at = text.find(piece, at + 1, end)


#: where a text was put together from others, the widest first: sentences, clauses, lists, a number
#: and its unit
_BETWEEN = tuple(
    re.compile(joint)
    for joint in (
        r"\n+",
        r";\s",
        r":\s",
        r",\s|\sand\s|\sor\s",
        r"\s\(|\)",
        r"[“”]",
        r"(?<=[\d½¼¾])\s",
        r"\s(?=[≥≤<>]?\d)",
        r"\s·\s|\s–\s",
        r"\.(?=$)",
    )
)
_SENTENCE = re.compile(r"[.!?]\s+(?=[A-Z“\d])")
_DIGITS = re.compile(r"\d+(?:[.,]\d+)*")


def _same_numbers(one: str, other: str) -> bool:
    """Whether two texts name the same numbers, in whatever order."""
    return sorted(_DIGITS.findall(one)) == sorted(_DIGITS.findall(other))

"""Say a text of the product in another language: find the message that made it, and its values."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property

_VALUE = re.compile(r"\{(\d+)\}")
#: a number with its sign, currency, fraction or multiple; and units and symbols, alike everywhere
_NUMBER = re.compile(r"[-–−+±≥≤<>=~≈×x÷·*/%$€£°#\d.,:;()\s½¼¾²³]*")
_QUOTED = re.compile("“([^“”]*)”")
MOST_TRIED = 400  # ways to fit one text into one message
MOST_KNOWN = 20_000  # texts and parts of texts kept with what they are in the language


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

    def values_in(self, text: str) -> Iterator[tuple[str, ...]]:
        """Every way to read a text as this message: its values, in their order."""
        pieces = self.pieces
        if not text.startswith(pieces[0]) or not text.endswith(pieces[-1]):
            return
        if len(pieces) == 1:
            if text == pieces[0]:
                yield ()
            return
        end = len(text) - len(pieces[-1])
        yield from _split(text, len(pieces[0]), end, pieces[1:-1])


def _split(text: str, start: int, end: int, pieces: tuple[str, ...]) -> Iterator[tuple[str, ...]]:
    if not pieces:
        if start <= end:
            yield (text[start:end],)
        return
    at = text.find(pieces[0], start, end)
    while at >= 0:
        for rest in _split(text, at + len(pieces[0]), end, pieces[1:]):
            yield (text[start:at], *rest)
        at = text.find(pieces[0], at + 1, end)


@dataclass
class Speaker:
    """Says texts with the messages of one language.

    Args:
        messages: of the code, and what each is in the language; both with their values numbered.
        names: what is said as it is written: people, places, makers' names, a firm's own words.
        alike: units and words that are written the same.
    """

    messages: Mapping[str, str]
    alike: frozenset[str] = frozenset()
    names: frozenset[str] = frozenset()
    _known: dict[str, str | None] = field(default_factory=dict)

    @cached_property
    def _filled(self) -> list[Message]:
        made = (Message(source, said) for source, said in self.messages.items() if "{0}" in source)
        return sorted(made, key=lambda m: -m.weight)

    def say(self, text: str) -> str:
        """The text in the language; as it is where it has no message, or a number would change."""
        said = self.said(text)
        return text if said is None or not _same_numbers(text, said) else said

    def said(self, text: str) -> str | None:
        """The text in the language; None where a part of it has no message."""
        if text not in self._known:
            if len(self._known) > MOST_KNOWN:
                self._known.clear()
            self._known[text] = None  # a text is no part of itself
            self._known[text] = self._found(text)
        return self._known[text]

    def _found(self, text: str) -> str | None:
        if text in self.messages:
            return self.messages[text]
        if _NUMBER.fullmatch(text) or text in self.names or text in self.alike:
            return text
        quoted = _QUOTED.fullmatch(text)
        if quoted:  # somebody's words
            return f"“{self.said(quoted[1]) or quoted[1]}”"
        for way in self._ways:
            said = way(text)
            if said is not None:
                return said
        return None

    @cached_property
    def _ways(self) -> tuple[Callable[[str], str | None], ...]:
        return (
            self._trimmed,
            self._after_name,
            self._in_sentences,
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
        for message in self._filled:
            if message.longest not in text:
                continue
            for tried, values in enumerate(message.values_in(text)):
                said = self._all(values)
                if said is not None:
                    return message.filled(said)
                if tried > MOST_TRIED:
                    break
        return None

    def _by_case(self, text: str) -> str | None:
        """A message whose first letter was made great or small for where it stands."""
        first, rest = text[0], text[1:]
        other = first.lower() if first.isupper() else first.upper()
        said = None if other == first else self.messages.get(other + rest)
        if said is None:
            return None
        return (said[0].upper() if first.isupper() else said[0].lower()) + said[1:]

    def _in_sentences(self, text: str) -> str | None:
        """The most sentences from its start that are said together, and what follows them."""
        ends = [m.end() for m in _SENTENCE.finditer(text)]
        for end in reversed(ends):
            first = self.said(text[:end])
            rest = None if first is None else self.said(text[end:])
            if first is not None and rest is not None:
                return first + rest
        return None

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

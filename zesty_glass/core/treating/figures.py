"""What is special to a kind of item: the base of every technology's own record."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import fields
from decimal import Decimal
from typing import Any, ClassVar, get_args, get_type_hints

#: what cannot be in the figures of an item: (code, what is wrong, what to do)
Fault = tuple[str, str, str]


#: a filter this fine keeps particles from shading a lamp [µm]: trade practice (2024)
FINE_UM = 5.0


class Figures:
    """The figures of one item, as its data sheet states them; ``kind`` names the technology."""

    __slots__ = ()
    kind: str
    #: fields that something is divided by, so that 0 cannot be
    above_zero: ClassVar[tuple[str, ...]] = ()

    def faults(self, code: str) -> tuple[Fault, ...]:
        """What cannot be, for an item of this code."""
        del code
        return ()

    def impossible(self) -> Iterator[Fault]:
        """Numbers that no data sheet holds: below 0, not finite, or 0 where it cannot be."""
        for f in fields(self):  # type: ignore[arg-type]
            value = getattr(self, f.name)
            if isinstance(value, bool) or not isinstance(value, int | float | Decimal):
                continue
            name = f.name.replace("_", " ")
            if not math.isfinite(value) or value < 0:
                yield f.name, f"{name} of {value:g} is not possible.", "Use 0 or more."
            elif value == 0 and f.name in self.above_zero:
                yield f.name, f"{name} cannot be 0.", "Read it off the data sheet."

    @property
    def holds_um(self) -> float | None:
        """The size from which particles are held back [µm]; None: it is no particle filter."""
        return None

    @property
    def wants_ph(self) -> float | None:
        """The least pH at which all that it claims holds; None: it has no such wish."""
        return None

    @property
    def made_for(self) -> frozenset[str]:
        """Analytes of which one must be found before it is proposed; empty: whatever it changes."""
        return frozenset()

    @property
    def apart(self) -> str:
        """What tells two of one kind apart that can both be of use at one drinking tap, as what
        they are filled with; empty: one is enough.
        """
        return ""

    @property
    def disinfects(self) -> bool:
        """Whether what stands behind it counts as disinfected."""
        return False


def kinds_of(figures: type[Figures]) -> tuple[str, ...]:
    """The kinds that a record of figures may have."""
    return get_args(get_type_hints(figures)["kind"])


class OfAnyTechnology:
    """Says that figures are those of one of the technologies, told apart by ``kind``.

    ``known`` is handed in by their registry. The method is what validation at the edges looks for;
    the core itself knows nothing of it.
    """

    known: ClassVar[tuple[type[Figures], ...]] = ()

    def __get_pydantic_core_schema__(self, source: Any, handler: Any) -> dict[str, Any]:
        choices: dict[str, Any] = {}
        for figures in self.known:
            schema = handler.generate_schema(figures)
            choices |= dict.fromkeys(kinds_of(figures), schema)
        return {"type": "tagged-union", "choices": choices, "discriminator": "kind"}

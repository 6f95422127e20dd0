"""The water on its way through a line: every analyte with its range, and how it is known."""

from __future__ import annotations

from typing import Literal

from ..evidence import Level
from ..ranges import Range
from ..record import record
from ..testing.colour import ColourFinding
from ..testing.value import microbe_found
from ..testing.water import Water

#: what becomes of microbes at a lamp that nothing stops
INACTIVATED = "inactivated at the lamp"


@record
class Quantity:
    """One analyte at one point of the line; ``range`` None with state "unknown" means nobody can
    say. ``pending``: as ahead of a stage that may end it, once its open tests are made.
    """

    range: Range | None
    state: Literal["measured", "predicted", "unknown"]
    evidence: Level | None = None
    below: float | None = None
    words: str = ""
    established: bool = True
    note: str = ""
    pending: bool = False


UNKNOWN = Quantity(range=None, state="unknown")


@record
class Stream:
    """The water at one point. ``particulate_iron``: whether rusted iron is in it; ``arsenic_as5``:
    whether its arsenic is all As(V), which claims hold for. None: nobody has looked.
    """

    quantities: dict[str, Quantity]
    particulate_iron: bool | None = None
    coloured: bool | None = None
    psi: Range | None = None
    uvt_measured_here: bool = True
    arsenic_as5: bool | None = None

    def get(self, analyte: str) -> Quantity | None:
        """The quantity, or None when never tested."""
        return self.quantities.get(analyte)

    def range(self, analyte: str) -> Range | None:
        """The range, or None when unknown."""
        q = self.quantities.get(analyte)
        return None if q is None else q.range

    def best(self, analyte: str) -> float | None:
        """The best value, or None when unknown."""
        r = self.range(analyte)
        return None if r is None else r.best

    def with_(
        self,
        changes: dict[str, Quantity],
        particulate_iron: bool | Literal["same"] | None = "same",
        coloured: bool | Literal["same"] | None = "same",
        uvt_measured_here: bool | None = None,
        psi: Range | Literal["same"] | None = "same",
    ) -> Stream:
        """A copy with some quantities changed."""
        return Stream(
            quantities={**self.quantities, **changes} if changes else self.quantities,
            particulate_iron=self.particulate_iron
            if particulate_iron == "same"
            else particulate_iron,
            coloured=self.coloured if coloured == "same" else coloured,
            psi=self.psi if psi == "same" else psi,
            uvt_measured_here=(
                self.uvt_measured_here if uvt_measured_here is None else uvt_measured_here
            ),
            arsenic_as5=self.arsenic_as5,
        )


def found_in(q: Quantity) -> bool:
    """Whether a microbe was found, in a word or by count."""
    return microbe_found(q.range, q.below, q.words) is True


def predicted(
    r: Range | None, evidence: Level | None, established: bool = True, note: str = ""
) -> Quantity:
    """A predicted quantity, or unknown when there is no range."""
    if r is None:
        return Quantity(range=None, state="unknown", evidence=evidence, note=note)
    return Quantity(
        range=r, state="predicted", evidence=evidence, established=established, note=note
    )


def source_stream(water: Water, colour: ColourFinding | None, psi: Range | None) -> Stream:
    """The raw water as it enters the line."""
    quantities: dict[str, Quantity] = {}
    for name, v in water.values.items():
        quantities[name] = Quantity(range=v.range, state="measured", below=v.below, words=v.words)
    particulate_iron = None if colour is None else colour.particulate_iron
    iron = water.range("iron")
    if (
        particulate_iron is None
        and iron is not None
        and iron.high is not None
        and iron.high <= 0.05
    ):
        particulate_iron = False
    coloured: bool | None = None
    if water.cups is not None:
        coloured = water.cups.drawn not in ("clear",)
    return Stream(
        quantities=quantities,
        particulate_iron=particulate_iron,
        coloured=coloured,
        psi=psi,
        arsenic_as5=arsenic_form(water),
    )


#: free chlorine that keeps arsenic oxidised [mg/L]: US EPA, arsenic treatment technologies (2000)
OXIDIZES = 0.2


def arsenic_form(water: Water) -> bool | None:
    """Whether a water's arsenic is all As(V): as a laboratory told, or because free chlorine stands
    in it; None while nobody knows.
    """
    told = water.values.get("arsenic")
    if told is not None and told.form:
        return told.form == "as5"
    free = water.range("chlorine_free")
    return True if free is not None and free.low >= OXIDIZES else None

"""What goes over the wire of kits, limits and what can be tested."""

from __future__ import annotations

from pydantic import BaseModel


class SignView(BaseModel):
    """A kind of complaint to choose from."""

    id: str
    name: str
    next: str


class AnalyteView(BaseModel):
    """An analyte as the page needs it."""

    id: str
    name: str
    unit: str
    kind: str
    laboratory_only: bool
    test: str
    decimals: int


class Reference(BaseModel):
    """What the page needs to know once: signs, analytes, what a visit looks for, and what eyes and
    nose look at.
    """

    signs: list[SignView]
    analytes: list[AnalyteView]
    looked_for: list[str]
    looked_at: list[str]

"""The value that a reading gives, and what is refused of any."""

from __future__ import annotations

from typing import Literal

from ..analytes import analyte
from ..errors import RuleError
from ..ranges import Range
from ..record import record
from .instruments import Flag, Instrument


@record
class Value:
    """A reading worked out.

    ``range`` is None for a result in words (bacteria present, a color finding). ``below`` is the
    limit a result is under [canonical unit]; ``open_ended`` says that there is no upper end and
    that a diluted repeat is needed. ``form``: of arsenic, all of it As(V), or some As(III), where a
    laboratory told them apart.
    """

    analyte: str
    unit: str
    range: Range | None
    below: float | None = None
    open_ended: bool = False
    words: str = ""
    flags: tuple[Flag, ...] = ()
    laboratory: bool = False
    certified: bool = False
    form: Literal["", "as5", "as3"] = ""

    @property
    def microbe(self) -> bool | None:
        """Whether a microbe was found: see ``microbe_found``."""
        return microbe_found(self.range, self.below, self.words)


#: [per 100 mL] a result below it means none in the bottle of 100 mL, the least that is counted:
#: Standard Methods 9222 and 9223 (2017)
ONE_COLONY = 1.0


def microbe_found(r: Range | None, below: float | None, words: str) -> bool | None:
    """Whether a microbe was found, in a word or by count; None where the result cannot tell, as of
    a diluted sample with none in it.

    Args:
        r: as counted [per 100 mL]. below: the limit that the result is under [per 100 mL].

    >>> microbe_found(Range.of(0.0, 0.5, 1.0), 1.0, ""), microbe_found(None, None, "present")
    (False, True)
    """
    if words:
        return {"present": True, "absent": False}.get(words)
    if r is None:
        return None
    if below is not None:
        return False if below <= ONE_COLONY else None
    return r.best > 0


def refused(code: str, what: str, remedy: str, where: str = "observation") -> RuleError:
    """The error for an observation that cannot be."""
    return RuleError(code, what, where, remedy)


def diluted(d: float) -> float:
    """The dilution factor [parts for one of sample]; RuleError below 1.

    >>> diluted(4.0)
    4.0
    """
    if not d >= 1:
        raise refused(
            "dilution.below_one",
            f"A dilution of {d:g} is not possible.",
            "One part sample in d parts: d is 1 or more.",
        )
    return d


#: how far a syringe or cylinder of a field kit may be off, as a share: ISO 7886-1 allows 4 to 5 %
#: of one fill; two fills of one syringe are within 2 % (2017)
DILUTION_SHARE = 0.02


def of_diluted(r: Range, dilution: float) -> Range:
    """A range with what measuring out a dilution errs by; unchanged where nothing was diluted.

    >>> of_diluted(Range.of(90.0, 100.0, 100.0), 2.0).high
    102.0
    """
    if dilution == 1:
        return r
    high = None if r.high is None else r.high * (1 + DILUTION_SHARE)
    return Range.of(r.low * (1 - DILUTION_SHARE), r.best, high)


def undiluted(name: str, dilution: float) -> None:
    """RuleError for a dilution of what is no amount in the water."""
    if dilution != 1 and name in ("ph", "temperature", "uvt"):
        raise refused(
            "dilution.no_amount",
            f"{analyte(name).name} of a diluted sample says nothing of the sample.",
            "Measure it undiluted.",
        )


def unit_of(instrument: Instrument) -> str:
    """The unit of an instrument's figures: its own, else the canonical one."""
    return instrument.unit or analyte(instrument.analyte).unit

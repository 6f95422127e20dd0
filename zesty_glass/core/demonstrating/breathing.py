"""Breath and pH: that carbon dioxide makes water a little acid, that minerals buffer it, and that
airing takes it out again.
"""

from __future__ import annotations

from ..testing.breath import breathed_ph
from ..testing.instruments import Flag
from .around import Around
from .demonstrations import BreathTest
from .shown_records import BreathShown, Shown

#: [pH] two readings of a pH meter of ±0.1 that are nearer than this show no difference
APART = 0.2
#: [pH] a rise by airing from which carbon dioxide is named as the cause: trade practice (2024)
GAS = 0.3
ACID = 7.0  # [pH] below it water is acid
NOT_HEALTH = "Neither says anything about health: it shows how little or much the minerals buffer."


def _moved(before: float, after: float) -> float:
    """By how much a pH changed, to what a meter can show."""
    return round(after - before, 3)


def _step(name: str, before: float, after: float) -> str:
    moved = _moved(before, after)
    if abs(moved) < APART:
        return f"{name}: pH {before:.1f} and pH {after:.1f}, no difference that this meter shows."
    way = "fell" if moved < 0 else "rose"
    return f"{name}: pH {way} from {before:.1f} to {after:.1f}."


def _said_of_breath(d: BreathTest, expected: float | None) -> list[str]:
    if d.before is None or d.breathed is None:
        return []
    said = [_step(f"Breathed into for {d.seconds} s", d.before, d.breathed)]
    if _moved(d.breathed, d.before) >= APART:
        said.append("Breath brings carbon dioxide, which makes any water a little acid.")
    if expected is not None:
        said.append(f"With this alkalinity it ends near pH {expected:.1f}, however long one blows.")
    return said


def _said_of_airing(d: BreathTest) -> list[str]:
    if d.before is None or d.aired is None:
        return []
    said = [_step(f"Poured to and fro {d.pours} times", d.before, d.aired)]
    if _moved(d.before, d.aired) >= GAS:
        said.append(
            "Carbon dioxide went out with the air"
            + (
                ": it makes this water acid as it comes. pH is measured at the tap at once, and a"
                " neutralizer is sized on that one."
                if d.before < ACID
                else "; pH is measured at once, before it can."
            )
        )
    elif d.before < ACID:
        said.append(
            "Airing changes little: what makes it acid is not carbon dioxide alone, or there is"
            " little alkalinity."
        )
    return said


def _flags(d: BreathTest) -> tuple[Flag, ...]:
    if d.before is None or d.breathed is None or _moved(d.before, d.breathed) < APART:
        return ()
    return (
        Flag(
            id="breath.rose",
            sentence="Breath cannot raise a pH: rinse the probe, check it, and measure again.",
        ),
    )


def breath(d: BreathTest, at: Around) -> Shown:
    """pH before and after breath and airing, beside what is expected of this water."""
    if d.sample not in at.samples:
        return Shown(id="", sentences=(), refused="The glass is not in this visit any more.")
    alkalinity = at.value(d.sample, "alkalinity")
    known = None if alkalinity is None or alkalinity.range is None else alkalinity.range.best
    expected = None if known is None else breathed_ph(known)
    said = [*_said_of_breath(d, expected), *_said_of_airing(d)]
    return Shown(
        id="",
        sentences=(*said, NOT_HEALTH) if said else (),
        flags=_flags(d),
        result=BreathShown(expected=expected, bare=breathed_ph(0.0)),
    )

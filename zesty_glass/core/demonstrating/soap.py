"""What the vials of soap show: drops a vial against those expected, how many times the softened
vial's, the spoonful, and the cautious estimate for the home.
"""

from __future__ import annotations

from .. import words
from ..ranges import Range
from ..record import record
from ..testing.instruments import Flag
from .around import Around
from .demonstrations import Lather, Vial
from .lather import Ratio, counted, expected_drops, household_share, ratio, spoon_share, spoonful
from .shown_records import LatherShown, Shown, VialShown


@record
class _Counts:
    """Drops of every vial: expected by its hardness, and those that count (counted, or expected
    where the vials are simulated); the hardness of each [mg/L as CaCO3]."""

    hardness: dict[str, Range]
    expected: dict[str, Range]
    drops: dict[str, Range | None]


_SOFT = Range.of(0.0, 0.0, 0.0)  # hardness of a softened vial that nobody tested [mg/L]


def _vial(d: Lather, role: str) -> Vial | None:
    return next((v for v in d.vials if v.role == role), None)


def _counts(d: Lather, at: Around, simulated: bool) -> _Counts:
    tested = {v.id: at.value(v.sample, "hardness") for v in d.vials if v.sample is not None}
    hard = {k: v.range for k, v in tested.items() if v is not None and v.range is not None}
    expected = {k: expected_drops(r, d) for k, r in hard.items()}
    drops = {v.id: expected.get(v.id) if simulated else counted(v) for v in d.vials}
    soft = _vial(d, "softened")
    if soft is not None and soft.id not in expected:
        expected[soft.id] = expected_drops(_SOFT, d)
        if simulated:
            drops[soft.id] = expected[soft.id]
    return _Counts(hardness=hard, expected=expected, drops=drops)


def _times(d: Lather, drops: dict[str, Range | None]) -> dict[str, Ratio | None]:
    """How many times the softened vial's soap each other vial took; None where either is open."""
    soft = _vial(d, "softened")
    base = None if soft is None else drops.get(soft.id)
    out: dict[str, Ratio | None] = {}
    for v in d.vials:
        x = drops.get(v.id)
        both = base is not None and base.high and x is not None and x.high is not None
        out[v.id] = ratio(x, base) if both and x and base and v is not soft else None
    return out


def _spoon(d: Lather, hardness: dict[str, Range]) -> Range | None:
    """What a spoonful of tap water makes of the softened vial [mg/L as CaCO3]."""
    tap, soft = _vial(d, "tap"), _vial(d, "softened")
    if tap is None or soft is None or tap.id not in hardness:
        return None
    return spoonful(hardness[tap.id], hardness.get(soft.id, _SOFT), d.volume_ml, d.spoon_ml)


def _said_of_soap(d: Lather, shown: Ratio, simulated: bool) -> list[str]:
    low = words.number(shown.low, 1)
    upper = f"more than {low}" if shown.high is None else f"{low} to {words.number(shown.high, 1)}"
    took = "is expected to take" if simulated else "took"
    how = ", worked out from its hardness and not counted" if simulated else ""
    said = [
        f"This water {took} {words.number(shown.best, 1)} times the soap of the softened vial"
        f" ({upper}){how}."
    ]
    last = max((v.steps[-1] for v in d.vials if v.steps), default=1)
    if not simulated and last > 1:
        said.append(
            f"The range is wide because the soap went in {last} drops at a time; single drops"
            " near the end narrow it."
        )
    return said


def _said_of_cloud(d: Lather) -> list[str]:
    cloudy = [f"“{v.name}”" for v in d.vials if v.cloud]
    return [f"Undissolved soap clouds {words.listed(cloudy)}."] if cloudy else []


def _said_of_home(share: float | None) -> list[str]:
    if share is None:
        return []
    if share <= 0:
        return ["That is no ground for an estimate of soap at home."]
    return [
        f"At home nobody doses by the drop: our cautious estimate is {100 * share:.0f} % less soap."
    ]


def _said_of_spoon(d: Lather) -> list[str]:
    if not d.spoon_killed:
        return []
    part = (d.volume_ml + d.spoon_ml) / d.spoon_ml
    return [
        f"A spoonful of tap water, one part in {part:.0f}, killed the lather: hard water that an"
        " undersized softener lets through does the same."
    ]


FAR_APART = 1.5  # counted against expected drops: beyond it something is to be asked


def _far_apart(d: Lather, counts: _Counts) -> tuple[Flag, ...]:
    """Vials that took far more or less soap than their hardness lets expect."""
    flags = []
    for v in d.vials:
        seen, due = counts.drops.get(v.id), counts.expected.get(v.id)
        if seen is None or due is None or seen.high is None or due.high is None:
            continue
        if seen.low > FAR_APART * due.high or seen.high < due.low / FAR_APART:
            flags.append(
                Flag(
                    id=f"lather.far.{v.role}",
                    sentence=(
                        f"“{v.name}” took {words.number(seen.best, 0)} drops where its hardness"
                        f" lets expect about {words.number(due.best, 0)}: was the vial full to the"
                        " mark, the soap the same, the hardness tested in this glass?"
                    ),
                )
            )
    return tuple(flags)


def _said_of_conditioned(d: Lather, drops: dict[str, Range | None]) -> list[str]:
    """A conditioner that takes no hardness out does not change the soap that is needed."""
    tap, other = _vial(d, "tap"), _vial(d, "conditioned")
    a = None if tap is None else drops.get(tap.id)
    b = None if other is None else drops.get(other.id)
    if a is None or b is None or other is None:
        return []
    if a.overlaps(b):
        return [
            f"“{other.name}” needs as much soap as the tap: what it does to scale is another"
            " question, its hardness stays in the water."
        ]
    less = "less" if b.best < a.best else "more"
    return [
        f"“{other.name}” took {less} soap than the tap: a hardness test of both says whether any"
        " hardness was taken out."
    ]


def suds_a_shake(v: Vial) -> float | None:
    """Lather for each shake [mm]; None where one of the two was not looked at.

    >>> suds_a_shake(Vial(id="v", name="Tap", steps=(3,), shakes=10, suds_mm=25.0))
    2.5
    """
    return None if v.shakes is None or v.suds_mm is None else v.suds_mm / v.shakes


def _said_of_suds(d: Lather) -> list[str]:
    """Suds beside each other, only of vials with as much soap and as many shakes."""
    seen = [v for v in d.vials if suds_a_shake(v) is not None]
    if len(seen) < 2:
        return []
    heights = words.listed([f"{v.suds_mm:g} mm in “{v.name}”" for v in seen])
    if len({(sum(v.steps), v.shakes) for v in seen}) > 1:
        return [f"Suds of {heights}: not compared, for soap or shakes were not the same in each."]
    soap, shakes = sum(seen[0].steps), seen[0].shakes
    after = f"{soap} {'drop' if soap == 1 else 'drops'} and {shakes} shakes"
    return [f"After {after} each: suds of {heights}. What counts is the soap until it holds."]


def lather(d: Lather, at: Around, simulated: bool) -> Shown:
    """Drops a vial, ratios to the softened vial, the spoonful and the household estimate."""
    counts = _counts(d, at, simulated)
    times = _times(d, counts.drops)
    tap = _vial(d, "tap")
    shown = None if tap is None else times.get(tap.id)
    share = None if shown is None else household_share(shown, at.settings.soap_share)
    said = [
        *([] if shown is None else _said_of_soap(d, shown, simulated)),
        *_said_of_conditioned(d, counts.drops),
        *_said_of_cloud(d),
        *([] if simulated else _said_of_suds(d)),
        *_said_of_home(share),
        *_said_of_spoon(d),
    ]
    vials = tuple(
        VialShown(
            id=v.id,
            name=v.name,
            drops=counts.drops.get(v.id),
            expected=counts.expected.get(v.id),
            times=times.get(v.id),
            suds_a_shake=None if simulated else suds_a_shake(v),
        )
        for v in d.vials
    )
    result = LatherShown(
        vials=vials,
        spoon=_spoon(d, counts.hardness),
        spoon_share=spoon_share(d.volume_ml, d.spoon_ml),
        household=share,
        breakthrough=_breakthrough(at),
    )
    flags = () if simulated else _far_apart(d, counts)
    return Shown(id="", sentences=tuple(said), flags=flags, result=result)


def _breakthrough(at: Around) -> str:
    """What a softener of this visit lets through as it is set, in its own words."""
    found = [
        (line.name, c.sentence)
        for line in at.lines.values()
        for s in line.stages
        for c in s.checks
        if c.id == "softener.clock" and c.status == "warn"
    ]
    return "" if not found else f"{found[0][0]}: {found[0][1]}"

"""What a unit was measured to do to this home's own water: the strongest evidence there is."""

from __future__ import annotations

from collections.abc import Mapping

from ..analytes import ANALYTES, Kind
from ..evidence import Level
from ..ranges import Range
from ..testing.removal import Removal, removal
from ..testing.value import Value
from ..testing.water import Sample, Water
from .stream import Quantity, Stream

#: no share is taken out of these: they are states of the water, not matter in it
NOT_MATTER = frozenset(
    {"ph", "temperature", "flow", "pressure_static", "pressure_running", "uvt", "colour", "noticed"}
)
Measured = Mapping[str, Mapping[str, Removal]]


def _proves(analyte: str, before: Value, after: Value) -> bool:
    """For health only certified results before and after count; a field kit never proves it."""
    return ANALYTES[analyte].kind is not Kind.HEALTH or (
        before.certified and before.laboratory and after.certified and after.laboratory
    )


def measured_here(
    samples: tuple[Sample, ...], waters: Mapping[str, Water]
) -> dict[str, dict[str, Removal]]:
    """Removal by item code and analyte, from the raw sample to samples that say which item they
    came from.

    A filter that was just changed, or is overdue for replacement, does not count: it is not what is
    sold.
    """
    raw = next((s for s in samples if s.raw), None)
    out: dict[str, dict[str, Removal]] = {}
    for s in samples:
        if raw is None or s.after_item is None or s.unflushed or s.past_life:
            continue
        a, b = waters[raw.id].values, waters[s.id].values
        for name in a.keys() & b.keys() - NOT_MATTER:
            r = removal(a[name], b[name])
            if r.shown in ("removed", "at_least", "no_difference") and _proves(
                name, a[name], b[name]
            ):
                out.setdefault(s.after_item, {})[name] = r
    return out


def with_measured(
    inlet: Stream, outlet: Stream, found: Mapping[str, Removal], for_health: bool = True
) -> Stream:
    """A stage's outlet with what was measured of it here in place of what is claimed;
    ``for_health`` False: behind a stage that a check stops, no measurement speaks for health.
    """
    changes: dict[str, Quantity] = {}
    for name, r in found.items():
        q = inlet.get(name)
        if q is None or q.range is None:
            continue
        if not for_health and ANALYTES[name].kind is Kind.HEALTH:
            continue
        if r.shown == "no_difference":
            left: Range = q.range
        else:
            worst = 0.0 if r.worst is None else max(0.0, r.worst)
            most = 1.0 if r.most is None else r.most
            left = q.range.removed(
                worst,
                max(worst, r.best if r.best is not None else (worst + most) / 2),
                max(worst, most),
            )
        changes[name] = Quantity(
            range=left, state="predicted", evidence=Level.MEASURED_HERE, established=q.established
        )
    return outlet.with_(changes) if changes else outlet

"""Rules by which equipment in place is judged, one function a kind."""

from __future__ import annotations

from collections.abc import Callable
from typing import Literal

from .. import words
from ..analytes import ANALYTES
from ..doing import Does
from ..home import Home
from ..in_place import InPlace
from ..ranges import Range
from ..ranges import Verdict as Held
from ..record import record
from ..rules import Rules, Settings
from ..testing.finding import Finding
from ..testing.pairs import Pair
from ..testing.removal import removal
from ..testing.water import Water
from ..units import MG_L_PER_GPG
from .existing_equipment import (
    days_that_fit,
    load_gpg,
)
from .stages.softener_size import LEAST_DAYS

Verdict = Literal["keep", "service", "set_right", "replace", "not_judged"]


SET_ROOM_GPG = 1.0  # a valve is set in whole grains: trade practice (2024)


SET_TOO_HIGH = 1.25  # from here a setting wastes salt worth a word: trade practice (2024)


LEAST_REJECTION = 0.75  # of a membrane: the alarm of service work


LAMP_MONTHS = 12.0  # a UV lamp's year of days powered


#: of what an iron filter takes out
STAINS = ("iron.stains", "manganese.stains")


RESIN_IRON = 2.0  # [mg/L] ferrous, that resin takes without a cleaner: trade practice (2024)


@record
class Seen:
    """All that a judgement looks at.

    Args:
        over: its part is past its months or gallons.
        over_behind: findings of health on the water behind it; open_behind: what is of health in
            the raw water, of its work, and was not measured behind it.
        clean: whether a certified laboratory found bacteria absent behind it.
    """

    device: InPlace
    home: Home
    settings: Settings
    rules: Rules
    raw: Water
    behind: Water | None
    held: tuple[Pair, ...]
    age: float | None
    used_gal: float | None
    over: bool
    over_behind: tuple[Finding, ...] = ()
    open_behind: tuple[str, ...] = ()
    clean: bool = False

    def after(self, analyte: str) -> Range | None:
        """What was measured of an analyte behind it."""
        return None if self.behind is None else self.behind.range(analyte)

    @property
    def changes_something(self) -> bool | None:
        """Whether anything measured differs behind it; None where nothing was held against it."""
        shown = [p.removal.shown for p in self.held if p.removal is not None]
        if not shown:
            return None
        return any(s in ("removed", "at_least") for s in shown)


Answer = tuple[Verdict, str]


def _softener(seen: Seen) -> Answer:
    device, hard = seen.device, seen.after("hardness")
    load = load_gpg(seen.raw, seen.settings.iron_factor)
    fit = days_that_fit(device, seen.raw, seen.home, seen.settings)
    if fit is not None and fit[0] <= 1:
        return (
            "replace",
            f"Too small for this home: it holds {fit[0]:.1f} days of this water, however it is"
            " set.",
        )
    leaks = hard is not None and hard.low >= MG_L_PER_GPG
    low = (
        device.setting_gpg is not None
        and load is not None
        and device.setting_gpg < load.best - SET_ROOM_GPG
    )
    late = device.clock_days is not None and fit is not None and device.clock_days > fit[0]
    if low or late:
        to = [] if load is None or not low else [f"hardness {load.best:.0f} gpg"]
        to += [] if fit is None or not late else [f"every {words.days(fit[1])}"]
        small = fit is not None and fit[0] - 1 < LEAST_DAYS
        return (
            "set_right",
            f"Set it to {' and '.join(to)}. Check the salt tank for a hard crust (a “bridge”),"
            " start one regeneration by hand, and test again."
            + (
                " Even set right it is small for this home: it uses a lot of salt." if small else ""
            ),
        )
    if leaks:
        return (
            "service",
            (
                "Hard water comes through. Check the salt and any salt bridge, the injector, the"
                " resin and the bypass, start one regeneration by hand, and test again. Only then"
                " think of a new one."
            ),
        )
    if hard is None:
        return "not_judged", "Draw a glass behind it and test the hardness."
    if hard.high is None or hard.high > MG_L_PER_GPG * (1 + 1e-9):
        return "not_judged", "Hardness behind it is too close to 1 gpg to call: test it finer."
    if device.setting_gpg is not None and load and device.setting_gpg > load.best * SET_TOO_HIGH:
        more = device.setting_gpg / load.best - 1
        return (
            "set_right",
            f"It softens. Set it to {load.best:.0f} gpg: as it is it regenerates about {more:.0%}"
            " more often than needed, with its salt and rinse water.",
        )
    return "keep", "It softens as it is set. Keep salt in it, and test once a year."


def _membrane(seen: Seen) -> Answer:
    out, into = seen.after("tds"), seen.raw.range("tds")
    if out is None or into is None:
        return (
            ("service", seen.device.of.service)
            if seen.over
            else ("not_judged", "Draw a glass behind it and measure TDS.")
        )
    assert seen.behind is not None
    held = removal(seen.raw.values["tds"], seen.behind.values["tds"])
    if held.most is not None and held.most < LEAST_REJECTION:
        return "service", "It holds back too little. " + seen.device.of.service
    return cartridge(seen)


def cartridge(seen: Seen) -> Answer:
    """Whatever has a cartridge: by its life, by the reading at which its maker wants it changed,
    and by whether anything measured differs behind it."""
    device = seen.device
    if seen.over:
        age = "Overdue for replacement." if seen.age is not None else "Nobody knows how old it is."
        return "service", f"{age} {device.of.service} Then test again."
    limit, tds = device.change_at_tds, seen.after("tds")
    if limit is not None and tds is not None and tds.best >= limit:
        return (
            "service",
            f"TDS behind it has reached {limit:g} mg/L, at which its maker wants it changed.",
        )
    match seen.changes_something:
        case None:
            return "not_judged", "Draw a glass behind it, flushed, and test what it is there for."
        case True:
            return "keep", "It does what was measured. Change it by its months or gallons."
        case False if device.months is None and device.gallons is None:
            return (
                "service",
                (
                    "Nothing that was measured differs after it, and nobody knows how long its part"
                    f" lasts. {device.of.service} Then test again: if nothing differs, it can go."
                ),
            )
        case False:
            return (
                "replace",
                (
                    "Nothing that was measured differs after it, though it is within its life."
                    " Check that no water goes around it; if none does, it can go."
                ),
            )


def _neutraliser(seen: Seen) -> Answer:
    ph = seen.after("ph")
    if ph is None:
        return "not_judged", "Measure the pH behind it by meter."
    low, high = seen.rules.at("ph.corrosive"), seen.rules.at("ph.high")
    least, most = ph.at_least(low), ph.at_most(high)
    if least is Held.NOT_MET:
        return "service", f"pH {ph.best:.1f} behind it. {seen.device.of.service}"
    if most is Held.NOT_MET:
        return (
            "set_right",
            f"pH {ph.best:.1f} behind it, more than {high:g}: a slower medium or less"
            " dose, or more water drawn through it, then measured again.",
        )
    if Held.UNCERTAIN in (least, most):
        edge = low if least is Held.UNCERTAIN else high
        return (
            "not_judged",
            f"The pH behind it is too close to {edge:g} to call: measure it by meter.",
        )
    return "keep", "It raises the pH. Look at its bed at every service."


def _iron(seen: Seen) -> Answer:
    iron = seen.after("iron")
    if iron is None:
        return "not_judged", "Draw a glass behind it and test the iron."
    limits = {limit.analyte: limit.value for limit in map(seen.rules.limit, STAINS)}
    held = {
        name: (r, r.at_most(limit))
        for name, limit in limits.items()
        if (r := seen.after(name)) is not None
    }
    for name, (r, verdict) in held.items():
        if verdict is Held.NOT_MET:
            said = ANALYTES[name].name.partition(",")[0]
            return "service", f"{said} {r.best:g} mg/L behind it. {seen.device.of.service}"
    for name, (_, verdict) in held.items():
        if verdict is Held.UNCERTAIN:
            said = ANALYTES[name].said
            close = f"The {said} behind it is too close to {limits[name]:g} to call"
            return "not_judged", f"{close}: test it finer."
    return "keep", "It takes the iron out. Test once a year."


def _uv(seen: Seen) -> Answer:
    if seen.age is None or seen.age > (seen.device.months or LAMP_MONTHS):
        return "service", seen.device.of.service + " A laboratory tests the water behind it."
    if seen.clean:
        return (
            "keep",
            "A laboratory found none after it. Change the lamp every year, and test then.",
        )
    return (
        "not_judged",
        "A lamp is judged by its alarm, its days powered and a laboratory’s test behind it.",
    )


def of_health(seen: Seen, verdict: Verdict) -> Answer | None:
    """What a health finding makes of a verdict: over a limit behind it comes before all else; what
    it is there for and nobody measured behind it is not known by any other reading."""
    if seen.over_behind:
        names = ", ".join(f"{ANALYTES[f.analyte].name} {f.shown}" for f in seen.over_behind)
        return (
            "service",
            f"{names} behind it: do not drink it. {seen.device.of.service} Then a certified"
            " laboratory tests behind it again.",
        )
    if seen.open_behind and verdict in ("keep", "replace"):
        names = ", ".join(ANALYTES[name].said for name in seen.open_behind)
        return (
            "not_judged",
            (
                f"What it does to {names} is not known. Only a certified laboratory’s sample after"
                " it can tell. Until then, do not count on it."
            ),
        )
    return None


def _plain(seen: Seen) -> Answer:
    return ("service", seen.device.of.service) if seen.over else ("not_judged", NOT_BY_A_GLASS)


NOT_BY_A_GLASS = "What it does cannot be judged by a glass behind it."


#: by what a piece of equipment does
_JUDGES: dict[Does, Callable[[Seen], Answer]] = {
    "softens": _softener,
    "holds back": _membrane,
    "raises pH": _neutraliser,
    "takes iron": _iron,
    "inactivates": _uv,
}


def judge_of(device: InPlace) -> Callable[[Seen], Answer]:
    """How a piece of equipment is judged: by what it does, else as a cartridge that is changed;
    what works on nothing that a glass shows, by its age alone.
    """
    found = next((_JUDGES[d] for d in sorted(device.of.does) if d in _JUDGES), None)
    return found or (cartridge if device.of.works_on else _plain)

"""Every check that can stop, warn or ask: identifier, sentence template and remedy, in one table.

The table in docs/rules.md is generated from ``CHECKS`` and from the needs of each stage.
"""

from __future__ import annotations

from collections.abc import Mapping
from functools import cache
from typing import NamedTuple

from .. import words
from ..analytes import ANALYTES
from ..ranges import Verdict
from .items import Item, Need
from .report import Check, Status
from .stream import Quantity, Stream


class Says(NamedTuple):
    """What a check says when it is not met, and what to do.

    Args:
        asks: analytes to change, or "@kind" for a technology, that would meet it.
        by_place: a stop of it is the place's, whatever the water.
    """

    sentence: str
    remedy: str
    asks: tuple[str, ...] = ()
    by_place: bool = False


#: id -> what it says; each technology declares its own beside these
CHECKS: dict[str, Says] = {
    "fit.licensed": Says(
        "{what} is fitted by a licensed person, who says what it costs.",
        "Hand over its sheet of steps and settings.",
    ),
    "fit.self": Says(
        "{what} is fitted by the household, about {need} min once: where code asks for a licensed"
        " person on pipes, drains or wires, it asks here too.",
        "The steps with their cautions go with it; metal pipe keeps its bonding.",
    ),
    "fit.self_loose": Says(
        "{what} is set up by the household, about {need} min.", "The steps go with it."
    ),
    "fit.specialist": Says(
        "{what} is not for the household to fit.", "A licensed specialist fits and starts it."
    ),
    "let.rental": Says(
        "{what} is rented for at least {need} months and stays the firm’s; {have}.",
        "Say before signing what ending it early costs and who takes it out.",
    ),
    "let.to_own": Says(
        "{what} is the household’s after {need} payments; its parts are paid beside the rent.",
        "Say before signing what ending it early costs, and the yearly rate it comes to.",
    ),
    "space.drain": Says(
        "Needs a drain, and there is none within reach.",
        "A plumber may add one with an air gap, to local code.",
        by_place=True,
    ),
    "space.socket": Says(
        "Needs an outlet, and there is none within reach.",
        "A licensed electrician may add one.",
        by_place=True,
    ),
    "space.headroom": Says(
        "Needs {need} in of height; {have} in are free.",
        "Choose one that lies flat or is shorter.",
        by_place=True,
    ),
    "space.tenant": Says(
        "The customer is a tenant and may not plumb.",
        "Ask the owner, or choose a counter unit or pitcher.",
        by_place=True,
    ),
    "space.floor": Says(
        "Weighs {need} lb when full; the floor was judged too weak.",
        "Another place, or a smaller unit.",
    ),
    "space.freezing": Says(
        "Stands where it may freeze.", "Drain it for winter; give the household the steps."
    ),
    "pipe.material": Says(
        "What is the main pipe made of? A metal pipe may be part of the house’s electrical ground"
        " and needs a bonding jumper.",
        "Check before cutting.",
    ),
    "pipe.service": Says(
        "The line from the main is not known: one of lead is the cause.", "Ask the utility."
    ),
    "pipe.bonding": Says(
        "The pipe is of {what}: cutting it may cut the house’s electrical ground.",
        "A bonding jumper goes on first, by a licensed electrician.",
    ),
    "flow.larger": Says(
        "More bathrooms than its table knows: {have} gpm are counted, {how}.",
        "Ask for the building’s design flow.",
    ),
    "flow.limit": Says("Peak flow is {have} gpm; this passes {need} gpm.", "The next size up."),
    "clock.empty_house": Says(
        "Its clock runs in the empty house too, {have} days a year, and sends water to the drain.",
        "Switch it off when you leave, and log the day; or choose a metered one.",
    ),
    "use.weekend": Says(
        "One full weekend of {people} uses {use} gal: a cartridge for {have} gal lasts {lasts}.",
        "A larger one, or another way.",
    ),
    "flow.unknown": Says("Its flow limit is not stated.", "Ask the maker."),
    "well.backwash": Says(
        "Backwash wants {need} gpm; the pump gives {have} gpm.",
        "A lighter media, an upflow unit, or a larger pump.",
        by_place=True,
    ),
    "well.low_yield": Says(
        "The well ran low: {need} gal a backwash is much to ask of it.",
        "An upflow unit, which drains nothing.",
    ),
    "septic.discharge": Says(
        "Sends {need} gal at once to a septic system, {week} gal a week.",
        "Ask the septic’s designer; local code decides.",
    ),
    "brine.forbidden": Says(
        "Brine is forbidden here.", "Exchange service, or no softener.", by_place=True
    ),
    "pressure.least": Says(
        "Wants at least {need} psi running; here it is {have} psi.",
        "A booster pump ahead of it.",
        asks=("@booster",),
    ),
    "pressure.most": Says(
        "Takes at most {need} psi; here it is {have} psi.",
        "A pressure regulator ahead of it.",
        asks=("@regulator",),
    ),
    "pressure.shower": Says(
        "The line takes {need} psi at peak flow: the shower will feel it.",
        "The next size up, or a wider bypass.",
    ),
    "evidence.health": Says(
        "No certified or measured evidence for {what}: not established.",
        "Ask for the certificate for this contaminant.",
    ),
    "arsenic.species": Says(
        "Arsenic claims hold for As(V); which form this is, is not known.",
        "Laboratory: arsenic species; or chlorine ahead of it, which makes it As(V).",
    ),
    "arsenic.form": Says(
        "Some of this arsenic is As(III), which the claim does not hold for: nothing is promised.",
        "A specialist: an oxidant ahead of it makes it As(V).",
    ),
    "line.two_of_a_kind": Says("Two stages of one kind: {what}.", "Keep one."),
    "line.undisinfected": Says(
        "Nothing in this line disinfects, and {have}: its water is not drunk as it comes.",
        "A lamp behind fine filtration; until then drinking water is boiled or brought.",
        asks=("@uv",),
    ),
    "line.disinfection_open": Says(
        "Whether this line disinfects is open, and {have}: its water is not drunk until the open"
        " tests are made and a laboratory finds none behind it.",
        "The tests named at the lamp; until then drinking water is boiled or brought.",
    ),
    "nitrate.infant": Says(
        "An infant lives here, and nitrate is treated for: a laboratory tests it behind the unit"
        " before the first bottle is made with it.",
        "Bottled water for formula until then.",
    ),
    "line.same_hour": Says(
        "Two rinse at one hour: {what}.", "Set one of them an hour or two later."
    ),
    "line.moved": Says("{what} stands out of order: {why}.", "The checks stay on."),
}


def declare(checks: Mapping[str, Says]) -> None:
    """Add the checks of a technology; ValueError for an id that was declared before."""
    twice = CHECKS.keys() & checks.keys()
    if twice:
        raise ValueError(f"checks declared twice: {sorted(twice)}")
    CHECKS.update(checks)


@cache
def _text(id: str) -> str:
    """A check's sentence and remedy as one text, blanks and all."""
    said = CHECKS[id]
    return f"{said.sentence} {said.remedy}".strip()


def told(id: str, status: Status, test: str = "", **parts: object) -> Check:
    """A check from the table with its blanks filled in."""
    text = _text(id)
    if "{" in text:
        text = text.format_map(_Blank({k: str(v) for k, v in parts.items()})).strip()
    return Check(id=id, status=status, sentence=text, test=test)


class _Blank(dict[str, str]):
    def __missing__(self, key: str) -> str:
        return ""


def met(id: str, sentence: str) -> Check:
    """A need that is met, in a few words."""
    return Check(id=id, status="met", sentence=sentence)


def check_need(need: Need, stream: Stream, kind: str, units: str) -> Check:
    """One need of the water against the stream that reaches the stage (a range meets it only
    whole); without ``units`` no sentence is written.
    """
    if not units:
        return _muted(need, stream, kind)
    a = ANALYTES[need.analyte]
    id = f"{kind}.{need.analyte}"
    name = a.name if need.analyte != "iron" else "Iron"
    factor, unit, decimals = words.shown_in(need.analyte, units)
    limit = words.number(need.limit * factor, max(decimals, 2 if need.limit * factor < 1 else 0))
    tail = "" if unit == "pH" else f" {unit}"
    wanted = f"{'at most' if need.op == 'at_most' else 'at least'} {limit}{tail}"
    q = stream.get(need.analyte)
    if q is None or q.range is None:
        how = (
            "not known behind the stage ahead"
            if q is not None and q.state == "unknown"
            else "not tested"
        )
        return Check(id=id, status="unknown", sentence=f"{name} {how}: {wanted} here.", test=a.test)
    shown = words.value(need.analyte, q.range, q.below, units)
    shown = shown.removeprefix(f"{name} ")  # "pH 7.6" names itself
    verdict = q.range.at_most(need.limit) if need.op == "at_most" else q.range.at_least(need.limit)
    if verdict is Verdict.MET:
        return Check(id=id, status="met", sentence=f"{name} {shown}, {wanted}")
    span = words.span(need.analyte, q.range, units)
    why = f" {need.why}" if need.why else ""
    if verdict is Verdict.UNCERTAIN:
        status: Status = "stop" if need.strict else "warn"
        return Check(
            id=id,
            status=status,
            sentence=f"{name} {shown} ({span}): may be past {limit}{tail}.{why}",
        )
    return Check(id=id, status=need.severity, sentence=f"{name} {shown}: wants {wanted}.{why}")


def verdict_on(need: Need, q: Quantity | None) -> Verdict:
    """How a quantity stands against a need; UNKNOWN without a range."""
    if q is None or q.range is None:
        return Verdict.UNKNOWN
    return q.range.at_most(need.limit) if need.op == "at_most" else q.range.at_least(need.limit)


def judged(need: Need, stream: Stream) -> Verdict:
    """The same of a stream."""
    return verdict_on(need, stream.get(need.analyte))


def _muted(need: Need, stream: Stream, kind: str) -> Check:
    """A need judged without a sentence."""
    verdict, id = judged(need, stream), f"{kind}.{need.analyte}"
    if verdict is Verdict.UNKNOWN:
        return Check(id=id, status="unknown", sentence="")
    if verdict is Verdict.MET:
        return Check(id=id, status="met", sentence="")
    astride: Status = "stop" if need.strict else "warn"
    status = need.severity if verdict is Verdict.NOT_MET else astride
    return Check(id=id, status=status, sentence="")


#: hardly ever in a town main; its yearly quality report answers
_TOWN_REPORT = frozenset({"manganese", "hydrogen_sulfide"})
_CHLORINE = frozenset({"chlorine_free", "chlorine_total"})


def check_needs(
    needs: tuple[Need, ...], stream: Stream, kind: str, units: str, private: bool
) -> list[Check]:
    """All needs of a stage; what this kind of source hardly carries is said and asked, not left
    open.
    """
    out = []
    for n in needs:
        c = check_need(n, stream, kind, units)
        if c.status == "unknown" and n.analyte not in stream.quantities:
            name = ANALYTES[n.analyte].name
            if private and n.analyte in _CHLORINE:
                c = Check(
                    id=c.id,
                    status="say",
                    sentence=(
                        f"{name} not tested: a private source has none unless somebody feeds it."
                        " Ask."
                    ),
                    test=c.test,
                )
            elif not private and n.analyte in _TOWN_REPORT:
                c = Check(
                    id=c.id,
                    status="say",
                    sentence=f"{name} not tested: see the utility’s yearly report.",
                    test="the utility’s yearly quality report",
                )
        out.append(c)
    return out


def merged_needs(item: Item, typical: tuple[Need, ...]) -> tuple[Need, ...]:
    """The item's own needs first; the typical ones for every analyte and side that it does not
    state.
    """
    own = {(n.analyte, n.op) for n in item.needs}
    return item.needs + tuple(n for n in typical if (n.analyte, n.op) not in own)

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
        "A licensed person installs {what} and says what that costs.",
        "Hand over its sheet of steps and settings.",
    ),
    "fit.self": Says(
        (
            "You install {what} yourself, in about {need} min. Where code asks for a licensed"
            " person on pipes, drains or wires, it asks here too."
        ),
        "Its steps and cautions come with it. Keep a metal pipe bonded.",
    ),
    "fit.self_loose": Says(
        "You set up {what} yourself, in about {need} min.", "Its steps come with it."
    ),
    "fit.specialist": Says(
        "{what} is not for you to install.", "A licensed specialist installs and starts it."
    ),
    "let.rental": Says(
        "You rent {what} for at least {need} months, and it stays the firm’s; {have}.",
        "Say before signing what ending it early costs and who takes it out.",
    ),
    "let.to_own": Says(
        "{what} is yours after {need} payments. You pay its parts beside the rent.",
        "Say before signing what ending it early costs, and the yearly rate it comes to.",
    ),
    "space.drain": Says(
        "It needs a drain, and there is none within reach.",
        "A plumber can add one with an air gap, to local code.",
        by_place=True,
    ),
    "space.socket": Says(
        "It needs an outlet, and there is none within reach.",
        "A licensed electrician can add one.",
        by_place=True,
    ),
    "space.headroom": Says(
        "It needs {need} in of height, and {have} in are free.",
        "Choose one that lies flat or is shorter.",
        by_place=True,
    ),
    "space.tenant": Says(
        "This home is rented: nothing may be plumbed without the owner’s word.",
        "Ask the owner, or choose a counter unit or pitcher.",
        by_place=True,
    ),
    "space.floor": Says(
        "It weighs {need} lb when full, and the floor is too weak for it.",
        "Choose another place or a smaller unit.",
    ),
    "space.freezing": Says(
        "It stands where it may freeze.", "Drain it for the winter; its steps come with it."
    ),
    "pipe.material": Says(
        "What is the main pipe made of? A metal pipe may be part of the house’s electrical ground"
        " and needs a bonding jumper.",
        "Check before cutting.",
    ),
    "pipe.service": Says(
        "Nobody knows what the line from the main is made of. A lead line would be the cause.",
        "Ask the utility.",
    ),
    "pipe.bonding": Says(
        "The pipe is of {what}, and cutting it may cut the house’s electrical ground.",
        "Have a licensed electrician put on a bonding jumper first.",
    ),
    "flow.larger": Says(
        "This home has more bathrooms than the flow table knows: {have} gpm are counted, {how}.",
        "Ask for the building’s design flow.",
    ),
    "flow.limit": Says("Peak flow is {have} gpm; this passes {need} gpm.", "The next size up."),
    "clock.empty_house": Says(
        (
            "Its clock also runs while the house is empty, {have} days a year, and sends water to"
            " the drain."
        ),
        "Switch it off when you leave, and log the day; or choose a metered one.",
    ),
    "use.weekend": Says(
        "One full weekend of {people} uses {use} gal: a cartridge for {have} gal lasts {lasts}.",
        "Choose a larger one, or another way.",
    ),
    "flow.unknown": Says("Its maker states no flow limit.", "Ask the maker."),
    "well.backwash": Says(
        "Its backwash needs {need} gpm, and the pump gives {have} gpm.",
        "Choose a lighter media, an upflow unit or a larger pump.",
        by_place=True,
    ),
    "well.low_yield": Says(
        "The well has run low, and {need} gal for each backwash is much to ask of it.",
        "Choose an upflow unit, which drains nothing.",
    ),
    "septic.discharge": Says(
        "It sends {need} gal at once to the septic system, {week} gal a week.",
        "Ask the septic designer whether it can take that. Local code decides.",
    ),
    "brine.forbidden": Says(
        "Brine is forbidden here.", "Choose an exchange service, or no softener.", by_place=True
    ),
    "pressure.least": Says(
        "It needs at least {need} psi running, and there is {have} psi here.",
        "Put a booster pump before it.",
        asks=("@booster",),
    ),
    "pressure.most": Says(
        "It takes at most {need} psi, and there is {have} psi here.",
        "Put a pressure regulator before it.",
        asks=("@regulator",),
    ),
    "pressure.shower": Says(
        "The system takes {need} psi at peak flow, and the shower will feel it.",
        "Choose the next size up, or a wider bypass.",
    ),
    "evidence.health": Says(
        "No certificate or measurement shows that it treats {what}.",
        "Ask for the certificate for this contaminant.",
    ),
    "arsenic.species": Says(
        "Arsenic claims hold for As(V) only, and nobody knows which form this is.",
        (
            "Have a laboratory test the arsenic species, or put chlorine before it, which makes it"
            " As(V)."
        ),
    ),
    "arsenic.form": Says(
        (
            "Some of this arsenic is As(III), and the claim does not cover that: nothing is"
            " promised."
        ),
        "Ask a specialist: an oxidant before it makes it As(V).",
    ),
    "line.two_of_a_kind": Says("Two stages of one kind: {what}.", "Keep one."),
    "line.undisinfected": Says(
        "Nothing in this system disinfects, and {have}: do not drink its water as it comes.",
        (
            "Put a UV system after fine filtration. Until then, boil your drinking water or use"
            " bottled water."
        ),
        asks=("@uv",),
    ),
    "line.disinfection_open": Says(
        (
            "Nobody knows yet whether this system disinfects, and {have}: do not drink its water"
            " until the open tests are done and a laboratory finds none after it."
        ),
        (
            "Do the tests named at the UV system. Until then, boil your drinking water or use"
            " bottled water."
        ),
    ),
    "nitrate.infant": Says(
        (
            "An infant lives here, and nitrate is treated. Have a laboratory test the treated water"
            " before the first bottle is made with it."
        ),
        "Use bottled water for formula until then.",
    ),
    "line.same_hour": Says(
        "Two units rinse at the same hour: {what}.", "Set one of them an hour or two later."
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
    return Check(id=id, status=need.severity, sentence=f"{name} {shown}: it needs {wanted}.{why}")


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

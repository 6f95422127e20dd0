"""Every check that can stop, warn or ask: identifier, sentence template and remedy, in one table.

The table in docs/rules.md is generated from ``CHECKS`` and from the needs of each stage.
"""

from __future__ import annotations

from collections.abc import Callable

from .. import words
from ..analytes import ANALYTES
from ..ranges import Verdict
from .items import Item, Need
from .report import Check, Status
from .stream import Quantity, Stream

#: id -> (sentence when not met, what to do)
CHECKS: dict[str, tuple[str, str]] = {
    "space.drain": (
        "Needs a drain, and there is none within reach.",
        "A plumber may add one with an air gap, to local code.",
    ),
    "space.socket": (
        "Needs a socket, and there is none within reach.",
        "A licensed electrician may add one.",
    ),
    "space.headroom": (
        "Needs {need} in of height; {have} in are free.",
        "Choose one that lies flat or is shorter.",
    ),
    "space.tenant": (
        "The customer is a tenant and may not plumb.",
        "Ask the owner, or choose a counter unit or pitcher.",
    ),
    "space.floor": (
        "Weighs {need} lb when full; the floor was judged too weak.",
        "Another place, or a smaller unit.",
    ),
    "space.freezing": (
        "Stands where it may freeze.",
        "Drain it for winter; give the household the steps.",
    ),
    "flow.limit": ("Peak flow is {have} gpm; this passes {need} gpm.", "The next size up."),
    "flow.unknown": ("Its flow limit is not stated.", "Ask the maker."),
    "well.backwash": (
        "Backwash wants {need} gpm; the pump gives {have} gpm.",
        "A lighter media, an upflow unit, or a larger pump.",
    ),
    "well.low_yield": (
        "The well ran low: {need} gal a backwash is much to ask of it.",
        "An upflow unit, which drains nothing.",
    ),
    "septic.discharge": (
        "Sends {need} gal at once to a septic system, {week} gal a week.",
        "Ask the septic’s designer; local code decides.",
    ),
    "brine.forbidden": ("Brine is forbidden here.", "Exchange service, or no softener."),
    "pressure.least": (
        "Wants at least {need} psi running; here it is {have} psi.",
        "A booster pump ahead of it.",
    ),
    "pressure.most": (
        "Takes at most {need} psi; here it is {have} psi.",
        "A pressure regulator ahead of it.",
    ),
    "pressure.shower": (
        "The line takes {need} psi at peak flow: the shower will feel it.",
        "The next size up, or a wider bypass.",
    ),
    "softener.too_small": (
        "Would renew every {have} days: below 2 days is too small.",
        "More resin.",
    ),
    "softener.breaks_through": (
        (
            "Cannot: a day’s load is {load} grains, it holds {have}, and hard water breaks through"
            " within a day."
        ),
        "More resin.",
    ),
    "softener.wasteful": (
        "Would last {have} days; it renews after 14 all the same, and wastes salt and water.",
        "Less resin, or a lower salt dose.",
    ),
    "softener.clock": (
        "On its clock every {need} days it runs hard for {have} % of the water.",
        "Set it to {fit} days, or meter it.",
    ),
    "softener.worst_end": (
        "At the worst end of the readings it would renew every {have} days.",
        "A finer hardness test, or the next size up.",
    ),
    "softener.ferric": ("Rusted iron fouls resin.", "An iron filter ahead of it."),
    "softener.tannin": (
        "Tannin binds iron: what is bound passes the resin, and fouls it. How much is not known.",
        "Iron by laboratory before and after filtering; a trial on a small column.",
    ),
    "softener.tannin_maybe": (
        "Tannin may be at the 0.5 mg/L from which it binds iron: what is bound passes the resin.",
        "A finer tannin test, or the laboratory.",
    ),
    "softener.diet": (
        "Adds {have} mg/L {salt} to every softened tap.",
        (
            "Ask the diet: low sodium, low potassium, kidney disease or medicines ask their"
            " physician. A hard cold tap or a membrane at the tap are ways out."
        ),
    ),
    "softener.efficiency": (
        "Rated {have} grains a pound of salt; NSF/ANSI 44 asks 3,350.",
        "A lower dose.",
    ),
    "softener.open_ended": (
        "The hardness test has no upper end.",
        "Dilute and repeat before sizing.",
    ),
    "softener.dose": (
        "A dose of {have} lb/ft³ is outside 4 to 15.",
        "Use the item’s own table, or a dose within it.",
    ),
    "conditioner.minerals": (
        "The minerals stay: hardness out is hardness in. No softened feel, little soap saved.",
        "Say so to the customer.",
    ),
    "conditioner.evidence": ("Less scale sticking: {have}.", "Ask for the test protocol."),
    "conditioner.phosphate": (
        "No phosphate dosing may run ahead of it.",
        "Ask the utility, or look for a feeder.",
    ),
    "conditioner.flow": (
        "Made for {need} gpm; the peak here is {have} gpm.",
        "The size that fits.",
    ),
    "physical.disputed": (
        "The effect on scale is disputed: maker states.",
        "Nothing is predicted for it.",
    ),
    "carbon.ebct": (
        "At {flow} gpm the water stays {have} min in the bed; {need} min are needed for {what}.",
        "More carbon, or catalytic carbon.",
    ),
    "carbon.disinfectant": (
        "Takes the disinfectant out for everything behind it.",
        "Keep what is behind it clean; sanitise as the manual says.",
    ),
    "carbon.radon": (
        "Radon is {have}: a carbon bed would collect its daughters.",
        "A radon specialist first.",
    ),
    "carbon.radon_unknown": (
        "Radon in this private water is not known: a carbon bed would collect its daughters.",
        "Laboratory: radon in water.",
    ),
    "carbon.volume": ("The carbon volume is not stated: contact time unknown.", "Ask the maker."),
    "iron.ph": ("pH {have} here: wants at least {need} for {what}.", "pH correction ahead of it."),
    "iron.tannin_maybe": (
        "Tannin may be at the 0.5 mg/L from which it binds iron: the filter’s claim is not sure.",
        "A finer tannin test, or the laboratory.",
    ),
    "iron.tannin": (
        "Tannin binds iron and defeats it.",
        "A tannin bed ahead of it: move the stage and write why. Colour and iron by laboratory.",
    ),
    "neutraliser.range": ("pH {have} is outside what this media corrects ({need}).", "{remedy}"),
    "neutraliser.iron": (
        "Iron {have} coats the bed: this one wants at most {need}.",
        "Iron and sediment ahead of it, or a backwashing bed.",
    ),
    "neutraliser.ph_meter": ("pH by drops is too coarse to size this.", "pH by meter on site."),
    "neutraliser.hardness": (
        "Adds hardness: {have}.",
        "The softener behind it is sized on the raised hardness.",
    ),
    "neutraliser.sodium": (
        "Soda ash adds about {have} mg/L sodium, and no hardness.",
        "A diet low in sodium asks its physician; a membrane at the drinking tap takes it out.",
    ),
    "neutraliser.overshoot": (
        "With magnesia the pH may pass 9 after standing.",
        "Less magnesia; check after a holiday.",
    ),
    "neutraliser.corrosion": (
        "pH and hardness change: lead and copper want a re-test.",
        "First-draw sample after some weeks.",
    ),
    "tannin.exchange": (
        (
            "Trades sulfate, nitrate and alkalinity for chloride; pH and alkalinity fall early in"
            " the cycle."
        ),
        "Say so; re-test chloride.",
    ),
    "tannin.nitrate": (
        "Nitrate is above half its limit: an exhausted bed can release it above the raw level.",
        "A specialist decides.",
    ),
    "tannin.nitrate_maybe": (
        (
            "Nitrate may be above half its limit: the test leaves it open, and an exhausted bed can"
            " release it."
        ),
        "A finer nitrate test by a certified laboratory, or a specialist.",
    ),
    "tannin.needs_tests": ("Not tested: {what}.", "Laboratory: {what}."),
    "tannin.mixed": (
        (
            "One bed for tannin and hardness: its media lasts shorter, and neither part is at its"
            " best."
        ),
        "Two units are the other way; the lifetime cost shows both.",
    ),
    "uv.flow": (
        "At {uvt} % transmittance it treats {have} gpm; the design flow is {need} gpm.",
        "The next size up, or a fixed flow limiter.",
    ),
    "uv.limited": (
        "The flow limiter holds the house to {have} gpm; {peak} gpm are asked for at peak.",
        "Say so before it is sold, or choose the next size up.",
    ),
    "uv.uvt_low": (
        "Transmittance {have} % is below its table ({need} %): its dose is not reached.",
        "Clear the water first, then measure again.",
    ),
    "uv.uvt_unknown": (
        "The water has colour and its transmittance is not measured.",
        "Laboratory: UV transmittance, drawn where the lamp will be.",
    ),
    "uv.after_unmeasured": (
        "A stage ahead changes the water, but only the raw transmittance is known: that counts.",
        "Measure it again behind the stage.",
    ),
    "uv.class": (
        "This water is known or likely to be unsafe: an unmonitored or class B unit will not do.",
        "Class A, with sensor and alarm or shut-off.",
    ),
    "uv.prefilter": ("Wants a 5 µm filter ahead.", "Add one."),
    "uv.lamp_space": (
        "The lamp needs {need} in free above to be drawn; {have} in are there.",
        "A chamber that lies flat.",
    ),
    "uv.first_use": (
        "Before first use the whole plumbing is disinfected.",
        "See the steps; bleach cautions apply.",
    ),
    "membrane.feed": (
        "The feed’s bacteria are {have}: a membrane is no disinfection.",
        "Disinfection ahead of it.",
    ),
    "membrane.never": (
        "No net pressure is left: it would make nothing.",
        "A booster pump, or warmer and thinner water.",
    ),
    "membrane.drains": (
        (
            "No net pressure is left: its tank never fills, so its drain never closes: {have} gal a"
            " day for nothing."
        ),
        "Do not fit it here. A booster pump, or warmer and thinner water.",
    ),
    "membrane.yield": (
        "Makes {have} gal a day; the household drinks {need} gal.",
        "The next size up, or a booster pump.",
    ),
    "membrane.copper": (
        "Its water has a low pH: no copper line behind it.",
        "A plastic line to the tap.",
    ),
    "membrane.no_shutoff": ("No shut-off: its drain runs all day.", "One with a shut-off valve."),
    "membrane.arsenic": (
        "Arsenic claims hold for As(V); the species is not known.",
        "Laboratory: arsenic species.",
    ),
    "membrane.concentrate": (
        "Ratio 0: nothing to the drain, so it works as a cartridge.",
        "Watch its life.",
    ),
    "distiller.energy": (
        "Below 2.7 kWh a gallon cannot be: boiling alone takes that.",
        "Ask for the measured figure.",
    ),
    "distiller.volatiles": (
        "Volatiles may come over: it wants carbon behind it.",
        "Add a post-carbon.",
    ),
    "cartridge.ph": (
        "pH {have} is outside its window ({need}): its claim does not hold here.",
        "Correct the pH, or another way.",
    ),
    "cartridge.no_window": ("No pH window is stated: that counts as no claim.", "Ask the maker."),
    "cartridge.fluoride": (
        "Fluoride on alumina stops above pH 7.5.",
        "A certified membrane at the tap.",
    ),
    "cartridge.days": (
        "At this home’s use it lasts {have} days.",
        "Look at what that costs in a year.",
    ),
    "specialist": (
        "Needs a laboratory result and a licensed specialist.",
        "Name the specialist; the laboratory first.",
    ),
    "evidence.health": (
        "No certified or measured evidence for {what}: not established.",
        "Ask for the certificate for this contaminant.",
    ),
    "line.two_of_a_kind": ("Two stages of one kind: {what}.", "Keep one."),
    "line.moved": ("{what} stands out of order: {why}.", "The checks stay on."),
}


_TEXTS = {id: f"{sentence} {remedy}".strip() for id, (sentence, remedy) in CHECKS.items()}


def told(id: str, status: Status, test: str = "", **parts: object) -> Check:
    """A check from the table with its blanks filled in."""
    text = _TEXTS[id]
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
    """The same of a stream; quantities that can judge by themselves (the search's) are asked for
    the verdict alone, never for the value.
    """
    judge: Callable[[Need], Verdict] | None = getattr(stream.quantities, "judge", None)
    return verdict_on(need, stream.get(need.analyte)) if judge is None else judge(need)


def _muted(need: Need, stream: Stream, kind: str) -> Check:
    """A need judged without a sentence."""
    verdict, id = judged(need, stream), f"{kind}.{need.analyte}"
    if verdict is Verdict.UNKNOWN:
        return Check(id=id, status="unknown", sentence="")
    status: Status = (
        "met"
        if verdict is Verdict.MET
        else need.severity
        if verdict is Verdict.NOT_MET
        else "stop"
        if need.strict
        else "warn"
    )
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

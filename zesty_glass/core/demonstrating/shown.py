"""What each demonstration of a visit shows, worked out with its ranges."""

from __future__ import annotations

from collections.abc import Iterator

from .. import words
from ..testing.instruments import Flag
from ..testing.pairs import factor_of
from ..testing.removal import Removal, removal, removal_sentence
from ..testing.value import Value
from ..testing.water import Sample
from ..treating.stream import Stream
from .around import Around
from .breathing import breath
from .demonstrations import (
    BreathTest,
    ChlorineTest,
    ColourColumn,
    Demonstration,
    Distilling,
    Kettle,
    Lather,
    SideBySide,
    Tasting,
    Through,
)
from .distilling import Balance, balance
from .kettle import scale_year
from .shown_records import (
    Bar,
    Bars,
    BeforeAfter,
    DistillingShown,
    KettleShown,
    Shown,
    TastingShown,
    ThroughShown,
)
from .soap import lather
from .tasting import agreement, how_little, refusals, words_of


def _gone(what: str) -> Shown:
    return Shown(id="", sentences=(), refused=f"{what} is not in this visit any more.")


def _expected(stream: Stream, analyte: str) -> Value | None:
    q = stream.get(analyte)
    return (
        None
        if q is None
        else Value(analyte=analyte, unit="", range=q.range, below=q.below, words=q.words)
    )


def _pair(name: str, before: Value | None, after: Value | None) -> tuple[str, Removal | None]:
    if before is None or after is None:
        return "tested in one only", None
    r = removal(before, after)
    return removal_sentence(r), r


#: a filter that was just changed gives off dust and salts: what it does shows when it was flushed
NOT_FLUSHED = "its filter is not flushed yet: not compared"
NO_FORMULA = "No formula joins hardness and dissolved solids: each is measured by itself."


def _hardness(v: Value | None) -> str:
    return "" if v is None or v.range is None else words.value("hardness", v.range, v.below)


def _bar(name: str, tds: Value | None, hard: Value | None, beside: str, sample: str) -> Bar:
    """A bar; without a ``sample`` it is a predicted water."""
    unknown = "not tested" if sample else "not known"
    return Bar(
        sample=sample,
        name=name,
        range=None if tds is None else tds.range,
        shown=unknown if tds is None else words.value("tds", tds.range, tds.below),
        span=words.span("tds", None if tds is None else tds.range),
        predicted=not sample,
        beside=beside,
        hardness=_hardness(hard),
    )


def _beside(first: Sample, other: Sample, at: Around) -> str:
    """What the dissolved solids of one glass against the first one shows."""
    v = at.value(other.id, "tds")
    if first.id == other.id:
        return ""
    if v is not None and other.unflushed:
        return NOT_FLUSHED
    if v is not None and factor_of(other) != factor_of(first):
        return "another meter factor: not compared"
    return _pair("tds", at.value(first.id, "tds"), v)[0]


def side_by_side(d: SideBySide, at: Around) -> Shown:
    """TDS of each glass with its range; differences only where the ranges are apart. Hardness
    stands beside it, with the sentence that neither gives the other.
    """
    glasses = [at.samples.get(id) for id in d.samples]
    first = glasses[0]
    bars: list[Bar] = []
    for s in glasses:
        if s is None or first is None:
            return _gone("A glass")
        tds, hard = at.value(s.id, "tds"), at.value(s.id, "hardness")
        bars.append(_bar(s.name, tds, hard, _beside(first, s, at), s.id))
    if d.option is not None:
        line = at.lines.get(d.option)
        if line is None:
            return _gone("The line")
        tds, hard = _expected(line.tap, "tds"), _expected(line.tap, "hardness")
        bars.append(_bar(f"Expected: {line.name}", tds, hard, "", ""))
    tops = [r.seen_top for b in bars if (r := b.range) is not None]
    said = (NO_FORMULA,) if any(b.hardness for b in bars) else ()
    scale = max([*tops, 100.0]) * 1.05
    return Shown(id="", sentences=said, result=Bars(bars=tuple(bars), scale=scale))


def before_after(
    sample: str, after: str | None, option: str | None, at: Around, analytes: tuple[str, ...]
) -> tuple[BeforeAfter | None, str]:
    """Analytes before and after; ``after`` a glass, or the expected water of ``option``."""
    if sample not in at.samples or (after is not None and after not in at.samples):
        return None, "A glass is not in this visit any more."
    line = at.lines.get(option) if option is not None else None
    if option is not None and line is None:
        return None, "The line is not in this visit any more."
    rows, removals = [], {}
    for name in analytes:
        a = at.value(sample, name)
        b = None if after is None else at.value(after, name)
        if after is None and line is not None:
            b = _expected(line.tap, name)
        sentence, r = _pair(name, a, b)
        if a is None and b is None:
            continue
        if after is not None and at.samples[after].unflushed and b is not None:
            sentence, r = NOT_FLUSHED, None
        shown = [
            words.value(name, None if v is None else v.range, None if v is None else v.below)
            for v in (a, b)
        ]
        rows.append((name, shown[0], shown[1], sentence))
        if r is not None:
            removals[name] = r
    return (
        BeforeAfter(
            rows=tuple(rows), removals=removals, predicted=after is None and line is not None
        ),
        "",
    )


def colour(d: ColourColumn, at: Around) -> Shown:
    """Color before and after the column."""
    result, gone = before_after(d.sample, d.after, d.option, at, ("tannin", "iron"))
    if result is None:
        return Shown(id="", sentences=(), refused=gone)
    said = []
    if d.looked_before is not None and d.looked_after is not None:
        said.append(f"Before: {d.looked_before}. After the column: {d.looked_after}.")
        said.append(
            "The resin took color out: tannin."
            if (d.looked_before, d.looked_after)
            in (("coloured", "clear"), ("coloured", "faint"), ("faint", "clear"))
            else "No change to the eye: the color may be rust, or the column is used up."
        )
    flags = (
        ()
        if d.equal_volumes
        else (
            Flag(
                id="colour.volumes",
                sentence="The cups were not equally full: depths cannot be compared.",
            ),
        )
    )
    return Shown(id="", sentences=tuple(said), flags=flags, result=result)


def chlorine(d: ChlorineTest, at: Around) -> Shown:
    """Free and total chlorine before and after carbon, and the smell."""
    result, gone = before_after(
        d.sample, d.after, d.option, at, ("chlorine_free", "chlorine_total")
    )
    if result is None:
        return Shown(id="", sentences=(), refused=gone)
    smell = (
        ()
        if d.smell_before is None or d.smell_after is None
        else (f"Smell before: {d.smell_before}. After: {d.smell_after}.",)
    )
    return Shown(id="", sentences=smell, result=result)


def kettle(d: Kettle, at: Around) -> Shown:
    """Grams of scale a year."""
    water = at.waters.get(d.sample)
    if water is None:
        return _gone("The glass")
    found = scale_year(water, d.litres_day)
    if found is None:
        return Shown(id="", sentences=(), refused="Hardness is not tested in this glass.")
    end = found.grams.seen_top
    said = [
        f"At most {words.number(end, 0)} grams of scale a year from {words.number(d.litres_day, 1)}"
        " L heated a day."
    ]
    if found.from_hardness:
        said.append(
            "Worked out from hardness alone: really at most, for without calcium and alkalinity it"
            " may be much less."
        )
    return Shown(id="", sentences=tuple(said), result=KettleShown(scale=found))


def _went_where(b: Balance) -> Iterator[str]:
    """How much less the distillate holds, as far as this meter can tell, and how far the residue
    was concentrated.
    """
    feed = Value(analyte="tds", unit="mg/L", range=b.feed)
    if b.distillate is not None:
        r = removal(feed, Value(analyte="tds", unit="mg/L", range=b.distillate))
        if r.worst is not None:
            yield (
                f"The distillate holds at least {100 * r.worst:.0f} % less than the feed, as far"
                " as this meter can tell."
            )
        else:
            yield f"Feed and distillate: {removal_sentence(r)}."
    if b.residue is not None and b.feed.best > 0 and b.residue.low > b.feed.top:
        times = words.number(b.residue.best / b.feed.best, 1)
        yield f"The residue is {times} times as concentrated as the feed."


def distilling(d: Distilling, at: Around) -> Shown:
    """The balance in words."""
    b = balance(d, at.waters.get(d.sample))
    said = list(_went_where(b))
    if b.residue_mg_l is not None and b.residue is None:
        said.append(f"The residue should read about {words.number(b.residue_mg_l.best, 0)} mg/L.")
    if b.residue_l is not None:
        said.append(f"For that reading about {words.number(b.residue_l, 2)} L should remain.")
    said += {
        "closes": ["What went in is what came out, within the ranges."],
        "closes with scale": [
            "A little is missing in the residue: no more than the scale that hard water drops when"
            " it boils."
        ],
        "too much": ["More came out than went in: a reading or an amount is wrong."],
        "too little": [
            "Less came out than went in, more than scale explains: a reading or an amount is wrong."
        ],
        "open": [],
    }[b.verdict]
    flags = b.flags
    if b.verdict in ("too much", "too little"):
        flags = (
            *flags,
            Flag(
                id="distilling.balance",
                sentence=(
                    "The balance does not close: read the residue again, cooled to room"
                    " temperature."
                ),
            ),
        )
    return Shown(id="", sentences=tuple(said), flags=flags, result=DistillingShown(balance=b))


def tasting(d: Tasting, at: Around, when: Demonstration) -> Shown:
    """Refusals first; then sums, agreement and what it proves."""
    why: list[str] = []
    for w in d.waters:
        s = at.samples.get(w.sample)
        if s is None:
            return _gone("A glass")
        clean = w.sample in d.sanitised
        means, card = at.meanings.get(w.sample), at.settings.own_water
        why += refusals(s, at.home, means, clean, when.made_at, card)
    if why:
        return Shown(id="", sentences=(), refused=" ".join(why))
    a = agreement(d)
    key = {w.code: at.samples[w.sample].name for w in d.waters} if d.shown_at is not None else {}
    said: list[str] = []
    if a is not None:
        if a.w is not None:
            said.append(f"Agreement W = {a.w:.2f} (0 none, 1 all alike).")
        said.append(how_little(a, len(d.tasters)))
    told = words_of(d) if key else {}
    result = TastingShown(agreement=a, key=key, said=told)
    return Shown(id="", sentences=tuple(said), result=result)


def through(d: Through, at: Around) -> Shown:
    """This water through a line."""
    return (
        _gone("The line")
        if d.option not in at.lines
        else Shown(id="", sentences=(), result=ThroughShown(option=d.option))
    )


def show(demonstration: Demonstration, at: Around) -> Shown:
    """A demonstration worked out."""
    match demonstration.body:
        case SideBySide() as d:
            out = side_by_side(d, at)
        case Lather() as d:
            out = lather(d, at, demonstration.simulated)
        case ColourColumn() as d:
            out = colour(d, at)
        case ChlorineTest() as d:
            out = chlorine(d, at)
        case Kettle() as d:
            out = kettle(d, at)
        case BreathTest() as d:
            out = breath(d, at)
        case Distilling() as d:
            out = distilling(d, at)
        case Tasting() as d:
            out = tasting(d, at, demonstration)
        case Through() as d:
            out = through(d, at)
    return Shown(
        id=demonstration.id,
        sentences=out.sentences,
        flags=out.flags,
        refused=out.refused,
        result=out.result,
    )

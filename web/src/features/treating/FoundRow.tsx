/** One line that the search found: what it answers, what it leaves, and what it costs. */
import type { ReactElement, ReactNode } from "react";

import type { Option, Suggestion } from "../../api/types";
import { midSentence, newId } from "../../app/names";
import { num, sumOver, volume } from "../../app/show";
import { atLeast, Missing } from "../../ui/Missing";
import { StateMark } from "../../ui/marks";
import { keptNames } from "../in-place/kept";
import { useVisitContext } from "../visit/context";
import { say } from "../../app/language";

export type Found = Suggestion["lines"][number];

/** What every row is told. */
export interface Telling {
  years: number;
  /** No more lines fit beside those taken. */
  full: boolean;
  names: (id: string) => string;
  onTake: (o: Option) => void;
}

/** One stage tells by its own name; several by what they are. */
const tellingName = (l: Found): string =>
  (l.names.length === 1 ? l.names[0] : undefined) ?? l.option.name;

function markOf(l: Found): "done" | "part" | "miss" {
  if (l.meets === l.wanted) return "done";
  return Object.values(l.answers ?? {}).some((share) => share > 0) ? "part" : "miss";
}

/** Things found with the place where it is so; without one where it is so at both. */
function atPlaces(list: readonly string[], names: (id: string) => string): string[] {
  const places = new Map<string, string[]>();
  for (const t of list) {
    const [a = "", where = ""] = t.split(":");
    places.set(a, [...(places.get(a) ?? []), where]);
  }
  return [...places].map(
    ([a, where]) => `${midSentence(names(a))}${where.length === 1 ? (where[0] ?? "") : ""}`,
  );
}

/** What it answers of what was looked for, and what not wholly. */
function Answers({ l, names }: { l: Found; names: (id: string) => string }): ReactElement {
  const short = (words: string, list: readonly string[]): ReactNode =>
    list.length > 0 && (
      <span className="text-ink-2">
        ; {words}: {atPlaces(list, names).join(", ")}
      </span>
    );
  return (
    <p className="text-m flex gap-2 items-start mt-1">
      <StateMark kind={markOf(l)} size={17} />
      <span>
        {l.wanted === 0
          ? say("nothing to answer")
          : say("fixes {meets} of {wanted}", { meets: l.meets, wanted: l.wanted })}
        {short(say("not wholly"), l.not_met)}
        {short(say("not known"), l.unknown)}
      </span>
    </p>
  );
}

function ToWatch({ l }: { l: Found }): ReactElement | null {
  const counts = [
    l.watch.length > 0 && say("{length} to watch", { length: l.watch.length }),
    l.open.length > 0 && say("{length} not known", { length: l.open.length }),
  ].filter(Boolean);
  if (counts.length === 0) return null;
  return (
    <details className="text-m">
      <summary className="min-h-11 flex items-center cursor-pointer underline">
        {counts.join(", ")}
      </summary>
      <ul className="list-disc pl-6">
        {[...l.watch, ...l.open].map((t) => (
          <li key={t}>{t}</li>
        ))}
      </ul>
    </details>
  );
}

/** What is said of a line once, not of its other sizes and makers. */
function Said({ l, names }: { l: Found; names: (id: string) => string }): ReactElement {
  const { view } = useVisitContext();
  return (
    <>
      {l.option.keeps.length > 0 && l.option.stages.length > 0 && (
        <p className="text-m">{say("Keeps {option}.", { option: keptNames(l.option, view) })}</p>
      )}
      {l.names.length > 0 && <p className="text-m text-ink-2">{l.names.join(", then ")}</p>}
      <Answers l={l} names={names} />
      {l.leaves.length > 0 && (
        <p className="text-m font-semibold">
          {say("Does not answer {x}", { x: l.leaves.map((a) => midSentence(names(a))).join(", ") })}
        </p>
      )}
      {l.ahead !== "" && <p className="text-m">{l.ahead}</p>}
      <ToWatch l={l} />
    </>
  );
}

function Figure({
  wide,
  shown,
  words,
  more,
}: {
  wide: string;
  shown: ReactNode;
  words: string;
  more?: ReactNode;
}): ReactElement {
  return (
    <span className={wide}>
      {shown}
      <span className="text-s text-ink-2 block">{words}</span>
      {more}
    </span>
  );
}

function Figures({
  l,
  small,
  telling,
}: {
  l: Found;
  small: boolean;
  telling: Telling;
}): ReactElement {
  const { view, units } = useVisitContext();
  const sum = sumOver(l.cost, view.visit.settings.currency, telling.years);
  const cost = atLeast(sum, l.missing);
  const drain = l.waste_gal_year > 0 ? volume(l.waste_gal_year, units) : "nothing";
  const takes = l.option.stages.length > 0 || l.option.keeps.length > 0;
  return (
    <div className="flex gap-5 items-center text-right max-[899px]:flex-wrap">
      <Figure
        wide=""
        shown={<b className={`num block ${small ? "text-[18px]" : "text-[22px]"}`}>{cost}</b>}
        words={say("over {years} years", { years: telling.years })}
        more={
          <>
            {l.price > 0 && (
              <span className="num text-s block">
                {say("{price} today", {
                  price: sumOver(l.price, view.visit.settings.currency, 1),
                })}
              </span>
            )}
            <Missing what={l.missing} />
          </>
        }
      />
      <Figure
        wide="w-[104px]"
        shown={<b className="block">{drain}</b>}
        words={say("wastewater a year")}
      />
      <Figure
        wide="w-[92px]"
        shown={
          <b className="block">{say("{own_minutes} min", { own_minutes: num(l.own_minutes) })}</b>
        }
        words={say("of your time a year")}
      />
      <span className="w-[104px]">
        {takes && (
          <button
            className="key"
            disabled={telling.full}
            onClick={() => telling.onTake({ ...l.option, id: newId(), name: tellingName(l) })}
          >
            {say("Take it")}
          </button>
        )}
      </span>
    </div>
  );
}

export function FoundRow({
  l,
  telling,
  small = false,
}: {
  l: Found;
  telling: Telling;
  small?: boolean;
}): ReactElement {
  return (
    <div
      className={
        "grid grid-cols-[minmax(0,1fr)_auto] max-[899px]:grid-cols-1 gap-x-5 items-center " +
        (small ? "py-1 pl-6" : "")
      }
    >
      <div className="min-w-0">
        {!small && <b className="font-d text-l">{l.option.name}</b>}
        {!small && l.tap_only && (
          <span className="text-s border border-ink px-2 ml-2">{say("drinking tap only")}</span>
        )}
        {l.badges.length > 0 && (
          <span className="flex flex-wrap gap-x-2 gap-y-1 my-1">
            {l.badges.map((t) => (
              <span key={t} className="text-s bg-yuzu-pale px-2 font-semibold">
                {t}
              </span>
            ))}
          </span>
        )}
        {small ? (
          l.names.length > 0 && <p className="text-m text-ink-2">{l.names.join(", then ")}</p>
        ) : (
          <Said l={l} names={telling.names} />
        )}
      </div>
      <Figures l={l} small={small} telling={telling} />
    </div>
  );
}

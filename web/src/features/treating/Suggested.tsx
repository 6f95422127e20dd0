/** The answer of the search: what comes first, the lines best first, and what was left out. */
import { useState, type ReactElement } from "react";

import type { Suggestion } from "../../api/types";
import { midSentence } from "../../app/names";
import { num } from "../../app/show";
import { Emergency } from "../../ui/Emergency";
import { StateMark } from "../../ui/marks";
import { JudgedCard } from "../in-place/JudgedCard";
import { useVisitContext } from "../visit/context";
import { FoundRow, type Found, type Telling } from "./FoundRow";
import { say } from "../../app/language";

/** A large count in words: 12,226,558,080,000 is "12 trillion". */
function many(n: number): string {
  for (const [size, name] of [
    [1e18, "quintillion"],
    [1e15, "quadrillion"],
    [1e12, "trillion"],
    [1e9, "billion"],
    [1e6, "million"],
  ] as const)
    if (n >= size) return `${num(n / size, n / size < 10 ? 1 : 0)} ${name}`;
  return num(n);
}

/** What was left out for the same reason, together; the reason that left out most first. */
function byReason(left: Suggestion["left_out"]): [reason: string, items: Suggestion["left_out"]][] {
  const by = new Map<string, Suggestion["left_out"]>();
  for (const x of left) by.set(x.sentence, [...(by.get(x.sentence) ?? []), x]);
  return [...by].sort((a, b) => b[1].length - a[1].length);
}

function LeftOut({ s }: { s: Suggestion }): ReactElement {
  const told = s.left_out.filter((x) => x.rule !== "not needed");
  const idle = s.left_out.length - told.length;
  return (
    <details className="mt-4">
      <summary className="min-h-11 flex items-center font-semibold cursor-pointer">
        {say("What was left out, and the rule that did it ({length})", {
          length: s.left_out.length,
        })}
      </summary>
      <ul className="text-m mt-2">
        {byReason(told).map(([reason, items]) => (
          <li key={reason} className="flex gap-3 border-b border-rule py-2">
            <StateMark
              kind={items[0]?.rule === "beaten" ? "say" : "no"}
              size={16}
              label={items[0]?.rule ?? ""}
            />
            <span>
              <b>{reason}</b> ({items.length}) <br />
              {items.map((x) => x.name).join("; ")}
            </span>
          </li>
        ))}
      </ul>
      {idle > 0 && (
        <p className="text-m text-ink-2 mt-2">
          {say("{idle} more {x} nothing that was found.", {
            idle,
            x: idle === 1 ? "item changes" : "items change",
          })}
        </p>
      )}
    </details>
  );
}

/** Lines of the same technologies stand together, the best of them first. */
function groups(lines: Found[]): Found[][] {
  const by = new Map<string, Found[]>();
  for (const l of lines) by.set(l.option.name, [...(by.get(l.option.name) ?? []), l]);
  return [...by.values()];
}

/** What was looked for, and among how many combinations. */
function LookedFor({ s, names }: { s: Suggestion; names: Telling["names"] }): ReactElement {
  const wanted = s.wanted.map(
    (a) => midSentence(names(a)) + (s.wished.includes(a) ? say(" (their wish)") : ""),
  );
  return (
    <p className="text-b text-ink-2 mb-2">
      {say("What needs treating: {x}. Of {combinations} combinations these are worth a look.", {
        x: wanted.join(", ") || "nothing, for nothing was found that asks for it",
        combinations: many(s.combinations),
      })}
    </p>
  );
}

/** What has to be known before a line is chosen. */
function Notes({ s }: { s: Suggestion }): ReactElement {
  return (
    <>
      {s.tonight.length > 0 && (
        <section
          aria-label={say("Until the laboratory and the authority have answered")}
          className="border-[2.5px] border-zest bg-slip p-4 mb-3"
        >
          <Emergency said={s.tonight} />
          <ul className="list-disc pl-6 text-m">
            {s.tonight.slice(1).map((t) => (
              <li key={t}>{t}</li>
            ))}
          </ul>
        </section>
      )}
      {s.unanswered !== "" && (
        <p role="note" className="border-[2.5px] border-zest bg-slip p-4 mb-3 font-semibold">
          {s.unanswered}
        </p>
      )}
      {s.still_to_test !== "" && (
        <p role="note" className="bg-yuzu-pale px-4 py-2 mb-3 font-semibold">
          {s.still_to_test}
        </p>
      )}
      {s.finer.length > 0 && (
        <ul className="mb-3 text-m" aria-label={say("To be measured finer")}>
          {s.finer.map((t) => (
            <li key={t} className="flex gap-2 items-start py-1">
              <StateMark kind="unk" size={17} />
              {t}
            </li>
          ))}
        </ul>
      )}
    </>
  );
}

/** What stands there already, and what costs nothing or little: before anything is sold. */
function BeforeBuying({ s }: { s: Suggestion }): ReactElement {
  const { currency } = useVisitContext().view.visit.settings;
  const elsewhere = (t: string): boolean =>
    s.tonight.includes(t) || s.in_place.some((j) => t.startsWith(`${j.name}: `));
  const first = s.first.filter((t) => !elsewhere(t));
  return (
    <>
      {s.in_place.length > 0 && (
        <section aria-label={say("What stands there already")} className="mb-3">
          <h3 className="font-d text-l">{say("What stands there already")}</h3>
          <ul>
            {s.in_place.map((j) => (
              <JudgedCard key={j.id} j={j} currency={currency} />
            ))}
          </ul>
        </section>
      )}
      {first.length > 0 && (
        <section className="border-[1.5px] border-ink bg-slip px-4 py-3 mb-3">
          <h3 className="font-d text-l">{say("First steps: they cost little or nothing")}</h3>
          <ul className="text-m list-disc pl-6">
            {first.map((t) => (
              <li key={t}>{t}</li>
            ))}
          </ul>
        </section>
      )}
      {s.nothing_needed && (
        <p className="bg-yuzu text-on-yuzu font-d font-semibold text-[20px] px-4 py-2 mb-3">
          {say("Nothing is needed. The systems below are for a preference, not for a need.")}
        </p>
      )}
    </>
  );
}

const HOLDS = new Map<boolean | null, [words: string, mark: "done" | "miss" | "unk"]>([
  [true, ["holds here", "done"]],
  [false, ["not here", "miss"]],
  [null, ["not known here", "unk"]],
]);

/** Where the trade is of two minds: both ways, and which of them holds in this home. */
function Schools({ s }: { s: Suggestion }): ReactElement | null {
  if (s.schools.length === 0) return null;
  return (
    <details className="mt-4">
      <summary className="min-h-11 flex items-center font-semibold cursor-pointer">
        {say("Where the trade is of two minds ({length})", { length: s.schools.length })}
      </summary>
      {s.schools.map((school) => (
        <section key={school.id} className="border-b border-rule py-2 text-m">
          <h3 className="font-semibold">{school.question}</h3>
          <ul>
            {school.ways.map((w) => {
              const [words, mark] = HOLDS.get(w.holds ?? null) ?? ["", "unk"];
              return (
                <li key={w.name} className="flex gap-2 items-start py-1">
                  <StateMark kind={mark} size={17} label={words} />
                  <span>
                    <b>{w.name}</b> {w.where} ({words}): {w.why}.
                  </span>
                </li>
              );
            })}
          </ul>
          <p className="text-s text-ink-2">
            {school.source}, {school.year}
          </p>
        </section>
      ))}
    </details>
  );
}

/** Other sizes and makers of the same idea, at one touch. */
function Others({ rest, telling }: { rest: Found[]; telling: Telling }): ReactElement | null {
  const [open, setOpen] = useState(false);
  if (rest.length === 0) return null;
  const praised = rest.flatMap((l) => l.badges);
  const choices = say("{length} other {x}", {
    length: rest.length,
    x: rest.length === 1 ? "choice" : "choices",
  });
  return (
    <>
      <button
        className="key bare"
        style={{ minHeight: 44 }}
        aria-expanded={open}
        onClick={() => setOpen(!open)}
      >
        {open ? say("Close") : say("{choices} of sizes and makers", { choices })}
      </button>
      {praised.length > 0 && !open && (
        <span className="text-s text-ink-2">
          {say("among them: {x}", { x: praised.map(midSentence).join(", ") })}
        </span>
      )}
      {open && rest.map((l) => <FoundRow key={l.option.id} small l={l} telling={telling} />)}
    </>
  );
}

/** What the goals of the household do to the order, and what each costs. */
function GoalsSaid({ s }: { s: Suggestion }): ReactElement | null {
  if (s.goals.length === 0) return null;
  return (
    <ul className="text-m list-disc pl-6 mb-3" aria-label={say("What each goal costs")}>
      {s.goals.map((t) => (
        <li key={t}>{t}</li>
      ))}
    </ul>
  );
}

/** What would put another system first: a test not made, or a change of the place. */
function Turning({ s }: { s: Suggestion }): ReactElement | null {
  if (s.turning.length === 0) return null;
  return (
    <section className="border-l-[5px] border-yuzu pl-4 py-1 mb-3">
      <h3 className="font-d text-l">{say("What could put another system first")}</h3>
      <ul className="text-m">
        {s.turning.map((t) => (
          <li key={t.id} className="py-1">
            {t.sentence}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Each idea once, the best first; those that leave something stand under their own heading. */
function Ideas({ found, telling }: { found: Found[][]; telling: Telling }): ReactElement {
  const leaves = (group: Found[] | undefined): boolean => (group?.[0]?.leaves.length ?? 0) > 0;
  return (
    <ol>
      {found.map(([first, ...rest], n) => {
        if (!first) return null;
        const turn = n > 0 && leaves(found[n]) && !leaves(found[n - 1]);
        return (
          <li key={first.option.id} className="border-b border-rule py-3">
            {turn && (
              <h3 className="font-d text-l mb-2">{say("These leave something unanswered")}</h3>
            )}
            <FoundRow l={first} telling={telling} />
            <Others rest={rest} telling={telling} />
          </li>
        );
      })}
    </ol>
  );
}

const AT_FIRST = 5;

export function Suggested({
  s,
  ...told
}: { s: Suggestion } & Pick<Telling, "onTake" | "full" | "names">): ReactElement {
  const [most, setMost] = useState(AT_FIRST);
  const found = groups(s.lines);
  const telling: Telling = { ...told, years: s.years };
  return (
    <>
      <LookedFor s={s} names={told.names} />
      <Notes s={s} />
      <BeforeBuying s={s} />
      <GoalsSaid s={s} />
      <Turning s={s} />
      <Ideas found={found.slice(0, most)} telling={telling} />
      {found.length > most && (
        <button className="key bare mt-2" onClick={() => setMost(most + 20)}>
          {say("Show more, {x} left", { x: found.length - most })}
        </button>
      )}
      <Schools s={s} />
      <LeftOut s={s} />
      <details className="mt-4">
        <summary className="min-h-11 flex items-center font-semibold cursor-pointer">
          {say("How this was found")}
        </summary>
        <p className="text-m text-ink-2">
          {say(
            "{walked} combinations were walked to their end; {length} systems are kept, those " +
              "that no other beats. {why} A system counts as good as another in a thing found " +
              "only when its best value and its worst end both are. Costs leave bottled water " +
              "and soap out.",
            { walked: num(s.walked), length: s.lines.length, why: s.why },
          )}
        </p>
      </details>
    </>
  );
}

/** Lines that the tool proposes of its own: how far the search is, its answer best first, and what was left out and why. */
import { Dialog } from "radix-ui";
import { X } from "lucide-react";
import { useEffect, useState, type ReactElement } from "react";

import type { Option, Suggestion } from "../../api/types";
import { midSentence, newId } from "../../app/names";
import { num, sumOver, volume } from "../../app/show";
import { Wheel } from "../../glass/Slice";
import { StateMark } from "../../ui/marks";
import { JudgedCard } from "../in-place/JudgedCard";
import { keptNames } from "../in-place/kept";
import { useVisitContext } from "../visit/context";

interface Going {
  what: string;
  done: number;
  of: number;
}

function useSearchStream(
  id: string,
  open: boolean,
): { going: Going | null; answer: Suggestion | null; failed: string } {
  const [going, setGoing] = useState<Going | null>(null);
  const [answer, setAnswer] = useState<Suggestion | null>(null);
  const [failed, setFailed] = useState("");
  useEffect(() => {
    if (!open) return;
    const source = new EventSource(`/api/visits/${id}/suggest/stream`);
    source.addEventListener("progress", (e) =>
      setGoing(JSON.parse((e as MessageEvent<string>).data) as Going),
    );
    source.addEventListener("answer", (e) => {
      setAnswer(JSON.parse((e as MessageEvent<string>).data) as Suggestion);
      source.close();
    });
    source.addEventListener("failed", (e) => {
      const f = JSON.parse((e as MessageEvent<string>).data) as { title: string; remedy: string };
      setFailed(`${f.title} ${f.remedy}`);
      source.close();
    });
    source.onerror = () => {
      source.close();
      setFailed((was) => was || "The server does not answer. Close this and try again.");
    };
    return () => source.close();
  }, [id, open]);
  return { going, answer, failed };
}

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

function LeftOut({ s }: { s: Suggestion }): ReactElement {
  const told = s.left_out.filter((x) => x.rule !== "not needed");
  const idle = s.left_out.length - told.length;
  return (
    <details className="mt-4">
      <summary className="min-h-11 flex items-center font-semibold cursor-pointer">
        What was left out, and the rule that did it ({s.left_out.length})
      </summary>
      <ul className="text-m mt-2">
        {told.map((x) => (
          <li key={x.code} className="flex gap-3 border-b border-rule py-2">
            <StateMark kind={x.rule === "beaten" ? "say" : "no"} size={16} label={x.rule} />
            <span>
              <b>{x.name}</b>: {x.sentence}
            </span>
          </li>
        ))}
      </ul>
      {idle > 0 && (
        <p className="text-m text-ink-2 mt-2">
          {idle} more {idle === 1 ? "item changes" : "items change"} nothing that was found.
        </p>
      )}
    </details>
  );
}

type Found = Suggestion["lines"][number];

/** Whether a line goes any part of the way in anything that was found. */
function answersSome(l: Found): boolean {
  return Object.values(l.answers ?? {}).some((share) => share > 0);
}

/** Lines of the same technologies stand together, the best of them first. */
function groups(lines: Found[]): Found[][] {
  const by = new Map<string, Found[]>();
  for (const l of lines) by.set(l.option.name, [...(by.get(l.option.name) ?? []), l]);
  return [...by.values()];
}

/** What a line is the best at, among those that answer as much as any. */
function praises(lines: Found[]): Map<string, string[]> {
  const top = Math.max(...lines.map((l) => l.meets));
  const best = lines.filter((l) => l.meets === top && l.option.stages.length > 0);
  const out = new Map<string, string[]>();
  const say = (words: string, of: (l: Found) => number): void => {
    const first = [...best].sort((a, b) => of(a) - of(b) || a.cost - b.cost)[0];
    if (first) out.set(first.option.id, [...(out.get(first.option.id) ?? []), words]);
  };
  say("costs least", (l) => l.cost);
  say("drains least", (l) => l.waste_gal_year);
  say("asks least work", (l) => l.own_minutes);
  return out;
}

function FoundRow({
  l,
  years,
  praise,
  onTake,
  full,
  names,
  small = false,
}: {
  l: Found;
  years: number;
  praise: string[];
  onTake: (o: Option) => void;
  full: boolean;
  names: (id: string) => string;
  small?: boolean;
}): ReactElement {
  const { view, units } = useVisitContext();
  const currency = view.visit.settings.currency;
  const place = (t: string): string => {
    const [a = "", w = ""] = t.split(":");
    return `${midSentence(names(a))}${w}`;
  };
  return (
    <div
      className={`grid grid-cols-[minmax(0,1fr)_auto] gap-x-5 items-center ${small ? "py-1 pl-6" : ""}`}
    >
      <div className="min-w-0">
        {!small && <b className="font-d text-l">{l.option.name}</b>}
        {!small && l.tap_only && (
          <span className="text-s border border-ink px-2 ml-2">drinking tap only</span>
        )}
        {praise.map((t) => (
          <span key={t} className="text-s bg-yuzu-pale px-2 ml-2 font-semibold">
            {t}
          </span>
        ))}
        {!small && l.option.keeps.length > 0 && l.option.stages.length > 0 && (
          <p className="text-m">Keeps {keptNames(l.option, view)}.</p>
        )}
        {l.names.length > 0 && <p className="text-m text-ink-2">{l.names.join(", then ")}</p>}
        {!small && (
          <p className="text-m flex gap-2 items-start mt-1">
            <StateMark
              kind={l.meets === l.wanted ? "done" : answersSome(l) ? "part" : "miss"}
              size={17}
            />
            <span>
              {l.wanted === 0 ? "nothing to answer" : `answers ${l.meets} of ${l.wanted}`}
              {l.not_met.length > 0 && (
                <span className="text-ink-2">; not wholly: {l.not_met.map(place).join(", ")}</span>
              )}
              {l.unknown.length > 0 && (
                <span className="text-ink-2">; not known: {l.unknown.map(place).join(", ")}</span>
              )}
            </span>
          </p>
        )}
        {!small && l.leaves.length > 0 && (
          <p className="text-m font-semibold">
            Does not answer {l.leaves.map((a) => midSentence(names(a))).join(", ")}
          </p>
        )}
        {!small && l.ahead !== "" && <p className="text-m">{l.ahead}</p>}
        {!small && l.watch.length + l.open.length > 0 && (
          <details className="text-m">
            <summary className="min-h-11 flex items-center cursor-pointer underline">
              {l.watch.length > 0 && `${l.watch.length} to watch`}
              {l.watch.length > 0 && l.open.length > 0 && ", "}
              {l.open.length > 0 && `${l.open.length} not known`}
            </summary>
            <ul className="list-disc pl-6">
              {[...l.watch, ...l.open].map((t) => (
                <li key={t}>{t}</li>
              ))}
            </ul>
          </details>
        )}
      </div>
      <div className="flex gap-5 items-center text-right">
        <span>
          <b className={`num block ${small ? "text-[18px]" : "text-[22px]"}`}>
            {sumOver(l.cost, currency, years)}
          </b>
          <span className="text-s text-ink-2 block">over {years} years</span>
        </span>
        <span className="w-[104px]">
          <b className="block">
            {l.waste_gal_year > 0 ? volume(l.waste_gal_year, units) : "nothing"}
          </b>
          <span className="text-s text-ink-2 block">to drain a year</span>
        </span>
        <span className="w-[92px]">
          <b className="block">{num(l.own_minutes)} min</b>
          <span className="text-s text-ink-2 block">work a year</span>
        </span>
        <span className="w-[104px]">
          {(l.option.stages.length > 0 || l.option.keeps.length > 0) && (
            <button
              className="key"
              disabled={full}
              onClick={() => onTake({ ...l.option, id: newId() })}
            >
              Take it
            </button>
          )}
        </span>
      </div>
    </div>
  );
}

function Body({
  s,
  onTake,
  full,
  names,
}: {
  s: Suggestion;
  onTake: (o: Option) => void;
  full: boolean;
  names: (id: string) => string;
}): ReactElement {
  const [most, setMost] = useState(5);
  const { view } = useVisitContext();
  const currency = view.visit.settings.currency;
  const [open, setOpen] = useState("");
  const found = groups(s.lines);
  const first = s.first.filter((t) => !s.in_place.some((j) => t.startsWith(`${j.name}: `)));
  const praise = praises(s.lines);
  return (
    <>
      <p className="text-b text-ink-2 mb-2">
        Looked for:{" "}
        {s.wanted.length
          ? s.wanted
              .map((a) => midSentence(names(a)) + (s.wished.includes(a) ? " (their wish)" : ""))
              .join(", ")
          : "nothing, for nothing was found that asks for it"}
        . Of {many(s.combinations)} combinations these are worth a look.
      </p>
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
        <ul className="mb-3 text-m" aria-label="To be measured finer">
          {s.finer.map((t) => (
            <li key={t} className="flex gap-2 items-start py-1">
              <StateMark kind="unk" size={17} />
              {t} Nothing is proposed for it.
            </li>
          ))}
        </ul>
      )}
      {s.in_place.length > 0 && (
        <section aria-label="What stands there already" className="mb-3">
          <h3 className="font-d text-l">What stands there already</h3>
          <ul>
            {s.in_place.map((j) => (
              <JudgedCard key={j.id} j={j} currency={currency} />
            ))}
          </ul>
        </section>
      )}
      {first.length > 0 && (
        <section className="border-[1.5px] border-ink bg-slip px-4 py-3 mb-3">
          <h3 className="font-d text-l">First, what costs nothing or little</h3>
          <ul className="text-m list-disc pl-6">
            {first.map((t) => (
              <li key={t}>{t}</li>
            ))}
          </ul>
        </section>
      )}
      {s.nothing_needed && (
        <p className="bg-yuzu text-on-yuzu font-d font-semibold text-[20px] px-4 py-2 mb-3">
          Nothing needed. The lines below are for a wish, not for a need.
        </p>
      )}
      <ol>
        {found.slice(0, most).map(
          ([first, ...rest], n) =>
            first && (
              <li key={first.option.id} className="border-b border-rule py-3">
                {first.leaves.length > 0 && !(found[n - 1]?.[0]?.leaves.length ?? 0) && n > 0 && (
                  <h3 className="font-d text-l mb-2">These leave something unanswered</h3>
                )}
                <FoundRow
                  l={first}
                  years={s.years}
                  praise={praise.get(first.option.id) ?? []}
                  onTake={onTake}
                  full={full}
                  names={names}
                />
                {rest.length > 0 && (
                  <button
                    className="key bare"
                    style={{ minHeight: 44 }}
                    aria-expanded={open === first.option.id}
                    onClick={() => setOpen(open === first.option.id ? "" : first.option.id)}
                  >
                    {open === first.option.id
                      ? "Close"
                      : `${rest.length} other ${rest.length === 1 ? "choice" : "choices"} of sizes and makers`}
                    {rest.some((l) => praise.has(l.option.id)) && open !== first.option.id && (
                      <span className="text-s bg-yuzu-pale px-2 font-semibold">
                        {rest.flatMap((l) => praise.get(l.option.id) ?? []).join(", ")}
                      </span>
                    )}
                  </button>
                )}
                {open === first.option.id &&
                  rest.map((l) => (
                    <FoundRow
                      key={l.option.id}
                      small
                      l={l}
                      years={s.years}
                      praise={praise.get(l.option.id) ?? []}
                      onTake={onTake}
                      full={full}
                      names={names}
                    />
                  ))}
              </li>
            ),
        )}
      </ol>
      {found.length > most && (
        <button className="key bare mt-2" onClick={() => setMost(most + 20)}>
          Show more, {found.length - most} left
        </button>
      )}
      <LeftOut s={s} />
      <p className="text-s text-ink-2 mt-4">
        {num(s.walked)} combinations were walked to their end; {s.lines.length} lines are kept,
        those that no other beats. {s.why} A line counts as good as another in a thing found only
        when its best value and its worst end both are. Costs leave bottled water and soap out.
      </p>
    </>
  );
}

export function Suggest({
  onClose,
  onTake,
  full,
  names,
}: {
  onClose: () => void;
  onTake: (o: Option) => void;
  full: boolean;
  names: (id: string) => string;
}): ReactElement {
  const { id } = useVisitContext();
  const { going, answer, failed } = useSearchStream(id, true);
  return (
    <Dialog.Root
      open
      onOpenChange={(o) => {
        if (!o) onClose();
      }}
    >
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 bg-ink/30 z-40" />
        <Dialog.Content
          className="fixed z-50 inset-4 wide:inset-x-16 flex flex-col bg-paper border-[1.5px] border-ink p-6"
          aria-describedby={undefined}
        >
          <div className="flex justify-between items-center mb-1">
            <Dialog.Title asChild>
              <h2>What the catalogue can do for this water</h2>
            </Dialog.Title>
            <Dialog.Close aria-label="Close" className="grid place-items-center w-11 h-11">
              <X size={22} />
            </Dialog.Close>
          </div>
          <div
            className="scroll flex-1 min-h-0 pr-2"
            tabIndex={0}
            role="group"
            aria-label="The answer"
          >
            {!answer && failed === "" && (
              <p role="status" className="flex gap-4 items-center text-l py-8">
                <Wheel
                  done={going ? Math.round((9 * going.done) / Math.max(1, going.of)) : 0}
                  of={9}
                  r={30}
                  label="how far the search is"
                />
                {going ? `Looking at ${going.what}.` : "Reading the catalogue."}
              </p>
            )}
            {failed !== "" && (
              <p role="alert" className="flex gap-3 text-l py-6">
                <StateMark kind="no" size={24} />
                {failed}
              </p>
            )}
            {answer && <Body s={answer} onTake={onTake} full={full} names={names} />}
            {full && (
              <p className="text-m text-ink-2 mt-2">
                Six lines are enough to choose from: take one away first.
              </p>
            )}
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** Blind tasting: letters only, one taster at a time, ranks locked before the key is shown. */
import { useState, type ReactElement } from "react";

import { useStartTasting } from "../../api/hooks";
import { FLAVOURS, SMELLS } from "../../app/facts.generated";
import { num } from "../../app/show";
import { newId } from "../../app/names";
import { Trouble } from "../../ui/Trouble";
import { useVisitContext } from "../visit/context";
import { Big, Cautions, FacingView, Outcome, TwoSentences } from "./parts";
import { useDemo, type BodyOf } from "./useDemo";
import { say } from "../../app/language";

type Tasting = BodyOf<"tasting">;
type Demo = ReturnType<typeof useDemo<"tasting">>;
type Result = Extract<
  NonNullable<NonNullable<ReturnType<typeof useDemo<"tasting">>["shown"]>["result"]>,
  { kind: "tasting" }
>;

function Cup({
  code,
  place,
  onPick,
}: {
  code: string;
  place: number | null;
  onPick: () => void;
}): ReactElement {
  return (
    <button
      type="button"
      className="grid justify-items-center gap-2 p-2"
      aria-pressed={place !== null}
      aria-label={`${code}${place === null ? "" : say(", place {place}", { place })}`}
      onClick={onPick}
    >
      <svg width="124" height="150" viewBox="0 0 124 150" aria-hidden="true">
        <path
          d="M14,8H110L98,136Q62,148 26,136Z"
          fill="var(--glass-body)"
          stroke="var(--ink)"
          strokeWidth={place === null ? 2.4 : 4}
          strokeLinejoin="round"
        />
        <path d="M18,44H106L97,133Q62,143 27,133Z" fill="var(--water)" />
        <text
          x={62}
          y={102}
          textAnchor="middle"
          fontSize={30}
          style={{ fontWeight: 700, fill: "var(--drawn)" }}
        >
          {code}
        </text>
      </svg>
      <span className="num text-[34px] leading-none min-h-[34px]">
        {place === null ? "" : place}
      </span>
    </button>
  );
}

function SetUp({
  onStart,
  error,
  busy,
}: {
  onStart: (samples: string[], tasters: string[], sanitised: string[]) => void;
  error: unknown;
  busy: boolean;
}): ReactElement {
  const { view } = useVisitContext();
  const [samples, setSamples] = useState<string[]>([]);
  const [clean, setClean] = useState<string[]>([]);
  const [names, setNames] = useState("Taster 1, Taster 2, Taster 3");
  const toggle = (list: string[], id: string): string[] =>
    list.includes(id) ? list.filter((x) => x !== id) : [...list, id];
  const behind = view.visit.samples.filter(
    (s) => samples.includes(s.id) && (s.treated || s.kind === "pitcher" || s.kind === "own"),
  );
  return (
    <div className="grid gap-5 justify-items-start">
      <p className="text-[24px]">
        {say("Which waters, and who tastes? Poured out of sight, into fresh glasses.")}
      </p>
      <div className="flex flex-wrap gap-2" role="group" aria-label={say("Waters")}>
        {view.visit.samples.map((s) => (
          <Big
            key={s.id}
            on={samples.includes(s.id)}
            onClick={() => setSamples(toggle(samples, s.id))}
          >
            {s.name}
          </Big>
        ))}
      </div>
      {behind.length > 0 && (
        <div className="flex flex-wrap gap-2 items-center">
          <span className="text-[20px]">{say("Sanitized and flushed:")}</span>
          {behind.map((s) => (
            <Big key={s.id} on={clean.includes(s.id)} onClick={() => setClean(toggle(clean, s.id))}>
              {s.name}
            </Big>
          ))}
        </div>
      )}
      <label className="field w-[440px] max-w-full">
        <span>{say("Tasters, with commas between")}</span>
        <input
          className="input"
          value={names}
          maxLength={300}
          onChange={(e) => setNames(e.target.value)}
        />
      </label>
      <button
        className="key go"
        disabled={busy || samples.length < 2}
        onClick={() =>
          onStart(
            samples,
            names
              .split(",")
              .map((n) => n.trim())
              .filter(Boolean),
            clean,
          )
        }
      >
        {say("Draw the letters")}
      </button>
      <Trouble error={error} />
    </div>
  );
}

type Said = Record<string, string[]>;

/** One water in words: what it smells and tastes of, at a touch each. */
function WordsOf({
  kind,
  words,
  told,
  toggle,
}: {
  kind: string;
  words: string[];
  told: string[];
  toggle: (word: string) => void;
}): ReactElement {
  return (
    <div className="flex flex-wrap gap-2 items-center" role="group" aria-label={kind}>
      <span className="text-[20px] w-[110px]">{kind}</span>
      {words.map((w) => (
        <Big key={w} on={told.includes(w)} onClick={() => toggle(w)}>
          {w}
        </Big>
      ))}
    </div>
  );
}

/** Words for the waters, one water at a time; nobody need say any. */
function InWords({
  codes,
  said,
  tell,
}: {
  codes: string[];
  said: Said;
  tell: (s: Said) => void;
}): ReactElement {
  const [code, setCode] = useState<string | null>(null);
  const told = code === null ? [] : (said[code] ?? []);
  const toggle = (w: string): void => {
    if (code === null) return;
    const now = told.includes(w) ? told.filter((x) => x !== w) : [...told, w];
    tell({ ...said, [code]: now });
  };
  return (
    <div className="grid gap-3">
      <div className="flex flex-wrap gap-2 items-center" role="group" aria-label={say("In words")}>
        <span className="text-[20px] w-[110px]">{say("In words")}</span>
        {codes.map((c) => (
          <Big key={c} on={c === code} onClick={() => setCode(c === code ? null : c)}>
            {c}
            {said[c]?.length ? ` (${said[c].length})` : ""}
          </Big>
        ))}
      </div>
      {code !== null && (
        <>
          <WordsOf kind="Smell" words={SMELLS} told={told} toggle={toggle} />
          <WordsOf kind="Flavour" words={FLAVOURS} told={told} toggle={toggle} />
        </>
      )}
    </div>
  );
}

function Ranking({
  t,
  index,
  onLock,
}: {
  t: Tasting;
  index: number;
  onLock: (ranks: Record<string, number>, said: Said) => void;
}): ReactElement {
  const taster = t.tasters[index]!;
  const [said, setSaid] = useState<Said>({});
  const [places, setPlaces] = useState<string[][]>([]);
  const [tie, setTie] = useState(false);
  const placeOf = (code: string): number | null => {
    let n = 1;
    for (const group of places) {
      if (group.includes(code)) return n;
      n += group.length;
    }
    return null;
  };
  const all = places.flat().length === taster.order.length;
  const pick = (code: string): void => {
    if (placeOf(code) !== null) {
      setPlaces(places.map((g) => g.filter((c) => c !== code)).filter((g) => g.length));
      return;
    }
    setPlaces(
      tie && places.length
        ? [...places.slice(0, -1), [...places[places.length - 1]!, code]]
        : [...places, [code]],
    );
    setTie(false);
  };
  return (
    <div className="grid gap-4">
      <p className="text-[28px] font-d font-semibold">
        {say("{name}: touch the glasses, best first", { name: taster.name })}
      </p>
      <div className="flex gap-3 flex-wrap">
        {taster.order.map((c) => (
          <Cup key={c} code={c} place={placeOf(c)} onPick={() => pick(c)} />
        ))}
      </div>
      <div className="flex gap-3">
        <Big on={tie} disabled={places.length === 0 || all} onClick={() => setTie(!tie)}>
          {say("Next one is as good")}
        </Big>
        <button
          className="key go"
          disabled={!all}
          onClick={() =>
            onLock(Object.fromEntries(taster.order.map((c) => [c, placeOf(c) ?? 1])), said)
          }
        >
          {say("Lock my ranking")}
        </button>
      </div>
      <InWords codes={taster.order} said={said} tell={setSaid} />
    </div>
  );
}

/** A word, and how many said it where more than one did. */
const often = ([word, times]: (string | number)[]): string =>
  Number(times) > 1 ? `${word} (${times})` : String(word);

/** Who ranked what where, once the key is shown. */
function Key({ t, result }: { t: Tasting; result: Result | null }): ReactElement | null {
  const sums = result?.agreement?.sums;
  if (!sums) return null;
  const rows = t.waters.map((w, i) => ({ w, sum: sums[i] ?? 0 })).sort((a, b) => a.sum - b.sum);
  return (
    <table className="text-[22px] max-w-[760px]">
      <thead>
        <tr className="border-b-[1.5px] border-ink text-left">
          <th className="py-2 pr-5">{say("Water")}</th>
          {t.tasters.map((x) => (
            <th key={x.name} className="pr-5 text-[20px]">
              {x.name}
            </th>
          ))}
          <th className="pr-5">{say("Sum of places")}</th>
          <th>{say("In words")}</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(({ w, sum }) => (
          <tr key={w.code} className="border-b border-rule">
            <th scope="row" className="text-left py-2 pr-5">
              <span className="text-ink-2 font-normal">{w.code}</span> {result.key[w.code]}
            </th>
            {t.tasters.map((x) => (
              <td key={x.name} className="pr-5">
                {x.ranks?.[w.code]}
              </td>
            ))}
            <td className="num text-[30px]">{num(sum, 1)}</td>
            <td>{(result.said?.[w.code] ?? []).map(often).join(", ")}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function AllLocked({ onShow }: { onShow: () => void }): ReactElement {
  return (
    <div className="grid gap-4 justify-items-start">
      <p className="text-[26px]">{say("All rankings are locked.")}</p>
      <button className="key go" onClick={onShow}>
        {say("Show the key")}
      </button>
    </div>
  );
}

/** What stands behind the rankings: the key on asking, then what it shows. */
function Behind({
  demo,
  body,
  onAgain,
}: {
  demo: Demo;
  body: Tasting;
  onAgain: () => void;
}): ReactElement {
  // of the one who locks the rankings: a second hand on it would overtake what is under way
  const { shown, error, save } = demo;
  const open = body.tasters.some((t) => !t.ranks);
  const told = Boolean(body.shown_at) || Boolean(shown?.refused);
  const result = shown?.result?.kind === "tasting" ? shown.result : null;
  const show = (): void => save({ ...body, shown_at: new Date().toISOString() });
  return (
    <>
      {!open && !body.shown_at && <AllLocked onShow={show} />}
      {body.shown_at && <Key t={body} result={result} />}
      <Outcome shown={told ? shown : null} error={error} />
      {told && (
        <button className="key bare justify-self-start" onClick={onAgain}>
          {say("Another tasting")}
        </button>
      )}
    </>
  );
}

/** A tasting under way: one taster after the other, then the key. */
function Going({ onAgain }: { onAgain: () => void }): ReactElement | null {
  const demo = useDemo("tasting");
  const { body, made, save } = demo;
  if (!body) return null;
  const next = body.tasters.findIndex((t) => !t.ranks);
  const lock = (ranks: Record<string, number>, said: Said): void =>
    save({
      ...body,
      tasters: body.tasters.map((t, i) => (i === next ? { ...t, ranks, said } : t)),
    });
  return (
    <>
      {next >= 0 && (
        <Ranking key={`${made?.id ?? ""}${next}`} t={body} index={next} onLock={lock} />
      )}
      <Behind demo={demo} body={body} onAgain={onAgain} />
    </>
  );
}

export function TastingView(): ReactElement {
  const { id } = useVisitContext();
  const { body } = useDemo("tasting");
  const start = useStartTasting(id);
  const [fresh, setFresh] = useState(false);
  const begin = (samples: string[], tasters: string[], sanitised: string[]): void =>
    start.mutate(
      { id: newId(), samples, tasters, sanitised },
      { onSuccess: () => setFresh(false) },
    );
  return (
    <FacingView
      title={say("Which do you like?")}
      side={
        <>
          <TwoSentences kind="tasting" />
          <Cautions kind="tasting" />
        </>
      }
    >
      {!body || fresh ? (
        <SetUp busy={start.isPending} error={start.error} onStart={begin} />
      ) : (
        <Going onAgain={() => setFresh(true)} />
      )}
    </FacingView>
  );
}

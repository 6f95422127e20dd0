/** What was sold, piece by piece: how it is had, what became of it, and the way back. */
import { useState, type ReactElement } from "react";

import { newId } from "../../app/names";
import { say, spoken } from "../../app/language";
import { Seg } from "../../ui/fields";
import { Sheet } from "../../ui/Sheet";
import { said, today } from "./dates";
import type { Doing, JobView } from "./hooks";

type Move = JobView["job"]["moves"][number];
type Fate = Move["fate"];
type Rented = JobView["standing"]["rents"][number];

const FATES = spoken([
  ["swapped", "Swapped"],
  ["taken_out", "Taken out"],
  ["returned", "Returned"],
  ["bought_out", "Bought out"],
] as const);
const nameOf = (fate: Fate): string => FATES.find(([f]) => f === fate)?.[1] ?? fate;

/** What is rented, since when, until when, and its last rent. */
function rentOf(r: Rented): string {
  if (r.state === "theirs") return say("rented at first, theirs now");
  if (r.start === null) return say("rented once it is in use");
  const [since, until] = [said(r.start), said(r.until ?? r.start)];
  const last = r.last === null ? "" : say("; last rent {last}", { last: said(r.last) });
  if (r.state === "ended") return say("rented from {since}", { since }) + last;
  return say("rented since {since}, at least until {until}", { since, until }) + last;
}

function Moved({ m, onDo }: { m: Move; onDo: (d: Doing) => void }): ReactElement {
  return (
    <span className="block text-m">
      <b>
        {nameOf(m.fate)}, {said(m.on)}
      </b>
      : {m.because} <span className="text-ink-2">({m.by})</span>{" "}
      <button className="key bare" onClick={() => onDo({ what: "unmove", move: m.id })}>
        {say("Take it back")}
      </button>
    </span>
  );
}

function whatFollows(fate: Fate): string {
  if (fate === "swapped") return say("Its parts are counted from that day.");
  if (fate === "bought_out")
    return say("Its rent ends with that day. Its parts fall due as before.");
  return say("Its parts fall due no more, and its rent ends with that day.");
}

function Why({
  value,
  onChange,
}: {
  value: string;
  onChange: (value: string) => void;
}): ReactElement {
  return (
    <label className="field">
      <span>{say("Why, in a line")}</span>
      <input
        className="input"
        required
        maxLength={200}
        value={value}
        onChange={(e) => onChange(e.target.value)}
      />
    </label>
  );
}

function MoveForm({
  piece,
  rented,
  onDo,
  onClose,
}: {
  piece: number;
  rented: boolean;
  onDo: (d: Doing) => void;
  onClose: () => void;
}): ReactElement {
  const [fate, setFate] = useState<Fate>("swapped");
  const [on, setOn] = useState(today());
  const [because, setBecause] = useState("");
  const [price, setPrice] = useState("");
  return (
    <form
      className="grid gap-4"
      onSubmit={(e) => {
        e.preventDefault();
        const paid = fate === "bought_out" ? price || "0" : "0";
        onDo({ what: "move", move: newId(), body: { piece, fate, on, because, price: paid } });
        onClose();
      }}
    >
      <Seg
        label={say("What became of it")}
        value={fate}
        choices={FATES.filter(([f]) => rented || f !== "bought_out").map(([value, name]) => ({
          value,
          name,
        }))}
        onChange={setFate}
      />
      <p className="text-m text-ink-2">{whatFollows(fate)}</p>
      <label className="field">
        <span>{say("On")}</span>
        <input
          className="input"
          type="date"
          required
          max={today()}
          value={on}
          onChange={(e) => setOn(e.target.value)}
        />
      </label>
      {fate === "bought_out" && (
        <label className="field">
          <span>{say("Price, with tax")}</span>
          <input
            className="input"
            inputMode="decimal"
            pattern="[0-9]+([.][0-9]{1,2})?"
            required
            value={price}
            onChange={(e) => setPrice(e.target.value)}
          />
        </label>
      )}
      <Why value={because} onChange={setBecause} />
      <button className="key go justify-self-end">{say("Keep it")}</button>
    </form>
  );
}

const GONE: Fate[] = ["taken_out", "returned"];

export function Equipment({
  job,
  onDo,
}: {
  job: JobView;
  onDo: (d: Doing) => void;
}): ReactElement | null {
  const [piece, setPiece] = useState<number | null>(null);
  const { bought, moves, fitted_on } = job.job;
  if (bought.length === 0 || fitted_on === null) return null;
  return (
    <section aria-label={say("Equipment")} className="pt-4">
      <h2>{say("Equipment")}</h2>
      <ul>
        {bought.map((b, n) => {
          const of = moves.filter((m) => m.piece === n);
          const rented = job.standing.rents.find((r) => r.piece === n);
          return (
            <li
              key={b.label + String(n)}
              className="flex flex-wrap gap-x-4 items-center border-b border-rule py-2 min-h-[60px]"
            >
              <span className="flex-1 min-w-[260px]">
                <b>{b.label}</b>
                {rented && <span className="text-m text-ink-2">, {rentOf(rented)}</span>}
                {of.map((m) => (
                  <Moved key={m.id} m={m} onDo={onDo} />
                ))}
              </span>
              {!of.some((m) => GONE.includes(m.fate)) && (
                <button className="key" onClick={() => setPiece(n)}>
                  {say("Swapped or taken out")}
                </button>
              )}
            </li>
          );
        })}
      </ul>
      {piece !== null && (
        <Sheet title={bought[piece]?.label ?? ""} width={560} onClose={() => setPiece(null)}>
          <MoveForm
            piece={piece}
            rented={job.standing.rents.some((r) => r.piece === piece && r.state === "rented")}
            onDo={onDo}
            onClose={() => setPiece(null)}
          />
        </Sheet>
      )}
    </section>
  );
}

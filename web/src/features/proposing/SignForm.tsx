/**
 * Sign a proposal: what to know ticked one by one, the full name, and a signature drawn or typed.
 */
import { useState, type ReactElement } from "react";

import type { components } from "../../api/schema.generated";
import type { Offer } from "../../api/types";
import { SignaturePad } from "./SignaturePad";
import { say } from "../../app/language";

export interface Signed {
  name: string;
  path: string;
  typed: boolean;
  read: string[];
}

type ToKnow = components["schemas"]["ToKnow"];
const SHORTEST = 12; // characters of a drawn path: fewer are a slip of the finger

function Read({
  things,
  read,
  onRead,
}: {
  things: readonly ToKnow[];
  read: string[];
  onRead: (read: string[]) => void;
}): ReactElement | null {
  if (things.length === 0) return null;
  const tick = (sentence: string, on: boolean): void =>
    onRead(on ? [...read, sentence] : read.filter((x) => x !== sentence));
  return (
    <fieldset>
      <legend className="font-semibold">{say("Read and understood, one by one")}</legend>
      {things.map((k) => (
        <label
          key={k.stage + k.sentence}
          className="flex gap-3 items-start min-h-11 py-1 border-b border-rule"
        >
          <input
            type="checkbox"
            className="w-6 h-6 shrink-0"
            checked={read.includes(k.sentence)}
            onChange={(e) => tick(k.sentence, e.target.checked)}
          />
          <span>
            <b>{k.stage}:</b> {k.sentence}
            {k.answer !== "" && (
              <span className="block">{say("Answered: {answer}", { answer: k.answer })}</span>
            )}
          </span>
        </label>
      ))}
    </fieldset>
  );
}

function Signature({
  name,
  path,
  typed,
  onPath,
  onTyped,
}: Pick<Signed, "name" | "path" | "typed"> & {
  onPath: (path: string) => void;
  onTyped: (typed: boolean) => void;
}): ReactElement {
  return (
    <div className="grid gap-2">
      {typed ? (
        <p
          className={
            "border-[1.5px] border-ink rounded-[10px] bg-slip px-5 py-6 font-d text-[28px]"
          }
        >
          {name.trim() || say("Write your full name above")}
        </p>
      ) : (
        <SignaturePad path={path} onPath={onPath} />
      )}
      <label className="flex gap-3 items-center min-h-11">
        <input
          type="checkbox"
          className="w-6 h-6"
          checked={typed}
          onChange={(e) => onTyped(e.target.checked)}
        />
        {say("Sign by typing the name instead of drawing")}
      </label>
    </div>
  );
}

export function SignForm({
  offer,
  busy,
  onSign,
  onNotNow,
}: {
  offer: Offer;
  busy: boolean;
  onSign: (signed: Signed) => void;
  onNotNow: () => void;
}): ReactElement {
  const [name, setName] = useState("");
  const [path, setPath] = useState("");
  const [typed, setTyped] = useState(false);
  const [read, setRead] = useState<string[]>([]);
  const things = offer.before_signing;
  const left = things.filter((k) => !read.includes(k.sentence)).length;
  const signed = typed || path.length >= SHORTEST;
  const missing = [
    left > 0 && say("{left} still to be ticked", { left }),
    name.trim().length < 2 && say("the full name"),
    !signed && say("the signature"),
  ].filter(Boolean);
  return (
    <form
      className="max-w-[1040px] mx-auto grid gap-3 border-[1.5px] border-ink bg-slip p-5 my-4"
      aria-label={say("Accept this proposal")}
      onSubmit={(e) => {
        e.preventDefault();
        onSign({ name, path: typed ? "" : path, typed, read });
      }}
    >
      <h2>{say("Accept this proposal")}</h2>
      <p className="text-m text-ink-2">
        {offer.cancel_text} {offer.cooling_off}
      </p>
      <Read things={things} read={read} onRead={setRead} />
      <label className="field max-w-[420px]">
        <span>{say("Full name")}</span>
        <input
          className="input"
          required
          minLength={2}
          maxLength={200}
          autoComplete="name"
          value={name}
          onChange={(e) => setName(e.target.value)}
        />
      </label>
      <Signature name={name} path={path} typed={typed} onPath={setPath} onTyped={setTyped} />
      <div className="flex flex-wrap gap-3 items-center">
        <button className="key go" disabled={busy || missing.length > 0}>
          {say("Sign")}
        </button>
        {!typed && (
          <button
            type="button"
            className="key"
            style={{ minHeight: 60 }}
            onClick={() => setPath("")}
          >
            {say("Clear")}
          </button>
        )}
        <button type="button" className="key bare" onClick={onNotNow}>
          {say("Not now")}
        </button>
        {missing.length > 0 && (
          <span className="text-m text-ink-2">
            {say("Missing: {x}.", { x: missing.join(", ") })}
          </span>
        )}
      </div>
    </form>
  );
}

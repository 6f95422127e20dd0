/**
 * Readings that the server will not take: shown with the reason, put right here and sent again, or
 * given up.
 */
import { Dialog } from "radix-ui";
import { useState, type ReactElement } from "react";
import { Link } from "react-router";

import { giveUp, mend, useQueue, type Refused } from "../api/queue";
import type { Observation } from "../api/types";
import { moment } from "./when";
import { say } from "./language";

function said(o: Observation): string {
  switch (o.method) {
    case "meter":
      return o.displays.join("  ");
    case "drops":
      return String(o.drops);
    case "pad":
      return String(o.pad);
    case "display":
      return String(o.value);
    default:
      return "";
  }
}

/** The observation with what was typed now; null when that is no number. */
function put(o: Observation, text: string): Observation | null {
  const numbers = text.split(/\s+/).filter(Boolean).map(Number);
  const [first] = numbers;
  if (first === undefined || numbers.some((n) => !Number.isFinite(n))) return null;
  switch (o.method) {
    case "meter":
      return { ...o, displays: numbers };
    case "drops":
      return { ...o, drops: first };
    case "pad":
      return { ...o, pad: first };
    case "display":
      return { ...o, value: first };
    default:
      return null;
  }
}

function One({ entry }: { entry: Refused }): ReactElement {
  const { observation, instrument, made_at } = entry.reading;
  const [text, setText] = useState(said(observation));
  const changed = put(observation, text);
  return (
    <li className="border-t border-rule py-3 grid gap-2">
      <p>
        <b>{instrument.name}</b>, {moment(made_at)}: {entry.refused.title} {entry.refused.remedy}
      </p>
      <div className="flex flex-wrap gap-3 items-end">
        {said(observation) !== "" && (
          <label className="field">
            <span>{say("What it showed")}</span>
            <input
              className="input num"
              inputMode="decimal"
              value={text}
              onChange={(e) => setText(e.target.value)}
            />
          </label>
        )}
        {said(observation) !== "" && (
          <button
            className="key"
            disabled={!changed}
            onClick={() => changed && mend(entry, changed)}
          >
            {say("Send it again")}
          </button>
        )}
        <Link className="key bare" to={`/visits/${entry.visit}/test`}>
          {say("Open its visit")}
        </Link>
        <button className="key bare" onClick={() => giveUp(entry)}>
          {say("Give it up")}
        </button>
      </div>
    </li>
  );
}

export function Aside(): ReactElement | null {
  const { aside } = useQueue();
  if (aside.length === 0) return null;
  const n =
    aside.length === 1 ? say("1 reading") : say("{length} readings", { length: aside.length });
  return (
    <Dialog.Root>
      <Dialog.Trigger className="key bare text-zest-ink">
        {say("{n} set aside", { n })}
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 bg-[#10302a55] z-40" />
        <Dialog.Content
          aria-describedby={undefined}
          className={
            "fixed z-50 left-1/2 top-1/2 -translate-x-1/2 -translate-y-1/2 w-[min(640px,94vw)] " +
            "max-h-[84vh] overflow-y-auto bg-paper border-[1.5px] border-ink p-6"
          }
        >
          <Dialog.Title className="font-d text-l font-bold">
            {say("The server does not take {n}", { n })}
          </Dialog.Title>
          <p className="text-ink-2 mb-2">
            {say("They are kept on this device only. Put them right and send them again.")}
          </p>
          <ul>
            {aside.map((w) => (
              <One key={w.reading.id} entry={w} />
            ))}
          </ul>
          <Dialog.Close className="key mt-3">{say("Close")}</Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

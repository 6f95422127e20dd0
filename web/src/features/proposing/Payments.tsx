/** What a signed proposal comes to, and what was received for it. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState, type ReactElement } from "react";

import { api, data } from "../../api/client";
import { newId } from "../../app/names";
import { money } from "../../app/show";
import { say } from "../../app/language";
import { dayShort } from "../../app/when";
import { Sheet } from "../../ui/Sheet";
import { StrikeKey } from "../../ui/StrikeKey";
import { Trouble } from "../../ui/Trouble";
import { today } from "../aftercare/dates";
import type { View } from "./useDecide";

interface Noted {
  id: string;
  on: string;
  amount: string;
  label: string;
  note: string;
}

function useNote(p: View, then: () => void) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ id, ...body }: Noted) =>
      data(
        api.PUT("/api/proposals/{id}/payments/{payment_id}", {
          params: { path: { id: p.id, payment_id: id } },
          body,
        }),
      ),
    onSuccess: async () => {
      then();
      await client.invalidateQueries({ queryKey: ["proposal", p.id] });
    },
  });
}

function useStrike(p: View) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ id, because }: { id: string; because: string }) =>
      data(
        api.POST("/api/proposals/{id}/payments/{payment_id}/strike", {
          params: { path: { id: p.id, payment_id: id } },
          body: { because },
        }),
      ),
    onSuccess: () => client.invalidateQueries({ queryKey: ["proposal", p.id] }),
  });
}

function NoteForm({ p, onClose }: { p: View; onClose: () => void }): ReactElement {
  const labels = [...new Set((p.sold?.payments ?? []).map((x) => x.label)), say("Paid back")];
  const [noted, setNoted] = useState<Noted>({
    id: newId(),
    on: today(),
    amount: String(p.sold?.payments[0]?.amount ?? ""),
    label: labels[0] ?? "",
    note: "",
  });
  const put = useNote(p, onClose);
  const set = (part: Partial<Noted>): void => setNoted({ ...noted, ...part });
  return (
    <form
      className="grid gap-4"
      onSubmit={(e) => {
        e.preventDefault();
        put.mutate({ ...noted, amount: noted.amount.replace(",", ".") });
      }}
    >
      <div className="flex flex-wrap gap-4">
        <label className="field">
          <span>{say("What for")}</span>
          <select
            className="input"
            value={noted.label}
            onChange={(e) => set({ label: e.target.value })}
          >
            {labels.map((x) => (
              <option key={x}>{x}</option>
            ))}
          </select>
        </label>
        <label className="field w-[170px]">
          <span>
            {say("Amount")} [{p.offer.currency}]
          </span>
          <input
            className="input"
            inputMode="decimal"
            required
            value={noted.amount}
            onChange={(e) => set({ amount: e.target.value })}
          />
        </label>
        <label className="field">
          <span>{say("Received on")}</span>
          <input
            className="input"
            type="date"
            required
            max={today()}
            value={noted.on}
            onChange={(e) => set({ on: e.target.value })}
          />
        </label>
      </div>
      <label className="field">
        <span>{say("How it came, in a line")}</span>
        <input
          className="input"
          maxLength={200}
          value={noted.note}
          onChange={(e) => set({ note: e.target.value })}
        />
        <small className="text-s text-ink-2">
          {say("As “check 1042”. Never write the number of a card. Paid back: with a minus.")}
        </small>
      </label>
      <Trouble error={put.error} />
      <button className="key go justify-self-end" disabled={put.isPending}>
        {say("Note the payment")}
      </button>
    </form>
  );
}

/** What is to be paid and when, what was received, and a key to note more. */
export function Payments({ p }: { p: View }): ReactElement | null {
  const [noting, setNoting] = useState(false);
  const strike = useStrike(p);
  if (!p.sold || p.sold.payments.length === 0) return null;
  const { currency } = p.offer;
  const counted = p.received.filter((r) => r.struck_because === "");
  const sum = counted.reduce((a, r) => a + Number(r.amount), 0);
  return (
    <section className="max-w-[1040px] mx-auto my-4" aria-label={say("Payments")}>
      <div className="flex gap-4 items-center flex-wrap">
        <h2 className="flex-1">{say("Received {sum}", { sum: money(sum, currency, true) })}</h2>
        <button className="key" onClick={() => setNoting(true)}>
          {say("Note a payment")}
        </button>
      </div>
      <p className="text-b text-ink-2">
        {p.sold.payments
          .map((x) => `${x.label}: ${money(x.amount, currency, true)} ${x.when}`)
          .join(" · ")}
      </p>
      <ul>
        {p.received.map((r) => (
          <li
            key={r.id}
            className="grid grid-cols-[1fr_auto_auto] gap-3 items-center border-b border-rule"
          >
            <span className={r.struck_because === "" ? "" : "line-through text-ink-3"}>
              {r.label}, {dayShort(`${r.on}T12:00:00`)}
              {r.note !== "" && `, ${r.note}`}
              <span className="text-ink-2"> ({r.by})</span>
            </span>
            <b className="num">{money(r.amount, currency, true)}</b>
            {r.struck_because === "" ? (
              <StrikeKey
                words={say("Strike")}
                reasons={[say("Typed wrong"), say("It did not come"), say("Another customer’s")]}
                busy={strike.isPending}
                onStrike={(because) => strike.mutate({ id: r.id, because })}
              />
            ) : (
              <span className="text-s text-ink-3">{r.struck_because}</span>
            )}
          </li>
        ))}
      </ul>
      <Trouble error={strike.error} />
      {noting && (
        <Sheet title={say("Note a payment")} onClose={() => setNoting(false)}>
          <NoteForm p={p} onClose={() => setNoting(false)} />
        </Sheet>
      )}
    </section>
  );
}

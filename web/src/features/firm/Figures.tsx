/** Prices and settings that every calculation of the firm uses; old visits keep those of their day. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState, type ReactElement } from "react";

import { api, data } from "../../api/client";
import type { FirmView } from "../../api/hooks";
import { NumberField, Seg } from "../../ui/fields";
import { Trouble } from "../../ui/Trouble";

export function Figures({ firm, may }: { firm: FirmView; may: boolean }): ReactElement {
  const [s, setS] = useState(firm.settings);
  const client = useQueryClient();
  const set = (part: Partial<typeof s>): void => setS({ ...s, ...part });
  const money = (n: number | null): string => String(n ?? 0);
  const save = useMutation({
    mutationFn: () =>
      data(
        api.PUT("/api/firm", { body: { version: firm.version, settings: s, rules: firm.rules } }),
      ),
    onSuccess: () => void client.invalidateQueries({ queryKey: ["firm"] }),
  });
  return (
    <section id="figures">
      <div className="flex justify-between items-center flex-wrap gap-2">
        <h2>Prices and settings</h2>
        <span className="text-m text-ink-2">
          counted in every cost; a visit keeps those of its day
        </span>
      </div>
      <fieldset disabled={!may} className="border-0 p-0 m-0 mt-3 grid gap-4">
        <div className="grid grid-cols-[repeat(auto-fill,minmax(190px,1fr))] gap-x-5 gap-y-4 items-start">
          <Seg
            label="Units"
            value={s.units}
            choices={[
              { value: "us", name: "US" },
              { value: "metric", name: "metric" },
            ]}
            onChange={(u) => set({ units: u === "metric" ? "metric" : "us" })}
          />
          <NumberField
            label="Electricity"
            unit={`${s.currency} a kWh`}
            value={Number(s.electricity)}
            onCommit={(n) => set({ electricity: money(n) })}
          />
          <NumberField
            label="Salt, a 40-lb bag"
            unit={s.currency}
            value={Number(s.salt_bag)}
            onCommit={(n) => set({ salt_bag: money(n) })}
          />
          <NumberField
            label="Prices rise a year by"
            unit="%"
            value={100 * Number(s.price_growth)}
            min={-20}
            max={50}
            onCommit={(n) => set({ price_growth: money(n === null ? null : n / 100) })}
          />
          <NumberField
            label="Discount a year"
            unit="%"
            value={100 * Number(s.discount)}
            max={50}
            hint="0: money later counts as money now"
            onCommit={(n) => set({ discount: money(n === null ? null : n / 100) })}
          />
          <NumberField
            label="Sales tax on equipment"
            unit="%"
            value={100 * Number(s.tax_equipment)}
            max={50}
            onCommit={(n) => set({ tax_equipment: money(n === null ? null : n / 100) })}
          />
          <NumberField
            label="Sales tax on labour"
            unit="%"
            value={100 * Number(s.tax_labour)}
            max={50}
            onCommit={(n) => set({ tax_labour: money(n === null ? null : n / 100) })}
          />
          <NumberField
            label="People are kept for"
            unit="years"
            value={s.keep_years}
            max={100}
            hint="after the last visit, then erased by ./zesty forget; 0: for ever"
            onCommit={(n) => set({ keep_years: Math.round(n ?? 0) })}
          />
          <NumberField
            label="Use a person"
            unit="gal/day"
            value={s.gal_per_person}
            min={1}
            max={500}
            hint="when no bill is known"
            onCommit={(n) => set({ gal_per_person: n ?? 60 })}
          />
          <NumberField
            label="Drunk a person"
            unit="gal/day"
            value={s.drinking_gal_per_person}
            min={0.05}
            max={10}
            onCommit={(n) => set({ drinking_gal_per_person: n ?? 0.7 })}
          />
          <NumberField
            label="Iron counts"
            unit="gpg a mg/L"
            value={s.iron_factor}
            max={10}
            onCommit={(n) => set({ iron_factor: n ?? 4 })}
          />
          <NumberField
            label="Water heater"
            unit="°C"
            value={s.heater_c}
            min={30}
            max={90}
            onCommit={(n) => set({ heater_c: n ?? 60 })}
          />
          <NumberField
            label="Soap saved, at most"
            unit="%"
            value={100 * s.soap_share}
            max={60}
            hint="our own cautious estimate"
            onCommit={(n) => set({ soap_share: (n ?? 20) / 100 })}
          />
          <NumberField
            label="A proposal holds"
            unit="days"
            value={s.valid_days}
            min={1}
            max={365}
            onCommit={(n) => set({ valid_days: Math.round(n ?? 30) })}
          />
        </div>
        <label className="field">
          <span>Right to cancel, as printed in every proposal</span>
          <textarea
            className="input"
            rows={3}
            maxLength={2000}
            value={s.cancel_text}
            onChange={(e) => set({ cancel_text: e.target.value })}
          />
        </label>
        <label className="field">
          <span>
            Reminder of what is due; {"{customer}"}, {"{parts}"} and {"{firm}"} are filled in
          </span>
          <textarea
            className="input"
            rows={5}
            maxLength={2000}
            value={s.reminder_text}
            onChange={(e) => set({ reminder_text: e.target.value })}
          />
        </label>
        <label className="field">
          <span>Local rules to remember</span>
          <textarea
            className="input"
            rows={2}
            maxLength={2000}
            value={s.local_rules}
            onChange={(e) => set({ local_rules: e.target.value })}
          />
        </label>
      </fieldset>
      <Trouble error={save.error} />
      {may && (
        <button className="key go mt-3" disabled={save.isPending} onClick={() => save.mutate()}>
          Keep these settings
        </button>
      )}
    </section>
  );
}

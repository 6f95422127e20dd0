/**
 * Prices and settings that every calculation of the firm uses; old visits keep those of their day.
 */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState, type ReactElement } from "react";

import { api, data } from "../../api/client";
import type { FirmView } from "../../api/hooks";
import { ShownUnits } from "../../app/units";
import { NumberField, Seg, TextField, YES_NO } from "../../ui/fields";
import { QuantityField } from "../../ui/QuantityField";
import { Trouble } from "../../ui/Trouble";
import { DayField } from "../in-place/DayField";
import { spoken, say } from "../../app/language";

type Settings = FirmView["settings"];

interface Figure {
  label: string;
  /** "$": the firm's currency */
  unit: string;
  min?: number;
  max?: number;
  hint?: string;
  of: (s: Settings) => number | null;
  put: (n: number | null) => Partial<Settings>;
}

const money = (n: number | null): string => String(n ?? 0);
const share = (n: number | null): string => money(n === null ? null : n / 100);

/** Every number that the firm sets, in the order one asks for them. */
const FIGURES: readonly Figure[] = spoken([
  {
    label: "Electricity",
    unit: "$ a kWh",
    of: (s) => Number(s.electricity),
    put: (n) => ({ electricity: money(n) }),
  },
  {
    label: "Bringing a bag of salt",
    unit: "a bag",
    max: 10000,
    hint: "0: the household carries it",
    of: (s) => Number(s.salt_delivery),
    put: (n) => ({ salt_delivery: money(n) }),
  },
  {
    label: "Adding a drain",
    unit: "$",
    max: 100000,
    hint: "by a plumber, with its air gap; empty: not known",
    of: (s) => (s.drain_price == null ? null : Number(s.drain_price)),
    put: (n) => ({ drain_price: n === null ? null : money(n) }),
  },
  {
    label: "Adding an outlet",
    unit: "$",
    max: 100000,
    hint: "by a licensed electrician; empty: not known",
    of: (s) => (s.outlet_price == null ? null : Number(s.outlet_price)),
    put: (n) => ({ outlet_price: n === null ? null : money(n) }),
  },
  {
    label: "Salt, a 40-lb bag",
    unit: "$",
    of: (s) => Number(s.salt_bag),
    put: (n) => ({ salt_bag: money(n) }),
  },
  {
    label: "Potassium chloride, a 40-lb bag",
    unit: "$",
    of: (s) => Number(s.potassium_bag),
    put: (n) => ({ potassium_bag: money(n) }),
  },
  {
    label: "Prices rise a year by",
    unit: "%",
    min: -20,
    max: 50,
    of: (s) => 100 * Number(s.price_growth),
    put: (n) => ({ price_growth: share(n) }),
  },
  {
    label: "Discount a year",
    unit: "%",
    max: 50,
    hint: "0: money later counts as money now",
    of: (s) => 100 * Number(s.discount),
    put: (n) => ({ discount: share(n) }),
  },
  {
    label: "Sales tax on equipment",
    unit: "%",
    max: 50,
    of: (s) => 100 * Number(s.tax_equipment),
    put: (n) => ({ tax_equipment: share(n) }),
  },
  {
    label: "Sales tax on labor",
    unit: "%",
    max: 50,
    of: (s) => 100 * Number(s.tax_labour),
    put: (n) => ({ tax_labour: share(n) }),
  },
  {
    label: "People are kept for",
    unit: "years",
    max: 100,
    hint: "after the last visit, then erased by ./zesty forget; 0: forever",
    of: (s) => s.keep_years,
    put: (n) => ({ keep_years: Math.round(n ?? 0) }),
  },
  {
    label: "Use a person",
    unit: "gal/day",
    min: 1,
    max: 500,
    hint: "when no bill is known",
    of: (s) => s.gal_per_person,
    put: (n) => ({ gal_per_person: n ?? 60 }),
  },
  {
    label: "Drunk a person",
    unit: "gal/day",
    min: 0.05,
    max: 10,
    of: (s) => s.drinking_gal_per_person,
    put: (n) => ({ drinking_gal_per_person: n ?? 0.7 }),
  },
  {
    label: "Iron counts",
    unit: "gpg a mg/L",
    max: 10,
    of: (s) => s.iron_factor,
    put: (n) => ({ iron_factor: n ?? 4 }),
  },
  {
    label: "Water heater",
    unit: "°C",
    min: 30,
    max: 90,
    of: (s) => s.heater_c,
    put: (n) => ({ heater_c: n ?? 60 }),
  },
  {
    label: "Soap saved, at most",
    unit: "%",
    max: 60,
    hint: "our own cautious estimate",
    of: (s) => 100 * s.soap_share,
    put: (n) => ({ soap_share: (n ?? 20) / 100 }),
  },
  {
    label: "A proposal holds",
    unit: "days",
    min: 1,
    max: 365,
    of: (s) => s.valid_days,
    put: (n) => ({ valid_days: Math.round(n ?? 30) }),
  },
]);

type Text =
  | "cancel_text"
  | "reminder_text"
  | "local_rules"
  | "laboratory"
  | "laboratory_address"
  | "post_cutoff";
const TEXTS: readonly { of: Text; words: string; rows: number; most?: number }[] = spoken([
  { of: "laboratory", words: "Laboratory that bottles go to", rows: 1, most: 200 },
  { of: "laboratory_address", words: "Its address", rows: 2, most: 500 },
  { of: "post_cutoff", words: "The post is handed in by, as 16:30", rows: 1, most: 5 },
  { of: "cancel_text", words: "Right to cancel, as printed in every proposal", rows: 3 },
  {
    of: "reminder_text",
    words: "Reminder of what is due; {customer}, {parts} and {firm} are filled in",
    rows: 5,
  },
  { of: "local_rules", words: "Local rules to remember", rows: 2 },
]);

interface Part {
  s: Settings;
  set: (part: Partial<Settings>) => void;
}

function Numbers({ s, set }: Part): ReactElement {
  return (
    <div
      className={"grid grid-cols-[repeat(auto-fill,minmax(190px,1fr))] gap-x-5 gap-y-4 items-start"}
    >
      <Seg
        label={say("Units")}
        value={s.units}
        choices={[
          { value: "us", name: "US" },
          { value: "metric", name: "metric" },
        ]}
        onChange={(u) => set({ units: u === "metric" ? "metric" : "us" })}
      />
      {FIGURES.map((f) => (
        <QuantityField
          key={f.label}
          label={f.label}
          unit={f.unit.replace("$", s.currency)}
          value={f.of(s)}
          onCommit={(n) => set(f.put(n))}
          {...(f.min === undefined ? {} : { min: f.min })}
          {...(f.max === undefined ? {} : { max: f.max })}
          {...(f.hint === undefined ? {} : { hint: f.hint })}
        />
      ))}
    </div>
  );
}

function Texts({ s, set }: Part): ReactElement {
  return (
    <>
      {TEXTS.map((t) => (
        <label key={t.of} className="field">
          <span>{t.words}</span>
          <textarea
            className="input"
            rows={t.rows}
            maxLength={t.most ?? 2000}
            value={s[t.of]}
            onChange={(e) => set({ [t.of]: e.target.value })}
          />
        </label>
      ))}
    </>
  );
}

/** The card of the water that the firm carries: a tasting asks for all of it. */
function OwnWater({ s, set }: Part): ReactElement {
  const card = s.own_water;
  const put = (part: Partial<typeof card>): void => set({ own_water: { ...card, ...part } });
  return (
    <section id="own-water" aria-label={say("The water we carry")}>
      <h3 className="font-d text-l mb-2">{say("The water we carry")}</h3>
      <p className="text-m text-ink-2 mb-3">
        {say(
          "Filled anew each week, checked each month, reported by a laboratory each year: " +
            "otherwise no tasting takes it.",
        )}
      </p>
      <div
        className={
          "grid grid-cols-[repeat(auto-fill,minmax(190px,1fr))] items-start gap-x-5 gap-y-4"
        }
      >
        <DayField
          label={say("Filled on")}
          value={card.filled_on ?? null}
          onCommit={(filled_on) => put({ filled_on })}
        />
        <DayField
          label={say("Last checked on")}
          value={card.checked_on ?? null}
          onCommit={(checked_on) => put({ checked_on })}
        />
        <TextField
          label={say("What the check read")}
          value={card.check}
          onCommit={(check) => put({ check })}
        />
        <TextField
          label={say("Reported by")}
          value={card.laboratory}
          onCommit={(laboratory) => put({ laboratory })}
        />
        <TextField
          label={say("Report number")}
          value={card.report_number}
          onCommit={(report_number) => put({ report_number })}
        />
        <DayField
          label={say("Reported on")}
          value={card.reported_on ?? null}
          onCommit={(reported_on) => put({ reported_on })}
        />
        <Seg
          label={say("Bacteria reported absent")}
          value={card.bacteria_absent ?? null}
          choices={YES_NO}
          onChange={(bacteria_absent) => put({ bacteria_absent })}
        />
        <NumberField
          label={say("Nitrate reported")}
          unit={say("mg/L as N")}
          max={1000}
          value={card.nitrate_n ?? null}
          onCommit={(nitrate_n) => put({ nitrate_n })}
        />
      </div>
    </section>
  );
}

/** The settings as they are kept: areas without the empty lines of somebody who types. */
const told = (s: Settings): Settings => ({
  ...s,
  areas: [...new Set(s.areas.map((a) => a.trim()).filter(Boolean))],
});

export function Figures({ firm, may }: { firm: FirmView; may: boolean }): ReactElement {
  const [s, setS] = useState(firm.settings);
  const client = useQueryClient();
  const set = (part: Partial<Settings>): void => setS({ ...s, ...part });
  const save = useMutation({
    mutationFn: () =>
      data(
        api.PUT("/api/firm", {
          body: { version: firm.version, settings: told(s), rules: firm.rules },
        }),
      ),
    onSuccess: () => void client.invalidateQueries({ queryKey: ["firm"] }),
  });
  return (
    <section id="figures">
      <div className="flex justify-between items-center flex-wrap gap-2">
        <h2>{say("Prices and settings")}</h2>
        <span className="text-m text-ink-2">
          {say("counted in every cost; a visit keeps those of its day")}
        </span>
      </div>
      <fieldset disabled={!may} className="border-0 p-0 m-0 mt-3 grid gap-4">
        <ShownUnits.Provider value={s.units}>
          <Numbers s={s} set={set} />
        </ShownUnits.Provider>
        <Texts s={s} set={set} />
        <label className="field">
          <span>{say("Areas in the order one drives them, one a line")}</span>
          <textarea
            className="input"
            rows={4}
            maxLength={4000}
            value={s.areas.join("\n")}
            onChange={(e) => set({ areas: e.target.value.split("\n").slice(0, 200) })}
          />
        </label>
        <OwnWater s={s} set={set} />
      </fieldset>
      <Trouble error={save.error} />
      {may && (
        <button className="key go mt-3" disabled={save.isPending} onClick={() => save.mutate()}>
          {say("Keep these settings")}
        </button>
      )}
    </section>
  );
}

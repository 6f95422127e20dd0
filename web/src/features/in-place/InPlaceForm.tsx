/**
 * What stands in the home already, whoever sold it: asked by kind, nothing more than can be judged.
 */
import { Plus, X } from "lucide-react";
import type { ReactElement } from "react";

import { ANALYTE_NAMES, IN_PLACE } from "../../app/facts.generated";
import { midSentence, newId } from "../../app/names";
import type { Home, InPlace } from "../../api/types";
import { Fold } from "../../ui/Fold";
import { TextField } from "../../ui/fields";
import { QuantityField } from "../../ui/QuantityField";
import { DayField } from "./DayField";
import { spoken, say } from "../../app/language";

const NUMBERS: Record<string, [label: string, unit: string, hint?: string]> = spoken({
  months: ["Rated for", "months", "as its maker says"],
  gallons: ["Rated for", "gal", "as its maker says"],
  gal_day: ["Runs through it", "gal/day", "empty: what is drunk here"],
  part_price: ["Each change costs", "each"],
  rent_month: ["Rented at", "a month"],
  service_price: ["A service costs", "each"],
  resin_ft3: ["Resin", "ft³", "on its label, or by its tank"],
  dose_lb_ft3: ["Salt dose", "lb/ft³", "empty: the usual dose is taken"],
  setting_gpg: ["Hardness it is set to", "gpg"],
  clock_days: ["Its clock regenerates it every", "days", "empty where it meters the water"],
  change_at_tds: ["To be changed at TDS", "mg/L"],
});
/** No label claims a share of these. */
const NOT_SHARES = new Set(["ph", "alkalinity", "coliform", "e_coli"]);
const MONEY = new Set(["part_price", "rent_month", "service_price"]);

function fresh(kind: string): InPlace {
  return {
    id: newId(),
    kind: kind as InPlace["kind"],
    name: "",
    fitted_on: null,
    changed_on: null,
    months: null,
    gallons: null,
    gal_day: null,
    part_price: null,
    rent_month: "0",
    service_price: null,
    resin_ft3: null,
    dose_lb_ft3: null,
    setting_gpg: null,
    clock_days: null,
    change_at_tds: null,
    claims: [],
    note: "",
  };
}

function Field({
  device,
  name,
  set,
}: {
  device: InPlace;
  name: string;
  set: (part: Partial<InPlace>) => void;
}): ReactElement | null {
  const told = NUMBERS[name];
  if (!told) return null;
  const [label, unit, hint] = told;
  const value = device[name as keyof InPlace];
  const number = value == null || value === "" ? null : Number(value);
  return (
    <QuantityField
      label={label}
      unit={unit}
      {...(hint === undefined ? {} : { hint })}
      value={number === 0 && name === "rent_month" ? null : number}
      onCommit={(n) => {
        const kept = MONEY.has(name) && n !== null ? String(n) : n;
        set({ [name]: name === "rent_month" && n === null ? "0" : kept });
      }}
    />
  );
}

function Card({
  device,
  set,
  drop,
}: {
  device: InPlace;
  set: (part: Partial<InPlace>) => void;
  drop: () => void;
}): ReactElement {
  const kind = IN_PLACE[device.kind];
  const asks = kind?.asks ?? [];
  const called = device.name || (kind?.name ?? device.kind);
  return (
    <section
      className="slip p-4 mb-3"
      style={{ borderBottom: "1.5px solid var(--ink)" }}
      aria-label={called}
    >
      <div className="flex justify-between items-center mb-2">
        <h3 className="font-d text-l">{kind?.name ?? device.kind}</h3>
        <button
          className="key bare"
          type="button"
          onClick={drop}
          aria-label={say("Not there: {called}", { called })}
        >
          <X size={20} aria-hidden="true" />
          {say("Not there")}
        </button>
      </div>
      <div
        className={
          "grid grid-cols-[repeat(auto-fill,minmax(170px,1fr))] items-start gap-x-5 gap-y-4"
        }
      >
        <TextField
          label={say("What stands on it")}
          value={device.name}
          onCommit={(name) => set({ name })}
        />
        <DayField
          label={say("Fitted")}
          value={device.fitted_on ?? null}
          onCommit={(fitted_on) => set({ fitted_on })}
        />
        {asks.includes("changed_on") && (
          <DayField
            label={say("Last change of its {x}", { x: kind?.part ?? "part" })}
            value={device.changed_on ?? null}
            onCommit={(changed_on) => set({ changed_on })}
          />
        )}
        {[...asks, "service_price", "rent_month"].map((name) => (
          <Field key={name} device={device} name={name} set={set} />
        ))}
      </div>
      <Claims device={device} set={set} />
    </section>
  );
}

/** What stands on it of what it takes out: a glass behind it is held against this. */
function Claims({
  device,
  set,
}: {
  device: InPlace;
  set: (part: Partial<InPlace>) => void;
}): ReactElement | null {
  const works = (IN_PLACE[device.kind]?.works_on ?? []).filter((a) => !NOT_SHARES.has(a));
  if (works.length === 0) return null;
  const said = device.claims.length;
  const put = (analyte: string, percent: number | null): void => {
    const others = device.claims.filter((c) => c.analyte !== analyte);
    set({ claims: percent === null ? others : [...others, { analyte, share: percent / 100 }] });
  };
  return (
    <Fold
      className="mt-3"
      title={say("What it claims to take out")}
      sub={say("as its label or sheet says{x}", { x: said > 0 ? `: ${said} written down` : "" })}
    >
      <div
        className={
          "grid grid-cols-[repeat(auto-fill,minmax(170px,1fr))] items-start gap-x-5 gap-y-4 mt-2"
        }
      >
        {works.map((a) => {
          const share = device.claims.find((c) => c.analyte === a)?.share;
          return (
            <QuantityField
              key={a}
              label={say("Less {x}", { x: midSentence(ANALYTE_NAMES[a] ?? a) })}
              unit="%"
              max={100}
              value={share === undefined ? null : Math.round(1000 * share) / 10}
              onCommit={(n) => put(a, n === 0 ? null : n)}
            />
          );
        })}
      </div>
    </Fold>
  );
}

export function InPlaceForm({
  home,
  set,
}: {
  home: Home;
  set: (part: Partial<Home>) => void;
}): ReactElement {
  const change = (id: string, part: Partial<InPlace>): void =>
    set({ in_place: home.in_place.map((d) => (d.id === id ? { ...d, ...part } : d)) });
  return (
    <fieldset className="border-0 border-t border-rule pt-3 pb-5 m-0 px-0">
      <legend className="float-left w-full mb-3">
        <h2 className="text-[20px]">{say("What stands there already")}</h2>
      </legend>
      <div className="clear-both">
        {home.in_place.map((d) => (
          <Card
            key={d.id}
            device={d}
            set={(part) => change(d.id, part)}
            drop={() => set({ in_place: home.in_place.filter((x) => x.id !== d.id) })}
          />
        ))}
        <div
          className="flex flex-wrap gap-2"
          role="group"
          aria-label={say("Add what stands there")}
        >
          {Object.entries(IN_PLACE).map(([kind, { name }]) => (
            <button
              key={kind}
              type="button"
              className="key"
              onClick={() => set({ in_place: [...home.in_place, fresh(kind)] })}
            >
              <Plus size={18} aria-hidden="true" />
              {name}
            </button>
          ))}
        </div>
        <p className="text-s text-ink-2 mt-2">
          {say(
            "Then draw a glass behind it: what it does is judged by what is measured, not by " +
              "its label.",
          )}
        </p>
      </div>
    </fieldset>
  );
}

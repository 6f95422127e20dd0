/** One appliance's card: what this water sets on it, and what hardness is worth there. */
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState, type ReactElement } from "react";
import { Link, useParams } from "react-router";

import { api, data } from "../../api/client";
import type { components } from "../../api/schema.generated";
import { APPLIANCES } from "../../app/facts.generated";
import { currentUnits } from "../../app/units";
import { dayLong } from "../../app/when";
import { NumberField } from "../../ui/fields";
import { Trouble, Waiting } from "../../ui/Trouble";
import { Printed } from "./Printed";
import { spoken, say } from "../../app/language";

type Schema = components["schemas"];
type Water = Omit<Schema["ApplianceWater"], "sets" | "worth"> & {
  sets: string[][];
  worth: string[][];
};
type Card = Omit<Schema["ApplianceCard"], "waters"> & { waters: Water[] };
type Kind = Card["kind"];
type Told = Record<string, number>;

/** What the household may say of each, in the order one asks. */
const DOSES: [key: string, label: string, unit: string][] = spoken([
  ["dose_here", "Dose, this water", "mL"],
  ["dose_soft", "Dose, soft water", "mL"],
  ["dose_price", "Detergent costs", "a liter"],
]);
const ASKS: Record<Kind, [key: string, label: string, unit: string][]> = spoken({
  dishwasher: [
    ["uses_year", "Runs", "times a year"],
    ["litres", "Water each time", "L"],
    ["salt_kg", "Salt it takes", "kg a year"],
    ["salt_price", "Its salt costs", "a kg"],
    ...DOSES,
  ],
  washing_machine: [["uses_year", "Runs", "times a year"], ...DOSES],
  coffee_machine: [["litres", "Heated", "L a day"]],
  water_heater: [["litres", "Heated", "L a day"]],
});

const isKind = (kind: string): kind is Kind => kind in APPLIANCES;

function Lines({ lines }: { lines: string[][] }): ReactElement {
  return (
    <dl>
      {lines.map(([what, how]) => (
        <div key={what} className="grid grid-cols-[190px_1fr] gap-4 border-b border-rule py-2">
          <dt className="text-ink-2">{what}</dt>
          <dd className="m-0 font-semibold">{how}</dd>
        </div>
      ))}
    </dl>
  );
}

function OnWater({ water }: { water: Water }): ReactElement {
  return (
    <section aria-label={water.name}>
      <h2 className="text-[20px] mb-1">
        {water.name} <span className="font-normal text-m text-ink-2">{water.hardness}</span>
      </h2>
      <Lines lines={[...water.sets, ...water.worth]} />
    </section>
  );
}

function Sheet({ card }: { card: Card }): ReactElement {
  return (
    <article className="grid gap-6 bg-paper" data-card={card.kind}>
      <header className="border-b-2 border-ink pb-2">
        <h1>
          {card.name}, {card.home}
        </h1>
        <p className="text-m text-ink-2">
          {[card.place, dayLong(card.made_at), card.by, card.firm].filter(Boolean).join(", ")}
        </p>
      </header>
      {card.waters.map((w) => (
        <OnWater key={w.name} water={w} />
      ))}
      <p className="text-m border-t border-rule pt-2">
        {say(
          "{honest} Counted with {source}, unless the household said otherwise; a powder’s " +
            "grams are typed as mL, its kilogram as a liter.",
          { honest: card.honest, source: card.source },
        )}
      </p>
    </article>
  );
}

/** What is told with one figure more, or without it. */
function said(told: Told, key: string, n: number | null): Told {
  const others = Object.entries(told).filter(([k]) => k !== key);
  return Object.fromEntries(n === null ? others : [...others, [key, n]]);
}

function Asked({
  kind,
  told,
  tell,
}: {
  kind: Kind;
  told: Told;
  tell: (t: Told) => void;
}): ReactElement {
  const usual: Told = {
    uses_year: APPLIANCES[kind]?.uses ?? 0,
    litres: APPLIANCES[kind]?.litres ?? 0,
  };
  return (
    <section className="print:hidden mb-6" aria-label={say("What the household says")}>
      <div
        className={
          "grid grid-cols-[repeat(auto-fill,minmax(165px,1fr))] gap-x-5 gap-y-4 items-start"
        }
      >
        {ASKS[kind].map(([key, label, unit]) => (
          <NumberField
            key={key}
            label={label}
            unit={unit}
            value={told[key] ?? usual[key] ?? null}
            onCommit={(n) => tell(said(told, key, n))}
          />
        ))}
      </div>
    </section>
  );
}

function Choose({ id, kind }: { id: string; kind: Kind }): ReactElement {
  return (
    <nav className="print:hidden flex gap-2 flex-wrap mb-5" aria-label={say("Appliance")}>
      {Object.entries(APPLIANCES).map(([k, a]) => (
        <Link
          key={k}
          className="key"
          replace
          aria-current={k === kind ? "page" : undefined}
          style={k === kind ? { background: "var(--yuzu)", color: "var(--on-yuzu)" } : undefined}
          to={`/visits/${id}/appliances/${k}`}
        >
          {a.name}
        </Link>
      ))}
    </nav>
  );
}

function Made({ id, kind }: { id: string; kind: Kind }): ReactElement {
  const [told, tell] = useState<Told>({});
  const card = useQuery({
    queryKey: ["visit", id, "appliance", kind, told],
    queryFn: () =>
      data(
        api.GET("/api/visits/{id}/appliances/{kind}", {
          params: { path: { id, kind }, query: { ...told, ...currentUnits() } },
        }),
      ),
    placeholderData: keepPreviousData,
  });
  return (
    <Printed
      title={say("One appliance")}
      sub={card.data?.home ?? ""}
      back={`/visits/${id}/meaning`}
    >
      <Choose id={id} kind={kind} />
      <Asked kind={kind} told={told} tell={tell} />
      {card.isPending && <Waiting what={say("Writing the card.")} />}
      <Trouble error={card.error} again={() => void card.refetch()} />
      {card.data && !card.error && <Sheet card={card.data} />}
    </Printed>
  );
}

export function Appliance(): ReactElement {
  const { id = "", kind = "" } = useParams();
  const shown = isKind(kind) ? kind : "dishwasher";
  return <Made key={shown} id={id} kind={shown} />;
}

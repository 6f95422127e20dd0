/** A card to leave on the refrigerator: one printed page of readings, settings and what is next. */
import { useQuery } from "@tanstack/react-query";
import type { ReactElement } from "react";
import { useParams } from "react-router";

import { api, data } from "../../api/client";
import type { components } from "../../api/schema.generated";
import { currentUnits } from "../../app/units";
import { StateMark } from "../../ui/marks";
import { Trouble, Waiting } from "../../ui/Trouble";
import { dayLong } from "../../app/when";
import { Printed } from "./Printed";
import { say } from "../../app/language";

type Card = Omit<components["schemas"]["WaterCard"], "settings"> & { settings: string[][] };

function Lines({ title, lines }: { title: string; lines: string[] }): ReactElement | null {
  if (lines.length === 0) return null;
  return (
    <section>
      <h2 className="text-[20px] mb-1">{title}</h2>
      <ul className="list-disc pl-6">
        {lines.map((t) => (
          <li key={t} className="mb-1">
            {t}
          </li>
        ))}
      </ul>
    </section>
  );
}

function Readings({ card }: { card: Card }): ReactElement {
  return (
    <section>
      <h2 className="text-[20px] mb-1">{say("What was read")}</h2>
      <table className="w-full">
        <tbody>
          {card.readings.map((r) => (
            <tr key={r.name} className="border-b border-rule align-top">
              <th scope="row" className="text-left font-normal py-1 pr-3 w-[170px]">
                <span className="flex gap-2 items-center">
                  <StateMark
                    kind={r.asks ? "no" : "done"}
                    size={15}
                    label={r.asks ? say("asks for something") : say("nothing to do")}
                  />
                  {r.name}
                </span>
              </th>
              <td className="py-1 pr-3 whitespace-nowrap">
                <b className="num">{r.shown}</b>
                {r.span !== r.shown && <span className="block text-s text-ink-2">{r.span}</span>}
              </td>
              <td className="py-1 text-m">{r.sentence}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function Sheet({ card }: { card: Card }): ReactElement {
  const day = dayLong(card.made_at);
  return (
    <article className="grid gap-5 bg-paper" data-card="">
      <header className="border-b-2 border-ink pb-2">
        <h1>{say("The water of {home}", { home: card.home })}</h1>
        <p className="text-m text-ink-2">
          {[card.place, day, card.by, card.firm].filter(Boolean).join(", ")}
        </p>
      </header>
      <Lines title={say("Until then")} lines={card.tonight} />
      <Readings card={card} />
      {card.settings.length > 0 && (
        <section>
          <h2 className="text-[20px] mb-1">{say("What to set")}</h2>
          <dl>
            {card.settings.map(([what, how]) => (
              <div key={what} className="flex justify-between gap-4 border-b border-rule py-1">
                <dt>{what}</dt>
                <dd className="m-0 font-semibold text-right">{how}</dd>
              </div>
            ))}
          </dl>
        </section>
      )}
      <Lines title={say("What is next")} lines={card.next} />
      {card.untested.length > 0 && (
        <p className="text-m">{say("Not tested: {x}.", { x: card.untested.join(", ") })}</p>
      )}
      <p className="text-m border-t border-rule pt-2">{card.honest}</p>
    </article>
  );
}

export function WaterCard(): ReactElement {
  const id = useParams().id ?? "";
  const card = useQuery({
    queryKey: ["visit", id, "card"],
    queryFn: () =>
      data(api.GET("/api/visits/{id}/card", { params: { path: { id }, query: currentUnits() } })),
  });
  return (
    <Printed title={say("Water card")} sub={card.data?.home ?? ""} back={`/visits/${id}/meaning`}>
      {card.isPending && <Waiting what={say("Writing the card.")} />}
      <Trouble error={card.error} again={() => void card.refetch()} />
      {card.data && <Sheet card={card.data} />}
    </Printed>
  );
}

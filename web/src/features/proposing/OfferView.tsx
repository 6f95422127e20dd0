/** What a proposal holds, drawn from its snapshot alone: nothing on it changes when prices do. */
import { type ReactElement } from "react";

import type { Offer } from "../../api/types";
import { midSentence } from "../../app/names";
import { atOnce } from "../../app/show";
import { Glass } from "../../glass/Glass";
import { look } from "../../glass/look";
import { STATUS_MARK, StateMark } from "../../ui/marks";
import { EvidenceMark, MeetsMark, RangeBar } from "../comparing/pictures";
import { Waste } from "./OfferMoney";
import {
  AllItCosts,
  HealthFirst,
  Letter,
  OfferHead,
  OfferedReadings,
  PartsFrom,
  StaysUnknown,
  FirstSteps,
  Tonight,
  WarrantyAndCancel,
  YearsWork,
  rawOf,
} from "./OfferSections";
import { message, say } from "../../app/language";

function Options({ offer }: { offer: Offer }): ReactElement {
  const raw = rawOf(offer);
  return (
    <div className="grid grid-cols-[repeat(auto-fill,minmax(220px,1fr))] gap-6">
      {offer.options.map((o, i) => {
        const house = o.stages.some((s) => s.scope === "house")
          ? look(o.house, { ferric: o.ferric_house, predicted: true })
          : raw;
        const tap = o.stages.some((s) => s.scope === "tap")
          ? look(o.tap, { ferric: o.ferric_tap, predicted: true })
          : null;
        const on = o.id === offer.recommended;
        return (
          <div key={o.id} className={on ? "bg-yuzu-pale p-3 -m-3" : ""}>
            <div className="flex items-end gap-1 h-[120px]">
              <Glass
                look={house}
                h={104}
                label={say("{name}, house", { name: o.name })}
                pick={on && !tap ? 1 : 0}
              />
              {tap && (
                <Glass
                  look={tap}
                  h={76}
                  label={say("{name}, drinking tap", { name: o.name })}
                  pick={on ? 1 : 0}
                />
              )}
            </div>
            <h3 className="mt-2">
              {o.letter && `${o.letter}  `}
              {o.name}
              {on && say(" – recommended")}
            </h3>
            <p className="text-m text-ink-2">
              {i === 0
                ? say("nothing bought")
                : atOnce(
                    Number(o.price) + Number(o.installation),
                    Number(o.per_month),
                    offer.currency,
                  )}
            </p>
            <ul className="text-m mt-1">
              {o.stages.map((s) => (
                <li key={s.code}>{s.name}</li>
              ))}
            </ul>
          </div>
        );
      })}
    </div>
  );
}

function Found({ offer }: { offer: Offer }): ReactElement {
  return (
    <div
      className="overflow-x-auto"
      tabIndex={0}
      role="group"
      aria-label={say("What each does to your water")}
    >
      <table className="w-full text-m border-collapse min-w-[560px]">
        <thead>
          <tr className="text-left border-b-[1.5px] border-ink">
            <th className="py-2 pr-3">{say("Found")}</th>
            {offer.options.map((o, i) => (
              <th key={o.id} className="py-2 pr-3">
                {i === 0 ? say("Today") : `${o.letter} ${o.name}`}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {offer.rows.map((r) => (
            <tr key={r.analyte} className="border-b border-rule align-top">
              <th className="text-left py-2 pr-3 font-normal">
                {r.complaints.length ? (
                  r.complaints.map((q) => (
                    <b key={q} className="block">
                      “{q}”
                    </b>
                  ))
                ) : (
                  <b>{r.name}</b>
                )}
                <span className="block text-s text-ink-2">
                  {r.complaints.length ? `${midSentence(r.name)}${r.target_words ? ", " : ""}` : ""}
                  {r.target_words}
                </span>
              </th>
              {offer.options.map((o) => {
                const c = r.cells.find((x) => x.option === o.id);
                if (!c) return <td key={o.id} />;
                return (
                  <td key={o.id} className="py-2 pr-3">
                    <span className="flex gap-[6px] items-center">
                      <MeetsMark cell={c} />
                      <span className={c.change === "stays" ? "text-ink-2" : "font-semibold"}>
                        {c.change === "stays" ? say("stays {shown}", { shown: c.shown }) : c.shown}
                      </span>
                    </span>
                    <RangeBar row={r} cell={c} today={r.cells[0]} />
                    {c.evidence && c.change !== "today" && (
                      <span className="flex gap-1 items-center text-s text-ink-2">
                        <EvidenceMark level={c.level} />
                        {c.evidence}
                        {!c.established && say(", not proven")}
                      </span>
                    )}
                    {!c.evidence && !c.established && c.note !== "" && (
                      <span className="block text-s text-zest-ink">{c.note}</span>
                    )}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

const HOW: Record<string, string> = {
  stop: message("Cannot work."),
  unknown: message("Not known."),
  warn: "",
};

/** Every stop, warning and unknown of the recommended line, each with its remedy. */
function BeforeSigning({ offer }: { offer: Offer }): ReactElement | null {
  if (offer.before_signing.length === 0) return null;
  return (
    <>
      <h2 className="mb-2">{say("Before you sign")}</h2>
      <ul className="mb-6">
        {offer.before_signing.map((k) => (
          <li
            key={k.stage + k.sentence}
            className="flex gap-3 items-start border-b border-rule py-2"
          >
            <StateMark kind={STATUS_MARK[k.status] ?? "say"} size={18} />
            <span>
              <b>{k.stage}:</b> {say(HOW[k.status] ?? "")} {k.sentence}
              {k.answer !== "" && (
                <span className="block">
                  <b>{say("Answered:")}</b> {k.answer}
                </span>
              )}
            </span>
          </li>
        ))}
      </ul>
    </>
  );
}

export function OfferView({ offer }: { offer: Offer }): ReactElement {
  const chosen = offer.options.find((o) => o.id === offer.recommended);
  return (
    <article className="max-w-[1040px] mx-auto grid grid-cols-[minmax(0,1fr)] gap-9 py-4">
      <OfferHead offer={offer} chosen={chosen} />
      <HealthFirst offer={offer} />
      <Letter offer={offer} />
      <Tonight offer={offer} />
      <FirstSteps offer={offer} />
      <section>
        <h2 className="mb-4">{say("What was compared")}</h2>
        <Options offer={offer} />
      </section>
      <section>
        <h2 className="mb-2">{say("What each does to your water")}</h2>
        <Found offer={offer} />
        {chosen && chosen.left.length > 0 && (
          <p className="mt-3">
            <b>{say("What the recommended system does not do:")}</b> {chosen.left.join("; ")}.
          </p>
        )}
      </section>
      <section>
        <h2 className="mb-3">{say("Wastewater in a year")}</h2>
        <div className="grid grid-cols-[repeat(auto-fill,minmax(200px,1fr))] gap-6">
          {offer.options.map((o) => (
            <Waste key={o.id} o={o} offer={offer} />
          ))}
        </div>
      </section>
      <AllItCosts offer={offer} />
      <YearsWork chosen={chosen} />
      <PartsFrom offer={offer} />
      <OfferedReadings offer={offer} />
      <StaysUnknown offer={offer} chosen={chosen} />
      <section>
        <BeforeSigning offer={offer} />
        <h2 className="mb-2">{say("Cautions and local code")}</h2>
        <ul className="list-disc pl-6">
          {offer.cautions.map((c) => (
            <li key={c}>{c}</li>
          ))}
          {offer.local_rules && <li>{offer.local_rules}</li>}
        </ul>
      </section>
      <WarrantyAndCancel offer={offer} chosen={chosen} />
    </article>
  );
}

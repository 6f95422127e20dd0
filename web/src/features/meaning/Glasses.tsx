/** What every glass beside the raw one says: in, out, taken out, and whether it is as claimed. */
import type { ReactElement } from "react";

import type { GlassMeaning } from "../../api/types";
import { listed } from "../../app/names";
import { Fold } from "../../ui/Fold";
import { StateMark, type Mark } from "../../ui/marks";
import { useVisitContext } from "../visit/context";
import { say } from "../../app/language";

const MARK: Record<string, Mark> = {
  as_claimed: "done",
  below: "no",
  too_old: "no",
  past_life: "say",
  not_flushed: "unk",
  not_told: "unk",
  no_claim: "say",
};
type Row = GlassMeaning["rows"][number];

function Verdict({ r }: { r: Row }): ReactElement {
  return (
    <>
      {r.verdict !== "" && (
        <span className="flex gap-2 items-start">
          <StateMark kind={MARK[r.verdict] ?? "say"} size={16} />
          {r.words}
        </span>
      )}
      {r.claim !== "" && (
        <span className="block text-s text-ink-2">
          {say("claimed: {claim}", { claim: r.claim })}
        </span>
      )}
    </>
  );
}

/** A cell; on a phone the figures of a row run on in one line. */
const CELL = "py-1 pr-4 max-[699px]:inline max-[699px]:p-0 max-[699px]:pr-2";

/** Its tests against the raw water; on a phone the words stand under the figures. */
function Tests({ g }: { g: GlassMeaning }): ReactElement {
  const judged = g.rows.some((r) => r.words !== "" || r.claim !== "");
  return (
    <div className="overflow-x-auto">
      <table className="text-m w-full border-collapse">
        <thead className="max-[699px]:sr-only">
          <tr className="text-left border-b-[1.5px] border-ink">
            <th className="py-1 pr-4">{say("Test")}</th>
            <th className="py-1 pr-4 text-right">{say("Raw")}</th>
            <th className="py-1 pr-4 text-right">{say("This glass")}</th>
            <th className="py-1 pr-4">{say("Difference")}</th>
            {judged && <th className="py-1">{say("Against its claim")}</th>}
          </tr>
        </thead>
        <tbody>
          {g.rows.map((r) => (
            <tr
              key={r.analyte}
              className="border-b border-rule align-top max-[699px]:block max-[699px]:py-1"
            >
              <th
                scope="row"
                className="py-1 pr-4 text-left font-normal max-[699px]:block max-[699px]:py-0"
              >
                {r.name}
              </th>
              <td className={`${CELL} text-right whitespace-nowrap`}>
                {r.into}
                <span className="min-[700px]:hidden"> {say("raw, here")}</span>
              </td>
              <td className={`${CELL} text-right whitespace-nowrap font-semibold`}>{r.out}</td>
              <td className={CELL}>{r.change}</td>
              {judged && (
                <td className="py-1 max-[699px]:block max-[699px]:py-0">
                  <Verdict r={r} />
                </td>
              )}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Card({ g, first }: { g: GlassMeaning; first: boolean }): ReactElement {
  return (
    <Fold
      className="border-b border-rule py-1"
      open={first}
      title={g.name}
      sub={listed(
        g.what === g.name.toLowerCase() ? "" : g.what,
        g.over.length > 0 ? say("{length} over a limit", { length: g.over.length }) : "",
      )}
    >
      {g.over.length > 0 && (
        <ul className="text-m mb-2" aria-label={say("{name}: over a limit", { name: g.name })}>
          {g.over.map((t) => (
            <li key={t} className="flex gap-2 items-start">
              <StateMark kind="no" size={17} />
              {t}
            </li>
          ))}
        </ul>
      )}
      <Tests g={g} />
      {g.facts.length > 0 && (
        <ul className="text-m list-disc pl-6 my-2">
          {g.facts.map((t) => (
            <li key={t}>{t}</li>
          ))}
        </ul>
      )}
    </Fold>
  );
}

/** The picked glass is open; the others are a touch away. */
export function Glasses(): ReactElement | null {
  const { view, picked } = useVisitContext();
  const { glasses } = view.assessment;
  if (glasses.length === 0) return null;
  const own = glasses.some((g) => g.sample === picked?.id);
  return (
    <section aria-label={say("Each glass")} className="mb-5">
      <h2 className="mb-1">{say("Each glass, against the raw water")}</h2>
      {glasses.map((g, i) => {
        const first = own ? g.sample === picked?.id : i === 0;
        return <Card key={`${g.sample}${first}`} g={g} first={first} />;
      })}
    </section>
  );
}

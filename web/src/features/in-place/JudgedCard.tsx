/**
 * One piece of equipment in place: what it was judged by, what follows, and what can be held
 * against buying.
 */
import type { ReactElement } from "react";

import type { Judged } from "../../api/types";
import { Opens } from "../../ui/Slip";
import { StateMark, type Mark } from "../../ui/marks";
import { spoken, say } from "../../app/language";

export const VERDICTS: Record<string, [words: string, mark: Mark]> = spoken({
  keep: ["Keep it", "done"],
  service: ["Service it", "say"],
  set_right: ["Set it right", "say"],
  replace: ["Replace it", "no"],
  not_judged: ["Not judged yet", "unk"],
});
export const WAY_WORDS: Record<string, string> = spoken({
  keep: "Keep",
  service: "Service",
  set_right: "Set right",
});

function Table({ j }: { j: Judged }): ReactElement {
  return (
    <>
      <ul className="text-m">
        {j.facts.map((f) => (
          <li key={f} className="py-1 border-b border-rule">
            {f}
          </li>
        ))}
      </ul>
      <table className="text-m w-full mt-3">
        <caption className="text-left font-semibold">
          {say("Behind it, against the raw water")}
        </caption>
        <tbody>
          {j.pairs.map((p) => (
            <tr key={p.analyte} className="border-b border-rule">
              <th scope="row" className="text-left font-normal py-1">
                {p.name}
              </th>
              <td className="text-right font-semibold">{p.sentence}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {j.pairs.length === 0 && (
        <p className="text-m text-ink-2">{say("Nothing was measured behind it.")}</p>
      )}
    </>
  );
}

export function JudgedCard({
  j,
  currency,
  children,
}: {
  j: Judged;
  currency: string;
  children?: ReactElement | ReactElement[] | null;
}): ReactElement {
  const [words, mark] = VERDICTS[j.verdict] ?? ["", "say"];
  return (
    <li className="border-b border-rule py-3" data-verdict={j.verdict}>
      <div className="flex gap-3 items-start">
        <span className="pt-[3px]">
          <StateMark kind={mark} size={20} label={words} />
        </span>
        <div className="flex-1 min-w-0">
          <p>
            <b className="font-d text-l">{j.name}</b>
            <b className="text-s bg-yuzu-pale px-2 ml-2">{words}</b>
          </p>
          <p className="text-m">{j.advice}</p>
          <p className="text-s text-ink-2">
            {j.facts[0]}
            {j.cost_year != null &&
              say(" {currency}{cost_year} a year.", {
                currency,
                cost_year: Math.round(Number(j.cost_year)),
              })}
          </p>
        </div>
        <Opens title={j.name} slip={<Table j={j} />} className="text-m">
          {say("judged by")}
        </Opens>
      </div>
      {children != null && <div className="flex gap-2 flex-wrap mt-2 pl-8">{children}</div>}
    </li>
  );
}

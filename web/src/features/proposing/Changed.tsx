/** What changed since the revision before, side by side. */
import type { ReactElement } from "react";

import type { components } from "../../api/schema.generated";
import { say } from "../../app/language";

type Difference = components["schemas"]["Difference"];

export function Changed({ lines }: { lines: readonly Difference[] }): ReactElement | null {
  if (lines.length === 0) return null;
  return (
    <details className="max-w-[1040px] mx-auto my-4" open>
      <summary className="min-h-11 flex items-center font-d font-[640] text-[22px] cursor-pointer">
        {say("What changed since the revision before")}
      </summary>
      <div className="overflow-x-auto">
        <table className="w-full text-m">
          <thead>
            <tr className="text-left border-b-[1.5px] border-ink">
              <th className="py-2 pr-4">{say("What")}</th>
              <th className="pr-4">{say("Before")}</th>
              <th>{say("Now")}</th>
            </tr>
          </thead>
          <tbody>
            {lines.map((c) => (
              <tr key={c.what} className="border-b border-rule align-top">
                <th scope="row" className="text-left py-2 pr-4 font-semibold">
                  {c.what}
                </th>
                <td className="pr-4 text-ink-2">{c.before}</td>
                <td>{c.after}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </details>
  );
}

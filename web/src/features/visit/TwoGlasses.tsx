/** Two glasses side by side: every test of either, and what the difference shows. */
import { useQuery } from "@tanstack/react-query";
import type { ReactElement } from "react";

import { api, data } from "../../api/client";
import { best, between } from "../../app/show";
import { Glass } from "../../glass/Glass";
import { Trouble } from "../../ui/Trouble";
import { useVisitContext } from "./context";
import { say } from "../../app/language";

export function TwoGlasses(): ReactElement | null {
  const { id, picked, second, lookOf, valuesOf, units, beside } = useVisitContext();
  const [first, other] = [picked?.id ?? "", second?.id ?? ""];
  const pairs = useQuery({
    queryKey: ["visit", id, "pair", first, other],
    enabled: first !== "" && other !== "",
    queryFn: () =>
      data(
        api.GET("/api/visits/{id}/pair", {
          params: { path: { id }, query: { first, second: other } },
        }),
      ),
  });
  if (!picked || !second) return null;
  const [a, b] = [valuesOf(picked), valuesOf(second)];
  return (
    <section className="pt-2 pb-6 pr-3" aria-labelledby="two-title">
      <div className="flex justify-between items-center mb-3">
        <h1 id="two-title">
          {say("{name} and {name2}", { name: picked.name, name2: second.name })}
        </h1>
        <button className="key" onClick={() => beside(second.id)}>
          {say("Back to one glass")}
        </button>
      </div>
      <div className="flex gap-10 items-end mb-4">
        <Glass look={lookOf(picked)} h={190} label={picked.name} pick={1} />
        <Glass look={lookOf(second)} h={190} label={second.name} pick={2} />
      </div>
      <Trouble error={pairs.error} again={() => void pairs.refetch()} />
      <table className="w-full max-w-[900px] text-b">
        <thead>
          <tr className="text-left border-b-[1.5px] border-ink">
            <th className="py-1">{say("Test")}</th>
            <th>{picked.name}</th>
            <th>{second.name}</th>
            <th>{say("What it shows")}</th>
          </tr>
        </thead>
        <tbody>
          {(pairs.data ?? []).map((p) => (
            <tr key={p.analyte} className="border-b border-rule">
              <td className="py-2">{p.name}</td>
              {[a[p.analyte], b[p.analyte]].map((v, i) => (
                <td key={i}>
                  {v ? (
                    <>
                      <b>{best(p.analyte, v, units)}</b>
                      {v.range && (
                        <span className="block text-s text-ink-2">
                          {say("between {analyte}", {
                            analyte: between(p.analyte, v.range, units),
                          })}
                        </span>
                      )}
                    </>
                  ) : (
                    <span className="text-ink-3">{say("not tested")}</span>
                  )}
                </td>
              ))}
              <td className="text-ink-2">{p.sentence}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

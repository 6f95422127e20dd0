/**
 * What every step and every view facing the customer works on, from the visit and the glasses named
 * in the address.
 */
import { useMemo } from "react";
import { useSearchParams } from "react-router";

import { useQueue } from "../../api/queue";
import type { Reading, Sample, Value, VisitView } from "../../api/types";
import { EMPTY, look, type Look } from "../../glass/look";
import type { VisitContext } from "./context";

export function useContextOf(id: string, view: VisitView | undefined): VisitContext | null {
  const [search, setSearch] = useSearchParams();
  const glass = search.get("glass");
  const other = search.get("with");
  const queue = useQueue();
  return useMemo(() => {
    if (!view) return null;
    const samples = view.visit.samples;
    const reports = new Map(view.assessment.samples.map((s) => [s.id, s]));
    const picked =
      samples.find((s) => s.id === glass) ?? samples.find((s) => s.raw) ?? samples[0] ?? null;
    const second = samples.find((s) => s.id === other && s.id !== picked?.id) ?? null;
    const scale = view.assessment.meaning?.scale?.at_heater.best ?? null;
    const valuesOf = (s: Sample): Record<string, Value> => reports.get(s.id)?.water.values ?? {};
    const lookOf = (s: Sample): Look => {
      if (queue.waiting.length && !reports.has(s.id)) return EMPTY;
      const cups = reports.get(s.id)?.water.cups;
      const seen = cups ? cups.drawn === "coloured" : null;
      const ferric = s.draw === "stood" ? true : seen;
      return look(valuesOf(s), { ferric, scale: s.raw ? scale : null });
    };
    const readingsOf = (s: Sample): Reading[] => {
      const mine = queue.waiting
        .filter((w) => w.visit === id && w.sample === s.id)
        .map((w) => w.reading);
      return [...s.readings.filter((r) => !mine.some((m) => m.id === r.id)), ...mine];
    };
    const pick = (sample: string): void => {
      setSearch(
        (p) => {
          const next = new URLSearchParams(p);
          next.set("glass", sample);
          next.delete("with");
          return next;
        },
        { replace: true },
      );
    };
    const beside = (sample: string): void => {
      setSearch(
        (p) => {
          const next = new URLSearchParams(p);
          if (next.get("with") === sample) next.delete("with");
          else next.set("with", sample);
          return next;
        },
        { replace: true },
      );
    };
    return {
      id,
      view,
      units: view.visit.settings.units,
      picked,
      second,
      pick,
      beside,
      lookOf,
      valuesOf,
      readingsOf,
    };
  }, [id, view, glass, other, setSearch, queue.waiting]);
}

/** The reading of a glass that a station shows: the last one that is not struck, and its report. */
import type { Reading, Sample, VisitView } from "../../api/types";
import { useVisitContext } from "../visit/context";

export type Report = VisitView["assessment"]["samples"][number]["readings"][number];

export interface Kept {
  reading: Reading | null;
  /** What the server made of it; null while it has not answered. */
  report: Report | null;
}

export function useKept(sample: Sample, is: (r: Reading) => boolean): Kept {
  const { view, readingsOf } = useVisitContext();
  const reading =
    [...readingsOf(sample)].reverse().find((r) => r.struck_at == null && is(r)) ?? null;
  const told = view.assessment.samples.find((s) => s.id === sample.id)?.readings;
  return { reading, report: told?.find((r) => r.id === reading?.id) ?? null };
}

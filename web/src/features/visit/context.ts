/** What every step of a visit works on. */
import { createContext, useContext } from "react";

import type { Reading, Sample, Value, VisitView } from "../../api/types";
import type { Look } from "../../glass/look";
import { say } from "../../app/language";

export interface VisitContext {
  id: string;
  view: VisitView;
  units: string;
  /** The glass picked first, and the second one when two are compared. */
  picked: Sample | null;
  second: Sample | null;
  pick: (sample: string) => void;
  /** Pick a second glass to compare, or put it back. */
  beside: (sample: string) => void;
  lookOf: (sample: Sample) => Look;
  valuesOf: (sample: Sample) => Record<string, Value>;
  /** Readings of a sample, those still on their way to the server included. */
  readingsOf: (sample: Sample) => Reading[];
}

export const Context = createContext<VisitContext | null>(null);

export function useVisitContext(): VisitContext {
  const c = useContext(Context);
  if (!c) throw new Error(say("outside a visit"));
  return c;
}

/** Names of analytes, for lists. */
import { ANALYTE_NAMES } from "../../app/facts.generated";
import { say } from "../../app/language";

export const NAMES: Record<string, string> = ANALYTE_NAMES;

/** Where a promise is judged, in words. */
export const placeOf = (p: { where: string }): string =>
  p.where === "tap" ? say("drinking tap") : "house";

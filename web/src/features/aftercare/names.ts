/** Names of analytes, for lists. */
import { ANALYTE_NAMES } from "../../app/facts.generated";

export const NAMES: Record<string, string> = ANALYTE_NAMES;

/** Equipment in place within a line, in words. */
import type { Judged, Option, VisitView } from "../../api/types";
import { midSentence } from "../../app/names";
import { say } from "../../app/language";

export function keptNames(option: Option, view: VisitView): string {
  const judged = view.assessment.in_place;
  return option.keeps
    .map((k) => midSentence(judged.find((j) => j.id === k.device)?.name ?? say("what is gone")))
    .join(", ");
}

/** What is judged of a stage that stands there already; null for what is bought. */
export function judgedOf(code: string, view: VisitView): Judged | null {
  if (!code.startsWith("in-place:")) return null;
  const id = code.split(":").slice(1, -1).join(":");
  return view.assessment.in_place.find((j) => j.id === id) ?? null;
}

/** The reasons of a proposal: drafted by the tool, or in one's own words of before. */
import { useQuery } from "@tanstack/react-query";
import { useState, type ReactElement } from "react";

import { api, data } from "../../api/client";
import type { components } from "../../api/schema.generated";
import { say } from "../../app/language";

type Difference = components["schemas"]["Difference"];

interface Drafted {
  text: string;
  type: (t: string) => void;
  error: Error | null;
  /** What changed since one's own words were written, where they are used again. */
  changes: readonly Difference[];
  fresh: string;
}

/** The reasons: as they were typed, in one's own words of before, or as the tool drafts them. */
export function useReasons(id: string, recommended: string): Drafted {
  const [own, setOwn] = useState<{ for: string; text: string } | null>(null);
  const draft = useQuery({
    queryKey: ["visit", id, "draft", recommended],
    enabled: recommended !== "",
    queryFn: () =>
      data(api.GET("/api/visits/{id}/draft", { params: { path: { id }, query: { recommended } } })),
  });
  const fresh = draft.data?.reasons ?? "";
  const before = draft.data?.own ?? "";
  const text = own && own.for === recommended ? own.text : before || fresh;
  return {
    text,
    type: (t) => setOwn({ for: recommended, text: t }),
    error: draft.error,
    changes: before !== "" && text === before ? (draft.data?.changes ?? []) : [],
    fresh,
  };
}

/** One's own words of the revision before, with what may no longer fit. */
export function NoLongerFits({ reasons }: { reasons: Drafted }): ReactElement | null {
  if (reasons.changes.length === 0) return null;
  return (
    <section className="border-[2.5px] border-zest bg-slip p-4 mb-4">
      <h2>{say("Do these reasons still fit?")}</h2>
      <p className="text-m text-ink-2">
        {say("They are your words of the revision before. Since then this changed:")}
      </p>
      <ul className="list-disc pl-5 text-b my-2">
        {reasons.changes.map((c) => (
          <li key={c.what + c.before + c.after}>
            <b>{c.what}:</b> {c.before} → {c.after}
          </li>
        ))}
      </ul>
      <button className="key" onClick={() => reasons.type(reasons.fresh)}>
        {say("Begin with a new draft")}
      </button>
    </section>
  );
}

export function Reasons({
  text,
  onText,
}: {
  text: string;
  onText: (t: string) => void;
}): ReactElement {
  return (
    <label className="field">
      <span>
        {say("The letter")}{" "}
        <span className="font-normal text-ink-2">{say("(a draft; change what you like)")}</span>
      </span>
      <textarea
        className="input"
        style={{ minHeight: 300, fontSize: 16, lineHeight: 1.5 }}
        maxLength={8000}
        value={text}
        onChange={(e) => onText(e.target.value)}
      />
    </label>
  );
}

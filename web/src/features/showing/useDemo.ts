/**
 * The demonstration of a kind that this visit holds last: what was made, what it shows, and a way
 * to keep what is added.
 */
import { useRef } from "react";

import { useKeepDemonstration } from "../../api/hooks";
import type { DemoBody, Demonstration, DemoShown, VisitView } from "../../api/types";
import { newId } from "../../app/names";
import { useVisitContext } from "../visit/context";
import { useAhead } from "../visit/useAhead";

export type BodyOf<K extends DemoBody["kind"]> = Extract<DemoBody, { kind: K }>;

/** The demonstration of a kind that was made last and was not struck. */
export function lastShown(view: VisitView, kind: string): Demonstration | null {
  const standing = view.visit.demonstrations.filter((d) => !d.struck_at && d.body.kind === kind);
  return standing.at(-1) ?? null;
}

interface Demo<K extends DemoBody["kind"]> {
  body: BodyOf<K> | null;
  made: Demonstration | null;
  shown: DemoShown | null;
  simulated: boolean;
  error: unknown;
  /** Keep a change of this one. */
  save: (body: BodyOf<K>, simulated?: boolean) => void;
  /** Begin a new one; the old stays on record. */
  begin: (body: BodyOf<K>, simulated?: boolean) => void;
}

export function useDemo<K extends DemoBody["kind"]>(kind: K): Demo<K> {
  const { id, view } = useVisitContext();
  const keep = useKeepDemonstration(id);
  const ahead = useAhead<Demonstration>((made) => view.versions[made.id] ?? 0);
  // one change is sent at a time, the latest last: quick touches neither overtake each other nor
  // get lost
  const latest = useRef<Demonstration | null>(null);
  const sending = useRef(false);
  const versions = useRef(new Map<string, number>());
  const stored = lastShown(view, kind);
  const made = ahead.value ?? stored;
  const flush = async (): Promise<void> => {
    sending.current = true;
    try {
      for (
        let next = latest.current;
        next;
        next = latest.current === next ? null : latest.current
      ) {
        const known = [versions.current.get(next.id), view.versions[next.id]].filter(
          (v) => v !== undefined,
        );
        const version = known.length ? Math.max(...known) : undefined;
        const saved = await keep.mutateAsync({
          made: next,
          ...(version === undefined ? {} : { version }),
        });
        versions.current.set(next.id, saved.version);
        ahead.arrived(next, saved.version);
      }
    } catch (e) {
      versions.current.clear(); // the error is shown
      ahead.failed(e);
    } finally {
      sending.current = false;
      latest.current = null;
    }
  };
  const send = (next: Demonstration): void => {
    ahead.goes(next);
    latest.current = next;
    if (!sending.current) void flush();
  };
  const begin = (body: BodyOf<K>, simulated = false): void =>
    send({
      id: newId(),
      made_at: new Date().toISOString(),
      by: view.visit.consultant,
      simulated,
      note: "",
      struck_at: null,
      struck_because: "",
      body,
    });
  const save = (body: BodyOf<K>, simulated?: boolean): void => {
    const from = latest.current ?? made;
    if (from) send({ ...from, body, simulated: simulated ?? from.simulated });
    else begin(body, simulated);
  };
  return {
    body: (made?.body as BodyOf<K> | undefined) ?? null,
    made,
    shown: view.assessment.demonstrations.find((s) => s.id === made?.id) ?? null,
    simulated: made?.simulated ?? false,
    error: keep.error,
    save,
    begin,
  };
}

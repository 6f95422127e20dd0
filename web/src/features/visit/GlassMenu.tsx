/** The glass that is picked: look into it, compare it with another, correct what is written of it. */
import { Popover } from "radix-ui";
import type { ReactElement } from "react";

import { usePutSample } from "../../api/hooks";
import type { Sample } from "../../api/types";
import { IN_PLACE } from "../../app/facts.generated";
import { NumberField, TextField } from "../../ui/fields";
import { Trouble } from "../../ui/Trouble";
import { useVisitContext } from "./context";
import { moment } from "../../app/when";

export function GlassMenu(): ReactElement | null {
  const { id, view, picked, beside } = useVisitContext();
  const put = usePutSample(id);
  if (!picked) return null;
  const save = (part: Partial<Sample>): void =>
    put.mutate({ sample: { ...picked, ...part }, version: view.versions[picked.id] });
  const toggle = (
    name: "raw" | "just_changed" | "past_life" | "treated",
    words: string,
  ): ReactElement => (
    <label className="flex gap-3 items-center min-h-11 text-m">
      <input
        type="checkbox"
        className="w-6 h-6"
        checked={picked[name]}
        disabled={put.isPending}
        onChange={(e) => save({ [name]: e.target.checked })}
      />
      {words}
    </label>
  );
  return (
    <Popover.Root>
      <Popover.Trigger className="key" aria-label={`This glass: ${picked.name}`}>
        <span aria-hidden="true" className="text-[22px] leading-none pb-2">
          …
        </span>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className="slip z-50 max-h-[var(--radix-popover-content-available-height)] overflow-auto p-4 w-[340px] grid gap-2"
          style={{ borderBottom: "1.5px solid var(--ink)" }}
          sideOffset={10}
          collisionPadding={16}
          aria-label={`${picked.name}: what is written of it`}
        >
          <TextField
            label="Name"
            value={picked.name}
            onCommit={(name) => {
              if (name.trim()) save({ name });
            }}
          />
          <p className="text-s text-ink-2">
            Drawn {moment(picked.drawn_at)} by {picked.by || "nobody named"}, {picked.place},{" "}
            {picked.draw}.
          </p>
          {toggle("raw", "Raw: ahead of all treatment")}
          {toggle("treated", "Behind a device")}
          {picked.treated && (
            <TextField
              label="Which device"
              value={picked.after}
              onCommit={(after) => save({ after })}
            />
          )}
          {picked.treated && view.visit.home.in_place.length > 0 && (
            <label className="field">
              <span>It stands there as</span>
              <select
                className="input"
                value={picked.device}
                disabled={put.isPending}
                onChange={(e) => save({ device: e.target.value })}
              >
                <option value="">nothing written down</option>
                {view.visit.home.in_place.map((d) => (
                  <option key={d.id} value={d.id}>
                    {d.name || (IN_PLACE[d.kind]?.name ?? d.kind)}
                  </option>
                ))}
              </select>
            </label>
          )}
          {picked.treated && (
            <NumberField
              label="Flushed before drawing"
              unit="gal"
              max={1000}
              value={picked.flushed_gal ?? null}
              onCommit={(flushed_gal) => save({ flushed_gal })}
            />
          )}
          {picked.treated && toggle("just_changed", "Its filter was just changed, not flushed")}
          {picked.treated && toggle("past_life", "Its filter is past its life")}
          {view.visit.samples.length > 1 && (
            <p className="font-semibold text-m mt-1">Compare with</p>
          )}
          <div className="flex gap-2 flex-wrap">
            {view.visit.samples
              .filter((s) => s.id !== picked.id)
              .map((s) => (
                <Popover.Close key={s.id} asChild>
                  <button
                    className="key"
                    style={{ minHeight: 44, padding: "0 12px", fontSize: 15 }}
                    onClick={() => beside(s.id)}
                  >
                    {s.name}
                  </button>
                </Popover.Close>
              ))}
          </div>
          <Trouble error={put.error} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

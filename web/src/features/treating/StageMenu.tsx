/** A stage's own menu: another size, settings, a move with its reason, out. */
import { Popover } from "radix-ui";
import { useState, type ReactElement } from "react";

import type { Item, Option, StageReport } from "../../api/types";
import { money } from "../../app/show";
import { NumberField, Seg } from "../../ui/fields";
import { KIND_NAMES } from "./kinds";

type Choice = Option["stages"][number];

interface Props {
  stage: StageReport;
  /** The choice of the option it comes from; null inside a system. */
  choice: Choice | null;
  part: string | null;
  index: number;
  last: number;
  /** Its renewal is driven by a clock. */
  clock: boolean;
  /** Items of the same kind that may take its place, the cheapest first. */
  others: Item[];
  currency: string;
  onTake: (item: Item) => void;
  onSwap: () => void;
  onDrop: () => void;
  onChange: (c: Choice) => void;
}

type Fitter = Choice["fitter"];
const FITTERS: { value: Fitter; name: string }[] = [
  { value: "firm", name: "We" },
  { value: "licensed", name: "Licensed" },
  { value: "self", name: "They" },
];

const SETTINGS: Record<
  string,
  [key: string, label: string, unit: string, min: number, max: number][]
> = {
  softener: [
    ["dose_lb_ft3", "Salt dose", "lb/ft³", 3, 20],
    ["clock_days", "Clock, every", "days", 1, 30],
  ],
  uv: [["limiter_gpm", "Fixed flow limiter", "gpm", 0.25, 100]],
};

function numberOf(choice: Choice, key: string): number | null {
  const v = choice.overrides?.[key];
  return typeof v === "number" ? v : null;
}

function Move({
  choice,
  index,
  last,
  onChange,
}: {
  choice: Choice;
  index: number;
  last: number;
  onChange: (c: Choice) => void;
}): ReactElement {
  const [reason, setReason] = useState(choice.reason);
  const to = (position: number): void => onChange({ ...choice, position, reason: reason.trim() });
  return (
    <div className="grid gap-2 border-t border-rule pt-2">
      <label className="field">
        <span>Move it, because</span>
        <input
          className="input"
          value={reason}
          maxLength={200}
          placeholder="why it stands there"
          onChange={(e) => setReason(e.target.value)}
        />
      </label>
      <div className="flex gap-2">
        <Popover.Close asChild>
          <button
            className="key"
            disabled={!reason.trim() || index <= 0}
            onClick={() => to(index - 1)}
          >
            Earlier
          </button>
        </Popover.Close>
        <Popover.Close asChild>
          <button
            className="key"
            disabled={!reason.trim() || index >= last}
            onClick={() => to(index + 1)}
          >
            Later
          </button>
        </Popover.Close>
      </div>
      {choice.position != null && (
        <Popover.Close asChild>
          <button
            className="key bare"
            onClick={() => onChange({ ...choice, position: null, reason: "" })}
          >
            Back to its place by rule
          </button>
        </Popover.Close>
      )}
      <p className="text-s text-ink-2">The reason is kept with the line; the checks stay on.</p>
    </div>
  );
}

export function StageMenu({
  stage,
  choice,
  part,
  index,
  last,
  clock,
  others,
  currency,
  onTake,
  onSwap,
  onDrop,
  onChange,
}: Props): ReactElement {
  const settings = choice
    ? (SETTINGS[stage.kind] ?? []).filter(([k]) => k !== "clock_days" || clock)
    : [];
  return (
    <Popover.Root>
      <Popover.Trigger className="font-d font-[640] text-[19px] leading-tight text-left underline decoration-rule decoration-2 underline-offset-4 min-h-6 relative after:absolute after:-inset-2">
        {KIND_NAMES[stage.kind] ?? stage.kind}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className="slip z-50 max-h-[var(--radix-popover-content-available-height)] overflow-auto p-3 grid gap-2 w-[300px]"
          style={{ borderBottom: "1.5px solid var(--ink)" }}
          sideOffset={10}
          collisionPadding={16}
          aria-label={`${stage.name}: change it`}
        >
          <p className="font-semibold">{part ?? stage.name}</p>
          {others.slice(0, 4).map((o) => (
            <Popover.Close asChild key={o.code}>
              <button
                className="key"
                style={{
                  justifyContent: "space-between",
                  whiteSpace: "normal",
                  textAlign: "left",
                  minHeight: 46,
                  fontSize: 15,
                }}
                onClick={() => onTake(o)}
              >
                <span>{o.name}</span>
                <span className="num">{money(o.price, currency)}</span>
              </button>
            </Popover.Close>
          ))}
          {(part !== null || others.length > 4) && (
            <Popover.Close asChild>
              <button className="key" onClick={onSwap}>
                {part ? "Change the whole system" : "All sizes and makers"}
              </button>
            </Popover.Close>
          )}
          {choice &&
            settings.map(([key, label, unit, min, max]) => (
              <NumberField
                key={key}
                label={label}
                unit={unit}
                min={min}
                max={max}
                value={numberOf(choice, key)}
                hint={key === "limiter_gpm" ? "empty: none is fitted" : "empty: the item’s own"}
                onCommit={(v) =>
                  onChange({
                    ...choice,
                    overrides: {
                      ...Object.fromEntries(
                        Object.entries(choice.overrides ?? {}).filter(([k]) => k !== key),
                      ),
                      ...(v === null ? {} : { [key]: v }),
                    },
                  })
                }
              />
            ))}
          {choice && (
            <Seg<Fitter>
              label="Who fits it"
              value={choice.fitter}
              choices={FITTERS}
              onChange={(fitter) => onChange({ ...choice, fitter })}
            />
          )}
          {choice && <Move choice={choice} index={index} last={last} onChange={onChange} />}
          <Popover.Close asChild>
            <button className="key bare" onClick={onDrop}>
              {part ? "Take the system out" : "Take it out"}
            </button>
          </Popover.Close>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/**
 * The glass that is picked: look into it, compare it with another, correct what is written of it.
 */
import { Popover } from "radix-ui";
import type { ReactElement } from "react";

import { usePutSample } from "../../api/hooks";
import type { Home, Sample, VisitView } from "../../api/types";
import { IN_PLACE } from "../../app/facts.generated";
import { TextField } from "../../ui/fields";
import { QuantityField } from "../../ui/QuantityField";
import { Trouble } from "../../ui/Trouble";
import { useVisitContext } from "./context";
import { OneOfOurs } from "./OneOfOurs";
import { dayLong, moment } from "../../app/when";
import { say } from "../../app/language";

type InPlace = Home["in_place"][number];

interface Part {
  glass: Sample;
  busy: boolean;
  save: (part: Partial<Sample>) => void;
}

function Toggle({
  name,
  words,
  glass,
  busy,
  save,
}: Part & {
  name: "raw" | "softened" | "just_changed" | "past_life" | "treated";
  words: string;
}): ReactElement {
  return (
    <label className="flex gap-3 items-center min-h-11 text-m">
      <input
        type="checkbox"
        className="w-6 h-6"
        checked={glass[name]}
        disabled={busy}
        onChange={(e) => save({ [name]: e.target.checked })}
      />
      {words}
    </label>
  );
}

/** Which of what was written down as standing there it was drawn behind. */
function StandsThereAs({ glass, busy, save, there }: Part & { there: InPlace[] }): ReactElement {
  return (
    <label className="field">
      <span>{say("It stands there as")}</span>
      <select
        className="input"
        value={glass.device}
        disabled={busy}
        onChange={(e) => save({ device: e.target.value })}
      >
        <option value="">{say("nothing written down")}</option>
        {there.map((d) => (
          <option key={d.id} value={d.id}>
            {d.name || (IN_PLACE[d.kind]?.name ?? d.kind)}
          </option>
        ))}
      </select>
    </label>
  );
}

/** Of a glass behind a device: which, how much ran before it was drawn, and its filter. */
function BehindIt(p: Part & { there: InPlace[] }): ReactElement {
  const { glass, save } = p;
  return (
    <>
      <TextField
        label={say("Which device")}
        value={glass.after}
        onCommit={(after) => save({ after })}
      />
      {p.there.length > 0 && <StandsThereAs {...p} />}
      <OneOfOurs
        value={glass.after_item ?? null}
        busy={p.busy}
        onChoose={(after_item) => save({ after_item })}
      />
      <QuantityField
        label={say("Flushed before drawing")}
        unit="gal"
        max={1000}
        value={glass.flushed_gal ?? null}
        onCommit={(flushed_gal) => save({ flushed_gal })}
      />
      <Toggle {...p} name="softened" words={say("It softens the water")} />
      <Toggle {...p} name="just_changed" words={say("Its filter was just changed, not flushed")} />
      <Toggle {...p} name="past_life" words={say("Its filter is overdue for replacement")} />
    </>
  );
}

type OwnWater = VisitView["visit"]["settings"]["own_water"];

const dayOr = (day: string | null | undefined): string => (day ? dayLong(day) : say("not known"));

/** The card of the water we carry, as the firm keeps it. */
function OurCard({ card }: { card: OwnWater }): ReactElement {
  return (
    <div className="text-m" role="group" aria-label={say("Our carried water")}>
      <div>{say("Filled: {filled_on}", { filled_on: dayOr(card.filled_on) })}</div>
      <div>
        {say("Checked: {checked_on}{x}", {
          checked_on: dayOr(card.checked_on),
          x: card.check ? `, ${card.check}` : "",
        })}
      </div>
      <div>
        {say("Reported: {reported_on}{x}", {
          reported_on: dayOr(card.reported_on),
          x: card.report_number ? `, ${card.report_number}` : "",
        })}
      </div>
    </div>
  );
}

function CompareWith({
  others,
  onPick,
}: {
  others: Sample[];
  onPick: (id: string) => void;
}): ReactElement | null {
  if (others.length === 0) return null;
  return (
    <>
      <p className="font-semibold text-m mt-1">{say("Compare with")}</p>
      <div className="flex gap-2 flex-wrap">
        {others.map((s) => (
          <Popover.Close key={s.id} asChild>
            <button
              className="key"
              style={{ minHeight: 44, padding: "0 12px", fontSize: 15 }}
              onClick={() => onPick(s.id)}
            >
              {s.name}
            </button>
          </Popover.Close>
        ))}
      </div>
    </>
  );
}

export function GlassMenu(): ReactElement | null {
  const { id, view, picked, beside } = useVisitContext();
  const put = usePutSample(id);
  if (!picked) return null;
  const save = (part: Partial<Sample>): void =>
    put.mutate({ sample: { ...picked, ...part }, version: view.versions[picked.id] });
  const part = { glass: picked, busy: put.isPending, save };
  return (
    <Popover.Root>
      <Popover.Trigger
        className="key"
        aria-label={say("This glass: {name}", { name: picked.name })}
      >
        <span aria-hidden="true" className="text-[22px] leading-none pb-2">
          …
        </span>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className={
            "slip z-50 max-h-[var(--radix-popover-content-available-height)] overflow-auto p-4 " +
            "w-[340px] grid gap-2"
          }
          style={{ borderBottom: "1.5px solid var(--ink)" }}
          sideOffset={10}
          collisionPadding={16}
          aria-label={say("{name}: what is written of it", { name: picked.name })}
        >
          <TextField
            label={say("Name")}
            value={picked.name}
            onCommit={(name) => {
              if (name.trim()) save({ name });
            }}
          />
          <p className="text-s text-ink-2">
            {say("Drawn {drawn_at} by {x}, {place}, {draw}.", {
              drawn_at: moment(picked.drawn_at),
              x: picked.by || "nobody named",
              place: picked.place,
              draw: picked.draw,
            })}
          </p>
          {picked.kind === "own" && <OurCard card={view.visit.settings.own_water} />}
          <Toggle {...part} name="raw" words={say("Raw: ahead of all treatment")} />
          <Toggle {...part} name="treated" words={say("Behind a device")} />
          {picked.treated && <BehindIt {...part} there={view.visit.home.in_place} />}
          <CompareWith
            others={view.visit.samples.filter((s) => s.id !== picked.id)}
            onPick={beside}
          />
          <Trouble error={put.error} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

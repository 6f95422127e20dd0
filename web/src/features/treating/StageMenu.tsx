/** A stage's own menu: another size, settings, a move with its reason, out. */
import { Popover } from "radix-ui";
import { useState, type ReactElement } from "react";

import type { Item, Option, StageReport } from "../../api/types";
import { SETTINGS, type Adjustable } from "../../app/technologies.generated";
import { money } from "../../app/show";
import { Seg } from "../../ui/fields";
import { QuantityField } from "../../ui/QuantityField";
import { KIND_NAMES } from "./kinds";
import { spoken, say } from "../../app/language";

type Choice = Option["stages"][number];

interface Props {
  stage: StageReport;
  /** The choice of the option it comes from; null inside a system. */
  choice: Choice | null;
  /** The choice of what is bought: its own, or that of its system; null for what is kept. */
  had: Choice | null;
  /** How the firm lets what is bought. */
  lets: Item["lets"];
  part: string | null;
  index: number;
  last: number;
  /** What is special to its item. */
  figures: Item["figures"] | null;
  /** Items of the same kind that may take its place, the cheapest first. */
  others: Item[];
  currency: string;
  onTake: (item: Item) => void;
  onSwap: () => void;
  onDrop: () => void;
  onChange: (c: Choice) => void;
}

type Fitter = Choice["fitter"];
const FITTERS: { value: Fitter; name: string }[] = spoken([
  { value: "firm", name: "We" },
  { value: "licensed", name: "Licensed" },
  { value: "self", name: "They" },
]);

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
        <span>{say("Move it, because")}</span>
        <input
          className="input"
          value={reason}
          maxLength={200}
          placeholder={say("why it stands there")}
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
            {say("Earlier")}
          </button>
        </Popover.Close>
        <Popover.Close asChild>
          <button
            className="key"
            disabled={!reason.trim() || index >= last}
            onClick={() => to(index + 1)}
          >
            {say("Later")}
          </button>
        </Popover.Close>
      </div>
      {choice.position != null && (
        <Popover.Close asChild>
          <button
            className="key bare"
            onClick={() => onChange({ ...choice, position: null, reason: "" })}
          >
            {say("Back to its place by rule")}
          </button>
        </Popover.Close>
      )}
      <p className="text-s text-ink-2">
        {say("The reason is kept with the system; the checks stay on.")}
      </p>
    </div>
  );
}

const AT_ONCE = 4; // other sizes shown before the whole catalogue is asked for

/** Other sizes at one touch, and all of them at two. */
function OtherSizes({
  others,
  part,
  currency,
  onTake,
  onSwap,
}: Pick<Props, "others" | "part" | "currency" | "onTake" | "onSwap">): ReactElement {
  return (
    <>
      {others.slice(0, AT_ONCE).map((o) => (
        <Popover.Close asChild key={o.code}>
          <button
            className="key small whitespace-normal text-left"
            style={{ justifyContent: "space-between" }}
            onClick={() => onTake(o)}
          >
            <span>{o.name}</span>
            <span className="num">{money(o.price, currency)}</span>
          </button>
        </Popover.Close>
      ))}
      {(part !== null || others.length > AT_ONCE) && (
        <Popover.Close asChild>
          <button className="key" onClick={onSwap}>
            {part ? say("Change the whole system") : say("All sizes and makers")}
          </button>
        </Popover.Close>
      )}
    </>
  );
}

/** A setting put into a choice; empty takes the item's own. */
function withSetting(choice: Choice, key: string, value: number | null): Choice {
  const others = Object.fromEntries(
    Object.entries(choice.overrides ?? {}).filter(([k]) => k !== key),
  );
  return { ...choice, overrides: value === null ? others : { ...others, [key]: value } };
}

type Figures = Item["figures"];

/** Whether a setting is offered for an item: its figures are as the setting wants them. */
function offered(setting: Adjustable, figures: Figures): boolean {
  const own = figures as unknown as Record<string, unknown>;
  return setting.where.every(([field, wanted]) =>
    wanted === "*" ? own[field] != null : wanted.split("|").includes(String(own[field])),
  );
}

const YES_EMPTY = spoken([
  { value: true, name: "Yes" },
  { value: false, name: "No" },
]);

function Settings({
  choice,
  kind,
  figures,
  onChange,
}: {
  choice: Choice;
  kind: string;
  figures: Figures;
  onChange: (c: Choice) => void;
}): ReactElement {
  return (
    <div className="grid grid-cols-2 gap-x-3 gap-y-2 items-end">
      {(SETTINGS[kind] ?? [])
        .filter((s) => offered(s, figures))
        .map((s) =>
          s.yes ? (
            <Seg
              key={s.key}
              label={s.label}
              value={numberOf(choice, s.key) !== null}
              choices={YES_EMPTY}
              onChange={(yes) => onChange(withSetting(choice, s.key, yes ? 1 : null))}
            />
          ) : (
            <QuantityField
              key={s.key}
              label={s.label}
              unit={s.unit}
              min={s.least}
              max={s.most}
              value={numberOf(choice, s.key)}
              hint={s.hint}
              onCommit={(v) => onChange(withSetting(choice, s.key, v))}
            />
          ),
        )}
    </div>
  );
}

type Terms = Choice["terms"];
const TERMS: Record<Terms, string> = spoken({
  buy: "Bought",
  rental: "Rented",
  rent_to_own: "Rented to own",
});

/** Bought or rented, and who fits it: of an item, or of the whole system of a stage. */
function HowItComes({
  had,
  lets,
  currency,
  onChange,
}: {
  had: Choice;
  lets: Props["lets"];
  currency: string;
  onChange: (c: Choice) => void;
}): ReactElement {
  const asked = (t: Terms): string => {
    const let_ = lets.find((l) => l.kind === t);
    return let_
      ? say("{x}, {per_month} a month", { x: TERMS[t], per_month: money(let_.per_month, currency) })
      : TERMS[t];
  };
  const kinds: Terms[] = ["buy", ...lets.map((l) => l.kind)];
  return (
    <>
      {lets.length > 0 && (
        <label className="field">
          <span>{say("Bought or rented")}</span>
          <select
            className="input"
            value={had.terms}
            onChange={(e) => onChange({ ...had, terms: e.target.value as Terms })}
          >
            {kinds.map((t) => (
              <option key={t} value={t}>
                {asked(t)}
              </option>
            ))}
          </select>
        </label>
      )}
      <Seg<Fitter>
        label={say("Who fits it")}
        value={had.fitter}
        choices={FITTERS}
        onChange={(fitter) => onChange({ ...had, fitter })}
      />
    </>
  );
}

export function StageMenu(props: Props): ReactElement {
  const { stage, choice, part, index, last, onChange } = props;
  return (
    <Popover.Root>
      <Popover.Trigger className="stage-name">
        {KIND_NAMES[stage.kind] ?? stage.kind}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className="slip z-50 slip-menu p-3 grid gap-2 w-[300px]"
          style={{ borderBottom: "1.5px solid var(--ink)" }}
          sideOffset={10}
          collisionPadding={16}
          aria-label={say("{name}: change it", { name: stage.name })}
        >
          <p className="font-semibold">{part ?? stage.name}</p>
          <OtherSizes {...props} />
          {choice && props.figures && (
            <Settings
              choice={choice}
              kind={stage.kind}
              figures={props.figures}
              onChange={onChange}
            />
          )}
          {props.had && (
            <HowItComes
              had={props.had}
              lets={props.lets}
              currency={props.currency}
              onChange={onChange}
            />
          )}
          {choice && <Move choice={choice} index={index} last={last} onChange={onChange} />}
          <Popover.Close asChild>
            <button className="key bare" onClick={props.onDrop}>
              {part ? say("Take the system out") : say("Take it out")}
            </button>
          </Popover.Close>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

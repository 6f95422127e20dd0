/** Draw a glass: where, how, behind what. Three touches are enough. */
import { Dialog } from "radix-ui";
import { Plus } from "lucide-react";
import { useState, type ReactElement } from "react";

import { IN_PLACE } from "../../app/facts.generated";
import { newId } from "../../app/names";
import { problemOf } from "../../api/client";
import { usePutSample } from "../../api/hooks";
import type { Sample } from "../../api/types";
import { Seg, TextField } from "../../ui/fields";
import { QuantityField } from "../../ui/QuantityField";
import { Sheet } from "../../ui/Sheet";
import { Trouble } from "../../ui/Trouble";
import { behind } from "../in-place/useDrawBehind";
import { useVisitContext } from "./context";
import { OneOfOurs } from "./OneOfOurs";
import { spoken, say } from "../../app/language";

interface Kind {
  name: string;
  words: string;
  sample: Partial<Sample>;
}
const KINDS: Kind[] = spoken([
  {
    name: "Kitchen cold",
    words: "ahead of all treatment: the raw sample",
    sample: { kind: "tap", place: "kitchen cold", draw: "flushed", raw: true },
  },
  {
    name: "Outside tap",
    words: "ahead of all treatment: the raw sample",
    sample: { kind: "tap", place: "outside tap", draw: "flushed", raw: true },
  },
  {
    name: "Hot tap",
    words: "for a smell or a scale question",
    sample: { kind: "tap", place: "kitchen hot", draw: "hot" },
  },
  {
    name: "First draw",
    words: "after six hours of standing, for lead and copper",
    sample: { kind: "tap", place: "kitchen cold", draw: "first" },
  },
  {
    name: "After the softener",
    words: "behind a device that is there",
    sample: {
      kind: "tap",
      place: "behind the softener",
      treated: true,
      softened: true,
      after: "softener",
    },
  },
  {
    name: "Refrigerator",
    words: "behind its filter",
    sample: { kind: "tap", place: "refrigerator", treated: true, after: "refrigerator filter" },
  },
  {
    name: "Pitcher",
    words: "behind its cartridge",
    sample: { kind: "pitcher", place: "pitcher", treated: true, after: "pitcher" },
  },
  {
    name: "Dispenser",
    words: "rented or bought, behind its filter or bottle",
    sample: { kind: "tap", place: "dispenser", treated: true, after: "dispenser" },
  },
  {
    name: "After a conditioner",
    words: "without salt: its minerals stay",
    sample: { kind: "tap", place: "behind the conditioner", treated: true, after: "conditioner" },
  },
  {
    name: "Our demonstration unit",
    words: "their water, through the unit we brought",
    sample: {
      kind: "tap",
      place: "our demonstration unit",
      treated: true,
      after: "our demonstration unit",
    },
  },
  {
    name: "Small column",
    words: "their water, through resin or carbon we brought",
    sample: { kind: "tap", place: "small column", treated: true, after: "small column" },
  },
  {
    name: "Their bottled",
    words: "what they drink now",
    sample: { kind: "bottled", place: "bottle" },
  },
  {
    name: "Our carried water",
    words: "our own, for rinsing and comparing",
    sample: { kind: "own", place: "our bottle" },
  },
]);

/** A name that no other glass has: "Pitcher", "Pitcher 2". */
function free(name: string, taken: string[]): string {
  if (!taken.includes(name)) return name;
  const n = [2, 3, 4, 5, 6, 7, 8, 9].find((i) => !taken.includes(`${name} ${i}`));
  return `${name} ${n ?? taken.length + 1}`;
}

/** A glass that is drawn now. */
function drawn(k: Kind, by: string, hasRaw: boolean): Sample {
  const base: Sample = {
    id: newId(),
    name: k.name,
    kind: "tap",
    place: "",
    draw: "flushed",
    treated: false,
    after: "",
    after_item: null,
    softened: false,
    device: "",
    flushed_gal: null,
    just_changed: false,
    past_life: false,
    raw: false,
    drawn_at: new Date().toISOString(),
    by: by,
    readings: [],
    note: "",
  };
  const sample = { ...base, ...k.sample };
  if (hasRaw) sample.raw = false;
  return sample;
}

/** What was written down as standing there; how it was flushed is asked as of any device. */
function BehindWhatStands({ onPick }: { onPick: (k: Kind) => void }): ReactElement | null {
  const { view } = useVisitContext();
  const there = view.visit.home.in_place;
  if (there.length === 0) return null;
  return (
    <>
      <h3 className="mt-4 mb-2 font-d text-l">{say("Behind what stands there")}</h3>
      <div className="grid grid-cols-2 gap-3">
        {there.map((d) => {
          const name = d.name || (IN_PLACE[d.kind]?.name ?? d.kind);
          return (
            <button
              key={d.id}
              className="key justify-start"
              onClick={() => {
                const sample = behind(d.id, name, view.visit.consultant);
                onPick({ name: sample.name, words: "", sample });
              }}
            >
              {name}
            </button>
          );
        })}
      </div>
    </>
  );
}

function Kinds({
  hasRaw,
  busy,
  onPick,
}: {
  hasRaw: boolean;
  busy: boolean;
  onPick: (k: Kind) => void;
}): ReactElement {
  return (
    <div className="grid grid-cols-2 gap-3 sm:grid-cols-3">
      {KINDS.map((k) => (
        <button
          key={k.name}
          className="key flex-col items-start text-left py-3 whitespace-normal"
          style={{ alignItems: "flex-start", gap: 2 }}
          disabled={busy}
          onClick={() => onPick(k)}
        >
          {k.name}
          <span className="font-normal text-s text-ink-2">
            {hasRaw && k.sample.raw ? say("a further untreated sample") : k.words}
          </span>
        </button>
      ))}
    </div>
  );
}

/** What is asked of a glass before it is drawn: a bottle's name; how a device was flushed. */
function AskedFirst({
  kind,
  taken,
  busy,
  onDraw,
}: {
  kind: Kind;
  taken: string[];
  busy: boolean;
  onDraw: (part: Partial<Sample>) => void;
}): ReactElement {
  const bottle = kind.sample.kind === "bottled";
  const [part, setPart] = useState<Partial<Sample>>({
    name: free(kind.name, taken),
    ...(kind.sample.device ? { device: kind.sample.device } : {}),
  });
  const more = (told: Partial<Sample>): void => setPart({ ...part, ...told });
  return (
    <section className="grid gap-4 justify-items-start" aria-label={kind.name}>
      <h3 className="font-d text-l">{kind.name}</h3>
      <TextField
        label={bottle ? say("Which water, as on its label") : say("Name")}
        value={part.name ?? ""}
        first
        onCommit={(name) => more({ name: free(name.trim() || kind.name, taken) })}
      />
      {!bottle && (
        <>
          {part.device === undefined && (
            <OneOfOurs
              value={part.after_item ?? null}
              onChoose={(after_item, after) => more({ after_item, ...(after ? { after } : {}) })}
            />
          )}
          <QuantityField
            label={say("Flushed before drawing")}
            unit="gal"
            max={1000}
            value={part.flushed_gal ?? null}
            onCommit={(flushed_gal) => more({ flushed_gal })}
          />
          <Seg
            label={say("Its filter")}
            value={ageOf(part)}
            choices={AGES}
            onChange={(age) =>
              more({ just_changed: age === "just_changed", past_life: age === "past_life" })
            }
          />
        </>
      )}
      <button className="key go" disabled={busy} onClick={() => onDraw(part)}>
        {say("Draw it")}
      </button>
    </section>
  );
}

const AGES = spoken([
  { value: "in_use", name: "in use" },
  { value: "just_changed", name: "just changed" },
  { value: "past_life", name: "overdue for replacement" },
]);
function ageOf(s: Partial<Sample>): string {
  if (s.just_changed) return "just_changed";
  return s.past_life ? "past_life" : "in_use";
}

/** Whether something is asked before it is drawn. */
const asksFirst = (k: Kind): boolean => k.sample.treated === true || k.sample.kind === "bottled";

/** Somebody else has drawn a raw glass meanwhile: one of the two is it. */
function WhichIsRaw({
  sample,
  onKeep,
}: {
  sample: Sample;
  onKeep: (sample: Sample, instead?: boolean) => void;
}): ReactElement {
  return (
    <div className="flex gap-3 flex-wrap mt-3">
      <button className="key" onClick={() => onKeep({ ...sample, raw: false })}>
        {say("That one stays the raw glass")}
      </button>
      <button className="key" onClick={() => onKeep(sample, true)}>
        {say("Mine is the raw glass")}
      </button>
    </div>
  );
}

/** `always`: its words stand there on the narrowest screen too. */
export function DrawGlass({ always = false }: { always?: boolean }): ReactElement {
  const { id, view, pick } = useVisitContext();
  const put = usePutSample(id);
  const [open, setOpen] = useState(false);
  const hasRaw = view.visit.samples.some((s) => s.raw);
  const [asking, ask] = useState<Kind | null>(null);
  const taken = view.visit.samples.map((s) => s.name);
  const draw = (k: Kind, told: Partial<Sample> = {}): void => {
    const made = { ...drawn(k, view.visit.consultant, hasRaw), ...told };
    keep({ ...made, name: free(made.name, taken) });
  };
  const keep = (sample: Sample, instead = false): void =>
    put.mutate(
      { sample, instead },
      {
        onSuccess: () => {
          setOpen(false);
          ask(null);
          pick(sample.id);
        },
      },
    );
  return (
    <Sheet
      title={say("Where is it drawn?")}
      width={720}
      open={open}
      onOpen={(o) => {
        setOpen(o);
        ask(null);
      }}
      trigger={
        <Dialog.Trigger className="key shrink-0">
          <Plus size={20} aria-hidden="true" />
          <span className={always ? "" : "max-[900px]:sr-only"}>{say("Draw a glass")}</span>
        </Dialog.Trigger>
      }
    >
      {asking ? (
        <AskedFirst
          kind={asking}
          taken={taken}
          busy={put.isPending}
          onDraw={(told) => draw(asking, told)}
        />
      ) : (
        <>
          <Kinds
            hasRaw={hasRaw}
            busy={put.isPending}
            onPick={(k) => (asksFirst(k) ? ask(k) : draw(k))}
          />
          <BehindWhatStands onPick={ask} />
        </>
      )}
      <Trouble error={put.error} />
      {problemOf(put.error)?.code === "sample.raw_twice" && put.variables && (
        <WhichIsRaw sample={put.variables.sample} onKeep={keep} />
      )}
    </Sheet>
  );
}

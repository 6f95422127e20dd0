/** Draw a glass: where, how, behind what. Three touches are enough. */
import { Dialog } from "radix-ui";
import { Plus } from "lucide-react";
import { useState, type ReactElement } from "react";

import { IN_PLACE } from "../../app/facts.generated";
import { newId } from "../../app/names";
import { usePutSample } from "../../api/hooks";
import type { Sample } from "../../api/types";
import { Sheet } from "../../ui/Sheet";
import { Trouble } from "../../ui/Trouble";
import { useDrawBehind } from "../in-place/useDrawBehind";
import { useVisitContext } from "./context";

interface Kind {
  name: string;
  words: string;
  sample: Partial<Sample>;
}
const KINDS: Kind[] = [
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
    sample: { kind: "tap", place: "behind the softener", treated: true, after: "softener" },
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
    name: "Their bottled",
    words: "what they drink now",
    sample: { kind: "bottled", place: "bottle" },
  },
  {
    name: "Our membrane",
    words: "our own water, for rinsing and comparing",
    sample: { kind: "own", place: "our bottle" },
  },
];

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

function BehindWhatStands({
  behindIt,
  onDrawn,
}: {
  behindIt: ReturnType<typeof useDrawBehind>;
  onDrawn: () => void;
}): ReactElement | null {
  const there = useVisitContext().view.visit.home.in_place;
  if (there.length === 0) return null;
  return (
    <>
      <h3 className="mt-4 mb-2 font-d text-l">Behind what stands there</h3>
      <div className="grid grid-cols-2 gap-3">
        {there.map((d) => {
          const name = d.name || (IN_PLACE[d.kind]?.name ?? d.kind);
          return (
            <button
              key={d.id}
              className="key justify-start"
              disabled={behindIt.drawing}
              onClick={() => behindIt.draw(d.id, name, onDrawn)}
            >
              {name}
            </button>
          );
        })}
      </div>
    </>
  );
}

export function DrawGlass(): ReactElement {
  const { id, view, pick } = useVisitContext();
  const put = usePutSample(id);
  const [open, setOpen] = useState(false);
  const hasRaw = view.visit.samples.some((s) => s.raw);
  const behindIt = useDrawBehind();
  const draw = (k: Kind): void => {
    const sample = drawn(k, view.visit.consultant, hasRaw);
    put.mutate(
      { sample },
      {
        onSuccess: () => {
          setOpen(false);
          pick(sample.id);
        },
      },
    );
  };
  return (
    <Sheet
      title="Where is it drawn?"
      width={720}
      open={open}
      onOpen={setOpen}
      trigger={
        <Dialog.Trigger className="key">
          <Plus size={20} aria-hidden="true" />
          <span className="max-[900px]:sr-only">Draw a glass</span>
        </Dialog.Trigger>
      }
    >
      <div className="grid grid-cols-2 gap-3">
        {KINDS.map((k) => (
          <button
            key={k.name}
            className="key flex-col items-start text-left py-3 whitespace-normal"
            style={{ alignItems: "flex-start", gap: 2 }}
            disabled={put.isPending}
            onClick={() => draw(k)}
          >
            {k.name}
            <span className="font-normal text-s text-ink-2">
              {hasRaw && k.sample.raw ? "a further untreated sample" : k.words}
            </span>
          </button>
        ))}
      </div>
      <BehindWhatStands behindIt={behindIt} onDrawn={() => setOpen(false)} />
      <Trouble error={put.error ?? behindIt.error} />
    </Sheet>
  );
}

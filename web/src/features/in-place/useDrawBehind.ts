/** Draw a glass behind equipment in place, at a touch. */
import { usePutSample } from "../../api/hooks";
import type { Sample } from "../../api/types";
import { newId } from "../../app/names";
import { useVisitContext } from "../visit/context";
import { say } from "../../app/language";

export function behind(device: string, name: string, by: string): Sample {
  return {
    id: newId(),
    name: say("Behind: {name}", { name }),
    kind: "tap",
    place: say("behind {name}", { name }),
    draw: "flushed",
    treated: true,
    after: name,
    after_item: null,
    softened: false,
    device,
    flushed_gal: null,
    just_changed: false,
    past_life: false,
    raw: false,
    drawn_at: new Date().toISOString(),
    by,
    readings: [],
    note: "",
  };
}

export function useDrawBehind(): {
  draw: (device: string, name: string, then?: (sample: string) => void) => void;
  drawing: boolean;
  error: Error | null;
} {
  const { id, view, pick } = useVisitContext();
  const put = usePutSample(id);
  return {
    draw: (device, name, then) => {
      const sample = behind(device, name, view.visit.consultant);
      put.mutate(
        { sample },
        {
          onSuccess: () => {
            pick(sample.id);
            then?.(sample.id);
          },
        },
      );
    },
    drawing: put.isPending,
    error: put.error,
  };
}

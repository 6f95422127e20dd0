/** Pictures of a reading or a step: small on the page, whole at a touch, taken with a camera. */
import { Dialog } from "radix-ui";
import { useState, type ReactElement } from "react";

import { moment } from "../../app/when";
import { FileKey } from "../../ui/FileKey";
import { Sheet } from "../../ui/Sheet";
import { Trouble } from "../../ui/Trouble";
import { pathOf, usePictures, useTake, useTakeAway, type About, type PictureLine } from "./hooks";
import { say } from "../../app/language";

function Whole({ visit, line }: { visit: string; line: PictureLine }): ReactElement {
  const away = useTakeAway(visit);
  const when = moment(line.at);
  const [open, setOpen] = useState(false);
  return (
    <Sheet
      title={say("Taken {when} by {by}", { when, by: line.by })}
      width={900}
      open={open}
      onOpen={setOpen}
      trigger={
        <Dialog.Trigger
          aria-label={say("Picture taken {when}", { when })}
          className="w-11 h-11 border-[1.5px] border-ink shrink-0"
        >
          <img
            src={pathOf(visit, line.id)}
            alt=""
            loading="lazy"
            className="w-full h-full object-cover"
          />
        </Dialog.Trigger>
      }
    >
      <img
        src={pathOf(visit, line.id)}
        alt={say("What was photographed {when}", { when })}
        width={line.width}
        height={line.height}
        className="max-w-full h-auto max-h-[70vh] object-contain mx-auto"
      />
      <div className="pt-3 flex gap-4 items-center">
        <button
          className="key"
          disabled={away.isPending}
          onClick={() => {
            if (window.confirm(say("Take this picture away for good?"))) away.mutate(line.id);
          }}
        >
          {say("Take it away")}
        </button>
        <span className="text-m text-ink-2">
          {say("For good; the audit keeps that it was there.")}
        </span>
      </div>
      <Trouble error={away.error} />
    </Sheet>
  );
}

export function Pictures({
  visit,
  about,
  of,
}: {
  visit: string;
  about: About;
  of: string;
}): ReactElement {
  const all = usePictures(visit).data ?? [];
  const take = useTake(visit, about, of);
  return (
    <span className="flex gap-2 items-center flex-wrap">
      {all
        .filter((p) => p.about === about && p.of === of)
        .map((p) => (
          <Whole key={p.id} visit={visit} line={p} />
        ))}
      <FileKey
        label={say("Picture of this {about}", { about })}
        accept="image/jpeg,image/png,image/webp"
        words={say("Picture")}
        camera
        busy={take.isPending}
        onFile={(f) => take.mutate(f)}
      />
      <Trouble error={take.error} />
    </span>
  );
}

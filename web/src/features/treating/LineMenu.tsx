/**
 * What can be done with a line as a whole: its name, what it keeps of what stands there, a copy,
 * away.
 */
import { Ellipsis } from "lucide-react";
import { Popover } from "radix-ui";
import type { ReactElement } from "react";
import { Link } from "react-router";

import type { Judged, Option } from "../../api/types";
import { Seg, TextField } from "../../ui/fields";
import { WAY_WORDS } from "../in-place/JudgedCard";
import { say } from "../../app/language";

type How = Option["keeps"][number]["how"];

function Keeps({
  option,
  judged,
  onEdit,
}: {
  option: Option;
  judged: Judged[];
  onEdit: (how: (o: Option) => Option) => void;
}): ReactElement {
  return (
    <>
      {judged.map((j) => (
        <Seg<string>
          key={j.id}
          label={j.name}
          value={option.keeps.find((k) => k.device === j.id)?.how ?? "out"}
          choices={[
            { value: "out", name: say("Taken out") },
            ...j.ways.map((w) => ({ value: w, name: WAY_WORDS[w] ?? w })),
          ]}
          onChange={(how) =>
            onEdit((o) => {
              const others = o.keeps.filter((k) => k.device !== j.id);
              const keeps = how === "out" ? others : [...others, { device: j.id, how: how as How }];
              return { ...o, keeps };
            })
          }
        />
      ))}
    </>
  );
}

export function LineMenu({
  visit,
  option,
  letter,
  judged,
  full,
  onEdit,
  onCopy,
  onDrop,
}: {
  visit: string;
  option: Option;
  letter: string;
  judged: Judged[];
  full: boolean;
  onEdit: (how: (o: Option) => Option) => void;
  onCopy: () => void;
  onDrop: () => void;
}): ReactElement {
  return (
    <Popover.Root>
      <Popover.Trigger
        className="key"
        style={{ minHeight: 46, padding: "0 12px" }}
        aria-label={say("System {letter}: its name, what it keeps, copy it or take it away", {
          letter,
        })}
      >
        <Ellipsis size={22} aria-hidden="true" />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className={
            "slip z-50 max-h-[var(--radix-popover-content-available-height)] overflow-auto p-4 " +
            "grid gap-3"
          }
          style={{ borderBottom: "1.5px solid var(--ink)" }}
          sideOffset={8}
          collisionPadding={16}
          aria-label={option.name}
        >
          <TextField
            label={say("Name of system {letter}", { letter })}
            value={option.name}
            onCommit={(name) => {
              if (name.trim()) onEdit((o) => ({ ...o, name: name.trim() }));
            }}
          />
          {judged.length > 0 && (
            <div className="grid gap-2 border-t border-rule pt-2">
              <p className="font-semibold text-m">
                {say("What stands there already, in this system")}
              </p>
              <Keeps option={option} judged={judged} onEdit={onEdit} />
            </div>
          )}
          {option.stages.length > 0 && (
            <Link className="key" to={`/visits/${visit}/steps/${option.id}`}>
              {say("Steps to fit and keep it")}
            </Link>
          )}
          <Popover.Close asChild>
            <button className="key" onClick={onCopy} disabled={full}>
              {say("Copy system {letter}", { letter })}
            </button>
          </Popover.Close>
          <Popover.Close asChild>
            <button className="key bare" onClick={onDrop}>
              {say("Take system {letter} away", { letter })}
            </button>
          </Popover.Close>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

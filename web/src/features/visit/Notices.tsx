/**
 * What stands above every step of a visit: parts that cannot be read, and that it came in by a
 * file.
 */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import type { ReactElement } from "react";

import { api, data } from "../../api/client";
import type { VisitView } from "../../api/types";
import { StateMark } from "../../ui/marks";
import { Trouble } from "../../ui/Trouble";
import { dayShort } from "../../app/when";
import { say } from "../../app/language";

function Unreadable({ view }: { view: VisitView }): ReactElement {
  const client = useQueryClient();
  const id = view.visit.id;
  const strike = useMutation({
    mutationFn: (x: { part: string; id: string }) =>
      data(
        api.POST("/api/visits/{id}/unreadable/{part}/{part_id}/strike", {
          params: { path: { id, part: x.part, part_id: x.id } },
        }),
      ),
    onSettled: () => void client.invalidateQueries({ queryKey: ["visit", id] }),
  });
  return (
    <section
      aria-label={say("What cannot be read")}
      className="border-[1.5px] border-ink bg-slip p-4"
    >
      <p className="font-semibold flex gap-2 items-center">
        <StateMark kind="no" size={20} />
        {view.unreadable.length === 1
          ? say("One part of this visit cannot be read. All the rest works.")
          : say("{length} parts of this visit cannot be read. All the rest works.", {
              length: view.unreadable.length,
            })}
      </p>
      <ul>
        {view.unreadable.map((x) => (
          <li key={x.part + x.id} className="flex gap-3 items-center min-h-11">
            <span className="flex-1">
              {say("A {x}, because: {because}", {
                x: x.part.replace("_", " "),
                because: x.because,
              })}
            </span>
            <button
              className="key bare"
              disabled={strike.isPending}
              onClick={() => strike.mutate(x)}
            >
              {say("Strike it")}
            </button>
          </li>
        ))}
      </ul>
      <Trouble error={strike.error} />
    </section>
  );
}

function Brought({ view }: { view: VisitView }): ReactElement | null {
  const b = view.visit.brought;
  if (!b) return null;
  const many = b.differences.length;
  return (
    <details className="border-b-[1.5px] border-ink py-1 text-m">
      <summary className="min-h-11 flex items-center cursor-pointer">
        {say("Brought in from a file by")} {b.by} {say("on")} {dayShort(b.at)}
        {say(". Times and instruments are as the file says; it names")} {b.consultant}{" "}
        {say("as the consultant.")}{" "}
        {many > 0 &&
          (b.taken
            ? say("Its settings and limits hold here ({many} differ from the firm’s).", { many })
            : say("The firm’s settings and limits hold; the file’s differed in {many}.", { many }))}
      </summary>
      <ul className="list-disc pl-6 pb-2">
        {b.differences.map((d) => (
          <li key={d}>{d}</li>
        ))}
      </ul>
    </details>
  );
}

export function Notices({ view }: { view: VisitView }): ReactElement | null {
  if (view.unreadable.length === 0 && !view.visit.brought) return null;
  return (
    <div className="grid gap-2 mb-3">
      {view.unreadable.length > 0 && <Unreadable view={view} />}
      <Brought view={view} />
    </div>
  );
}

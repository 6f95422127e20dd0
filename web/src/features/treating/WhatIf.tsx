/** What if: two more people, a lower pH, the next size up; what changes, check by check. */
import { useQuery } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { X } from "lucide-react";
import type { ReactElement } from "react";

import { api, data } from "../../api/client";
import type { Option } from "../../api/types";
import { money, num, volume } from "../../app/show";
import { StateMark, STATUS_MARK } from "../../ui/marks";
import { Trouble, Waiting } from "../../ui/Trouble";
import { useVisitContext } from "../visit/context";

const signed = (n: number, text: string): string =>
  n > 0 ? `${text} more` : n < 0 ? `${text} less` : "the same";

export function WhatIf({
  option,
  onClose,
  onTake,
}: {
  option: Option;
  onClose: () => void;
  onTake: (o: Option) => void;
}): ReactElement {
  const { id, view, units } = useVisitContext();
  const asked = useQuery({
    queryKey: ["visit", id, "what-if", option.id, view.versions[option.id]],
    queryFn: () =>
      data(
        api.GET("/api/visits/{id}/options/{option_id}/what-if", {
          params: { path: { id, option_id: option.id } },
        }),
      ),
  });
  const currency = view.visit.settings.currency;
  return (
    <Dialog.Root
      open
      onOpenChange={(o) => {
        if (!o) onClose();
      }}
    >
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 bg-ink/30 z-40" />
        <Dialog.Content
          className="fixed z-50 left-1/2 top-1/2 -translate-x-1/2 -translate-y-1/2 w-[880px] max-w-[94vw] max-h-[92vh] flex flex-col bg-paper border-[1.5px] border-ink p-6"
          aria-describedby={undefined}
        >
          <div className="flex justify-between items-center mb-2">
            <Dialog.Title asChild>
              <h2>What if? {option.name}</h2>
            </Dialog.Title>
            <Dialog.Close aria-label="Close" className="grid place-items-center w-11 h-11">
              <X size={22} />
            </Dialog.Close>
          </div>
          <div className="scroll min-h-0" tabIndex={0} role="group" aria-label="What changes">
            {asked.isPending && <Waiting what="Walking the line again." />}
            <Trouble error={asked.error} again={() => void asked.refetch()} />
            <ul>
              {(asked.data ?? []).map((w) => {
                const cost = Number(w.cost);
                return (
                  <li
                    key={w.id}
                    className="border-b border-rule py-3 grid grid-cols-[minmax(0,1fr)_auto] gap-4"
                  >
                    <div>
                      <b className="font-d text-l flex gap-2 items-center">
                        <StateMark
                          kind={w.impossible ? "unk" : (STATUS_MARK[w.status] ?? "say")}
                          size={20}
                          label={w.status}
                        />
                        {w.label}
                      </b>
                      {w.impossible ? (
                        <p className="text-m text-ink-2">{w.impossible}</p>
                      ) : (
                        <>
                          <p className="text-m">
                            {signed(cost, money(Math.abs(cost), currency))} over{" "}
                            {view.visit.horizon} years;{" "}
                            {signed(
                              Math.round(w.waste_gal_year),
                              volume(Math.abs(w.waste_gal_year), units),
                            )}{" "}
                            to the drain a year;{" "}
                            {signed(
                              Math.round(w.own_minutes),
                              `${num(Math.abs(w.own_minutes))} min`,
                            )}{" "}
                            work
                          </p>
                          {w.changes.length === 0 ? (
                            <p className="text-m text-ink-2">Every check answers as before.</p>
                          ) : (
                            <ul className="mt-1">
                              {w.changes.map((c, i) => (
                                <li key={`${c.id}${i}`} className="text-m flex gap-2">
                                  <StateMark
                                    kind={STATUS_MARK[c.after ?? "met"] ?? "done"}
                                    size={16}
                                  />
                                  <span>
                                    <b>{c.stage}</b>: {c.sentence}
                                  </span>
                                </li>
                              ))}
                            </ul>
                          )}
                        </>
                      )}
                    </div>
                    {w.option && (
                      <button
                        className="key self-start"
                        onClick={() => {
                          if (w.option) onTake(w.option);
                        }}
                      >
                        Take this size
                      </button>
                    )}
                  </li>
                );
              })}
            </ul>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** Choose from the catalogue: by kind, with price and what it is for. */
import { Dialog } from "radix-ui";
import { X } from "lucide-react";
import { useRef, type ReactElement } from "react";

import { useCatalogue } from "../../api/hooks";
import type { Item } from "../../api/types";
import { money } from "../../app/show";
import { KIND_NAMES } from "./kinds";

export function ChooseItem({
  open,
  onOpen,
  onChoose,
  currency,
  only,
  title,
}: {
  open: boolean;
  onOpen: (o: boolean) => void;
  onChoose: (i: Item) => void;
  currency: string;
  only?: string;
  title: string;
}): ReactElement {
  const items = useCatalogue().data ?? [];
  const list = useRef<HTMLUListElement>(null);
  const sold = items.filter(
    (i) => i.figures.kind === "system" || Number(i.price) > 0 || only === i.figures.kind,
  );
  const kinds = [...new Set(sold.map((i) => i.figures.kind))].sort(
    (a, b) => Object.keys(KIND_NAMES).indexOf(a) - Object.keys(KIND_NAMES).indexOf(b),
  );
  const shown = only === undefined ? kinds : kinds.filter((k) => k === only);
  const to = (k: string): void =>
    list.current?.querySelector(`[data-kind="${k}"]`)?.scrollIntoView({ block: "start" });
  return (
    <Dialog.Root open={open} onOpenChange={onOpen}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 bg-ink/30 z-40" />
        <Dialog.Content
          className="fixed z-50 left-1/2 top-1/2 -translate-x-1/2 -translate-y-1/2 w-[860px] max-w-[94vw] h-[640px] max-h-[92vh] flex flex-col bg-paper border-[1.5px] border-ink rounded-[2px] p-6"
          aria-describedby={undefined}
        >
          <div className="flex justify-between items-center mb-3">
            <Dialog.Title asChild>
              <h2>{title}</h2>
            </Dialog.Title>
            <Dialog.Close aria-label="Close" className="grid place-items-center w-11 h-11">
              <X size={22} />
            </Dialog.Close>
          </div>
          {only === undefined && (
            <div className="flex flex-wrap gap-2 mb-3" role="group" aria-label="Kind of stage">
              {kinds.map((k) => (
                <button
                  key={k}
                  className="key"
                  style={{ minHeight: 44, padding: "0 12px", fontSize: 15 }}
                  onClick={() => to(k)}
                >
                  {KIND_NAMES[k] ?? k}
                </button>
              ))}
            </div>
          )}
          <ul ref={list} className="scroll flex-1 min-h-0 relative">
            {shown.map((k) => (
              <li key={k} data-kind={k}>
                {only === undefined && (
                  <h3 className="sticky top-0 bg-paper py-2 border-b-[1.5px] border-ink">
                    {KIND_NAMES[k] ?? k}
                  </h3>
                )}
                <ul>
                  {sold
                    .filter((i) => i.figures.kind === k)
                    .map((i) => (
                      <li key={i.code} className="border-b border-rule">
                        <button
                          className="w-full text-left grid grid-cols-[1fr_auto] gap-4 items-center min-h-[60px] py-2 px-2 hover:bg-yuzu-pale"
                          onClick={() => {
                            onChoose(i);
                            onOpen(false);
                          }}
                        >
                          <span>
                            <b>{i.name}</b>
                            <span className="block text-m text-ink-2">
                              {i.maker} · {i.for_what}
                              {i.drain ? " · needs a drain" : ""}
                              {i.socket ? " · needs a socket" : ""}
                            </span>
                          </span>
                          <span className="text-right">
                            <b className="num text-[20px]">{money(i.price, currency)}</b>
                            <span className="block text-s text-ink-2">
                              and {money(i.installation, currency)} to install
                            </span>
                          </span>
                        </button>
                      </li>
                    ))}
                </ul>
              </li>
            ))}
            {shown.length === 0 && (
              <li className="p-4 text-ink-2">The catalogue holds nothing of this kind.</li>
            )}
          </ul>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

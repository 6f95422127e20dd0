/** Choose from the catalogue: by kind, with price and what it is for. */
import { useRef, type ReactElement } from "react";

import { useCatalogue } from "../../api/hooks";
import type { Item } from "../../api/types";
import { money } from "../../app/show";
import { Sheet } from "../../ui/Sheet";
import { KIND_NAMES } from "./kinds";
import { say } from "../../app/language";

function OneItem({
  item,
  currency,
  onChoose,
}: {
  item: Item;
  currency: string;
  onChoose: (i: Item) => void;
}): ReactElement {
  const needs = [item.drain && say("needs a drain"), item.socket && say("needs an outlet")];
  return (
    <li className="border-b border-rule">
      <button
        className={
          "w-full text-left grid grid-cols-[1fr_auto] gap-4 items-center min-h-[60px] p-2 " +
          "hover:bg-yuzu-pale"
        }
        onClick={() => onChoose(item)}
      >
        <span>
          <b>{item.name}</b>
          <span className="block text-m text-ink-2">
            {[item.maker, item.for_what, ...needs].filter(Boolean).join(" · ")}
          </span>
        </span>
        <span className="text-right">
          <b className="num text-[20px]">{money(item.price, currency)}</b>
          <span className="block text-s text-ink-2">
            {say("and {installation} to install", {
              installation: money(item.installation, currency),
            })}
          </span>
          {item.lets.map((l) => (
            <span key={l.kind} className="block text-s text-ink-2">
              {say("or {per_month} a month{x}", {
                per_month: money(l.per_month, currency),
                x: l.kind === "rent_to_own" ? `, own after ${l.months}` : "",
              })}
            </span>
          ))}
        </span>
      </button>
    </li>
  );
}

const ORDER = Object.keys(KIND_NAMES);

/** What can be chosen, kind by kind in the order of a line; of one kind only when it is given. */
function useSold(only: string | undefined): [string, Item[]][] {
  const items = useCatalogue().data ?? [];
  const sold = items.filter(
    (i) => i.figures.kind === "system" || Number(i.price) > 0 || only === i.figures.kind,
  );
  const by = new Map<string, Item[]>();
  for (const i of sold) by.set(i.figures.kind, [...(by.get(i.figures.kind) ?? []), i]);
  return [...by]
    .filter(([k]) => only === undefined || k === only)
    .sort(([a], [b]) => ORDER.indexOf(a) - ORDER.indexOf(b));
}

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
  const list = useRef<HTMLUListElement>(null);
  const sold = useSold(only);
  const all = only === undefined;
  const to = (k: string): void =>
    list.current?.querySelector(`[data-kind="${k}"]`)?.scrollIntoView({ block: "start" });
  const choose = (i: Item): void => {
    onChoose(i);
    onOpen(false);
  };
  return (
    <Sheet title={title} width={860} fixedHead open={open} onOpen={onOpen}>
      {all && (
        <div className="flex flex-wrap gap-2 mb-3" role="group" aria-label={say("Kind of stage")}>
          {sold.map(([k]) => (
            <button key={k} className="key small" onClick={() => to(k)}>
              {KIND_NAMES[k] ?? k}
            </button>
          ))}
        </div>
      )}
      <ul ref={list} className="scroll flex-1 min-h-0 relative">
        {sold.map(([k, items]) => (
          <li key={k} data-kind={k}>
            {all && (
              <h3 className="sticky top-0 bg-paper py-2 border-b-[1.5px] border-ink">
                {KIND_NAMES[k] ?? k}
              </h3>
            )}
            <ul>
              {items.map((i) => (
                <OneItem key={i.code} item={i} currency={currency} onChoose={choose} />
              ))}
            </ul>
          </li>
        ))}
        {sold.length === 0 && (
          <li className="p-4 text-ink-2">{say("The catalog holds nothing of this kind.")}</li>
        )}
      </ul>
    </Sheet>
  );
}

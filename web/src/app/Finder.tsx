/** Find anything by one key, and the sheet of keys by another. */
import { Search } from "lucide-react";
import { Dialog } from "radix-ui";
import { useEffect, useState, type KeyboardEvent, type ReactElement } from "react";
import { useNavigate } from "react-router";

import type { Entry } from "./finding";
import { KEYS } from "./keys";
import { useEntries } from "./useEntries";
import { say } from "./language";

type Open = "find" | "keys" | null;

const FIELD = "find-what";
const OPENS: Record<string, "find" | "keys"> = { "/": "find", "?": "keys" };
const TYPED = ["INPUT", "SELECT", "TEXTAREA"];

/** Opens by “/” and “?”, unless something is typed or lies on top. */
function useOpening(): [Open, (o: Open) => void] {
  const [open, setOpen] = useState<Open>(null);
  useEffect(() => {
    const on = (e: globalThis.KeyboardEvent): void => {
      if (e.ctrlKey || e.metaKey || e.altKey) return;
      if (e.target instanceof HTMLElement && TYPED.includes(e.target.tagName)) return;
      if (document.querySelector("[role=dialog]") !== null) return;
      const next = OPENS[e.key];
      if (next === undefined) return;
      e.preventDefault();
      setOpen(next);
    };
    document.addEventListener("keydown", on);
    return () => document.removeEventListener("keydown", on);
  }, []);
  return [open, setOpen];
}

function Rows({
  entries,
  at,
  onGo,
}: {
  entries: Entry[];
  at: number;
  onGo: (e: Entry) => void;
}): ReactElement {
  return (
    <ul id="found" role="listbox" aria-label={say("Found")} className="scroll min-h-0">
      {entries.map((e, i) => (
        <li
          key={e.id}
          id={`found-${e.id}`}
          role="option"
          aria-selected={i === at}
          className={`flex items-center gap-3 min-h-12 px-3 border-b border-rule cursor-pointer ${
            i === at ? "bg-yuzu text-on-yuzu" : "hover:bg-yuzu-pale"
          }`}
          // by pointer; by keys the field above acts for the list
          onPointerDown={(p) => {
            p.preventDefault();
            onGo(e);
          }}
        >
          <b className="shrink-0 max-w-[55%] truncate">{e.name}</b>
          <span className="truncate min-w-0">{e.sub}</span>
          <span className="ml-auto shrink-0 text-s">{e.group}</span>
        </li>
      ))}
    </ul>
  );
}

function Find({ onDone }: { onDone: () => void }): ReactElement {
  const [asked, setAsked] = useState("");
  const [at, setAt] = useState(0);
  const navigate = useNavigate();
  const entries = useEntries(asked);
  const here = Math.min(at, Math.max(0, entries.length - 1));
  const marked = entries[here];
  const go = (e: Entry): void => {
    onDone();
    void navigate(e.to);
  };
  const keys = (k: KeyboardEvent): void => {
    const by = { ArrowDown: 1, ArrowUp: -1 }[k.key] ?? 0;
    if (by !== 0) {
      k.preventDefault();
      const next = Math.min(entries.length - 1, Math.max(0, here + by));
      setAt(next);
      document
        .getElementById(`found-${entries[next]?.id ?? ""}`)
        ?.scrollIntoView({ block: "nearest" });
    }
    if (k.key === "Enter" && marked) go(marked);
  };
  return (
    <>
      <label className="field">
        <span>{say("A home, a visit, a kit, an item or a view")}</span>
        <input
          id={FIELD}
          className="input"
          role="combobox"
          aria-expanded="true"
          aria-controls="found"
          aria-activedescendant={marked ? say("found-{id}", { id: marked.id }) : undefined}
          autoComplete="off"
          value={asked}
          onChange={(e) => {
            setAsked(e.target.value);
            setAt(0);
          }}
          onKeyDown={keys}
        />
      </label>
      <Rows entries={entries} at={here} onGo={go} />
      <p role="status" className="text-m text-ink-2">
        {entries.length === 0
          ? say("Nothing of this name. Try part of a name, a house or a place.")
          : say("↑ ↓ to choose, Enter to open, Esc to close")}
      </p>
    </>
  );
}

function Sheet(): ReactElement {
  return (
    <div className="scroll min-h-0 grid gap-4" tabIndex={0} role="group" aria-label={say("Keys")}>
      {KEYS.map((g) => (
        <section key={g.where}>
          <h3>{g.where}</h3>
          <dl className="grid grid-cols-[150px_1fr] text-m">
            {g.keys.map((k) => (
              <div key={k.keys} className="contents">
                <dt className="py-2 border-b border-rule font-semibold">{k.keys}</dt>
                <dd className="py-2 border-b border-rule">{k.does}</dd>
              </div>
            ))}
          </dl>
        </section>
      ))}
    </div>
  );
}

/** The field is what one wants first, not the dialog's first key. */
function toField(e: Event): void {
  const field = document.getElementById(FIELD);
  if (!field) return;
  e.preventDefault();
  field.focus();
}

export function Finder(): ReactElement {
  const [open, setOpen] = useOpening();
  const done = (): void => setOpen(null);
  return (
    <Dialog.Root open={open !== null} onOpenChange={(o) => setOpen(o ? "find" : null)}>
      <Dialog.Trigger
        className="grid place-items-center w-12 h-12 rounded-[10px]"
        aria-label={say("Find anything")}
        title={say("Find anything: key /")}
      >
        <Search size={22} aria-hidden="true" />
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 bg-[#10302a55] z-40" />
        <Dialog.Content
          aria-describedby={undefined}
          onOpenAutoFocus={toField}
          className={
            "fixed z-50 left-1/2 top-[8vh] -translate-x-1/2 w-[min(640px,94vw)] max-h-[80vh] " +
            "grid grid-rows-[auto_auto_minmax(0,1fr)_auto] gap-3 bg-paper border-[1.5px] " +
            "border-ink p-6"
          }
        >
          <div className="flex items-center gap-3">
            <Dialog.Title className="font-d text-l font-bold flex-1">
              {open === "keys" ? say("Keys") : say("Find anything")}
            </Dialog.Title>
            <button className="key bare" onClick={() => setOpen(open === "keys" ? "find" : "keys")}>
              {open === "keys" ? say("Find anything") : say("Keys")}
            </button>
            <Dialog.Close className="key bare">{say("Close")}</Dialog.Close>
          </div>
          {open === "keys" ? <Sheet /> : <Find onDone={done} />}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

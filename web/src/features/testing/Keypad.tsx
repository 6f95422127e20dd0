/** Digits for wet hands; the keyboard types the same. */
import { Delete } from "lucide-react";
import { useEffect, useState, type ReactElement } from "react";
import { say } from "../../app/language";

const KEYS = ["1", "2", "3", "4", "5", "6", "7", "8", "9", ".", "0"];

export function typed(text: string, key: string, decimals: boolean): string {
  if (key === "back") return text.slice(0, -1);
  if (key === "." && (!decimals || text.includes("."))) return text;
  if (text.length >= 6) return text;
  return text === "0" && key !== "." ? key : text + key;
}

export function Keypad({
  text,
  onText,
  decimals = true,
}: {
  text: string;
  onText: (t: string) => void;
  decimals?: boolean;
}): ReactElement {
  const cls =
    "h-[44px] rounded-[10px] border-[1.5px] border-ink bg-paper font-d font-semibold " +
    "text-[20px] active:bg-yuzu";
  return (
    <div className="grid grid-cols-3 gap-[6px] w-[192px]" role="group" aria-label={say("Digits")}>
      {KEYS.map((k) => (
        <button
          key={k}
          type="button"
          className={cls}
          disabled={k === "." && !decimals}
          onClick={() => onText(typed(text, k, decimals))}
        >
          {k}
        </button>
      ))}
      <button
        type="button"
        aria-label={say("Delete the last digit")}
        className={`${cls} grid place-items-center`}
        onClick={() => onText(typed(text, "back", decimals))}
      >
        <Delete size={22} />
      </button>
    </div>
  );
}

const DISPLAY = "display-typed";

/** What is typed next is the display again. */
export function backToDisplay(): void {
  document.getElementById(DISPLAY)?.focus({ preventScroll: true });
}

/**
 * What is to be done, at once or as soon as what is under way has ended: whoever types on while the
 * last reading is still sent loses nothing.
 */
function useInTurn(busy: boolean, doIt: () => void): () => void {
  const [waiting, setWaiting] = useState(false);
  useEffect(() => {
    if (!waiting || busy) return;
    setWaiting(false);
    doIt();
    // once for each that waits
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [waiting, busy]);
  return () => (busy ? setWaiting(true) : doIt());
}

interface PadFormProps {
  label: string;
  unit: string;
  text: string;
  onText: (t: string) => void;
  onKeep: () => void;
  busy: boolean;
  focus?: boolean;
}

/** The display to type, its key, and the digits under both. */
export function PadForm({
  label,
  unit,
  text,
  onText,
  onKeep,
  busy,
  focus = false,
}: PadFormProps): ReactElement {
  const name = `${label}${unit ? ` [${unit}]` : ""}`;
  const submit = useInTurn(busy, onKeep);
  return (
    <form
      className="grid gap-2 w-[192px] shrink-0"
      onSubmit={(e) => {
        e.preventDefault();
        if (text !== "") submit();
      }}
    >
      <span className="text-m font-semibold" aria-hidden="true">
        {label}
        {unit && <span className="font-normal text-ink-2"> [{unit}]</span>}
      </span>
      <div className="flex gap-[6px]">
        <input
          className="input num text-center"
          style={{ fontSize: 25, minHeight: 50, padding: 4, width: 112 }}
          id={DISPLAY}
          inputMode="none"
          // eslint-disable-next-line jsx-a11y/no-autofocus -- one field a station: typed at once
          autoFocus={focus}
          aria-label={name}
          value={text}
          onChange={(e) =>
            onText(
              e.target.value
                .split("")
                .reduce((t, k) => (/[0-9.]/.test(k) ? typed(t, k, true) : t), ""),
            )
          }
        />
        <button
          className="key"
          style={{
            background: "var(--ink)",
            color: "var(--paper)",
            minHeight: 50,
            padding: "0 12px",
            width: 74,
          }}
          aria-busy={busy}
          disabled={text === ""}
        >
          {say("Keep")}
        </button>
      </div>
      <Keypad text={text} onText={onText} />
    </form>
  );
}

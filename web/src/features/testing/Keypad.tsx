/** Digits for wet hands; the keyboard types the same. */
import { Delete } from "lucide-react";
import type { ReactElement } from "react";

const KEYS = ["1", "2", "3", "4", "5", "6", "7", "8", "9", ".", "0"];

export function typed(text: string, key: string, decimals: boolean): string {
  if (key === "back") return text.slice(0, -1);
  if (key === "." && (!decimals || text.includes("."))) return text;
  if (text.length >= 6) return text;
  return text === "0" && key !== "." ? key : text + key;
}

export function Keypad({ text, onText, decimals = true }: { text: string; onText: (t: string) => void; decimals?: boolean }): ReactElement {
  const cls = "h-[44px] rounded-[10px] border-[1.5px] border-ink bg-paper font-d font-semibold text-[20px] active:bg-yuzu";
  return (
    <div className="grid grid-cols-3 gap-[6px] w-[192px]" role="group" aria-label="Digits">
      {KEYS.map((k) => (
        <button key={k} type="button" className={cls} disabled={k === "." && !decimals} onClick={() => onText(typed(text, k, decimals))}>{k}</button>
      ))}
      <button type="button" aria-label="Delete the last digit" className={`${cls} grid place-items-center`} onClick={() => onText(typed(text, "back", decimals))}><Delete size={22} /></button>
    </div>
  );
}

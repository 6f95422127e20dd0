/** One key turns the screen to the customer and back. */
import { useEffect, useRef } from "react";

/** Whether a key goes to a field or to what lies on top. */
export const isTyping = (e: KeyboardEvent): boolean =>
  ["INPUT", "SELECT", "TEXTAREA"].includes((e.target as HTMLElement).tagName) ||
  document.querySelector("[role=dialog]") !== null;

export function useTurnKey(turn: () => void, also: readonly string[] = []): void {
  const act = useRef(turn);
  useEffect(() => {
    act.current = turn;
  });
  const keys = also.join();
  useEffect(() => {
    const on = (e: KeyboardEvent): void => {
      if (e.ctrlKey || e.metaKey || e.altKey) return;
      if ((!isTyping(e) && e.key.toLowerCase() === "t") || keys.split(",").includes(e.key)) {
        e.preventDefault();
        act.current();
      }
    };
    document.addEventListener("keydown", on);
    return () => document.removeEventListener("keydown", on);
  }, [keys]);
}

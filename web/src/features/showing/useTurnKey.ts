/** One key turns the screen to the customer and back. */
import { useEffect, useRef } from "react";

export function useTurnKey(turn: () => void, also: readonly string[] = []): void {
  const act = useRef(turn);
  useEffect(() => {
    act.current = turn;
  });
  const keys = also.join();
  useEffect(() => {
    const on = (e: KeyboardEvent): void => {
      const typing =
        ["INPUT", "SELECT", "TEXTAREA"].includes((e.target as HTMLElement).tagName) ||
        document.querySelector("[role=dialog]") !== null;
      if (e.ctrlKey || e.metaKey || e.altKey) return;
      if ((!typing && e.key.toLowerCase() === "t") || keys.split(",").includes(e.key)) {
        e.preventDefault();
        act.current();
      }
    };
    document.addEventListener("keydown", on);
    return () => document.removeEventListener("keydown", on);
  }, [keys]);
}

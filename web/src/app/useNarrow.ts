/** Whether the page is as narrow as a phone held upright. */
import { useSyncExternalStore } from "react";

const NARROW = "(max-width: 699px)";
const asked = typeof window === "undefined" ? null : window.matchMedia(NARROW);

export const useNarrow = (): boolean =>
  useSyncExternalStore(
    (told) => {
      asked?.addEventListener("change", told);
      return () => asked?.removeEventListener("change", told);
    },
    () => asked?.matches ?? false,
  );

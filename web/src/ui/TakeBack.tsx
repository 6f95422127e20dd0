/** What was taken away can be taken back for ten seconds, at one touch. */
import { Undo2 } from "lucide-react";
import {
  createContext,
  useCallback,
  useContext,
  useEffect,
  useMemo,
  useState,
  type ReactElement,
  type ReactNode,
} from "react";
import { say } from "../app/language";

const SHOWN_MS = 10_000;

interface Offered {
  words: string;
  undo: () => void;
}
type Offer = (words: string, undo: () => void) => void;

const Context = createContext<Offer>(() => undefined);

/** Says what was taken away, and takes it back when asked. */
export function useTakeBack(): Offer {
  return useContext(Context);
}

export function TakeBackProvider({ children }: { children: ReactNode }): ReactElement {
  const [offered, setOffered] = useState<Offered | null>(null);
  const offer = useCallback<Offer>((words, undo) => setOffered({ words, undo }), []);
  useEffect(() => {
    if (!offered) return;
    const timer = setTimeout(() => setOffered(null), SHOWN_MS);
    return () => clearTimeout(timer);
  }, [offered]);
  const shown = useMemo(
    () =>
      offered && (
        <div
          role="status"
          className={
            "fixed left-1/2 -translate-x-1/2 bottom-[84px] z-[60] flex items-center gap-4 " +
            "bg-ink text-paper pl-5 pr-2 py-2 rounded-[2px] max-w-[92vw]"
          }
          data-take-back=""
        >
          <span className="min-w-0">{offered.words}</span>
          <button
            className="key"
            style={{ minHeight: 46 }}
            onClick={() => {
              offered.undo();
              setOffered(null);
            }}
          >
            <Undo2 size={18} aria-hidden="true" />
            {say("Take it back")}
          </button>
        </div>
      ),
    [offered],
  );
  return (
    <Context.Provider value={offer}>
      {children}
      {shown}
    </Context.Provider>
  );
}

/** Head and counter: the frame of every screen. */
import { Moon, Sun } from "lucide-react";
import { useEffect, useState, type ReactElement, type ReactNode } from "react";
import { Link } from "react-router";

import { useQueue } from "../api/queue";
import { Slice } from "../glass/Slice";
import { Aside } from "./Aside";
import { Finder } from "./Finder";
import { clock } from "./when";
import { say } from "./language";

export function Logo({ size = 26 }: { size?: number }): ReactElement {
  return (
    <svg width={size} height={size} viewBox="0 0 28 28" aria-hidden="true">
      <path
        d="M4 8l2.2 16.4Q12 27 17.8 24.4L20 8"
        fill="var(--water-2)"
        stroke="var(--ink)"
        strokeWidth="2"
        strokeLinejoin="round"
      />
      <path d="M4 8H20" stroke="var(--ink)" strokeWidth="2" />
      <Slice x={20.5} y={7.5} r={6.3} width={1.8} />
    </svg>
  );
}

const DARK = "(prefers-color-scheme: dark)";

/** What was chosen here; without a choice, what the device prefers. */
function chosenTheme(): string | null {
  try {
    return localStorage.getItem("zesty.theme");
  } catch {
    return null;
  }
}
const preferred = (): string => (window.matchMedia(DARK).matches ? "dim" : "light");

export function ThemeKey(): ReactElement {
  const [theme, setTheme] = useState(() => chosenTheme() ?? preferred());
  useEffect(() => {
    document.documentElement.dataset.theme = theme;
  }, [theme]);
  useEffect(() => {
    const device = window.matchMedia(DARK);
    const follow = (): void => {
      if (chosenTheme() === null) setTheme(preferred());
    };
    device.addEventListener("change", follow);
    return () => device.removeEventListener("change", follow);
  }, []);
  const dim = theme === "dim";
  const choose = (next: string): void => {
    setTheme(next);
    try {
      localStorage.setItem("zesty.theme", next);
    } catch {
      // the choice holds for this page only
    }
  };
  return (
    <button
      className="grid place-items-center w-12 h-12 rounded-[10px]"
      aria-pressed={dim}
      aria-label={say("Dim theme")}
      title={say("Dim theme for dark kitchens")}
      onClick={() => choose(dim ? "light" : "dim")}
    >
      {dim ? <Sun size={22} /> : <Moon size={22} />}
    </button>
  );
}

export function SavedWords(): ReactElement | null {
  const { waiting, savedAt, offline } = useQueue();
  if (waiting.length > 0) {
    const n = say("{length} reading{x}", {
      length: waiting.length,
      x: waiting.length > 1 ? "s" : "",
    });
    return (
      <span role="status" className="text-s text-zest-ink font-semibold">
        {offline
          ? say("{n} kept on this device, the server does not answer", { n })
          : say("saving {n}", { n })}
      </span>
    );
  }
  if (savedAt === null) return null;
  const t = clock(new Date(savedAt));
  return (
    <span role="status" className="text-s text-ink-3">
      {say("every reading saved, {t}", { t })}
    </span>
  );
}

export function Head({
  title,
  sub,
  outside = false,
  children,
}: {
  title: ReactNode;
  sub?: ReactNode;
  /** Nobody is signed in here: there is nothing to find. */
  outside?: boolean;
  children?: ReactNode;
}): ReactElement {
  return (
    <header className="flex items-center gap-4 px-8 h-16 min-w-0">
      <Link
        to="/"
        className={
          "flex items-center gap-2 font-d font-bold text-[18px] tracking-tight text-ink " +
          "no-underline w-[200px] max-[900px]:w-auto shrink-0 min-h-11"
        }
      >
        <Logo />
        <span className="max-[900px]:sr-only">{say("Zesty Glass")}</span>
      </Link>
      <p className="truncate min-w-0">
        <b>{title}</b>
        {sub !== undefined && <span className="text-ink-2"> · {sub}</span>}
      </p>
      <span className="flex-1" />
      <Aside />
      <SavedWords />
      {children}
      {!outside && <Finder />}
      <ThemeKey />
    </header>
  );
}

export function Ledge({ children, end }: { children?: ReactNode; end?: ReactNode }): ReactElement {
  return (
    <section aria-label={say("The counter")}>
      <div className="ledge">
        <div className="face" />
      </div>
      {children !== undefined && (
        <div className="standing px-6" tabIndex={-1}>
          {children}
        </div>
      )}
      {end !== undefined && (
        <div className="absolute right-8 bottom-[5px] flex gap-3 z-10">{end}</div>
      )}
    </section>
  );
}

/**
 * The low counter of a view at work: what is picked from on the left, the next step on the right.
 */
export function Counter({
  children,
  end,
}: {
  children?: ReactNode;
  end?: ReactNode;
}): ReactElement {
  return (
    <section aria-label={say("The counter")}>
      <div className="ledge">
        <div className="face" />
      </div>
      <div className="tokens" style={{ right: end ? "min(300px, 46vw)" : 0 }}>
        <div
          className="row"
          style={{ gap: 12 }}
          tabIndex={0}
          role="group"
          aria-label={say("Counter")}
        >
          {children}
        </div>
      </div>
      <div className="ledge-end">{end}</div>
    </section>
  );
}

/** Fields for wet hands: large, labelled, with their unit. */
import { useId, useState, type ReactElement } from "react";
import { spoken, say } from "../app/language";

interface NumberFieldProps {
  label: string;
  unit?: string;
  value: number | null;
  min?: number;
  max?: number;
  step?: number;
  hint?: string;
  onCommit: (value: number | null) => void;
}

/** A number that is handed over when it is left; what is no number is said at once. */
export function NumberField({
  label,
  unit,
  value: exact,
  min = 0,
  max = 1e6,
  step,
  hint,
  onCommit,
}: NumberFieldProps): ReactElement {
  // a share times 100 is 7, not 7.000000000000001
  const value = exact === null ? null : Number(exact.toPrecision(12));
  const [text, setText] = useState(value === null ? "" : String(value));
  const [seen, setSeen] = useState(value);
  const [wrong, setWrong] = useState("");
  const id = useId();
  if (seen !== value) {
    setSeen(value);
    setText(value === null ? "" : String(value));
  }
  const commit = (): void => {
    const trimmed = text.trim().replace(",", ".");
    if (trimmed === "") {
      setWrong("");
      if (value !== null) onCommit(null);
      return;
    }
    const n = Number(trimmed);
    if (!Number.isFinite(n)) setWrong(say("“{text}” is not a number.", { text }));
    else if (n < min || n > max) setWrong(say("Use {min} to {max}.", { min, max }));
    else {
      setWrong("");
      if (n !== value) onCommit(n);
    }
  };
  return (
    <div className="field">
      <label htmlFor={id} className="font-semibold text-m">
        {label}
        {unit !== undefined && <span className="font-normal text-ink-2"> [{unit}]</span>}
      </label>
      <input
        id={id}
        className="input"
        inputMode="decimal"
        value={text}
        step={step}
        aria-invalid={wrong !== ""}
        aria-describedby={wrong || hint ? `${id}h` : undefined}
        onChange={(e) => setText(e.target.value)}
        onBlur={commit}
        onKeyDown={(e) => {
          if (e.key === "Enter") commit();
        }}
      />
      {(wrong !== "" || hint !== undefined) && (
        <small
          id={`${id}h`}
          className={wrong ? "text-s text-zest-ink font-semibold" : "text-s text-ink-2"}
        >
          {wrong || hint}
        </small>
      )}
    </div>
  );
}

export function TextField({
  label,
  value,
  required = false,
  hint,
  onCommit,
  first = false,
  type = "text",
  live = false,
}: {
  label: string;
  value: string;
  required?: boolean;
  hint?: string;
  first?: boolean;
  type?: "text" | "tel" | "email";
  /** Told with every letter: a key beside it is ready as soon as what is typed is enough. */
  live?: boolean;
  onCommit: (value: string) => void;
}): ReactElement {
  const [text, setText] = useState(value);
  const [seen, setSeen] = useState(value);
  if (seen !== value) {
    setSeen(value);
    setText(value);
  }
  return (
    <label className="field">
      <span>{label}</span>
      <input
        className="input"
        type={type}
        value={text}
        required={required}
        // eslint-disable-next-line jsx-a11y/no-autofocus -- the first field of a new visit
        autoFocus={first}
        onChange={(e) => {
          setText(e.target.value);
          if (live) onCommit(e.target.value);
        }}
        onBlur={() => {
          if (text !== value) onCommit(text);
        }}
        onKeyDown={(e) => {
          if (e.key === "Enter" && text !== value) onCommit(text);
        }}
      />
      {hint !== undefined && <small>{hint}</small>}
    </label>
  );
}

export interface Choice<T> {
  value: T;
  name: string;
}

/** How far a key goes along a row of choices. */
const STEP: Record<string, number> = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 };

export function Seg<T extends string | number | boolean | null>({
  label,
  value,
  choices,
  onChange,
  hideLabel = false,
}: {
  label: string;
  value: T;
  choices: Choice<T>[];
  onChange: (v: T) => void;
  hideLabel?: boolean;
}): ReactElement {
  const id = useId();
  return (
    <div className="field">
      <span id={id} className={hideLabel ? "sr-only" : ""}>
        {label}
      </span>
      <div className="seg w-max max-w-full" role="radiogroup" aria-labelledby={id}>
        {choices.map((c, i) => (
          <button
            key={String(c.value)}
            type="button"
            role="radio"
            aria-checked={c.value === value}
            tabIndex={
              c.value === value || (i === 0 && !choices.some((x) => x.value === value)) ? 0 : -1
            }
            onClick={() => onChange(c.value)}
            onKeyDown={(e) => {
              const by = STEP[e.key] ?? 0;
              if (!by) return;
              e.preventDefault();
              const next = choices[(i + by + choices.length) % choices.length];
              if (next) onChange(next.value);
              const buttons = e.currentTarget.parentElement?.querySelectorAll("button");
              buttons?.[(i + by + choices.length) % choices.length]?.focus();
            }}
          >
            {c.name}
          </button>
        ))}
      </div>
    </div>
  );
}

export const YES_NO: Choice<boolean | null>[] = spoken([
  { value: true, name: "Yes" },
  { value: false, name: "No" },
  { value: null, name: "Not asked" },
]);

/** The complaint in the customer's own words, with what kind of sign it is. */
import { X } from "lucide-react";
import { useState, type ReactElement } from "react";

import { useReference } from "../../api/hooks";
import type { Complaint } from "../../api/types";
import { newId } from "../../app/names";
import { say } from "../../app/language";

export function Complaints({
  list,
  onChange,
}: {
  list: Complaint[];
  onChange: (list: Complaint[]) => void;
}): ReactElement {
  const reference = useReference();
  const [sign, setSign] = useState("");
  const [words, setWords] = useState("");
  const signs = reference.data?.signs ?? [];
  const name = signs.find((s) => s.id === sign)?.name ?? "";
  const add = (): void => {
    const said = words.trim() || name;
    if (!sign || !said) return;
    onChange([...list, { id: newId(), sign, words: said }]);
    setSign("");
    setWords("");
  };
  return (
    <section aria-label={say("Complaints")} className="pb-5">
      <h2 className="text-[20px] mb-2">{say("What bothers them")}</h2>
      <ul className="mb-3">
        {list.map((c) => (
          <li key={c.id} className="flex items-center gap-2 border-b border-rule min-h-12">
            <q className="font-d font-semibold text-l flex-1">{c.words}</q>
            <button
              type="button"
              className="grid place-items-center w-11 h-11"
              aria-label={say("Remove “{words}”", { words: c.words })}
              onClick={() => onChange(list.filter((x) => x.id !== c.id))}
            >
              <X size={20} />
            </button>
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap gap-2" role="group" aria-label={say("Kind of complaint")}>
        {signs.map((s) => (
          <button
            key={s.id}
            type="button"
            className="key"
            style={{
              minHeight: 44,
              padding: "0 14px",
              fontSize: 15,
              ...(sign === s.id ? { background: "var(--yuzu)", color: "var(--on-yuzu)" } : {}),
            }}
            aria-pressed={sign === s.id}
            onClick={() => setSign(sign === s.id ? "" : s.id)}
          >
            {s.name}
          </button>
        ))}
      </div>
      {sign !== "" && (
        <form
          className="flex gap-3 items-end mt-3"
          onSubmit={(e) => {
            e.preventDefault();
            add();
          }}
        >
          <label className="field flex-1">
            <span>{say("In their own words")}</span>
            <input
              className="input"
              value={words}
              placeholder={name}
              maxLength={200}
              onChange={(e) => setWords(e.target.value)}
            />
          </label>
          <button className="key">{say("Add it")}</button>
        </form>
      )}
    </section>
  );
}

/** Why something changed at a home: kept with its day, struck and never deleted. */
import { useState, type ReactElement } from "react";

import { newId } from "../../app/names";
import { StrikeKey } from "../../ui/StrikeKey";
import { useTakeBack } from "../../ui/TakeBack";
import { Trouble } from "../../ui/Trouble";
import { said, today } from "../aftercare/dates";
import { ReasonKey } from "../../ui/ReasonKey";
import { useCloseCase, usePutNote, useStrikeNote, type HomeNote } from "./hooks";
import { spoken, say } from "../../app/language";

const KINDS: Record<string, string> = spoken({
  note: "a note",
  complaint: "a complaint",
  warranty: "a warranty case",
});

/** What a case is, what came of it, and the key that closes it. */
function Case({ home, note }: { home: string; note: HomeNote }): ReactElement | null {
  const close = useCloseCase(home);
  if (note.kind === "note" || note.struck) return null;
  if (note.closed_on)
    return (
      <span className="block text-m text-ink-2">
        {say("Closed on {day}: {outcome}", {
          day: said(note.closed_on),
          outcome: note.outcome,
        })}
      </span>
    );
  return (
    <span className="block py-1">
      <ReasonKey
        words={say("Close it")}
        title={say("What came of it")}
        hint={say("As: the maker sent a new valve, fitted that day.")}
        busy={close.isPending}
        onReason={(outcome) => close.mutate({ id: note.id, outcome })}
      />
      <Trouble error={close.error} />
    </span>
  );
}

const REASONS = spoken(["Typed wrong", "Another home", "It was not so"]);

export function AddNote({ home }: { home: string }): ReactElement {
  const [on, setOn] = useState(today());
  const [text, setText] = useState("");
  const [id, setId] = useState(newId);
  const [kind, setKind] = useState<HomeNote["kind"]>("note");
  const put = usePutNote(home);
  return (
    <form
      className="grid grid-cols-[170px_170px_1fr_auto] max-[700px]:grid-cols-1 gap-3 items-end py-2"
      onSubmit={(e) => {
        e.preventDefault();
        put.mutate(
          { id, on, text, kind },
          {
            onSuccess: () => {
              setText("");
              setId(newId());
            },
          },
        );
      }}
    >
      <label className="field">
        <span>{say("It happened on")}</span>
        <input
          className="input"
          type="date"
          required
          max={today()}
          value={on}
          onChange={(e) => setOn(e.target.value)}
        />
      </label>
      <label className="field">
        <span>{say("What it is")}</span>
        <select
          className="input"
          value={kind}
          onChange={(e) => setKind(e.target.value as HomeNote["kind"])}
        >
          {Object.entries(KINDS).map(([value, words]) => (
            <option key={value} value={value}>
              {words}
            </option>
          ))}
        </select>
      </label>
      <label className="field">
        <span>
          {kind === "note" ? say("Why the water or the equipment changed") : say("What is wrong")}
        </span>
        <input
          className="input"
          value={text}
          maxLength={500}
          placeholder={say("the pump was set lower, the supplier changed its source")}
          onChange={(e) => setText(e.target.value)}
        />
      </label>
      <button className="key" style={{ minHeight: 48 }} disabled={!text.trim() || put.isPending}>
        {say("Keep it")}
      </button>
      <div className="col-span-full">
        <Trouble error={put.error} />
      </div>
    </form>
  );
}

export function NoteLine({ home, note }: { home: string; note: HomeNote }): ReactElement {
  const strike = useStrikeNote(home);
  const takeBack = useTakeBack();
  return (
    <li
      className={"grid grid-cols-[120px_1fr_auto] gap-4 min-h-11 items-center border-b border-rule"}
    >
      <span className="num text-m">{said(note.on)}</span>
      <span className="text-b">
        {note.kind !== "note" && <b>{KINDS[note.kind]}: </b>}
        {note.struck ? <s className="text-ink-3">{note.text}</s> : note.text}
        <span className="text-m text-ink-2">
          {" "}
          {note.by}
          {note.struck && say("; crossed out: {struck}", { struck: note.struck })}
        </span>
        <Trouble error={strike.error} />
        <Case home={home} note={note} />
      </span>
      {!note.struck && (
        <StrikeKey
          words={say("Strike this note")}
          reasons={REASONS}
          busy={strike.isPending}
          small
          onStrike={(because) =>
            strike.mutate(
              { id: note.id, because },
              {
                onSuccess: () =>
                  takeBack(say("The note was crossed out."), () =>
                    strike.mutate({ id: note.id, because: "" }),
                  ),
              },
            )
          }
        />
      )}
    </li>
  );
}

/** Why something changed at a home: kept with its day, struck and never deleted. */
import { useState, type ReactElement } from "react";

import { newId } from "../../app/names";
import { StrikeKey } from "../../ui/StrikeKey";
import { useTakeBack } from "../../ui/TakeBack";
import { Trouble } from "../../ui/Trouble";
import { said, today } from "../aftercare/dates";
import { usePutNote, useStrikeNote, type HomeNote } from "./hooks";
import { spoken, say } from "../../app/language";

const REASONS = spoken(["Typed wrong", "Another home", "It was not so"]);

export function AddNote({ home }: { home: string }): ReactElement {
  const [on, setOn] = useState(today());
  const [text, setText] = useState("");
  const [id, setId] = useState(newId);
  const put = usePutNote(home);
  return (
    <form
      className="grid grid-cols-[170px_1fr_auto] max-[700px]:grid-cols-1 gap-3 items-end py-2"
      onSubmit={(e) => {
        e.preventDefault();
        put.mutate(
          { id, on, text },
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
        <span>{say("Why the water or the equipment changed")}</span>
        <input
          className="input"
          value={text}
          maxLength={500}
          placeholder={say("the pump was set lower, the supplier changed its source")}
          onChange={(e) => setText(e.target.value)}
        />
      </label>
      <button className="key" style={{ minHeight: 48 }} disabled={!text.trim() || put.isPending}>
        {say("Keep the note")}
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
        {note.struck ? <s className="text-ink-3">{note.text}</s> : note.text}
        <span className="text-m text-ink-2">
          {" "}
          {note.by}
          {note.struck && say("; struck: {struck}", { struck: note.struck })}
        </span>
        <Trouble error={strike.error} />
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
                  takeBack(say("The note was struck."), () =>
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

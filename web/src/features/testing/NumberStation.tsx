/** One number on a colorimeter, meter or gauge: blank, wait by a ring, type, keep. */
import { useState, type ReactElement, type ReactNode } from "react";
import { lowerFirst } from "../../app/names";

import { api, data } from "../../api/client";
import type { Instrument, Sample } from "../../api/types";
import { best, unitOf } from "../../app/show";
import { Glass } from "../../glass/Glass";
import { OpensWorking } from "../../ui/Slip";
import { Trouble } from "../../ui/Trouble";
import { useVisitContext } from "../visit/context";
import { PadForm } from "./Keypad";
import { OnTheLedge } from "./OnTheLedge";
import {
  Dilution,
  Doing,
  Flags,
  Measured,
  OnThisDevice,
  procedureOf,
  StationFrame,
  OnRecord,
  type StationProps,
} from "./pieces";
import { clock, startTimer, useNow, useTimers } from "./timers";
import { useKeep } from "./useKeep";
import { useKept, type Kept } from "./useKept";
import { say } from "../../app/language";

function WaitRing({
  seconds,
  visit,
  label,
}: {
  seconds: number;
  visit: string;
  label: string;
}): ReactElement {
  const mine = useTimers(visit).find((t) => t.label === label);
  const now = useNow(mine !== undefined);
  const left = mine === undefined ? null : mine.endsAt - now;
  const done = left !== null && left <= 0;
  const waiting =
    left === null
      ? say("Reagent is in: start {x}", { x: clock(seconds * 1000) })
      : say("Read it now");
  return (
    <button
      type="button"
      className={`key ${done ? "on" : ""}`}
      onClick={() => startTimer(label, seconds, visit)}
    >
      {left !== null && !done ? say("{left} to wait", { left: clock(left) }) : waiting}
    </button>
  );
}

/** Takes the number from the colorimeter itself: the simulated one here. */
function FromKit({
  kit,
  sample,
  busy,
  onTake,
  onTrouble,
}: {
  kit: Instrument;
  sample: Sample;
  busy: boolean;
  onTake: (shown: string) => void;
  onTrouble: (e: unknown) => void;
}): ReactElement {
  const { id } = useVisitContext();
  const [reading, setReading] = useState(false);
  const take = async (): Promise<void> => {
    setReading(true);
    try {
      const shown = await data(
        api.GET("/api/visits/{id}/standins/colorimeter/{sample_id}/{analyte}", {
          params: {
            path: { id, sample_id: sample.id, analyte: kit.analyte },
            query: { turn: sample.readings.length },
          },
        }),
      );
      onTake(String(shown.value));
    } catch (e) {
      onTrouble(e);
    } finally {
      setReading(false);
    }
  };
  return (
    <button type="button" className="key" disabled={busy || reading} onClick={() => void take()}>
      {reading ? say("Reading") : say("Take it from the colorimeter")}
      <span className="font-normal text-s text-ink-2">{say("simulated")}</span>
    </button>
  );
}

/** Total less free chlorine, once both were read. */
function Chloramine({ sample }: { sample: Sample }): ReactElement | null {
  const { units, valuesOf } = useVisitContext();
  const combined = valuesOf(sample).chlorine_combined;
  if (!combined?.range) return null;
  return (
    <p className="text-l">
      {say("Chloramine (total less free):")}{" "}
      <b>{combined.flags.length ? say("not shown") : best("chlorine_combined", combined, units)}</b>
      {combined.flags.map((f) => (
        <span key={f.id} className="block text-m text-ink-2">
          {f.sentence}
        </span>
      ))}
    </p>
  );
}

/** The number that is kept: its range, what is remarked on it, and what can be done next. */
function KeptNumber({
  kit,
  sample,
  kept,
  next,
  onAgain,
}: {
  kit: Instrument;
  sample: Sample;
  kept: Kept;
  next: ReactNode;
  onAgain: () => void;
}): ReactElement | null {
  const { units } = useVisitContext();
  if (!kept.reading) return null;
  return (
    <>
      {kept.report ? <Measured report={kept.report} units={units} /> : <OnThisDevice />}
      <Flags flags={kept.report?.value.flags ?? []} />
      {kit.analyte.startsWith("chlorine") && <Chloramine sample={sample} />}
      <div className="flex gap-2 flex-wrap items-center">
        {next}
        <button className="key" onClick={onAgain}>
          {say("Read again")}
        </button>
        <OnRecord reading={kept.reading} />
      </div>
    </>
  );
}

interface Prepared {
  blanked: boolean;
  dilution: number;
}
const FRESH: Prepared = { blanked: true, dilution: 1 };

function Prepare({
  ready,
  onReady,
}: {
  ready: Prepared;
  onReady: (r: Prepared) => void;
}): ReactElement {
  return (
    <>
      <label className="flex gap-3 items-center min-h-11 text-m">
        <input
          type="checkbox"
          className="w-6 h-6"
          checked={ready.blanked}
          onChange={(e) => onReady({ ...ready, blanked: e.target.checked })}
        />
        {say("Blanked on this water")}
      </label>
      <Dilution value={ready.dilution} onChange={(dilution) => onReady({ ...ready, dilution })} />
    </>
  );
}

interface Typing {
  text: string;
  setText: (t: string) => void;
  ready: Prepared;
  setReady: (r: Prepared) => void;
  busy: boolean;
  error: unknown;
  keepIt: () => Promise<boolean>;
}

/** What is typed, and what it stands on: kept as one reading. */
function useTyping(kit: Instrument): Typing {
  const [text, setText] = useState("");
  const [ready, setReady] = useState(FRESH);
  const { busy, error, save } = useKeep();
  const keepIt = async (): Promise<boolean> => {
    const value = Number(text);
    if (text === "" || text === "." || !Number.isFinite(value)) return false;
    setText("");
    await save(kit, { method: "display", value, ...ready });
    setReady(FRESH);
    return true;
  };
  return { text, setText, ready, setReady, busy, error, keepIt };
}

/** Where a reagent goes in: taken from the colorimeter or typed, with blank and dilution. */
function WithReagent({
  kit,
  sample,
  typing,
  onTrouble,
}: {
  kit: Instrument;
  sample: Sample;
  typing: Typing;
  onTrouble: (e: unknown) => void;
}): ReactElement {
  return (
    <>
      <FromKit
        kit={kit}
        sample={sample}
        busy={typing.busy}
        onTake={typing.setText}
        onTrouble={onTrouble}
      />
      <Prepare ready={typing.ready} onReady={typing.setReady} />
    </>
  );
}

function Heading({
  kit,
  title,
  sample,
}: {
  kit: Instrument;
  title: string;
  sample: Sample;
}): ReactElement {
  const name = lowerFirst(kit.name);
  return (
    <>
      <h1 id="number-title">{title}</h1>
      <p className="text-ink-2 mb-3">
        {say("{name}, with {name2}{x}.", {
          name: sample.name,
          name2: name,
          x: kit.simulated ? " (simulated)" : "",
        })}
      </p>
    </>
  );
}

function Why({ kit }: { kit: Instrument }): ReactElement | null {
  const { meaning } = useVisitContext().view.assessment;
  if (kit.analyte !== "ph" || !meaning) return null;
  return (
    <OpensWorking working={meaning.breath}>{say("Why acid when breathed into?")}</OpensWorking>
  );
}

export function NumberStation({ kit, sample, next }: StationProps): ReactElement {
  const { id, lookOf } = useVisitContext();
  const [again, setAgain] = useState(false);
  const [wrong, setWrong] = useState<unknown>(null);
  const typing = useTyping(kit);
  const kept = useKept(
    sample,
    (r) => r.analyte === kit.analyte && r.observation.method === "display",
  );
  const how = procedureOf(kit);
  const title = how.title || kit.name;
  const open = kept.reading === null || again;
  const keepIt = async (): Promise<void> => {
    if (await typing.keepIt()) setAgain(false);
  };
  const { text, setText, busy } = typing;
  return (
    <>
      <OnTheLedge>
        <Glass look={lookOf(sample)} h={252} label={sample.name} />
      </OnTheLedge>
      <StationFrame
        titled="number-title"
        side={<Doing steps={how.steps} done={kept.reading !== null} caution={how.caution} />}
      >
        <Heading kit={kit} title={title} sample={sample} />
        <div className="flex gap-6 items-start max-[699px]:flex-wrap">
          {open && (
            <PadForm
              key={kit.id}
              label={say("Display")}
              unit={kit.unit || unitOf(kit.analyte, "metric").unit}
              text={text}
              onText={setText}
              onKeep={() => void keepIt()}
              busy={busy}
              focus
            />
          )}
          <div className="min-w-0 flex-1 grid gap-3 justify-items-start content-start">
            {!open && (
              <KeptNumber
                kit={kit}
                sample={sample}
                kept={kept}
                next={next}
                onAgain={() => setAgain(true)}
              />
            )}
            {open && how.reagent && (
              <WithReagent kit={kit} sample={sample} typing={typing} onTrouble={setWrong} />
            )}
            {open && kit.wait_s != null && (
              <WaitRing seconds={kit.wait_s} visit={id} label={lowerFirst(title)} />
            )}
            <Why kit={kit} />
            {again && (
              <button className="key bare" onClick={() => setAgain(false)}>
                {say("Keep the one before")}
              </button>
            )}
            <Trouble error={typing.error ?? wrong} />
          </div>
        </div>
      </StationFrame>
    </>
  );
}

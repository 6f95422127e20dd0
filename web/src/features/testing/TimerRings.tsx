/**
 * Running timers as citrus wheels in the head of every step; a finished one says so until it is put
 * away.
 */
import { BellOff, BellRing, X } from "lucide-react";
import { useEffect, useRef, useState, type ReactElement } from "react";

import { Wheel } from "../../glass/Slice";
import { clock, stopTimer, useNow, useTimers } from "./timers";
import { say } from "../../app/language";

function beep(): void {
  try {
    const audio = new AudioContext();
    const tone = audio.createOscillator();
    tone.frequency.value = 880;
    tone.connect(audio.destination);
    tone.start();
    tone.stop(audio.currentTime + 0.25);
  } catch {
    // no sound on this device: the ring is enough
  }
}

export function TimerRings({ visit }: { visit: string }): ReactElement | null {
  const timers = useTimers(visit);
  const [sound, setSound] = useState(false);
  const now = useNow(timers.length > 0);
  const rung = useRef(new Set<string>());
  useEffect(() => {
    for (const t of timers) {
      if (now >= t.endsAt && !rung.current.has(t.id)) {
        rung.current.add(t.id);
        if (sound) beep();
      }
    }
  }, [now, timers, sound]);
  if (timers.length === 0) return null;
  return (
    <div className="flex items-center gap-3" role="group" aria-label={say("Timers")}>
      {timers.slice(-3).map((t) => {
        const done = now >= t.endsAt;
        const share = Math.min(1, (now - t.startedAt) / (t.endsAt - t.startedAt));
        return (
          <div
            key={t.id}
            className={
              "flex items-center gap-2 pl-1 pr-0 rounded-[10px]" +
              (done ? " bg-yuzu text-on-yuzu" : "")
            }
            role={done ? "alert" : undefined}
          >
            <Wheel
              done={Math.floor(share * 9)}
              of={9}
              r={17}
              label={done ? "done" : clock(t.endsAt - now)}
            />
            <span className="text-s leading-tight whitespace-nowrap">
              <b>{done ? "done" : clock(t.endsAt - now)}</b>
              <br />
              {t.label}
            </span>
            <button
              className="grid place-items-center w-11 h-11"
              aria-label={say("Put away the timer {label}", { label: t.label })}
              onClick={() => stopTimer(t.id)}
            >
              <X size={16} />
            </button>
          </div>
        );
      })}
      <button
        className="grid place-items-center w-11 h-11"
        aria-pressed={sound}
        aria-label={say("Sound at the end")}
        title={say("Sound at the end")}
        onClick={() => setSound(!sound)}
      >
        {sound ? <BellRing size={20} /> : <BellOff size={20} />}
      </button>
    </div>
  );
}

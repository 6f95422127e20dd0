/** How long it boils: a clock that nobody has to watch, so that it stops before it is dry. */
import type { ReactElement } from "react";

import { clock, startTimer, useNow, useTimers } from "../testing/timers";
import { useVisitContext } from "../visit/context";
import { say } from "../../app/language";

const LABEL = "distilling";
const BOILS_S = 1500; // [s] until somebody looks at the flask again

export function BoilTimer(): ReactElement {
  const { id } = useVisitContext();
  const timer = useTimers(id).find((t) => t.label === LABEL);
  const now = useNow(timer !== undefined);
  const left = timer === undefined ? null : timer.endsAt - now;
  const running =
    left !== null && left > 0
      ? say("It boils: {left}", { left: clock(left) })
      : say("Look at the flask now");
  return (
    <button
      type="button"
      className="key justify-self-start"
      style={{ minHeight: 56, fontSize: 20 }}
      onClick={() => startTimer(LABEL, BOILS_S, id)}
    >
      {left === null ? say("It boils: start {x}", { x: clock(BOILS_S * 1000) }) : running}
    </button>
  );
}

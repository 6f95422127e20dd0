/** How a glass reads: one legend for every screen. */
import type { ReactElement } from "react";

import { Head } from "../../app/Shell";
import { Glass } from "../../glass/Glass";
import { EMPTY, type Look } from "../../glass/look";
import { spoken, say } from "../../app/language";

const CLEAR: Look = { ...EMPTY, unseen: 0, tests: EMPTY.tests.map((t) => ({ ...t, done: true })) };
const w = (part: Partial<Look>): Look => ({ ...CLEAR, ...part });
const some = (no: string[]): Look["tests"] =>
  CLEAR.tests.map((t) => ({ ...t, done: !no.includes(t.name) }));
const ROWS: [string, string, Look[]][] = spoken([
  [
    "Tannin",
    "0, 0.5 and 2 mg/L; the tint is chosen by eye, not measured",
    [w({}), w({ tannin: 0.5 }), w({ tannin: 2 })],
  ],
  [
    "Rusted iron",
    "0.1, 0.4 and 1 mg/L; dissolved iron has no color",
    [w({ ferric: 0.1 }), w({ ferric: 0.4 }), w({ ferric: 1 })],
  ],
  ["Haze", "1, 4 and 12 NTU: a veil and fine dots", [w({ ntu: 1 }), w({ ntu: 4 }), w({ ntu: 12 })]],
  [
    "Hardness",
    "one crystal is 10 mg/L; hollow: within the range",
    [w({ hard: [30, 40] }), w({ hard: [110, 150] }), w({ hard: [223, 240] })],
  ],
  [
    "Scale ring",
    "from the scale index at 60 °C: 0.4, 1 and 1.8",
    [w({ ring: 0.4 }), w({ ring: 1 }), w({ ring: 1.8 })],
  ],
  [
    "Chlorine",
    "one bubble is 0.1 mg/L free; pairs are chloramine",
    [w({ free: 0.3 }), w({ free: 1 }), w({ free: 0.4, combined: 0.8 })],
  ],
  [
    "Dissolved solids",
    "cannot be seen: a mark on the wall, 0 to 1,000 mg/L",
    [w({ tds: [28, 32] }), w({ tds: [400, 424] }), w({ tds: [840, 880] })],
  ],
  [
    "Predicted",
    "dashed; measured is solid",
    [w({ hard: [60, 80] }), w({ hard: [60, 80], predicted: true })],
  ],
  [
    "Not tested",
    "hatched by the share of what can be seen; the boxes at the foot name the tests",
    [w({ unseen: 0.25, tests: some(["iron", "pH"]) }), { ...EMPTY }],
  ],
]);

export function GlassLegend(): ReactElement {
  return (
    <div className="screen plain">
      <Head title={say("The glass")} sub={say("one legend, every screen")} />
      <main className="min-h-0">
        <div
          className="h-full scroll px-8 pb-8"
          tabIndex={0}
          role="group"
          aria-label={say("Legend")}
        >
          <h1 className="pt-4">{say("How a glass reads")}</h1>
          <div
            className={"grid grid-cols-[repeat(auto-fill,minmax(240px,1fr))] gap-x-6 gap-y-9 pt-6"}
          >
            {ROWS.map(([name, words, looks]) => (
              <section key={name}>
                <div className="flex gap-2">
                  {looks.map((l, i) => (
                    <Glass key={i} look={l} h={98} label={`${name}, ${i + 1}`} />
                  ))}
                </div>
                <h2 className="mt-4 text-l">{name}</h2>
                <p className="text-m text-ink-2">{words}</p>
              </section>
            ))}
            <section>
              <div className="flex gap-4">
                <Glass look={CLEAR} h={98} label={say("First chosen")} pick={1} />
                <Glass look={CLEAR} h={98} label={say("Second chosen")} pick={2} />
              </div>
              <h2 className="mt-4 text-l">{say("Chosen")}</h2>
              <p className="text-m text-ink-2">{say("a wheel: first; half a wheel: second")}</p>
            </section>
            <section className="col-span-full flex gap-6 items-end">
              {[24, 32, 44, 64, 96, 190].map((h) => (
                <Glass
                  key={h}
                  look={w({
                    tannin: 0.8,
                    ferric: 0.3,
                    hard: [180, 220],
                    ring: 0.8,
                    tds: [300, 320],
                    ntu: 1,
                  })}
                  h={h}
                  label={say("{h} pixels high", { h })}
                />
              ))}
              <p className="text-s text-ink-2">
                {say("24 to 220 px: below 70 px a crystal counts 30 mg/L, below 40 px 60 mg/L")}
              </p>
            </section>
          </div>
        </div>
      </main>
    </div>
  );
}

/**
 * What the firm has learnt: how its promises were kept, and why a TDS meter says nothing of
 * hardness.
 */
import { useState, type ReactElement } from "react";
import { Link } from "react-router";

import { api, data } from "../../api/client";
import { useMe } from "../../api/hooks";
import { ANALYTE_NAMES, KIND_NAMES, MG_L_PER_GPG } from "../../app/facts.generated";
import { Head } from "../../app/Shell";
import { Trouble, Waiting } from "../../ui/Trouble";
import { Seg } from "../../ui/fields";
import { BehindKey, homesAre } from "./BehindKey";
import { roundUp } from "./scale";
import { useTrack, type Kept, type Pair, type Track } from "./hooks";
import { TrackMore } from "./TrackMore";
import { spoken, say } from "../../app/language";

const PARTS = spoken([
  ["as_promised", "as promised", "var(--leaf)"],
  ["better", "better", "var(--water-3)"],
  ["short", "short", "var(--zest)"],
] as const);

function Bar({ k }: { k: Kept }): ReactElement {
  let at = 0;
  const word = PARTS.map(([key, name]) => `${k[key]} ${name}`).join(", ");
  return (
    <svg viewBox="0 0 300 22" width="100%" role="img" aria-label={word}>
      {PARTS.map(([key, , fill]) => {
        const w = (k[key] / k.homes) * 298;
        const x = at;
        at += w;
        return w > 0 ? (
          <rect
            key={key}
            x={x + 1}
            y="2"
            width={w}
            height="18"
            fill={fill}
            stroke="var(--ink)"
            strokeWidth="1.2"
          />
        ) : null;
      })}
    </svg>
  );
}

function KeptRow({ k }: { k: Kept }): ReactElement {
  const { kind, analyte, items } = k;
  const name = ANALYTE_NAMES[analyte] ?? analyte;
  return (
    <li
      className={
        "grid grid-cols-[1fr_220px_240px] max-[900px]:grid-cols-1 gap-x-5 items-center border-b " +
        "border-rule py-2"
      }
    >
      <p>
        <b className="font-d text-l block">{name}</b>
        <span className="text-m text-ink-2">
          {[KIND_NAMES[kind] ?? kind, k.maker, k.item].filter(Boolean).join(", ")}
        </span>
      </p>
      <Bar k={k} />
      <p className="text-m">
        <BehindKey
          label={`${name}: ${homesAre(k.homes)}`}
          load={() =>
            data(api.GET("/api/track/jobs", { params: { query: { kind, item: items, analyte } } }))
          }
          to={(id) => `/jobs/${id}?part=proof`}
        >
          {homesAre(k.homes)}
        </BehindKey>
        <span className="block">
          {k.few
            ? say("too few to say")
            : say("{x} of {homes} kept", { x: k.as_promised + k.better, homes: k.homes })}
          {k.short > 0 && k.short_by !== null && !k.few
            ? say("; short by {x} % of the raw water", { x: Math.round(k.short_by * 100) })
            : ""}
          {k.mended > 0 && say("; {mended} short at first and mended", { mended: k.mended })}
        </span>
      </p>
    </li>
  );
}

/** The firm's promises, item by item or maker by maker. */
function Promises({ t }: { t: Track }): ReactElement {
  const [by, setBy] = useState<"item" | "maker">("item");
  const lines = by === "item" ? t.kept : t.by_maker;
  return (
    <section aria-label={say("Promises")}>
      <h1>{say("How our promises were kept")}</h1>
      <p className="text-m text-ink-2 pb-1">
        {say(
          "Predicted ranges against what was measured behind the fitted system. Below five " +
            "homes it is too few to say.",
        )}
      </p>
      <div className="flex gap-5 flex-wrap text-m items-end justify-between">
        <p className="flex gap-5 flex-wrap">
          {PARTS.map(([key, name, fill]) => (
            <span key={key} className="flex gap-2 items-center">
              <svg width="22" height="14" aria-hidden="true">
                <rect x="1" y="1" width="20" height="12" fill={fill} stroke="var(--ink)" />
              </svg>
              {name}
            </span>
          ))}
        </p>
        <Seg
          label={say("Counted")}
          value={by}
          choices={[
            { value: "item", name: say("by item") },
            { value: "maker", name: say("by maker") },
          ]}
          onChange={setBy}
        />
      </div>
      {t.kept.length === 0 && <p className="py-4 text-l">{say("Nothing was measured yet.")}</p>}
      <ul>
        {lines.map((k) => (
          <KeptRow key={`${k.kind}${k.maker}${k.item}${k.analyte}`} k={k} />
        ))}
      </ul>
    </section>
  );
}

function Scatter({ pairs }: { pairs: Pair[] }): ReactElement {
  const tx = roundUp(Math.max(...pairs.map((p) => p.tds)));
  const ty = roundUp(Math.max(...pairs.map((p) => p.hardness / MG_L_PER_GPG)));
  const x = (v: number): number => 50 + (v / tx) * 330;
  const y = (v: number): number => 230 - (v / ty) * 210;
  return (
    <svg
      viewBox="0 0 400 270"
      width="100%"
      role="img"
      aria-label={say("{length} raw waters, dissolved solids against hardness", {
        length: pairs.length,
      })}
    >
      <path d="M50,14V230H386" fill="none" stroke="var(--ink)" strokeWidth="1.5" />
      <text x="44" y="26" textAnchor="end" fontSize="14" fill="var(--ink-2)">
        {ty}
      </text>
      <text x="44" y="234" textAnchor="end" fontSize="14" fill="var(--ink-2)">
        0
      </text>
      <text x="382" y="248" textAnchor="end" fontSize="14" fill="var(--ink-2)">
        {tx}
      </text>
      <text x="218" y="264" textAnchor="middle" fontSize="14" fill="var(--ink-2)">
        {say("dissolved solids, mg/L")}
      </text>
      <text x="56" y="12" fontSize="14" fill="var(--ink-2)">
        {say("hardness, gpg")}
      </text>
      {pairs.map((p, n) => (
        <circle
          key={n}
          cx={x(p.tds)}
          cy={y(p.hardness / MG_L_PER_GPG)}
          r="6"
          fill="var(--yuzu)"
          stroke="var(--ink)"
          strokeWidth="1.5"
        />
      ))}
    </svg>
  );
}

export function TrackPage(): ReactElement {
  const me = useMe();
  const track = useTrack();
  const t = track.data;
  return (
    <div className="screen plain">
      <Head title={me.data?.firm ?? say("Logbook")} sub={me.data?.name}>
        <Link className="key bare" to="/homes">
          {say("Homes")}
        </Link>
        <Link className="key bare" to="/due">
          {say("What is due")}
        </Link>
      </Head>
      <main className="scroll px-8 pb-8">
        {track.isPending && <Waiting what={say("Counting.")} />}
        <Trouble error={track.error} again={() => void track.refetch()} />
        {t && (
          <div
            className={
              "max-w-[1180px] mx-auto grid grid-cols-[1fr_400px] max-[900px]:grid-cols-1 " +
              "gap-x-12 pt-2"
            }
          >
            <Promises t={t} />
            <section aria-label={say("Dissolved solids and hardness")}>
              <h2 className="pt-3">{say("Dissolved solids do not give hardness")}</h2>
              <p className="text-m py-1">
                <BehindKey
                  label={say("{length} raw waters", { length: t.pairs.length })}
                  load={() => data(api.GET("/api/track/waters"))}
                  to={(id) => `/visits/${id}/meaning`}
                >
                  {t.pairs.length === 1
                    ? say("1 raw water")
                    : say("{length} raw waters", { length: t.pairs.length })}
                </BehindKey>{" "}
                {say(
                  "of ours. One figure does not give the other: there is no line through " +
                    "them, and none is drawn.",
                )}
              </p>
              {t.pairs.length >= 5 ? <Scatter pairs={t.pairs} /> : <p>{say("Too few to draw.")}</p>}
            </section>
          </div>
        )}
        {t && <TrackMore />}
      </main>
    </div>
  );
}

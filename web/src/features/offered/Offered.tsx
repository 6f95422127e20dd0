/**
 * The customer's page behind a link: this proposal, explained to someone who was not there. On a
 * phone too.
 */
import { useQuery, type UseQueryResult } from "@tanstack/react-query";
import type { ReactElement } from "react";
import { useParams } from "react-router";

import { api, data, problemOf } from "../../api/client";
import type { Offer } from "../../api/types";
import { Logo } from "../../app/Shell";
import { StateMark, type Mark } from "../../ui/marks";
import { gone } from "../../ui/Stale";
import { Waiting } from "../../ui/Trouble";
import type { components } from "../../api/schema.generated";
import { fromToday } from "../aftercare/dates";
import { NAMES, placeOf } from "../aftercare/names";
import { ProvedBars, VERDICT } from "../aftercare/ProvedBars";
import { PlainSheet } from "../aftercare/Steps";
import { OfferView } from "../proposing/OfferView";
import { Seal } from "../proposing/Seal";
import { Accept } from "./Accept";
import { Ask } from "./Ask";
import { dayAndMonth, dayLong } from "../../app/when";
import { message, say, speak, type Language } from "../../app/language";
import { LanguageKey, languageOf, useCustomersLanguage } from "../../ui/LanguageKey";

const STANDS: Record<string, string> = {
  presented: message("Offered to you"),
  accepted: message("Accepted"),
  declined: message("Declined"),
  expired: message("No longer valid"),
  withdrawn: message("Withdrawn by the firm"),
  replaced: message("Replaced by a newer one"),
  cancelled: message("Cancelled"),
};

const STATE_MARK: Record<string, Mark> = { accepted: "done", presented: "part" };

type Why = "ended" | "often" | "silent";

const CLOSED: Record<Why, [title: string, then: string]> = {
  ended: [
    message("This link does not open anything"),
    message("It ended, or it was taken back. Nothing is lost: ask the firm for a new one."),
  ],
  often: [message("Too many tries"), message("Wait a minute, then open it again.")],
  silent: [
    message("This page cannot be reached just now"),
    message("Wait a minute, then open the link again."),
  ],
};

/** What a refusal says of the link: only where the server knows no such link has it ended. */
function whyOf(status: number | undefined): Why {
  if (status === 429) return "often";
  return status === 404 || status === 410 || status === 422 ? "ended" : "silent";
}

function Closed({ why }: { why: Why }): ReactElement {
  const [title, then] = CLOSED[why];
  return (
    <main className="min-h-[100dvh] grid place-items-center p-8">
      <div className="max-w-[520px]">
        <Logo size={44} />
        <h1 className="mt-4 mb-3">{say(title)}</h1>
        <p className="text-l">{say(then)}</p>
      </div>
    </main>
  );
}

type View = components["schemas"]["OfferedView"];
type CareLine = NonNullable<View["care"]>[number];

/** What falls due at the fitted line, once it is in use. */
function Care({ lines }: { lines: CareLine[] }): ReactElement | null {
  if (lines.length === 0) return null;
  return (
    <section className="max-w-[1040px] mx-auto my-5" aria-label={say("What is due")}>
      <h2>{say("What is due")}</h2>
      <ul>
        {lines.slice(0, 8).map((x) => (
          <li
            key={x.label + x.due_on}
            className={
              "grid grid-cols-[1fr_auto] gap-x-4 border-b border-rule py-2 text-b items-center"
            }
          >
            <span>
              <b>{x.label}</b>
              <span className="text-ink-2">
                {x.own ? say(", you can do this yourself") : say(", ask us for a visit")}
              </span>
            </span>
            <b className={x.state === "overdue" ? "text-zest-ink" : ""}>{fromToday(x.due_on)}</b>
            {x.steps && (
              <details className="col-span-2">
                <summary className="key bare -ml-2">{say("See the steps")}</summary>
                <div className="py-3">
                  <PlainSheet sheet={x.steps} level={3} />
                </div>
              </details>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

type KeptLine = NonNullable<View["kept"]>[number];

/** Whether the line keeps its promise, in the words that the firm itself reads. */
function Kept({ lines }: { lines: KeptLine[] }): ReactElement | null {
  if (lines.length === 0) return null;
  return (
    <section
      className="max-w-[1040px] mx-auto my-5"
      aria-label={say("What was measured behind it")}
    >
      <h2>{say("What was measured behind it")}</h2>
      <p className="text-m text-ink-2">
        {say(
          "Pale: promised. Yellow: measured. Dotted: the water before. Ranges that meet are " +
            "as promised. Of bacteria only a laboratory’s result counts.",
        )}
      </p>
      <ul>
        {lines.map(({ proved: p, tried }) => (
          <li
            key={p.promise.analyte + p.promise.where}
            className="grid wide:grid-cols-[170px_1fr_210px] gap-x-6 border-b border-rule py-2"
          >
            <span>
              <b className="text-b">{say(NAMES[p.promise.analyte] ?? p.promise.analyte)}</b>{" "}
              <span className="text-m text-ink-2">{placeOf(p.promise)}</span>
            </span>
            <ProvedBars p={p} />
            <span className="text-m">
              <b className={`text-b block ${p.verdict === "short" ? "text-zest-ink" : ""}`}>
                {say(VERDICT[p.verdict])}
              </b>
              {say("promised")} {p.promise.said || "nothing"}
              {say(", measured")} {p.said}
              {tried !== "" && <span className="block">{say("We try: {tried}", { tried })}</span>}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What the words and marks of a proposal mean, for someone who was not there. */
const complaintsAre = (n: number): string =>
  n === 1 ? say("One complaint is") : say("{n} complaints are", { n });

function HowToRead({ offer }: { offer: Offer }): ReactElement {
  const unexplained = offer.unexplained.length;
  return (
    <section
      className="max-w-[1040px] mx-auto bg-yuzu-pale text-ink p-5 my-5"
      aria-label={say("How to read this")}
    >
      <h2 className="mb-2">{say("If you were not there")}</h2>
      <p className="text-b mb-2">
        {say(
          "{consultant} of {firm} tested the water of {home} on {created_at}. This page says " +
            "what was found, what was compared, and what each choice does, drains and " +
            "costs.",
          {
            consultant: offer.consultant,
            firm: offer.firm,
            home: offer.home,
            created_at: dayLong(offer.created_at),
          },
        )}
      </p>
      <ul className="list-disc pl-5 text-b">
        <li>
          {say("Every figure has a range. Where two ranges overlap, no difference is claimed.")}
        </li>
        <li>{say("A solid glass is measured, a dashed one expected; hatching was not tested.")}</li>
        <li>{say("“Not proven” means there is no certificate for that contaminant.")}</li>
        <li>
          {say("Doing nothing is one of the choices, with its own costs.")}
          {unexplained > 0 &&
            say(" {unexplained} not explained yet.", { unexplained: complaintsAre(unexplained) })}
        </li>
        <li>
          {say(
            "Nothing here says whether water is fit to drink: a certified laboratory and the " +
              "local health authority do.",
          )}
        </li>
      </ul>
    </section>
  );
}

/** What the address asks for, or the browser's owner reads. */
const ownLanguage = (): Language => {
  const asked = new URLSearchParams(window.location.search).get("language");
  return languageOf(asked ?? navigator.language);
};

/** That a newer revision is shown, and what came to light since it was written. */
function Newer({ of }: { of: View }): ReactElement | null {
  const news = of.news;
  if (!of.replaced && !of.moved) return null;
  return (
    <section
      role="status"
      className="max-w-[1040px] mx-auto my-5 border-[2.5px] border-zest bg-slip p-5 text-b"
    >
      {of.replaced && (
        <p>
          <b>{say("This is a newer revision than the one you were sent.")}</b>{" "}
          {say("The earlier one cannot be signed any more.")}
        </p>
      )}
      {of.moved && (
        <p>
          <b>{say("Something changed since this was written.")}</b>{" "}
          {of.state === "accepted"
            ? say("Ask us before it is fitted. What you signed stands as it is.")
            : say("Ask us before you sign. What you would sign is what stands here.")}
        </p>
      )}
      {news.length > 0 && (
        <ul className="list-disc pl-5 mt-2">
          {news.map((s) => (
            <li key={s}>{s}</li>
          ))}
        </ul>
      )}
    </section>
  );
}

/** Who has signed: it is accepted, or the second signature is still wanted. */
function SignedSoFar({ of }: { of: View }): ReactElement | null {
  if (of.signed_by === "") return null;
  if (of.state === "presented")
    return (
      <p role="status" className="max-w-[1040px] mx-auto my-5 text-l">
        <b>{of.signed_by}</b> {say("has signed. The second signature is wanted.")}
      </p>
    );
  if (of.state !== "accepted") return null;
  return (
    <p role="status" className="max-w-[1040px] mx-auto my-5 text-l">
      {say("Accepted by")} <b>{of.signed_by}</b>. {of.offer.firm}{" "}
      {say("will be in touch about the day of the work.")}
    </p>
  );
}

const useOffered = (token: string, language: Language): UseQueryResult<View> =>
  useQuery({
    queryKey: ["offered", token, language],
    retry: false,
    placeholderData: (old) => old,
    queryFn: async () => {
      const found = await data(
        api.GET("/api/offered/{token}", { params: { path: { token }, query: { language } } }),
      );
      await speak(language);
      return found;
    },
  });

export function Offered(): ReactElement {
  const { token = "" } = useParams();
  const [language, choose] = useCustomersLanguage("a link", ownLanguage());
  const offered = useOffered(token, language);
  if (offered.isPending) return <Waiting what={say("Opening the proposal.")} />;
  const lost = gone(offered);
  if (lost) return <Closed why={whyOf(problemOf(lost)?.status)} />;
  if (!offered.data) return <Waiting what={say("Opening the proposal.")} />;
  const { state } = offered.data;
  const offer = offered.data.offer;
  const until = dayAndMonth(`${offered.data.until ?? offer.valid_until}T12:00:00`);
  return (
    <div className="min-h-[100dvh]">
      <header
        className={
          "flex items-center gap-3 px-5 wide:px-8 py-3 border-b-[1.5px] border-ink flex-wrap"
        }
      >
        <Logo />
        <b className="font-d text-[18px] flex-1">{offer.firm}</b>
        <span className="flex gap-2 items-center text-m">
          <StateMark kind={STATE_MARK[state] ?? "miss"} size={18} />
          {say(STANDS[state] ?? state)}
          {state === "presented" && say(", until {until}", { until })}
        </span>
        {state === "presented" && (
          <a className="key" href="#decide">
            {say("Decide")}
          </a>
        )}
        <LanguageKey language={language} onChoose={choose} />
        <a
          className="key"
          href={`/api/offered/${token}/pdf?language=${language}`}
          target="_blank"
          rel="noreferrer"
        >
          {say("PDF")}
        </a>
      </header>
      <main className="px-5 wide:px-8 pb-16">
        <Newer of={offered.data} />
        <Kept lines={offered.data.kept} />
        <Care lines={offered.data.care} />
        <HowToRead offer={offer} />
        <Seal standing={offered.data.seal} state={state} />
        <SignedSoFar of={offered.data} />
        <OfferView offer={offer} />
        {state === "presented" && (
          <Accept
            token={token}
            offer={offer}
            digest={offered.data.digest}
            until={until}
            language={language}
          />
        )}
        <Ask token={token} firm={offer.firm} />
      </main>
    </div>
  );
}

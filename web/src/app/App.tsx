/** Routes. What is not needed for signing in and the visit is loaded when it is opened. */
import { Suspense, useEffect, type ReactElement } from "react";
import { Navigate, Route, Routes, useLocation } from "react-router";

import { useMe } from "../api/hooks";
import { Wayfinding } from "./Wayfinding";
import { problemOf } from "../api/client";
import { SignIn } from "../features/signing-in/SignIn";
import { Today } from "../features/visits/Today";
import { Boundary, fetchAhead, part } from "../ui/Boundary";
import { TakeBackProvider } from "../ui/TakeBack";
import { gone } from "../ui/Stale";
import { Trouble, Waiting } from "../ui/Trouble";
import { say } from "./language";

const VisitScreen = part(() => import("../features/visit/VisitScreen").then((m) => m.VisitScreen));
const NewVisit = part(() => import("../features/visits/NewVisit").then((m) => m.NewVisit));
const Facing = part(() => import("../features/showing/Facing").then((m) => m.Facing));
const ProposalPage = part(() =>
  import("../features/proposing/ProposalPage").then((m) => m.ProposalPage),
);
const Outbox = part(() => import("../features/proposing/Outbox").then((m) => m.Outbox));
const Offered = part(() => import("../features/offered/Offered").then((m) => m.Offered));
const FirmPage = part(() => import("../features/firm/FirmPage").then((m) => m.FirmPage));
const Due = part(() => import("../features/aftercare/Due").then((m) => m.Due));
const JobPage = part(() => import("../features/aftercare/JobPage").then((m) => m.JobPage));
const Homes = part(() => import("../features/logbook/Homes").then((m) => m.Homes));
const Years = part(() => import("../features/logbook/Years").then((m) => m.Years));
const TrackPage = part(() => import("../features/logbook/Track").then((m) => m.TrackPage));
const MondayPage = part(() => import("../features/monday/Monday").then((m) => m.MondayPage));
const PeoplePage = part(() => import("../features/people/PeoplePage").then((m) => m.PeoplePage));
const AccountPage = part(() =>
  import("../features/account/AccountPage").then((m) => m.AccountPage),
);
const Claims = part(() => import("../features/claims/Claims").then((m) => m.Claims));
const LineSteps = part(() => import("../features/aftercare/LineSteps").then((m) => m.LineSteps));
const Appliance = part(() => import("../features/card/Appliance").then((m) => m.Appliance));
const WaterCard = part(() => import("../features/card/WaterCard").then((m) => m.WaterCard));
const Join = part(() => import("../features/signing-in/Join").then((m) => m.Join));
const Forgotten = part(() => import("../features/signing-in/Forgotten").then((m) => m.Forgotten));
const GlassLegend = part(() => import("../features/legend/GlassLegend").then((m) => m.GlassLegend));

function Gate({ children }: { children: ReactElement }): ReactElement {
  const me = useMe();
  const place = useLocation();
  const signedIn = me.isSuccess;
  useEffect(() => {
    if (signedIn) fetchAhead();
  }, [signedIn]);
  if (me.isPending) return <Waiting what={say("One moment.")} />;
  const lost = gone(me);
  if (lost) {
    if (problemOf(lost)?.status === 401)
      return <Navigate to="/sign-in" state={{ from: place.pathname + place.search }} replace />;
    return (
      <div className="p-8">
        <Trouble error={lost} again={() => void me.refetch()} />
      </div>
    );
  }
  return <Boundary key={place.pathname}>{children}</Boundary>;
}

/** Views behind the sign-in, by their paths. */
const VIEWS: [string, ReactElement][] = [
  ["/", <Today key="today" />],
  ["/visits/new", <NewVisit key="new" />],
  ["/visits/:id/facing/:what", <Facing key="facing" />],
  ["/visits/:id/card", <WaterCard key="card" />],
  ["/visits/:id/appliances/:kind?", <Appliance key="appliance" />],
  ["/visits/:id/steps/:option", <LineSteps key="steps" />],
  ["/visits/:id/:step?", <VisitScreen key="visit" />],
  ["/proposals/:id", <ProposalPage key="proposal" />],
  ["/jobs/:id", <JobPage key="job" />],
  ["/due", <Due key="due" />],
  ["/homes", <Homes key="homes" />],
  ["/homes/:id", <Years key="years" />],
  ["/track", <TrackPage key="track" />],
  ["/monday", <MondayPage key="monday" />],
  ["/outbox", <Outbox key="outbox" />],
  ["/firm", <FirmPage key="firm" />],
  ["/people", <PeoplePage key="people" />],
  ["/account", <AccountPage key="account" />],
  ["/claims", <Claims key="claims" />],
  ["/legend", <GlassLegend key="legend" />],
];

export function App(): ReactElement {
  return (
    <TakeBackProvider>
      <Wayfinding />
      <Suspense fallback={<Waiting what={say("One moment.")} />}>
        <Routes>
          <Route path="/sign-in" element={<SignIn />} />
          <Route path="/p/:token" element={<Offered />} />
          <Route path="/join/:code?" element={<Join />} />
          <Route path="/forgotten" element={<Forgotten />} />
          {VIEWS.map(([path, view]) => (
            <Route key={path} path={path} element={<Gate>{view}</Gate>} />
          ))}
          <Route path="*" element={<Navigate to="/" replace />} />
        </Routes>
      </Suspense>
    </TakeBackProvider>
  );
}

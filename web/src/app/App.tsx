/** Routes. What is not needed for signing in and the visit is loaded when it is opened. */
import { lazy, Suspense, type ReactElement } from "react";
import { Navigate, Route, Routes, useLocation } from "react-router";

import { useMe } from "../api/hooks";
import { problemOf } from "../api/client";
import { SignIn } from "../features/signing-in/SignIn";
import { Today } from "../features/visits/Today";
import { VisitScreen } from "../features/visit/VisitScreen";
import { Trouble, Waiting } from "../ui/Trouble";

const NewVisit = lazy(() =>
  import("../features/visits/NewVisit").then((m) => ({ default: m.NewVisit })),
);
const Facing = lazy(() =>
  import("../features/showing/Facing").then((m) => ({ default: m.Facing })),
);
const ProposalPage = lazy(() =>
  import("../features/proposing/ProposalPage").then((m) => ({ default: m.ProposalPage })),
);
const Outbox = lazy(() =>
  import("../features/proposing/Outbox").then((m) => ({ default: m.Outbox })),
);
const Offered = lazy(() =>
  import("../features/offered/Offered").then((m) => ({ default: m.Offered })),
);
const FirmPage = lazy(() =>
  import("../features/firm/FirmPage").then((m) => ({ default: m.FirmPage })),
);
const GlassLegend = lazy(() =>
  import("../features/legend/GlassLegend").then((m) => ({ default: m.GlassLegend })),
);

function Gate({ children }: { children: ReactElement }): ReactElement {
  const me = useMe();
  const place = useLocation();
  if (me.isPending) return <Waiting what="One moment." />;
  if (me.isError) {
    if (problemOf(me.error)?.status === 401)
      return <Navigate to="/sign-in" state={{ from: place.pathname + place.search }} replace />;
    return (
      <div className="p-8">
        <Trouble error={me.error} again={() => void me.refetch()} />
      </div>
    );
  }
  return children;
}

export function App(): ReactElement {
  return (
    <Suspense fallback={<Waiting what="One moment." />}>
      <Routes>
        <Route path="/sign-in" element={<SignIn />} />
        <Route
          path="/"
          element={
            <Gate>
              <Today />
            </Gate>
          }
        />
        <Route
          path="/visits/new"
          element={
            <Gate>
              <NewVisit />
            </Gate>
          }
        />
        <Route
          path="/visits/:id/facing/:what"
          element={
            <Gate>
              <Facing />
            </Gate>
          }
        />
        <Route
          path="/visits/:id/:step?"
          element={
            <Gate>
              <VisitScreen />
            </Gate>
          }
        />
        <Route
          path="/proposals/:id"
          element={
            <Gate>
              <ProposalPage />
            </Gate>
          }
        />
        <Route
          path="/outbox"
          element={
            <Gate>
              <Outbox />
            </Gate>
          }
        />
        <Route path="/p/:token" element={<Offered />} />
        <Route
          path="/firm"
          element={
            <Gate>
              <FirmPage />
            </Gate>
          }
        />
        <Route
          path="/legend"
          element={
            <Gate>
              <GlassLegend />
            </Gate>
          }
        />
        <Route path="*" element={<Navigate to="/" replace />} />
      </Routes>
    </Suspense>
  );
}

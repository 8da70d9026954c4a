import { lazy, Suspense, useEffect, type ReactNode } from "react";
import { Navigate, Route, Routes, useLocation } from "react-router";

import { useSession } from "@/api/queries";
import { Hatches } from "@/figures/hatches";
import { deliverAll } from "@/keep/outbox";
import { Layout } from "@/layout";
import { Offline } from "@/screens/offline";
import { SignIn } from "@/screens/sign-in";
import { SignedOut } from "@/screens/signed-out";
import { Guard } from "@/ui/guard";
import { Failed, Loading } from "@/ui/states";
import { say } from "@/say";

const Shelf = lazy(() => import("@/screens/shelf"));
const Formula = lazy(() => import("@/screens/formula/formula"));
const Day = lazy(() => import("@/screens/day/day"));
const RunningDay = lazy(() => import("@/screens/day/running"));
const WholeDessert = lazy(() => import("@/screens/dessert/dessert"));
const Stove = lazy(() => import("@/screens/stove/stove"));
const Oven = lazy(() => import("@/screens/oven/oven"));
const Cold = lazy(() => import("@/screens/cold/cold"));
const Cook = lazy(() => import("@/screens/cook/cook"));
const Book = lazy(() => import("@/screens/book"));
const Record = lazy(() => import("@/screens/record"));
const Batch = lazy(() => import("@/screens/batch/batch"));
const Compare = lazy(() => import("@/screens/compare"));
const Eggs = lazy(() => import("@/screens/eggs"));
const Files = lazy(() => import("@/screens/files"));
const Card = lazy(() => import("@/screens/card"));
const Rehearse = lazy(() => import("@/screens/rehearse/rehearse"));
const Run = lazy(() => import("@/screens/rehearse/run"));
const Kitchen = lazy(() => import("@/screens/kitchen/kitchen"));
const People = lazy(() => import("@/screens/account/people-page"));
const You = lazy(() => import("@/screens/account/you"));
const Join = lazy(() => import("@/screens/account/join"));
const FirstPassword = lazy(() => import("@/screens/account/first-password"));

/** A page of its own: it may fail alone, and arrive late alone. */
function Page({ children }: { children: ReactNode }) {
  return (
    <Guard place={useLocation().pathname}>
      <Suspense fallback={<Loading what={say("app.the_page")} />}>{children}</Suspense>
    </Guard>
  );
}

export function App() {
  const session = useSession();
  const { pathname } = useLocation();
  const inside = Boolean(session.data?.name);
  useEffect(() => {
    if (inside) void deliverAll();
  }, [inside]);
  if (session.isPending && session.failureReason) {
    return <Offline again={() => void session.refetch()} />;
  }
  if (session.isPending) return <Loading what={say("app.the_kitchen")} />;
  if (session.isError) {
    return <Failed error={session.error} again={() => void session.refetch()} />;
  }
  if (pathname.startsWith("/join/")) {
    return (
      <Page>
        <Join secret={pathname.slice("/join/".length)} />
      </Page>
    );
  }
  if (session.data.name === null) return <SignIn />;
  if (session.data.must_change) {
    return (
      <Page>
        <FirstPassword />
      </Page>
    );
  }
  const first = session.data.kitchens[0];
  if (!first) {
    return <p className="p-8">{say("app.you_belong_to_no_kitchen_yet")}</p>;
  }
  return (
    <>
      <Hatches />
      <SignedOut email={session.data.email ?? ""} />
      <Routes>
        <Route
          path="/k/:kid/cook/:batchId"
          element={
            <Page>
              <Cook />
            </Page>
          }
        />
        <Route path="/k/:kid" element={<Layout />}>
          {PAGES.map(([path, element]) => (
            <Route key={path} path={path} element={<Page>{element}</Page>} />
          ))}
        </Route>
        <Route path="*" element={<Navigate to={`/k/${first.id}`} replace />} />
      </Routes>
    </>
  );
}

const PAGES: readonly (readonly [string, ReactNode])[] = [
  ["", <Shelf />],
  ["d/:dessertId", <Formula />],
  ["d/:dessertId/whole", <WholeDessert />],
  ["d/:dessertId/stove", <Stove />],
  ["d/:dessertId/oven", <Oven />],
  ["d/:dessertId/cold", <Cold />],
  ["d/:dessertId/card", <Card />],
  ["day", <Day />],
  ["day/:dayId", <RunningDay />],
  ["compare", <Compare />],
  ["eggs", <Eggs />],
  ["files", <Files />],
  ["rehearse", <Rehearse />],
  ["rehearse/:runId", <Run />],
  ["book", <Book />],
  ["record", <Record />],
  ["book/:batchId", <Batch />],
  ["kitchen", <Kitchen />],
  ["people", <People />],
  ["you", <You />],
];

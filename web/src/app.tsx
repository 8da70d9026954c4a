import { lazy, Suspense } from "react";
import { Navigate, Route, Routes } from "react-router";

import { useSession } from "@/api/queries";
import { Hatches } from "@/figures/hatches";
import { Layout } from "@/layout";
import { SignIn } from "@/screens/sign-in";
import { SignedOut } from "@/screens/signed-out";
import { Failed, Loading } from "@/ui/states";

const Shelf = lazy(() => import("@/screens/shelf"));
const Formula = lazy(() => import("@/screens/formula/formula"));
const Stove = lazy(() => import("@/screens/stove/stove"));
const Oven = lazy(() => import("@/screens/oven/oven"));
const Cold = lazy(() => import("@/screens/cold/cold"));
const Cook = lazy(() => import("@/screens/cook/cook"));
const Book = lazy(() => import("@/screens/book"));
const Batch = lazy(() => import("@/screens/batch/batch"));
const Compare = lazy(() => import("@/screens/compare"));
const Eggs = lazy(() => import("@/screens/eggs"));
const Files = lazy(() => import("@/screens/files"));
const Card = lazy(() => import("@/screens/card"));
const Rehearse = lazy(() => import("@/screens/rehearse/rehearse"));
const Run = lazy(() => import("@/screens/rehearse/run"));
const Kitchen = lazy(() => import("@/screens/kitchen/kitchen"));

export function App() {
  const session = useSession();
  if (session.isPending) return <Loading what="the kitchen" />;
  if (session.isError) {
    return <Failed error={session.error} again={() => void session.refetch()} />;
  }
  const first = session.data.kitchens[0];
  if (session.data.name === null) return <SignIn />;
  if (!first) {
    return <p className="p-8">You belong to no kitchen yet. Ask a pastry chef to add you.</p>;
  }
  return (
    <>
      <Hatches />
      <SignedOut email={session.data.email ?? ""} />
      <Suspense fallback={<Loading what="the page" />}>
        <Routes>
          <Route path="/k/:kid/cook/:batchId" element={<Cook />} />
          <Route path="/k/:kid" element={<Layout />}>
            <Route index element={<Shelf />} />
            <Route path="d/:dessertId" element={<Formula />} />
            <Route path="d/:dessertId/stove" element={<Stove />} />
            <Route path="d/:dessertId/oven" element={<Oven />} />
            <Route path="d/:dessertId/cold" element={<Cold />} />
            <Route path="d/:dessertId/card" element={<Card />} />
            <Route path="compare" element={<Compare />} />
            <Route path="eggs" element={<Eggs />} />
            <Route path="files" element={<Files />} />
            <Route path="rehearse" element={<Rehearse />} />
            <Route path="rehearse/:runId" element={<Run />} />
            <Route path="book" element={<Book />} />
            <Route path="book/:batchId" element={<Batch />} />
            <Route path="kitchen" element={<Kitchen />} />
          </Route>
          <Route path="*" element={<Navigate to={`/k/${first.id}`} replace />} />
        </Routes>
      </Suspense>
    </>
  );
}

import { useMutation, useQueryClient } from "@tanstack/react-query";
import { ToggleGroup } from "radix-ui";
import { useState } from "react";
import { NavLink, Outlet, useParams } from "react-router";

import { client, must } from "@/api/client";
import { useKitchen } from "@/api/queries";
import { useOnBench } from "@/bench";
import { applyLight, light } from "@/keep/light";
import { NextThing } from "@/screens/day/next";
import type { Units } from "@/units";
import { Failed, Loading } from "@/ui/states";
import { Say, say } from "@/say";

const LINK =
  "flex min-h-12 items-center px-1 sm:px-3 border-b-[3px] border-transparent aria-[current=page]:border-burnt aria-[current=page]:font-semibold";

export function Layout() {
  const kid = useParams()["kid"] ?? "";
  const kitchen = useKitchen(kid);
  const bench = useOnBench(kid);
  if (kitchen.isPending) return <Loading what={say("layout.the_kitchen")} />;
  if (kitchen.isError) {
    return <Failed error={kitchen.error} again={() => void kitchen.refetch()} />;
  }
  const base = `/k/${kid}`;
  return (
    <div className="mx-auto flex min-h-dvh max-w-[90rem] flex-col pb-16 sm:pb-0">
      <a href="#main" className="absolute -left-[999px] z-50 bg-paper p-3 focus:left-2 focus:top-2">
        {say("layout.skip_to_the_page")}
      </a>
      <header className="rule-b flex flex-wrap items-center gap-x-2 px-4 sm:gap-x-5 sm:px-6">
        <NavLink
          to={base}
          end
          className="display py-2 text-2xl italic"
          aria-label={say("layout.bell_crumb_the_shelf")}
        >
          {say("layout.bell_crumb")}
        </NavLink>
        <nav
          aria-label={say("layout.places")}
          className="fixed inset-x-0 bottom-0 z-20 flex justify-between border-t border-rule bg-paper px-1 text-[0.86rem] sm:static sm:px-0 sm:text-base sm:flex-1 sm:justify-start sm:border-0"
        >
          <NavLink to={base} end className={LINK}>
            {say("layout.shelf")}
          </NavLink>
          {bench && (
            <>
              <NavLink to={`${base}/d/${bench.id}`} end className={LINK}>
                {say("layout.formula")}
              </NavLink>
              <NavLink to={`${base}/d/${bench.id}/stove`} className={LINK}>
                {say("layout.stove")}
              </NavLink>
              <NavLink to={`${base}/d/${bench.id}/oven`} className={LINK}>
                {say("layout.oven")}
              </NavLink>
              <NavLink to={`${base}/d/${bench.id}/cold`} className={LINK}>
                {say("layout.cold")}
              </NavLink>
            </>
          )}
          <NavLink to={`${base}/book`} className={LINK}>
            {say("layout.book")}
          </NavLink>
          <NavLink to={`${base}/kitchen`} className={LINK}>
            {say("layout.kitchen")}
          </NavLink>
        </nav>
        {bench && (
          <p className="caption hidden max-w-56 truncate lg:block" title={bench.name}>
            <Say
              code="layout.on_the_bench"
              values={{ bench: bench.name }}
              components={{ span: <span className="text-ink" /> }}
            />
          </p>
        )}
        <div className="ml-auto flex items-center sm:gap-2">
          <UnitsToggle kid={kid} units={kitchen.data.units} />
          <LightToggle />
        </div>
        <NextThing kid={kid} />
      </header>
      <main id="main" className="flex-1 px-4 sm:px-6">
        <Outlet />
      </main>
    </div>
  );
}

function UnitsToggle({ kid, units }: { kid: string; units: Units }) {
  const store = useQueryClient();
  const change = useMutation({
    mutationFn: (next: Units) =>
      must(client.PATCH("/api/k/{kid}/me", { params: { path: { kid } }, body: { units: next } })),
    onSuccess: (kitchen) => {
      store.setQueryData(["kitchen", kid], kitchen);
      // The server says things in these units: all that was said is said again.
      return store.invalidateQueries();
    },
  });
  const item =
    "min-h-12 px-2 sm:px-3 border-b-2 border-transparent data-[state=on]:border-ink data-[state=on]:font-semibold";
  return (
    <ToggleGroup.Root
      type="single"
      value={change.isPending ? change.variables : units}
      onValueChange={(next) => next && change.mutate(next as Units)}
      aria-label={say("layout.units")}
      className="flex"
    >
      <ToggleGroup.Item value="metric" className={item}>
        g °C
      </ToggleGroup.Item>
      <ToggleGroup.Item value="us" className={item}>
        {say("layout.cups_f")}
      </ToggleGroup.Item>
    </ToggleGroup.Root>
  );
}

function LightToggle() {
  const [now, setNow] = useState(light());
  const next = now === "day" ? "dim" : "day";
  return (
    <button
      type="button"
      className="caption min-h-12 px-1 sm:px-2 underline decoration-rule underline-offset-4"
      onClick={() => {
        applyLight(next);
        setNow(next);
      }}
    >
      {next === "dim" ? say("layout.dim_light") : say("layout.day_light")}
    </button>
  );
}

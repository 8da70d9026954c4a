import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";

import { client, must } from "@/api/client";
import { useBench } from "@/bench";
import { SendIds } from "@/keep/id";
import { Button } from "@/ui/button";
import { Select } from "@/ui/field";
import { Failed, Loading, Refused } from "@/ui/states";
import { say } from "@/say";

/** The exercises: spoil ten batches for nothing. */
export default function Rehearse() {
  const { kid } = useBench();
  const go = useNavigate();
  const store = useQueryClient();
  const [ids] = useState(() => new SendIds());
  const [speed, setSpeed] = useState(10);
  const list = useQuery({
    queryKey: ["rehearsals", kid],
    queryFn: () => must(client.GET("/api/k/{kid}/rehearsals", { params: { path: { kid } } })),
    staleTime: 0,
  });
  const start = useMutation({
    mutationFn: (exercise: string) =>
      must(
        client.POST("/api/k/{kid}/rehearsals", {
          params: { path: { kid } },
          body: { id: ids.of(exercise), exercise, seed: Math.floor(Math.random() * 1e9), speed },
        }),
      ),
    onSuccess: (run) => {
      ids.arrived(run.exercise);
      store.setQueryData(["rehearsal", kid, run.id], run);
      void go(`/k/${kid}/rehearse/${run.id}`);
    },
  });
  if (list.isPending) return <Loading what={say("rehearse.the_exercises")} />;
  if (list.isError) return <Failed error={list.error} again={() => void list.refetch()} />;
  return (
    <div className="py-6">
      <title>{say("rehearse.rehearse_bell_crumb")}</title>
      <div className="mb-4 flex flex-wrap items-end justify-between gap-x-8 gap-y-3">
        <div>
          <h1 className="text-4xl">{say("rehearse.rehearse")}</h1>
          <p className="mt-1 max-w-prose text-soft">
            {say("rehearse.the_same_guide_against_a_pot")}
          </p>
        </div>
        <div className="w-44">
          <Select
            label={say("rehearse.its_clock")}
            value={speed}
            options={[1, 5, 10, 20].map((n) => [
              n,
              n === 1 ? say("rehearse.real_time") : say("rehearse.faster_2", { n }),
            ])}
            onValue={setSpeed}
          />
        </div>
      </div>
      <Refused error={start.error} className="mb-3" />
      <ol className="grid gap-x-10 md:grid-cols-2">
        {list.data.map((e) => (
          <li
            key={e.key}
            className="rule-t grid grid-cols-[2.6rem_1fr_auto] items-start gap-x-3 py-4"
          >
            <span className="display text-4xl text-soft italic">{e.level}</span>
            <div>
              <h2 className="text-2xl leading-tight">{e.name}</h2>
              <p className="mt-1">{e.task}</p>
              <p className="caption mt-1">
                {e.tried === 0
                  ? say("rehearse.not_tried_yet")
                  : say("rehearse.tried", {
                      tried:
                        e.tried === 1
                          ? say("rehearse.once")
                          : say("rehearse.times", { tried: e.tried }),
                      done: e.done
                        ? say("rehearse.came_out_well", { done: e.done })
                        : say("rehearse.none_came_out_yet"),
                    })}
              </p>
            </div>
            <Button
              kind={e.done ? "plain" : "act"}
              disabled={start.isPending}
              aria-label={say("rehearse.begin", { e: e.name })}
              onClick={() => start.mutate(e.key)}
            >
              {say("rehearse.begin_2")}
            </Button>
          </li>
        ))}
      </ol>
    </div>
  );
}

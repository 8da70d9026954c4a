import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";

import { ApiError, client, must, type Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { SendIds } from "@/keep/id";
import { askOf, bodyOf, type Ask } from "@/screens/day/ask";
import { Button } from "@/ui/button";
import { Input } from "@/ui/field";
import { say } from "@/say";

type File = Shapes["DayFile"];

const MOST_BYTES = 2_000_000;

/** Days written down: a usual one asked again, one kept, one to a file and from one. */
export function Kept({ ask, change }: { ask: Ask; change: (part: Partial<Ask>) => void }) {
  const { kid, canCook } = useBench();
  const store = useQueryClient();
  const [ids] = useState(() => new SendIds());
  const [name, setName] = useState<string | null>(null);
  const [said, setSaid] = useState("");
  const picker = useRef<HTMLInputElement>(null);
  const params = { path: { kid } };
  const usual = useQuery({
    queryKey: ["usual-days", kid],
    queryFn: () => must(client.GET("/api/k/{kid}/day/usual", { params })),
  });
  const take = useMutation({
    mutationFn: (file: File) => must(client.POST("/api/k/{kid}/day/read", { params, body: file })),
    onSuccess: (read) => {
      const missing = read.missing.length
        ? say("day.not_in_this_kitchen", { missing: read.missing.join(", ") })
        : "";
      setSaid(read.ask ? missing : say("day.none_of_its_desserts_is_here", { missing }));
      if (read.ask) change(askOf(read.ask, read.names, ask.date));
    },
    onError: (error) =>
      setSaid(error instanceof Error ? error.message : say("day.it_could_not_be_read")),
  });
  const write = () => must(client.POST("/api/k/{kid}/day/file", { params, body: bodyOf(ask, []) }));
  const keep = useMutation({
    mutationFn: async (as: string) => {
      const there = usual.data?.find((u) => u.name === as);
      return must(
        client.PUT("/api/k/{kid}/day/usual/{usual_id}", {
          params: { path: { kid, usual_id: there?.id ?? ids.of(as) } },
          body: { name: as, file: await write() },
        }),
      );
    },
    onSuccess: (days, as) => {
      ids.arrived(as);
      store.setQueryData(["usual-days", kid], days);
      setName(null);
    },
  });
  const drop = useMutation({
    mutationFn: (id: string) =>
      must(
        client.DELETE("/api/k/{kid}/day/usual/{usual_id}", {
          params: { path: { kid, usual_id: id } },
        }),
      ),
    onSuccess: (days) => store.setQueryData(["usual-days", kid], days),
  });
  const save = async () => {
    const file = await write();
    const at = URL.createObjectURL(
      new Blob([JSON.stringify(file, null, 2)], { type: "application/json" }),
    );
    const link = document.createElement("a");
    link.href = at;
    link.download = "day.json";
    link.click();
    URL.revokeObjectURL(at);
  };
  const open = async (chosen: globalThis.File | undefined) => {
    if (!chosen) return;
    if (chosen.size > MOST_BYTES) {
      setSaid(say("day.this_file_is_too_large_to"));
      return;
    }
    try {
      take.mutate(JSON.parse(await chosen.text()) as File);
    } catch {
      setSaid(say("day.this_file_is_no_day_it"));
    }
  };
  const wanted = ask.services.some((s) => s.items.length);
  return (
    <section aria-label={say("day.days_written_down")} className="no-print mb-4">
      <div className="flex flex-wrap items-end gap-x-5 gap-y-2">
        {usual.data?.map((u) => (
          <span key={u.id} className="flex items-center gap-1">
            <Button onClick={() => take.mutate(u.file)}>{u.name}</Button>
            {canCook && (
              <Button
                kind="quiet"
                className="!px-2"
                aria-label={say("day.strike_out", { u: u.name })}
                onClick={() => drop.mutate(u.id)}
              >
                ×
              </Button>
            )}
          </span>
        ))}
        {canCook && wanted && name === null && (
          <Button kind="quiet" onClick={() => setName("")}>
            {say("day.write_this_day_down")}
          </Button>
        )}
        {wanted && (
          <Button kind="quiet" onClick={() => void save()}>
            {say("day.to_a_file")}
          </Button>
        )}
        <Button kind="quiet" onClick={() => picker.current?.click()}>
          {say("day.from_a_file")}
        </Button>
        <input
          ref={picker}
          type="file"
          accept="application/json,.json"
          className="sr-only"
          aria-label={say("day.a_day_from_a_file")}
          tabIndex={-1}
          onChange={(event) => {
            void open(event.target.files?.[0]);
            event.target.value = "";
          }}
        />
      </div>
      {name !== null && (
        <form
          className="mt-2 flex max-w-md items-end gap-4"
          onSubmit={(event) => {
            event.preventDefault();
            if (name.trim()) keep.mutate(name.trim());
          }}
        >
          <div className="flex-1">
            <Input
              label={say("day.it_is_called")}
              placeholder={say("day.a_saturday")}
              maxLength={80}
              value={name}
              error={keep.error instanceof ApiError ? keep.error.message : null}
              onChange={(event) => setName(event.target.value)}
            />
          </div>
          <Button type="submit" kind="act" disabled={!name.trim() || keep.isPending}>
            {say("day.keep_it")}
          </Button>
          <Button kind="quiet" onClick={() => setName(null)}>
            {say("day.not_now")}
          </Button>
        </form>
      )}
      {said && (
        <p role="status" className="mt-1">
          {said}
        </p>
      )}
    </section>
  );
}

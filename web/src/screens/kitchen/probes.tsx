import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { ApiError, client, must } from "@/api/client";
import { useDevices } from "@/api/queries";
import { useBench } from "@/bench";
import { Button } from "@/ui/button";
import { Input, Select } from "@/ui/field";
import { day, time } from "@/units";
import { newId } from "@/keep/id";

/** Probe thermometers: registered here, each with a token of its own. */
export function Probes() {
  const { kid, canEdit } = useBench();
  const store = useQueryClient();
  const devices = useDevices(kid);
  const [name, setName] = useState("");
  const [simulated, setSimulated] = useState(false);
  const [kind, setKind] = useState<"probe" | "scale">("probe");
  const [id, setId] = useState(() => newId());
  const [token, setToken] = useState<{ name: string; token: string } | null>(null);
  const add = useMutation({
    mutationFn: () =>
      must(
        client.POST("/api/k/{kid}/devices", {
          params: { path: { kid } },
          body: { id, name: name.trim(), kind, simulated },
        }),
      ),
    onSuccess: (device) => {
      if (device.token) setToken({ name: device.name, token: device.token });
      setName("");
      setId(newId());
      void store.invalidateQueries({ queryKey: ["devices", kid] });
    },
  });
  const remove = useMutation({
    mutationFn: (deviceId: string) =>
      must(
        client.DELETE("/api/k/{kid}/devices/{device_id}", {
          params: { path: { kid, device_id: deviceId } },
        }),
      ),
    onSuccess: (left) => store.setQueryData(["devices", kid], left),
  });
  return (
    <section aria-labelledby="probes">
      <h2 id="probes" className="mb-2 text-2xl">
        Probes and scales
      </h2>
      <ul>
        {devices.data?.map((d) => (
          <li key={d.id} className="rule-b flex items-center justify-between gap-3 py-1">
            <span>
              {d.name}
              {d.kind === "scale" && <span className="caption ml-2">scale</span>}
              {d.simulated && (
                <span className="caption ml-2 border border-rule px-1">simulated</span>
              )}
              <span className="caption block">
                {d.last_seen_at
                  ? `last heard ${day(d.last_seen_at)}, ${time(d.last_seen_at)}`
                  : "not heard yet"}
              </span>
              {d.refused_at && (
                <span className="caption block text-burnt">
                  a reading not taken, {day(d.refused_at)}, {time(d.refused_at)}: {d.refused}
                </span>
              )}
            </span>
            {canEdit && (
              <Button
                kind="quiet"
                className="!px-2"
                disabled={d.busy}
                onClick={() => remove.mutate(d.id)}
                aria-label={`Remove ${d.name}`}
              >
                {d.busy ? "in a pot" : "remove"}
              </Button>
            )}
          </li>
        ))}
      </ul>
      {token && (
        <div role="status" className="mt-3 border-[1.5px] border-burnt p-3">
          <p>Token of {token.name}, shown this once:</p>
          <code className="my-1 block break-all select-all">{token.token}</code>
          <p className="caption">
            It goes in the Authorization header of whatever sends the readings. A simulated probe
            takes it as <code>./crumb probe --token …</code>, a simulated scale as{" "}
            <code>./crumb scale --token …</code>
          </p>
        </div>
      )}
      {canEdit && (
        <form
          className="mt-3"
          onSubmit={(event) => {
            event.preventDefault();
            if (name.trim()) add.mutate();
          }}
        >
          <Input
            label={`Register a ${kind}`}
            value={name}
            maxLength={60}
            placeholder="Back stove probe"
            error={add.error instanceof ApiError ? add.error.message : null}
            onChange={(event) => setName(event.target.value)}
          />
          <Select
            label="It is a"
            value={kind}
            onChange={(event) => setKind(event.target.value as typeof kind)}
          >
            <option value="probe">probe thermometer, one to four channels</option>
            <option value="scale">scale under the bowl</option>
          </Select>
          <label className="flex min-h-12 items-center gap-3">
            <input
              type="checkbox"
              className="size-6 accent-burnt"
              checked={simulated}
              onChange={(event) => setSimulated(event.target.checked)}
            />
            it is a simulated one
          </label>
          <Button type="submit" disabled={!name.trim() || add.isPending}>
            Make its token
          </Button>
        </form>
      )}
    </section>
  );
}

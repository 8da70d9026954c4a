import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { ApiError, client, must } from "@/api/client";
import { useDevices } from "@/api/queries";
import { useBench } from "@/bench";
import { Button } from "@/ui/button";
import { Input, Select } from "@/ui/field";
import { day, time } from "@/units";
import { newId } from "@/keep/id";
import { Say, say } from "@/say";

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
        {say("kitchen.probes_and_scales")}
      </h2>
      <ul>
        {devices.data?.map((d) => (
          <li key={d.id} className="rule-b flex items-center justify-between gap-3 py-1">
            <span>
              {d.name}
              {d.kind === "scale" && <span className="caption ml-2">{say("kitchen.scale")}</span>}
              {d.simulated && (
                <span className="caption ml-2 border border-rule px-1">
                  {say("kitchen.simulated")}
                </span>
              )}
              <span className="caption block">
                {d.last_seen_at
                  ? say("kitchen.last_heard", {
                      last_seen_at: day(d.last_seen_at),
                      last_seen_at2: time(d.last_seen_at),
                    })
                  : say("kitchen.not_heard_yet")}
              </span>
              {d.refused_at && (
                <span className="caption block text-burnt">
                  {say("kitchen.a_reading_not_taken", {
                    refused_at: day(d.refused_at),
                    refused_at2: time(d.refused_at),
                    refused: d.refused,
                  })}
                </span>
              )}
            </span>
            {canEdit && (
              <Button
                kind="quiet"
                className="!px-2"
                disabled={d.busy}
                onClick={() => remove.mutate(d.id)}
                aria-label={say("kitchen.remove", { d: d.name })}
              >
                {d.busy ? say("kitchen.in_a_pot") : say("kitchen.remove_2")}
              </Button>
            )}
          </li>
        ))}
      </ul>
      {token && (
        <div role="status" className="mt-3 border-[1.5px] border-burnt p-3">
          <p>{say("kitchen.token_of_shown_this_once", { token: token.name })}</p>
          <code className="my-1 block break-all select-all">{token.token}</code>
          <p className="caption">
            <Say
              code="kitchen.it_goes_in_the_authorization_header"
              components={{ code: <code /> }}
            />
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
            label={say("kitchen.register_a", { kind })}
            value={name}
            maxLength={60}
            placeholder={say("kitchen.back_stove_probe")}
            error={add.error instanceof ApiError ? add.error.message : null}
            onChange={(event) => setName(event.target.value)}
          />
          <Select
            label={say("kitchen.it_is_a")}
            value={kind}
            options={{
              probe: say("kitchen.probe_thermometer_one_to_four_channels"),
              scale: say("kitchen.scale_under_the_bowl"),
            }}
            onValue={setKind}
          />
          <label className="flex min-h-12 items-center gap-3">
            <input
              type="checkbox"
              className="size-6 accent-burnt"
              checked={simulated}
              onChange={(event) => setSimulated(event.target.checked)}
            />
            {say("kitchen.it_is_a_simulated_one")}
          </label>
          <Button type="submit" disabled={!name.trim() || add.isPending}>
            {say("kitchen.make_its_token")}
          </Button>
        </form>
      )}
    </section>
  );
}

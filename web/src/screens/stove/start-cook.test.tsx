// @vitest-environment jsdom
import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import type { Shapes } from "@/api/client";
import { StartCook } from "@/screens/stove/start-cook";
import { address, AWAY, page, read, served, type Sent } from "@/test/page";

vi.mock("@/bench", () => ({ useBench: () => ({ kid: "k" }) }));
let devices: Partial<Shapes["DeviceOut"]>[];
let going: object[];
vi.mock("@/api/queries", () => ({
  useDevices: () => ({ data: devices }),
  useGoing: () => ({ data: going }),
}));
afterEach(cleanup);

let sent: Sent[];
let answer: () => unknown;
beforeEach(() => {
  devices = [
    { id: "p1", kind: "probe", name: "Left probe", busy: true },
    { id: "p2", kind: "probe", name: "Right probe", busy: false },
    { id: "p3", kind: "probe", name: "Pretend probe", busy: false, simulated: true },
    { id: "s1", kind: "scale", name: "Bench scale", busy: false },
  ];
  going = [];
  answer = () => ({ id: "b9" });
  sent = served(() => answer());
});
type Props = Parameters<typeof StartCook>[0];
const shown = (more: Partial<Props> = {}, where = "/k/k/d/d1/stove") =>
  page(
    <StartCook
      version={{ id: "v1" } as Props["version"]}
      today={{}}
      unsaved={false}
      place="stove"
      {...more}
    />,
    where,
  );
const pick = (label: RegExp, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });
const begin = () => fireEvent.click(screen.getByRole("button"));

describe("beginning a cook", () => {
  it("takes the first probe that is free, shows which are not, and goes to the cook", async () => {
    shown();
    const probe = screen.getByLabelText<HTMLSelectElement>(/probe/i);
    expect(probe.value).toBe("p2");
    expect([...probe.options].map((o) => o.disabled)).toEqual([true, false, false, false]);
    expect(read(probe.options[0])).toMatch(/in another pot/);
    begin();
    await waitFor(() => expect(address()).toBe("/k/k/cook/b9"));
    expect(sent[0]?.body).toMatchObject({
      version_id: "v1",
      device_id: "p2",
      scale_id: null,
      time_scale: 1,
      place: "stove",
      for_day: null,
    });
  });

  it("runs faster only on a probe that pretends", async () => {
    shown();
    expect(screen.queryByLabelText(/its clock/i)).toBeNull();
    pick(/probe/i, "p3");
    pick(/its clock/i, "20");
    begin();
    await waitFor(() => expect(sent[0]?.body).toMatchObject({ device_id: "p3", time_scale: 20 }));
    cleanup();
    sent.length = 0;
    shown();
    pick(/probe/i, "p3");
    pick(/its clock/i, "20");
    pick(/probe/i, "");
    begin();
    await waitFor(() => expect(sent[0]?.body).toMatchObject({ device_id: null, time_scale: 1 }));
  });

  it("asks for a scale where ladles are weighed", async () => {
    shown();
    expect(screen.queryByLabelText(/scale/i)).toBeNull();
    cleanup();
    shown({ ladder: true });
    pick(/scale/i, "s1");
    begin();
    await waitFor(() => expect(sent[0]?.body).toMatchObject({ scale_id: "s1" }));
    cleanup();
    shown({ ladder: true, place: "build" });
    expect(screen.getByLabelText(/scale under the mould/i)).toBeTruthy();
    cleanup();
    devices = devices.filter((d) => d.kind !== "scale");
    shown({ ladder: true });
    expect(screen.queryByLabelText(/scale/i)).toBeNull();
  });

  it("is one cook, also where the answer was lost and it is asked for again", async () => {
    answer = () => AWAY;
    shown();
    begin();
    await screen.findByRole("alert");
    answer = () => ({ id: "b9" });
    begin();
    await waitFor(() => expect(sent).toHaveLength(2));
    const ids = sent.map((s) => (s.body as { id: string }).id);
    expect(ids[0]).toBe(ids[1]);
  });

  it("ticks the step of the day it was opened from", async () => {
    shown({}, "/k/k/d/d1/stove?day=day1&step=Flan%2Fmix");
    expect(screen.getByTestId("of-day").querySelector("a")?.getAttribute("href")).toBe(
      "/k/k/day/day1",
    );
    begin();
    await waitFor(() => expect(sent).toHaveLength(1));
    expect((sent[0]?.body as { for_day: object }).for_day).toMatchObject({
      id: "day1",
      step: "Flan/mix",
      at: expect.stringMatching(/^\d{4}-/) as string,
    });
    cleanup();
    shown({}, "/k/k/d/d1/stove?day=day1");
    expect(screen.queryByTestId("of-day")).toBeNull();
  });

  it("waits for the formula to be saved, and leads back to cooks that go on, each by its start", () => {
    going = [
      { id: "b1", dessert: "Quince flan", started_at: "2026-11-28T09:20:00" },
      { id: "b2", dessert: "Quince flan", started_at: "2026-11-28T10:05:00" },
    ];
    shown({ unsaved: true });
    expect(screen.getByRole<HTMLButtonElement>("button").disabled).toBe(true);
    expect(screen.getByRole("link", { name: /Quince flan.*9:20/ }).getAttribute("href")).toBe(
      "/k/k/cook/b1",
    );
  });

  it("goes without a probe where none is free", async () => {
    devices = devices.map((d) => ({ ...d, busy: true }));
    shown();
    expect(screen.getByLabelText<HTMLSelectElement>(/probe/i).value).toBe("");
    begin();
    await waitFor(() => expect(sent[0]?.body).toMatchObject({ device_id: null }));
  });
});

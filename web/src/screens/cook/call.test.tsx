// @vitest-environment jsdom
import { cleanup, renderHook } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import { setSound, soundOn, useAwake, useCall } from "@/screens/cook/call";

const spoken: string[] = [];
const notes: number[] = [];
class Sound {
  currentTime = 0;
  destination = {};
  createOscillator() {
    const frequency = { set value(hertz: number) { notes.push(hertz); } }; // prettier-ignore
    return { frequency, connect: (to: unknown) => to, start: vi.fn(), stop: vi.fn() };
  }
  createGain() {
    const gain = { setValueAtTime: vi.fn(), exponentialRampToValueAtTime: vi.fn() };
    return { gain, connect: vi.fn() };
  }
}

type Said = [headline: string, words: string, urgency: string, on: boolean];
const called = () =>
  renderHook(({ said }: { said: Said }) => useCall(...said), {
    initialProps: { said: ["warming", "60 °C", "calm", true] as Said },
  });

describe("what is called out at the stove", () => {
  beforeEach(() => {
    spoken.length = notes.length = 0;
    vi.stubGlobal("AudioContext", Sound);
    vi.stubGlobal("SpeechSynthesisUtterance", class { constructor(readonly text: string) {} }); // prettier-ignore
    vi.stubGlobal("speechSynthesis", {
      cancel: vi.fn(),
      speak: (words: { text: string }) => spoken.push(words.text),
    });
  });
  afterEach(() => {
    cleanup();
    vi.unstubAllGlobals();
  });

  it("is what changes, once, and never the first thing that is there", () => {
    const { rerender } = called();
    expect(spoken).toEqual([]);
    rerender({ said: ["there", "85 °C: off the heat", "now", true] });
    rerender({ said: ["there", "86 °C: off the heat", "now", true] });
    expect(spoken).toEqual(["there. 85 °C: off the heat"]);
  });

  it("sounds longer for what cannot wait, and not at all for what is calm", () => {
    const { rerender } = called();
    rerender({ said: ["nearly", "", "soon", true] });
    expect(notes).toHaveLength(2);
    rerender({ said: ["there", "", "now", true] });
    expect(notes).toHaveLength(5);
    rerender({ said: ["cooling", "", "calm", true] });
    expect([notes.length, spoken.length]).toEqual([5, 2]);
  });

  it("is silent when the sound is off, and does not make up for it when it is on again", () => {
    const { rerender } = called();
    rerender({ said: ["there", "", "now", false] });
    rerender({ said: ["there", "", "now", true] });
    expect([spoken, notes]).toEqual([[], []]);
  });

  it("is said on a device that makes no sound", () => {
    vi.stubGlobal("AudioContext", undefined);
    const { rerender } = called();
    rerender({ said: ["boils", "stir", "now", true] });
    expect(spoken).toEqual(["boils. stir"]);
  });

  it("is on until somebody turns it off", () => {
    localStorage.clear();
    expect(soundOn()).toBe(true);
    setSound(false);
    expect(soundOn()).toBe(false);
  });
});

describe("the screen of a cook", () => {
  it("is asked to stay awake, again when the page comes back, and let go at the end", async () => {
    const release = vi.fn(() => Promise.resolve());
    const request = vi.fn(() => Promise.resolve({ release }));
    vi.stubGlobal("navigator", { wakeLock: { request } });
    const { unmount } = renderHook(() => useAwake());
    await Promise.resolve();
    document.dispatchEvent(new Event("visibilitychange"));
    expect(request).toHaveBeenCalledTimes(2);
    await Promise.resolve();
    unmount();
    expect(release).toHaveBeenCalled();
    document.dispatchEvent(new Event("visibilitychange"));
    expect(request).toHaveBeenCalledTimes(2);
    vi.unstubAllGlobals();
  });
});

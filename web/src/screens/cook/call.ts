import { useEffect, useRef } from "react";

import { readStored, writeStored } from "@/keep/stored";

let context: AudioContext | undefined;

/** Two short notes: heard over a hood, gone before it annoys. */
function chime(urgent: boolean): void {
  try {
    context ??= new AudioContext();
    const notes = urgent ? [880, 660, 880] : [660, 880];
    notes.forEach((hertz, i) => {
      if (!context) return;
      const tone = context.createOscillator();
      const volume = context.createGain();
      const at = context.currentTime + i * 0.16;
      tone.frequency.value = hertz;
      volume.gain.setValueAtTime(0.0001, at);
      volume.gain.exponentialRampToValueAtTime(0.35, at + 0.02);
      volume.gain.exponentialRampToValueAtTime(0.0001, at + 0.15);
      tone.connect(volume).connect(context.destination);
      tone.start(at);
      tone.stop(at + 0.16);
    });
  } catch {
    // no sound on this device: the words stay on the screen
  }
}

export const soundOn = (): boolean => readStored<boolean>("crumb.sound") ?? true;
export const setSound = (on: boolean): void => void writeStored("crumb.sound", on);

/** Call out what changed, once, in sound and words. */
export function useCall(headline: string, words: string, urgency: string, on: boolean): void {
  const said = useRef("");
  useEffect(() => {
    if (!headline || headline === said.current) return;
    const first = said.current === "";
    said.current = headline;
    if (first || !on || urgency === "calm") return;
    chime(urgency !== "soon");
    if ("speechSynthesis" in window) {
      speechSynthesis.cancel();
      speechSynthesis.speak(new SpeechSynthesisUtterance(`${headline}. ${words}`));
    }
  }, [headline, on, urgency, words]);
}

/** The screen stays awake while something is on the heat. */
export function useAwake(): void {
  useEffect(() => {
    let lock: WakeLockSentinel | undefined;
    let gone = false;
    const ask = () => {
      if (document.visibilityState !== "visible" || !("wakeLock" in navigator)) return;
      navigator.wakeLock.request("screen").then(
        (got) => {
          if (gone) void got.release();
          else lock = got;
        },
        () => undefined,
      );
    };
    ask();
    document.addEventListener("visibilitychange", ask);
    return () => {
      gone = true;
      document.removeEventListener("visibilitychange", ask);
      void lock?.release();
    };
  }, []);
}

import { say } from "@/say";
import { region } from "@/say/i18n";

/** Showing weights, volumes, lengths and temperatures the way this cook reads them. */
export type Units = "metric" | "us";

const thin = "\u202f";

export function degrees(c: number | null | undefined, units: Units, digits = 0): string {
  if (c === null || c === undefined) return "–";
  const value = units === "us" ? (c * 9) / 5 + 32 : c;
  return `${value.toFixed(digits)}${thin}°${units === "us" ? "F" : "C"}`;
}

/** A difference of temperatures. */
export function kelvins(k: number, units: Units, digits = 1): string {
  const value = units === "us" ? (k * 9) / 5 : k;
  return `${value.toFixed(digits)}${thin}${units === "us" ? "°F" : "K"}`;
}

export function toCelsius(value: number, units: Units): number {
  return units === "us" ? ((value - 32) * 5) / 9 : value;
}

export function fromCelsius(c: number, units: Units): number {
  return units === "us" ? (c * 9) / 5 + 32 : c;
}

const grouped = (value: number) =>
  Math.round(value)
    .toString()
    .replace(/\B(?=(\d{3})+(?!\d))/g, thin);

const OUNCE_G = 28.3495;

export function grams(g: number, units: Units): string {
  if (units === "us") {
    const ounces = g / OUNCE_G;
    return ounces >= 32 ? `${(ounces / 16).toFixed(1)}${thin}lb` : `${ounces.toFixed(1)}${thin}oz`;
  }
  return g < 10 && g !== 0 ? `${g.toFixed(1)}${thin}g` : `${grouped(g)}${thin}g`;
}

export const FL_OZ_ML = 29.5735;

/** What goes into the pot or the bowl, as this cook measures it. */
export function wordsOf(place: { words: string[]; us_words?: string[] }, units: Units): string[] {
  return units === "us" && place.us_words?.length ? place.us_words : place.words;
}

/** What was typed as a weight, in g or oz, as grams; null for nothing, NaN for what is none. */
export function typedGrams(text: string, units: Units): number | null {
  const clean = text.trim().replace(",", ".");
  return clean === "" ? null : Number(clean) * unitGrams(units);
}

/** Grams in what a cook types weights in. */
export const unitGrams = (units: Units): number => (units === "us" ? OUNCE_G : 1);

export function millilitres(ml: number, units: Units): string {
  if (units === "us") {
    const cups = ml / 236.588;
    return cups >= 1
      ? say("units.cups", { cups: cups.toFixed(1) })
      : `${(ml / FL_OZ_ML).toFixed(1)}${thin}fl oz`;
  }
  return `${grouped(ml)}${thin}ml`;
}

/** An amount in the kitchen’s money; small ones to the tenth of a cent. */
export function money(amount: number, currency: string): string {
  return `${currency}${thin}${amount.toFixed(amount < 0.1 ? 3 : 2)}`;
}

export function litres(ml: number, units: Units): string {
  if (units === "us") return `${(ml / 946.353).toFixed(1)}${thin}qt`;
  return `${(ml / 1000).toFixed(ml < 10_000 ? 1 : 0)}${thin}l`;
}

/** Thin things in the fractions of an inch rule, what is deeper in tenths. */
const THIN_MM = 15;

export function millimetres(mm: number, units: Units): string {
  if (units === "metric") return `${Math.round(mm)}${thin}mm`;
  const fraction = mm < THIN_MM ? inches(mm) : null;
  return `${fraction ?? (mm / 25.4).toFixed(1)}${thin}in`;
}

export function clock(seconds: number): string {
  const total = Math.max(0, Math.round(seconds));
  const hours = Math.floor(total / 3600);
  const minutes = Math.floor((total % 3600) / 60);
  const rest = (total % 60).toString().padStart(2, "0");
  return hours ? `${hours}:${minutes.toString().padStart(2, "0")}:${rest}` : `${minutes}:${rest}`;
}

export function minutes(seconds: number | null | undefined): string {
  if (seconds === null || seconds === undefined) return say("units.never");
  return seconds < 90 ? `${Math.round(seconds)}${thin}s` : `${Math.round(seconds / 60)}${thin}min`;
}

/** How long something is held: “60 s”, “20 min”. */
export function holds(seconds: number): string {
  return seconds < 300 ? `${seconds} s` : `${Math.round(seconds / 60)} min`;
}

export function day(iso: string): string {
  return new Date(iso).toLocaleDateString(region, {
    weekday: "short",
    day: "numeric",
    month: "short",
  });
}

const two = (n: number) => n.toString().padStart(2, "0");

/** A moment on this kitchen’s own clock, as the day’s plan speaks of it: no zone. */
export function localIso(at: Date): string {
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}T${two(at.getHours())}:${two(at.getMinutes())}:${two(at.getSeconds())}`;
}

/** “Sat 14:05”. */
export function weekdayTime(iso: string): string {
  const at = new Date(iso);
  const clock = `${at.getHours()}:${two(at.getMinutes())}`;
  return `${at.toLocaleDateString(region, { weekday: "short" })} ${clock}`;
}

export function time(iso: string): string {
  return new Date(iso).toLocaleTimeString(region, { hour: "2-digit", minute: "2-digit" });
}

/** A thickness under an inch as its rule has it: “1/8”. Under a thirty-second it stays in mm. */
function inches(mm: number): string | null {
  let [top, under] = [Math.round((mm / 25.4) * 16), 16];
  if (mm < 0.8) return null;
  while (top % 2 === 0) [top, under] = [top / 2, under / 2];
  return `${top}/${under}`;
}

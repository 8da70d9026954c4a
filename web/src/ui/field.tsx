import { useId, useState, type InputHTMLAttributes, type ReactNode } from "react";
import { say } from "@/say";

interface Labelled {
  label: string;
  error?: string | null | undefined;
  hint?: string | undefined;
  /** Its label is heard, not seen: in a table whose heads say it. */
  bare?: boolean | undefined;
}

function Around({
  label,
  error,
  hint,
  bare,
  id,
  children,
}: Labelled & { id: string; children: ReactNode }) {
  return (
    <div className="min-w-0">
      <label htmlFor={id} className={bare ? "sr-only" : "caption block"}>
        {label}
      </label>
      {children}
      {hint && !error && <p className="caption mt-1">{hint}</p>}
      {error && (
        <p id={`${id}-error`} className="mt-1 text-[0.94rem] text-burnt" role="alert">
          {error}
        </p>
      )}
    </div>
  );
}

export function Input({
  label,
  error,
  hint,
  bare,
  ...rest
}: Labelled & InputHTMLAttributes<HTMLInputElement>) {
  const id = useId();
  return (
    <Around label={label} error={error} hint={hint} bare={bare} id={id}>
      <input
        id={id}
        className="field"
        aria-invalid={error ? true : undefined}
        aria-describedby={error ? `${id}-error` : undefined}
        {...rest}
      />
    </Around>
  );
}

/** A value and what it is called; the third says that it cannot be chosen now. */
export type Option<V> = readonly [value: V, word: string, off?: boolean];
type Value = string | number | null;

interface SelectProps<V extends Value> extends Labelled {
  value: V;
  /** What each value is called: as a table where all are known, else in the order of a list. */
  options: Readonly<Record<V & string, string>> | readonly Option<V>[];
  disabled?: boolean | undefined;
  onValue: (value: V) => void;
}

/** One of several values. */
export function Select<V extends Value>({
  label,
  error,
  hint,
  value,
  options,
  disabled,
  onValue,
}: SelectProps<V>) {
  const id = useId();
  const listed: readonly Option<V>[] = Array.isArray(options)
    ? (options as readonly Option<V>[])
    : (Object.entries(options) as unknown as Option<V>[]);
  const text = (of: V) => String(of ?? "");
  return (
    <Around label={label} error={error} hint={hint} id={id}>
      <select
        id={id}
        className="field"
        aria-invalid={error ? true : undefined}
        aria-describedby={error ? `${id}-error` : undefined}
        value={text(value)}
        disabled={disabled}
        onChange={(event) => {
          const chosen = listed.find(([of]) => text(of) === event.target.value);
          if (chosen) onValue(chosen[0]);
        }}
      >
        {listed.map(([of, word, off]) => (
          <option key={text(of)} value={text(of)} disabled={off}>
            {word}
          </option>
        ))}
      </select>
    </Around>
  );
}

interface NumberProps extends Labelled {
  value: number;
  low: number;
  high: number;
  step?: number;
  unit?: string;
  disabled?: boolean;
  /** The value is told when the field is left or Enter is pressed, not at each key: it is stored. */
  stored?: boolean;
  onValue: (value: number) => void;
}

/** A number with its unit. Out of range is said at the field; what was typed stays. */
export function NumberField({
  label,
  value,
  low,
  high,
  step = 1,
  unit,
  disabled,
  stored = false,
  onValue,
  error,
  hint,
  bare,
}: NumberProps) {
  const id = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const shown = typed ?? String(Math.round(value * 100) / 100);
  const number = Number(shown.replace(",", "."));
  const wrong =
    shown.trim() === "" || Number.isNaN(number) || number < low || number > high
      ? say("ui.from_to", { label, low, high, unit: unit ? ` ${unit}` : "" })
      : null;
  // What is stored stays as typed until the store has it.
  const [known, setKnown] = useState(value);
  if (known !== value) {
    setKnown(value);
    if (stored) setTyped(null);
  }
  const [told, setTold] = useState<number | null>(null);
  const leave = () => {
    if (wrong) return;
    if (!stored || typed === null || number === value) setTyped(null);
    else if (number !== told) {
      setTold(number); // Enter, then leaving the field: once
      onValue(number);
    }
  };
  return (
    <Around label={label} error={wrong ?? error} hint={hint} bare={bare} id={id}>
      <span className="flex items-baseline">
        <input
          id={id}
          className="field"
          inputMode="decimal"
          value={shown}
          disabled={disabled}
          aria-invalid={wrong || error ? true : undefined}
          aria-describedby={wrong || error ? `${id}-error` : undefined}
          onChange={(event) => {
            const text = event.target.value;
            setTyped(text);
            setTold(null);
            const next = Number(text.replace(",", "."));
            if (stored) return;
            if (text.trim() !== "" && !Number.isNaN(next) && next >= low && next <= high) {
              onValue(next);
            }
          }}
          onBlur={leave}
          onKeyDown={(event) => {
            if (event.key === "Enter") leave();
            const by = event.key === "ArrowUp" ? step : event.key === "ArrowDown" ? -step : 0;
            if (!by || wrong) return;
            event.preventDefault();
            const next = Math.min(high, Math.max(low, number + by));
            setTyped(stored ? String(next) : null);
            if (!stored) onValue(next);
          }}
        />
        {unit && <span className="caption pl-1 whitespace-nowrap">{unit}</span>}
      </span>
    </Around>
  );
}

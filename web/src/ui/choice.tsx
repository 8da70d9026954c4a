import { Popover } from "radix-ui";
import { useEffect, useId, useMemo, useRef, useState, type KeyboardEvent } from "react";

import { narrowed, type Group } from "@/ui/narrowed";
import { say } from "@/say";

interface ChoiceProps {
  label: string;
  groups: readonly Group[];
  value: string;
  onValue: (value: string) => void;
  disabled?: boolean;
  error?: string | null;
  hint?: string | undefined;
  /** In a line of text: its label is heard, not seen. */
  bare?: boolean;
}

/** One of many, in groups, found by typing a word of it: for what a list is too long to read. */
export function Choice({
  label,
  groups,
  value,
  onValue,
  disabled,
  error,
  hint,
  bare,
}: ChoiceProps) {
  const id = useId();
  const [open, setOpen] = useState(false);
  const [first, setFirst] = useState("");
  const chosen = groups.flatMap((g) => g.options).find((o) => o.value === value);
  return (
    <div className="min-w-0">
      <label htmlFor={id} className={bare ? "sr-only" : "caption block"}>
        {label}
      </label>
      <Popover.Root
        open={open}
        onOpenChange={(next) => {
          setFirst("");
          setOpen(next);
        }}
      >
        <Popover.Trigger
          id={id}
          type="button"
          disabled={disabled}
          className="field flex items-center justify-between gap-2 text-left disabled:opacity-60"
          aria-haspopup="listbox"
          onKeyDown={(event) => {
            // A letter typed on it opens it, as an arrow does.
            const letter = /^[\p{L}\p{N}]$/u.test(event.key) && !event.ctrlKey && !event.metaKey;
            if (!letter && event.key !== "ArrowDown") return;
            event.preventDefault();
            setFirst(letter ? event.key : "");
            setOpen(true);
          }}
          aria-invalid={error ? true : undefined}
          aria-describedby={`${id}-value${error ? ` ${id}-error` : ""}`}
        >
          <span id={`${id}-value`} className="truncate">
            {chosen?.label ?? ""}
          </span>
          <svg viewBox="0 0 10 6" width="10" height="6" aria-hidden="true" className="shrink-0">
            <path d="M1 1 5 5 9 1" fill="none" stroke="currentColor" strokeWidth="1.6" />
          </svg>
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content
            align="start"
            sideOffset={2}
            collisionPadding={8}
            className="z-50 flex max-h-[var(--radix-popover-content-available-height)] w-[min(26rem,calc(100vw-1rem))] flex-col border-[1.5px] border-ink bg-sheet p-2 text-ink"
            aria-label={label}
            onOpenAutoFocus={(event) => {
              // At the end of what was typed already, not over it.
              event.preventDefault();
              (event.currentTarget as HTMLElement).querySelector("input")?.focus();
            }}
          >
            <Options
              label={label}
              groups={groups}
              value={value}
              first={first}
              pick={(picked) => {
                setOpen(false);
                if (picked !== value) onValue(picked);
              }}
            />
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
      {hint && !error && <p className="caption mt-1">{hint}</p>}
      {error && (
        <p id={`${id}-error`} className="mt-1 text-[0.94rem] text-burnt" role="alert">
          {error}
        </p>
      )}
    </div>
  );
}

interface OptionsProps {
  label: string;
  groups: readonly Group[];
  value: string;
  /** What was typed already when it opened. */
  first: string;
  pick: (value: string) => void;
}

function Options({ label, groups, value, first, pick }: OptionsProps) {
  const id = useId();
  const [typed, setTyped] = useState(first);
  const [at, setAt] = useState<string | null>(null);
  const left = useMemo(() => narrowed(groups, typed), [groups, typed]);
  const flat = left.flatMap((g) => g.options);
  const active = flat.find((o) => o.value === (at ?? value)) ?? flat[0];
  const list = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const row = list.current?.querySelector('[data-active="true"]');
    // What is chosen already stands in the middle at first.
    row?.scrollIntoView({ block: at === null ? "center" : "nearest" });
  }, [active, at]);

  const keys = (event: KeyboardEvent) => {
    const now = active ? flat.indexOf(active) : -1;
    const next = { ArrowDown: now + 1, ArrowUp: now - 1, Home: 0, End: flat.length - 1 }[event.key];
    if (event.key === "Enter" && active) pick(active.value);
    else if (next !== undefined && (typed === "" || event.key.startsWith("Arrow")))
      setAt(flat[Math.max(0, Math.min(flat.length - 1, next))]?.value ?? null);
    else return;
    event.preventDefault();
  };
  const of = (option: string) => `${id}-${option || say("ui.none")}`;
  return (
    <>
      <input
        type="search"
        role="combobox"
        className="field mb-1"
        aria-label={say("ui.a_word_of_it", { label })}
        placeholder={say("ui.a_word_of_it_2")}
        aria-expanded="true"
        aria-controls={id}
        aria-activedescendant={active ? of(active.value) : undefined}
        aria-autocomplete="list"
        autoComplete="off"
        maxLength={60}
        value={typed}
        onChange={(event) => {
          setTyped(event.target.value);
          setAt(null);
        }}
        onKeyDown={keys}
      />
      <div
        ref={list}
        id={id}
        role="listbox"
        aria-label={label}
        tabIndex={-1}
        className="max-h-80 min-h-0 overflow-y-auto"
      >
        {left.map((group) => (
          <div key={group.name ?? ""} role="group" aria-label={group.name ?? label}>
            {group.name && (
              <p className="caption sticky top-0 bg-sheet py-1" aria-hidden="true">
                {group.name}
              </p>
            )}
            {group.options.map((option) => (
              <div
                key={option.value}
                id={of(option.value)}
                role="option"
                aria-selected={option.value === value}
                data-active={option === active}
                className="flex min-h-11 cursor-pointer items-center justify-between gap-3 px-2 data-[active=true]:bg-ink data-[active=true]:text-sheet"
                onMouseMove={() => setAt(option.value)}
                onClick={() => pick(option.value)}
              >
                {option.label}
                {option.value === value && <span aria-hidden="true">✓</span>}
              </div>
            ))}
          </div>
        ))}
      </div>
      {flat.length === 0 && (
        <p className="p-2 text-soft">{say("ui.nothing_has_that_in_its_name")}</p>
      )}
    </>
  );
}

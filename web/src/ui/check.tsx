import { Checkbox } from "radix-ui";
import type { ReactNode } from "react";

interface Props {
  on: boolean;
  set: (on: boolean) => void;
  disabled?: boolean;
  children: ReactNode;
}

/** A box to tick, with its words, as big as a knuckle. */
export function Check({ on, set, disabled = false, children }: Props) {
  return (
    <label className="flex min-h-12 items-center gap-3">
      <Checkbox.Root
        checked={on}
        disabled={disabled}
        onCheckedChange={(next) => set(next === true)}
        className="flex size-6 shrink-0 items-center justify-center border-[1.5px] border-ink data-[state=checked]:bg-burnt"
      >
        <Checkbox.Indicator>
          <svg viewBox="0 0 16 16" width="16" height="16" aria-hidden="true">
            <path d="M2 8l4 5 8-11" fill="none" stroke="var(--on-burnt)" strokeWidth="2.5" />
          </svg>
        </Checkbox.Indicator>
      </Checkbox.Root>
      <span className="leading-tight">{children}</span>
    </label>
  );
}

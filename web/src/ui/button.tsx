import type { ButtonHTMLAttributes } from "react";

type Kind = "act" | "plain" | "quiet";

const LOOK: Record<Kind, string> = {
  act: "bg-burnt text-on-burnt border-burnt font-semibold",
  plain: "bg-transparent text-ink border-ink",
  quiet: "bg-transparent text-ink border-transparent underline underline-offset-4 decoration-rule",
};

/** A button big enough for a knuckle. */
export function Button({
  kind = "plain",
  className = "",
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { kind?: Kind }) {
  return (
    <button
      type="button"
      className={`min-h-12 border-[1.5px] px-4 py-2 disabled:opacity-50 ${LOOK[kind]} ${className}`}
      {...rest}
    />
  );
}

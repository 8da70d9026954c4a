import { SetShape } from "@/figures/hatches";
import type { SetClass } from "@/words";

/** What a class looks like when it is served: the shelf's and the book's small drawing. */
export function Serving({ klass, size = 92 }: { klass: SetClass | null; size?: number }) {
  return (
    <svg
      viewBox="0 0 100 84"
      width={size}
      height={size * 0.84}
      className="plate block"
      aria-hidden="true"
    >
      {klass === null ? <path d={CUP} {...LINE} strokeDasharray="3 3" /> : <Drawn klass={klass} />}
      <path d="M4 78 H96" stroke="var(--ink)" strokeWidth="1.2" />
    </svg>
  );
}

const LINE = {
  fill: "none",
  stroke: "var(--ink)",
  strokeWidth: 2,
  strokeLinejoin: "round",
} as const;
/** Three piped shells, one drawn out into the next. */
const SHELLS =
  "M8 76 Q4 54 20 48 Q34 44 38 62 Q40 48 48 44 Q62 40 64 60 Q66 46 75 44 Q92 42 94 76 Z";
const CUP = "M26 22 L34 77 H66 L74 22";

function Drawn({ klass }: { klass: SetClass }) {
  switch (klass) {
    case "pour":
      return (
        <>
          <SetShape
            d="M18 40 C30 40 34 46 60 46 C70 46 72 56 72 77 H34 C34 58 30 52 18 50 Z"
            klass={klass}
          />
          <path
            d="M18 40 C30 40 34 46 60 46 C70 46 72 56 72 77 H34 C34 58 30 52 18 50 M72 52 C86 50 88 68 72 70"
            {...LINE}
          />
        </>
      );
    case "nappe":
      return (
        <>
          <SetShape d="M14 62 C14 44 58 44 58 62 C58 76 14 76 14 62 Z" klass={klass} />
          <path d="M14 62 C14 44 58 44 58 62 C58 76 14 76 14 62 Z M57 57 L92 30" {...LINE} />
          <path d="M22 60 H50" stroke="var(--paper)" strokeWidth="4" strokeLinecap="round" />
        </>
      );
    case "spoon":
      return (
        <>
          <SetShape d="M29 38 Q40 26 50 34 T71 38 L66 77 H34 Z" klass={klass} />
          <path d="M29 38 Q40 26 50 34 T71 38" {...LINE} strokeWidth={1.4} />
          <path d={CUP} {...LINE} />
        </>
      );
    case "pipe":
      return (
        <>
          <SetShape d={SHELLS} klass={klass} />
          <path d={SHELLS} {...LINE} />
          <path
            d="M12 62 Q22 52 36 60 M14 70 Q24 64 35 68 M38 58 Q48 47 62 56 M40 67 Q50 60 61 65 M64 56 Q73 46 86 58 M66 66 Q75 59 85 66"
            {...LINE}
            strokeWidth={1.2}
          />
        </>
      );
    case "slice":
      return (
        <>
          <SetShape d="M14 77 V48 L78 36 L88 46 V77 Z" klass={klass} />
          <path d="M14 77 V48 L78 36 L88 46 V77 M14 48 L88 46" {...LINE} />
          <path d="M14 70 H88" {...LINE} strokeWidth={1.2} />
        </>
      );
    case "unmould":
      return (
        <>
          <SetShape d="M22 77 L32 30 Q34 24 40 24 H60 Q66 24 68 30 L78 77 Z" klass={klass} />
          <path d="M22 77 L32 30 Q34 24 40 24 H60 Q66 24 68 30 L78 77 Z M30 40 H70" {...LINE} />
        </>
      );
  }
}

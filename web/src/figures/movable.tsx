import { useEffect, useRef, useState, type ReactNode } from "react";

import type { Shapes } from "@/api/client";
import { hour } from "@/figures/runway-time";
import { say } from "@/say";

const SNAP_MIN = 5;

interface MovableProps {
  step: Shapes["DayStepOut"];
  start: number;
  perMinute: number;
  opacity: number;
  /** Whether what was asked for is being worked out. */
  asking?: boolean;
  onChoose: () => void;
  /** Asked for with its new start, in minutes since the epoch. */
  onPin: ((key: string, minute: number) => void) | undefined;
  children: ReactNode;
}

/** A step that can be pinned elsewhere: dragged, or moved by the arrow keys, five minutes a stroke. */
export function Movable({
  step,
  start,
  perMinute,
  opacity,
  asking = false,
  onChoose,
  onPin,
  children,
}: MovableProps) {
  const [shift, setShift] = useState(0);
  const from = useRef<number | null>(null);
  const scale = useRef(1);
  /** Where it was asked to go, until the plan has it there or says no: the next stroke counts
   *  from it. */
  const asked = useRef<number | null>(null);
  useEffect(() => {
    if (!asking || asked.current === start) asked.current = null;
  }, [asking, start]);
  const snapped = Math.round(shift / perMinute / SNAP_MIN) * SNAP_MIN;
  const words = `${step.what}, ${hour(start + snapped)}${step.state === "pinned" ? say("figures.pinned") : ""}`;
  return (
    <g
      opacity={opacity}
      className="cursor-pointer focus-visible:outline-2"
      transform={snapped ? `translate(${snapped * perMinute} 0)` : undefined}
      {...(onPin
        ? {
            role: "button",
            tabIndex: 0,
            "aria-label": say("figures.arrow_keys_move_it", { words }),
          }
        : {})}
      onKeyDown={(event) => {
        if (onPin && (event.key === "Enter" || event.key === " ")) {
          event.preventDefault();
          onChoose();
        }
        const by = { ArrowLeft: -SNAP_MIN, ArrowRight: SNAP_MIN }[event.key];
        if (!onPin || !by) return;
        event.preventDefault();
        asked.current = (asked.current ?? start) + by;
        onPin(step.key, asked.current);
      }}
      onBlur={() => {
        asked.current = null;
      }}
      onPointerDown={(event) => {
        if (!onPin) return;
        from.current = event.clientX;
        const box = event.currentTarget.ownerSVGElement;
        scale.current = box ? box.viewBox.baseVal.width / box.clientWidth : 1;
        event.currentTarget.setPointerCapture(event.pointerId);
      }}
      onPointerMove={(event) => {
        if (from.current !== null) setShift((event.clientX - from.current) * scale.current);
      }}
      onPointerUp={() => {
        from.current = null;
        setShift(0);
        if (snapped && onPin) onPin(step.key, start + snapped);
        else onChoose();
      }}
      onClick={onPin ? undefined : onChoose}
    >
      <title>{words}</title>
      {children}
    </g>
  );
}

import { useLayoutEffect, useRef, useState, type RefObject } from "react";

/** The width a plate really has on the screen, so that its type is drawn at the size it is read. */
export function usePlateWidth(
  start: number,
  least = 340,
): [RefObject<SVGSVGElement | null>, number] {
  const plate = useRef<SVGSVGElement>(null);
  const [width, setWidth] = useState(start);
  useLayoutEffect(() => {
    const element = plate.current;
    if (!element) return;
    const watch = new ResizeObserver(([entry]) => {
      if (entry) setWidth(Math.max(least, Math.round(entry.contentRect.width)));
    });
    watch.observe(element);
    return () => watch.disconnect();
  }, [least]);
  return [plate, width];
}

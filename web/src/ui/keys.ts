import { useLayoutEffect, useRef } from "react";

/** Hear every key of the page, from the first picture on: no press falls between two renders. */
export function usePageKeys(pressed: (event: KeyboardEvent) => void): void {
  const latest = useRef(pressed);
  useLayoutEffect(() => {
    latest.current = pressed;
  });
  useLayoutEffect(() => {
    const heard = (event: KeyboardEvent) => latest.current(event);
    window.addEventListener("keydown", heard);
    return () => window.removeEventListener("keydown", heard);
  }, []);
}

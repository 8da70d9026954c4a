// @vitest-environment jsdom
import { cleanup, fireEvent, renderHook } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";

import { usePageKeys } from "@/ui/keys";

afterEach(cleanup);

it("gives each key to what is on the page now, and to nobody once it is left", () => {
  const [first, then] = [vi.fn(), vi.fn()];
  const view = renderHook(({ pressed }) => usePageKeys(pressed), {
    initialProps: { pressed: first },
  });
  fireEvent.keyDown(window, { key: " " });
  view.rerender({ pressed: then });
  fireEvent.keyDown(document.body, { key: "ArrowLeft" });
  view.unmount();
  fireEvent.keyDown(window, { key: "Escape" });
  const keys = (heard: typeof first) => heard.mock.calls.map(([e]) => (e as KeyboardEvent).key);
  expect([keys(first), keys(then)]).toEqual([[" "], ["ArrowLeft"]]);
});

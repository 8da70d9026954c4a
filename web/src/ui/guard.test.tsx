// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";

import { Guard } from "@/ui/guard";

vi.mock("@/api/queries", () => ({ cache: { removeQueries: () => undefined } }));
afterEach(cleanup);

it("keeps a page that throws from blanking the tablet, and tries it again", () => {
  const quiet = vi.spyOn(console, "error").mockImplementation(() => undefined);
  let broken = true;
  const Page = () => {
    if (broken) throw new Error("a thrown render");
    return <p>the pot</p>;
  };
  render(
    <Guard place="/cook">
      <Page />
    </Guard>,
  );
  expect(screen.queryByText("the pot")).toBeNull();
  broken = false;
  fireEvent.click(screen.getByRole("button", { name: /again/i }));
  expect(screen.getByText("the pot")).toBeTruthy();
  quiet.mockRestore();
});

it("does not stay broken on another page", () => {
  const quiet = vi.spyOn(console, "error").mockImplementation(() => undefined);
  const Broken = () => {
    throw new Error("a thrown render");
  };
  const view = render(
    <Guard place="/cook">
      <Broken />
    </Guard>,
  );
  view.rerender(
    <Guard place="/book">
      <p>the book</p>
    </Guard>,
  );
  expect(screen.getByText("the book")).toBeTruthy();
  quiet.mockRestore();
});

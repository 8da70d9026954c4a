// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import { Folds } from "@/screens/dessert/folds";
import { Needs } from "@/screens/dessert/needs";
import { field, press, read, type } from "@/test/page";

vi.mock("@/bench", () => ({ useBench: () => ({ units: "metric" }) }));
afterEach(cleanup);

const change = vi.fn();
beforeEach(() => change.mockClear());
const DESSERT = {
  parts: [
    { id: "crust", name: "Crust" },
    { id: "cream", name: "Pastry cream" },
    { id: "foam", name: "Whipped cream" },
  ],
};
const layer = (part_id: string | null, fold = "") => ({
  part_id,
  item: "",
  fold,
  lies: null,
  value: null,
  walls: null,
});

describe("two parts folded together", () => {
  type Props = Parameters<typeof Folds>[0];
  const shown = (content: object, more: Partial<Props> = {}) =>
    render(
      <Folds
        content={content as Props["content"]}
        dessert={DESSERT as Props["dessert"]}
        build={null}
        problem={null}
        readOnly={false}
        change={change}
        {...more}
      />,
    );
  const choose = (label: RegExp, value: string) =>
    fireEvent.change(screen.getByLabelText(label), { target: { value } });
  const FOLD = {
    name: "diplomat",
    base_id: "cream",
    light_id: "foam",
    base_g: null,
    light_g: null,
  };

  it("lie where the lightened part lay, and the foam goes into it", () => {
    const layers = [layer("crust"), layer("cream"), layer("foam"), layer(null, "")];
    shown({ folds: [], layers });
    press(/fold two parts/i);
    choose(/what is lightened/i, "cream");
    choose(/^with/i, "foam");
    type(/is called/i, " diplomat ");
    press(/fold them/i);
    expect(change).toHaveBeenCalledWith({
      folds: [FOLD],
      layers: [layer("crust"), layer(null, "diplomat"), layer(null, "")],
    });
  });

  it("lie on the bottom where the lightened part lay nowhere", () => {
    shown({ folds: [], layers: [layer("crust")] });
    press(/fold two parts/i);
    choose(/what is lightened/i, "cream");
    choose(/^with/i, "foam");
    press(/fold them/i);
    expect(
      (change.mock.calls[0]?.[0] as { layers: { part_id: string | null }[] }).layers.map(
        (l) => l.part_id,
      ),
    ).toEqual([null, "crust"]);
  });

  it("need two parts and a name nothing here has", () => {
    shown({ folds: [FOLD], layers: [] });
    press(/fold two parts/i);
    const go = () => screen.getByRole<HTMLButtonElement>("button", { name: /fold them/i }).disabled;
    choose(/what is lightened/i, "cream");
    choose(/^with/i, "cream");
    type(/is called/i, "x");
    expect(go()).toBe(true); // with itself
    choose(/^with/i, "foam");
    expect(go()).toBe(false);
    for (const taken of ["diplomat", "Pastry cream"]) {
      type(/is called/i, taken);
      expect(go()).toBe(true);
      expect(field(/is called/i).getAttribute("aria-invalid")).toBe("true");
    }
  });

  it("are taken apart with their layer, and go back to all of both", () => {
    const other = { ...FOLD, name: "mousse" };
    shown({
      folds: [FOLD, other],
      layers: [layer("crust"), layer(null, "diplomat"), layer(null, "mousse")],
    });
    fireEvent.click(screen.getAllByRole("button", { name: /take it apart/i })[0] as Element);
    expect(change).toHaveBeenLastCalledWith({
      folds: [other],
      layers: [layer("crust"), layer(null, "mousse")],
    });
  });

  it("say what comes of them, and what is wrong at the one it is about", () => {
    const found = {
      name: "diplomat",
      base_g: 500,
      light_g: 250,
      volume_ml: 1100,
      density_g_per_ml: 0.68,
      set_class: "spoon",
      base_from_c: 18,
      base_to_c: 24,
      sign: "no streaks",
      too_warm: "it melts",
    };
    shown(
      { folds: [FOLD], layers: [] },
      {
        build: { folds: [found] } as never,
        problem: { field: "folds[0].base_g", message: "There is not so much." },
      },
    );
    expect(read(screen.getByTestId("fold"))).toMatch(
      /500 g.*250 g.*1 100 ml.*0\.68.*spoons.*18 °C.*24 °C/,
    );
    expect(screen.getByRole("alert").textContent).toBe("There is not so much.");
  });

  it("are not offered of one part, nor to who only reads", () => {
    const one = { parts: DESSERT.parts.slice(0, 1) } as Props["dessert"];
    expect(shown({ folds: [] }, { dessert: one }).container.textContent).toBe("");
    cleanup();
    expect(shown({ folds: [] }, { readOnly: true }).container.textContent).toBe("");
    cleanup();
    shown({ folds: [FOLD], layers: [] }, { readOnly: true });
    expect(screen.queryByRole("button")).toBeNull();
  });
});

describe("what each part must give", () => {
  type Props = Parameters<typeof Needs>[0];
  const part = (name: string, more: object = {}) => ({
    name,
    need_g: 400,
    written_g: 500,
    left_g: 100,
    lost_pct: 2,
    scaled_times: 0.8,
    ...more,
  });
  const onScale = vi.fn();
  const shown = (parts: object[], more: Partial<Props> = {}, losses: object[] = []) =>
    render(
      <Needs
        build={{ parts } as never}
        content={{ losses } as never}
        dessert={DESSERT as never}
        canScale
        busy={false}
        change={change}
        onScale={onScale}
        {...more}
      />,
    );
  const rows = () => [...screen.getByTestId("needs").querySelectorAll("tbody tr")].map(read);

  it("is said against what is written, short of it loudly", () => {
    shown(
      [
        part("Crust"),
        part("Cream", { left_g: -40, scaled_times: 1.1 }),
        part("Foam", { left_g: 0.4, scaled_times: 1 }),
      ],
      { canScale: false },
    );
    expect(rows()[0]).toMatch(/400 g500 g\+100 g2 %× 0\.80/);
    expect(rows()[1]).toMatch(/−40 g/);
    expect(rows()[2]).toMatch(/all of it/i);
    expect(screen.getByText(/−40/).className).toContain("burnt");
  });

  it("keeps what is lost of one part beside what is lost of another", () => {
    shown([part("Crust"), part("Cream")], {}, [{ part_id: "crust", lost_pct: 3 }]);
    type(/lost.*Cream|Cream.*lost/i, "6");
    expect(change).toHaveBeenLastCalledWith({
      losses: [
        { part_id: "crust", lost_pct: 3 },
        { part_id: "cream", lost_pct: 6 },
      ],
    });
    type(/lost.*Crust|Crust.*lost/i, "4");
    expect(change).toHaveBeenLastCalledWith({ losses: [{ part_id: "crust", lost_pct: 4 }] });
    type(/lost.*Crust|Crust.*lost/i, "61");
    expect(change).toHaveBeenCalledTimes(2);
  });

  it("is written at its size only where a size is off, by who may", () => {
    const offered = (parts: object[], more: Partial<Props> = {}) => {
      shown(parts, more);
      const found = screen.queryByRole("button", { name: /write every part/i }) !== null;
      cleanup();
      return found;
    };
    expect(offered([part("Crust")])).toBe(true);
    expect(offered([part("Crust")], { canScale: false })).toBe(false);
    expect(offered([part("Crust", { scaled_times: 1.004 })])).toBe(false);
    expect(offered([part("Crust", { need_g: 0 })])).toBe(false);
    shown([part("Crust")]);
    press(/write every part/i);
    expect(onScale).toHaveBeenCalledOnce();
  });
});

import { SVGPathData } from "svg-pathdata";

/** A mark of a drawing: its outermost box in the plate's own units, transforms worked in. */
export interface Mark {
  el: SVGElement;
  left: number;
  top: number;
  right: number;
  bottom: number;
}

type Matrix = readonly [number, number, number, number, number, number];
const SAME: Matrix = [1, 0, 0, 1, 0, 0];

const times = ([a, b, c, d, e, f]: Matrix, [g, h, i, j, k, l]: Matrix): Matrix => [
  a * g + c * h, b * g + d * h, a * i + c * j, b * i + d * j, a * k + c * l + e, b * k + d * l + f,
]; // prettier-ignore

const MOVES: Record<string, (n: readonly number[]) => Matrix> = {
  translate: ([x = 0, y = 0]) => [1, 0, 0, 1, x, y],
  rotate: ([deg = 0, x = 0, y = 0]) => {
    const [cos, sin] = [Math.cos((deg * Math.PI) / 180), Math.sin((deg * Math.PI) / 180)];
    return times(times([1, 0, 0, 1, x, y], [cos, sin, -sin, cos, 0, 0]), [1, 0, 0, 1, -x, -y]);
  },
};

/** What the transforms from the plate down to an element come to. */
function placed(el: Element | null): Matrix {
  if (!el || el.tagName === "svg") return SAME;
  const own = [...(el.getAttribute("transform") ?? "").matchAll(/(\w+)\(([^)]*)\)/g)].map(
    ([, name = "", args = ""]) => {
      const move = MOVES[name];
      if (!move) throw new Error(`a transform nobody reads here: ${name}`);
      return move(args.trim().split(/[\s,]+/).map(Number)); // prettier-ignore
    },
  );
  return own.reduce(times, placed(el.parentElement));
}

const num = (el: Element, name: string, or = 0) => Number(el.getAttribute(name) ?? or);
type Box = readonly [left: number, top: number, right: number, bottom: number];

const BOXES: Record<string, (el: Element) => Box> = {
  rect: (el) => {
    const [x, y] = [num(el, "x"), num(el, "y")];
    return [x, y, x + num(el, "width"), y + num(el, "height")];
  },
  circle: (el) => {
    const [x, y, r] = [num(el, "cx"), num(el, "cy"), num(el, "r")];
    return [x - r, y - r, x + r, y + r];
  },
  ellipse: (el) => {
    const [x, y, rx, ry] = [num(el, "cx"), num(el, "cy"), num(el, "rx"), num(el, "ry")];
    return [x - rx, y - ry, x + rx, y + ry];
  },
  path: (el) => {
    const { minX, minY, maxX, maxY } = new SVGPathData(el.getAttribute("d") ?? "").getBounds();
    return [minX, minY, maxX, maxY];
  },
  text: (el) => {
    // No page lays it out here: two fifths of its size a letter is narrower than any of our type.
    const [size, x, y] = [num(el, "font-size", 14), num(el, "x"), num(el, "y")];
    const wide = (el.textContent || "").length * size * 0.4;
    const anchor = el.getAttribute("text-anchor");
    const left = anchor === "end" ? x - wide : anchor === "middle" ? x - wide / 2 : x;
    return [left, y - size * 0.6, left + wide, y];
  },
};

/** Every mark of a drawing that is seen on the plate; a path of one point is none. */
export function marksOf(plate: Element, what = "rect, circle, ellipse, path, text"): Mark[] {
  return [...plate.querySelectorAll<SVGElement>(what)]
    .filter((el) => !el.closest("defs") && el.parentElement?.tagName !== "clipPath")
    .filter((el) => el.tagName !== "path" || /[a-ln-z]/i.test(el.getAttribute("d") ?? ""))
    .map((el) => {
      const [x0, y0, x1, y1] = BOXES[el.tagName]?.(el) ?? [NaN, NaN, NaN, NaN];
      const [a, b, c, d, e, f] = placed(el);
      const xs = [x0, x1].flatMap((x) => [y0, y1].map((y) => a * x + c * y + e));
      const ys = [x0, x1].flatMap((x) => [y0, y1].map((y) => b * x + d * y + f));
      return {
        el,
        left: Math.min(...xs),
        right: Math.max(...xs),
        top: Math.min(...ys),
        bottom: Math.max(...ys),
      };
    });
}

/** The first drawing of a rendered page. */
export function plateOf(container: Element): SVGSVGElement {
  const found = container.querySelector("svg");
  if (!found) throw new Error("nothing is drawn");
  return found;
}

/** What is no number, or lies off the plate by more than a line's width: a drawing has none. */
export function strays(plate: Element, slack = 3): string[] {
  const [x = NaN, y = NaN, wide = NaN, tall = NaN] = (plate.getAttribute("viewBox") ?? "")
    .split(/\s+/)
    .map(Number);
  const whole = [x, y, wide, tall].every(Number.isFinite) && wide > 0 && tall > 0;
  if (!whole) return [`viewBox ${plate.getAttribute("viewBox") ?? ""}`];
  return marksOf(plate)
    .filter(
      (m) =>
        !(m.left >= x - slack && m.right <= x + wide + slack) ||
        !(m.top >= y - slack && m.bottom <= y + tall + slack),
    )
    .map((m) => {
      const where = [m.left, m.top, m.right, m.bottom].map((v) => v.toFixed(0)).join(" ");
      return `${m.el.outerHTML.slice(0, 140)} at ${where} of ${x} ${y} ${wide} ${tall}`;
    });
}

/** What is written on it. */
export const wordsOn = (plate: Element) =>
  [...plate.querySelectorAll("text")].map((t) => t.textContent.replaceAll("\u202f", " "));

/** The marks hatched so: as a class of set, as cold, as overdone. */
export const hatched = (plate: Element, hatch: string) =>
  marksOf(plate, `[fill="url(#h-${hatch})"]`);

/** The marks drawn in this ink. */
export const inked = (plate: Element, ink: string) => marksOf(plate, `[stroke="var(--${ink})"]`);

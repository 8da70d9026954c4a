import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from "react";

import { client, must, type Shapes } from "@/api/client";
import type { Content } from "@/api/queries";
import { useBench } from "@/bench";
import type { MapBox } from "@/figures/set-map";
import type { Draft } from "@/keep/draft";
import { NO_WISHES } from "@/screens/formula/wishes";
import { say } from "@/say";

type Point = { starch: number; egg: number };
const STARCH_STEP = 1;
const EGG_STEP = 5;

/** A hand is not steady: small moves across the one that is meant do not count. */
function steadied(point: Point, from: Point): Point {
  const starch =
    Math.abs(point.starch - from.starch) < 1.5 ? from.starch : Math.round(point.starch);
  const egg = Math.abs(point.egg - from.egg) < 6 ? from.egg : Math.round(point.egg);
  return { starch: Math.max(0, starch), egg: Math.max(0, egg) };
}

/** Only what has moved is wished for, so that the other lines stay as they were typed. */
function wishesOf(point: Point, from: Point) {
  return {
    ...NO_WISHES,
    starch_per_1000: point.starch === from.starch ? null : point.starch,
    egg_per_1000: point.egg === from.egg ? null : point.egg,
  };
}

/** One move of the point, from where it stood until it has arrived or something else was typed. */
interface Gesture {
  from: Point;
  wanted: Point;
  /** The text it left behind last: any other text means that somebody typed or took it back. */
  left: Content;
  begun: boolean;
}

interface Props {
  box: MapBox;
  map: Shapes["SetMap"];
  /** The map belongs to the text as it stands, not to the one before. */
  fresh: boolean;
  /** What it is judged as: held while the point moves, or the map would jump under the hand. */
  family: string;
  draft: Draft;
  /** Where the hand holds the point while it is on its way. */
  onHold: (point: Point | null) => void;
}

/**
 * The point of the set map, to be moved by hand or arrow keys: the ratio changes, the liquid stays,
 * and the lines follow. It lies over the drawing as a button, so that a knuckle finds it.
 */
export function MapHandle({ box, map, fresh, family, draft, onHold }: Props) {
  const { kid } = useBench();
  const gesture = useRef<Gesture | null>(null);
  /** Steps of the arrow keys pressed while the map was still on its way. */
  const waiting = useRef<Point[]>([]);
  const grabbed = useRef<Point>({ starch: 0, egg: 0 });
  const asking = useRef(false);
  const released = useRef(true);
  const [holding, setHolding] = useState(false);

  const end = () => {
    gesture.current = null;
    onHold(null);
  };
  /** Ask for the lines of the wanted point until it has arrived, one question at a time. */
  const follow = async () => {
    if (asking.current) return;
    asking.current = true;
    let done: Point | null = null;
    while (gesture.current && gesture.current.wanted !== done) {
      const now: Gesture = gesture.current;
      done = now.wanted;
      try {
        const bent = await must(
          client.POST("/api/k/{kid}/solve", {
            params: { path: { kid } },
            body: { content: now.left, wishes: wishesOf(done, now.from) },
          }),
        );
        if (gesture.current !== now) continue; // another move has begun meanwhile
        if (draft.content !== now.left) break; // typed or taken back meanwhile: that counts
        const part = { lines_text: bent.lines.join("\n"), family };
        if (now.begun) draft.amend(part);
        else draft.put(part);
        now.begun = true;
        now.left = draft.content;
      } catch {
        if (gesture.current === now) break; // no server: the point goes back, the lines stay
      }
    }
    asking.current = false;
    if (released.current) end();
  };
  /** The move under way, or a new one from where the point stands. */
  const begin = (): Gesture => {
    const now = gesture.current;
    if (now && now.left === draft.content) return now;
    const from = { starch: map.x, egg: map.y };
    return (gesture.current = { from, wanted: from, left: draft.content, begun: false });
  };
  const move = (now: Gesture, point: Point) => {
    now.wanted = point;
    onHold(point);
    void follow();
  };
  const step = ({ starch, egg }: Point) => {
    const now = begin();
    const next = (from: number, by: number) =>
      by ? Math.max(0, Math.round(from + by)) : Math.max(0, from);
    move(now, { starch: next(now.wanted.starch, starch), egg: next(now.wanted.egg, egg) });
  };
  useEffect(() => {
    if (fresh) waiting.current.splice(0).forEach(step);
  });
  const release = () => {
    setHolding(false);
    released.current = true;
    if (!asking.current) end();
  };
  const place = (event: PointerEvent<HTMLButtonElement>): Point => {
    const plate = event.currentTarget.parentElement?.getBoundingClientRect();
    if (!plate) return { starch: map.x, egg: map.y };
    const across = ((event.clientX - plate.left) / plate.width) * box.width;
    const down = ((event.clientY - plate.top) / plate.height) * box.height;
    const right = box.width - box.right;
    const floor = box.height - box.bottom;
    const share = (v: number) => Math.min(1, Math.max(0, v));
    return {
      starch: share((across - box.left) / (right - box.left)) * map.x_max,
      egg: share((floor - down) / (floor - box.top)) * map.y_max,
    };
  };
  const pressed = (event: KeyboardEvent<HTMLButtonElement>) => {
    const by: Record<string, [number, number]> = {
      ArrowLeft: [-STARCH_STEP, 0],
      ArrowRight: [STARCH_STEP, 0],
      ArrowDown: [0, -EGG_STEP],
      ArrowUp: [0, EGG_STEP],
    };
    const way = by[event.key];
    if (!way) return;
    event.preventDefault();
    released.current = false;
    const times = event.shiftKey ? 5 : 1;
    const wish = { starch: way[0] * times, egg: way[1] * times };
    if (fresh || gesture.current?.left === draft.content) step(wish);
    else waiting.current.push(wish);
  };
  const left = box.left + (map.x / map.x_max) * (box.width - box.left - box.right);
  const floor = box.height - box.bottom;
  const top = floor - (map.y / map.y_max) * (floor - box.top);
  return (
    <button
      type="button"
      aria-label={say("formula.move_the_point_left_and_right", {
        split: map.y_word.split(",")[0] ?? say("formula.egg"),
      })}
      aria-roledescription={say("formula.point_on_the_set_map")}
      className={`absolute size-12 -translate-x-1/2 -translate-y-1/2 touch-none rounded-full ${holding ? "cursor-grabbing" : "cursor-grab"}`}
      style={{
        left: `${(100 * left) / box.width}%`,
        top: `${(100 * top) / box.height}%`,
      }}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        released.current = false;
        const at = place(event);
        grabbed.current = { starch: at.starch - map.x, egg: at.egg - map.y };
        setHolding(true);
      }}
      onPointerMove={(event) => {
        if (!event.currentTarget.hasPointerCapture(event.pointerId)) return;
        const at = place(event);
        const now = begin();
        const to = {
          starch: at.starch - grabbed.current.starch,
          egg: at.egg - grabbed.current.egg,
        };
        move(now, steadied(to, now.from));
      }}
      onPointerUp={release}
      onPointerCancel={release}
      onKeyDown={pressed}
      onKeyUp={release}
      onBlur={release}
    />
  );
}

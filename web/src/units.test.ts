import { describe, expect, it } from "vitest";

import {
  clock,
  degrees,
  fromCelsius,
  grams,
  holds,
  kelvins,
  litres,
  millilitres,
  millimetres,
  minutes,
  money,
  toCelsius,
  typedGrams,
} from "@/units";

const plain = (text: string) => text.replace(/\u202f/g, " ");

describe("temperatures", () => {
  it("says a hold in seconds at the boil and in minutes at a simmer", () => {
    expect([holds(60), holds(240), holds(1200)]).toEqual(["60 s", "240 s", "20 min"]);
  });

  it("shows Celsius, and Fahrenheit by 9/5 and 32", () => {
    expect(plain(degrees(100, "metric"))).toBe("100 °C");
    expect(plain(degrees(100, "us"))).toBe("212 °F");
    expect(plain(degrees(-40, "us"))).toBe("-40 °F");
    expect(plain(degrees(82.26, "metric", 1))).toBe("82.3 °C");
    expect(degrees(null, "us")).toBe("–");
  });

  it("keeps a difference a difference: no 32 in it", () => {
    expect(plain(kelvins(20, "us", 0))).toBe("36 °F");
    expect(plain(kelvins(20, "metric", 0))).toBe("20 K");
    expect(plain(kelvins(-1.5, "us"))).toBe("-2.7 °F");
  });

  it("reads what a cook types in Fahrenheit as Celsius, and back", () => {
    expect(toCelsius(212, "us")).toBeCloseTo(100);
    expect(toCelsius(180, "us")).toBeCloseTo(82.22, 2);
    expect(toCelsius(82, "metric")).toBe(82);
    for (const c of [-18, 0, 37.5, 118])
      expect(toCelsius(fromCelsius(c, "us"), "us")).toBeCloseTo(c);
  });
});

describe("weights, volumes and lengths", () => {
  it("groups thousands and keeps a tenth of what is small", () => {
    expect(plain(grams(1030, "metric"))).toBe("1 030 g");
    expect(plain(grams(1_234_567, "metric"))).toBe("1 234 567 g");
    expect(plain(grams(4.26, "metric"))).toBe("4.3 g");
    expect(plain(grams(0, "metric"))).toBe("0 g");
  });

  it("reads a typed weight in this cook’s own, and nothing as nothing", () => {
    expect(typedGrams(" 12,5 ", "metric")).toBe(12.5);
    expect(typedGrams("2", "us")).toBeCloseTo(56.7, 1);
    expect(typedGrams("  ", "us")).toBeNull();
    expect(typedGrams("a jar", "metric")).toBeNaN();
  });

  it("goes from ounces to pounds at two pounds", () => {
    expect(plain(grams(100, "us"))).toBe("3.5 oz");
    expect(plain(grams(907, "us"))).toBe("32.0 oz");
    expect(plain(grams(908, "us"))).toBe("2.0 lb");
  });

  it("measures in the kitchen’s own system", () => {
    expect(plain(millilitres(237, "us"))).toBe("1.0 cups");
    expect(plain(millilitres(30, "us"))).toBe("1.0 fl oz");
    expect(plain(litres(1500, "metric"))).toBe("1.5 l");
    expect(plain(litres(12_000, "metric"))).toBe("12 l");
    expect(plain(litres(1893, "us"))).toBe("2.0 qt");
    expect(plain(millimetres(25.4, "us"))).toBe("1.0 in");
    expect(plain(millimetres(3, "us"))).toBe("1/8 in");
    expect(plain(money(0.034, "€"))).toBe("€ 0.034");
    expect(plain(money(2.5, "€"))).toBe("€ 2.50");
  });
});

describe("times", () => {
  it("shows hours only when there are some, and never less than nothing", () => {
    expect(clock(59.6)).toBe("1:00");
    expect(clock(3_723)).toBe("1:02:03");
    expect(clock(-5)).toBe("0:00");
  });

  it("says seconds below a minute and a half", () => {
    expect(plain(minutes(89))).toBe("89 s");
    expect(plain(minutes(90))).toBe("2 min");
    expect(minutes(null)).toBe("never");
  });
});

"""Golden tables: what each law says today, one CSV a law, made again by ``./crumb golden``.

A table is no proof that a law is right (other tests hold it to published values): it shows, line by
line in the diff, what a change of the code changes.
"""

import csv
import math
from collections.abc import Iterator
from itertools import product
from pathlib import Path

from bellcrumb.asked.lines import read_lines
from bellcrumb.book.curve_file import read_curve
from bellcrumb.contract import compute
from bellcrumb.errors import CraftError
from bellcrumb.formula.answer import mix_of
from bellcrumb.formula.starters import starters
from bellcrumb.heat.pot import pot_for
from bellcrumb.laws.starch import PASTING, sugar_delay_k
from bellcrumb.laws.water import boils_c, saturation_pa, sucrose_boils_c, sucrose_pct_at
from bellcrumb.mix.composition import Mix
from bellcrumb.mix.lines import understand_all
from bellcrumb.pantry.eggs import egg_grade
from bellcrumb.pantry.pantry import shipped
from bellcrumb.quantities.amount import NUMBER_WORDS, read_amount
from bellcrumb.quantities.units import SPELLINGS, unit
from bellcrumb.safety.pasteurise import lethality
from bellcrumb.stove.syrup import Pan, lining_g, pour_window_s, seconds_in_cold_water
from bellcrumb.stove.thickening import Thickener
from bellcrumb.texture.coagulation import coagulation, set_temp_c
from bellcrumb.texture.families import families
from bellcrumb.texture.set_index import set_strength
from bellcrumb.words import closed
from tests.core.golden_answers import answers
from tests.core.golden_cases import BRULEE, CHEESE, HAY, PASTRY, RAMEKIN, SPRING, TIN, Row
from tests.core.golden_causes import ranked
from tests.core.golden_days import lists, tasks
from tests.core.golden_desserts import buildings, stacks
from tests.core.golden_formulas import formulas
from tests.core.golden_guides import guides, threads
from tests.core.golden_maps import maps
from tests.core.golden_moments import finishes, moments
from tests.core.golden_more import more_answers
from tests.core.golden_ovens import laid, oven_moments
from tests.core.golden_reads import reads
from tests.core.golden_rehearse import rehearsed

FOLDER = Path(__file__).parent / "golden"
GRADE = egg_grade("US large")


def mix(lines: list[str]):  # type: ignore[no-untyped-def]
    """A mix of lines."""
    return mix_of(read_lines(list(lines), GRADE, None, "lines"))


def water() -> Iterator[Row]:
    """Water and sugar syrups: where they boil, how they press, what they take in heat."""
    for altitude in (0, 500, 1500, 3000):
        yield {"what": "water boils", "at": altitude, "is": boils_c(altitude)}
    for temp in (5, 20, 40, 60, 80, 95, 99, 100, 105):
        yield {"what": "vapour pressure", "at": temp, "is": saturation_pa(float(temp))}
    for pct in (0, 10, 30, 50, 60, 70, 80, 85, 90, 95, 98):
        yield {"what": "sucrose boils", "at": pct, "is": sucrose_boils_c(pct)}
    for temp in (100.5, 101, 103, 105, 110, 115, 118, 121, 130, 145, 155):
        yield {"what": "sucrose at its boil", "at": temp, "is": sucrose_pct_at(temp)}
    for key, starter in starters().items():
        made = mix(list(starter.lines))
        yield {"what": "heat capacity", "at": key, "is": made.heat_capacity_j_per_gk}
        yield {"what": "boils", "at": key, "is": made.boils_c()}


def setting() -> Iterator[Row]:
    """Where egg sets, before a family's window is laid over it."""
    for yolks, whites, sugar, acid in product((2, 6, 12), (0, 120), (0, 100, 300), (0, 80)):
        lines = ["1 l whole milk", f"{yolks} yolks"]
        lines += [f"{whites} g egg white"] if whites else []
        lines += [f"{sugar} g sugar"] if sugar else []
        lines += [f"{acid} g lemon juice"] if acid else []
        yield {"yolks": yolks, "whites_g": whites, "sugar_g": sugar, "lemon_g": acid,
               "set_c": set_temp_c(mix(lines))}  # fmt: skip


def family() -> Iterator[Row]:
    """Every family at the middle of its windows: S, class, set temperatures, cook."""
    for key, starter in starters().items():
        made, fam = mix(list(starter.lines)), families()[key]
        s, egg = set_strength(made, fam.style), coagulation(made, fam)
        found = compute("formula", {"lines": list(starter.lines), "family": key})
        yield {
            "family": key, "s": s.index, "class": found["set"]["class"],
            "set_c": set_temp_c(made),
            "onset_c": egg.onset_c if egg else None, "ideal_c": egg.ideal_c if egg else None,
            "curdle_c": egg.curdle_c if egg else None,
            "cook": found["cook"]["mode"], "cook_c": found["cook"]["temp_c"],
            "hold_s": found["cook"]["hold_s"],
        }  # fmt: skip


def set_index() -> Iterator[Row]:
    """S over starch, egg, sugar and gelatine, by way of setting."""
    for key, starch, yolks, sugar, gelatine in product(
        ("pastry_cream", "creme_caramel", "anglaise"), (0, 30, 80), (0, 4, 10), (0, 250), (0, 10)
    ):
        lines = ["1 l whole milk"]
        for grams, name in ((starch, "corn starch"), (sugar, "sugar"), (gelatine, "gelatine")):
            lines += [f"{grams} g {name}"] if grams else []
        lines += [f"{yolks} yolks"] if yolks else []
        found = set_strength(mix(lines), families()[key].style)
        yield {"family": key, "starch_g": starch, "yolks": yolks, "sugar_g": sugar,
               "gelatine_g": gelatine, "s": found.index, "low": found.low,
               "high": found.high}  # fmt: skip


def viscosity() -> Iterator[Row]:
    """How thick a pot is on its way up, and how sugar delays the starch."""
    for pct in (0, 10, 20, 30, 44, 60):
        yield {"lines": "sugar's delay", "temp_c": pct, "pa_s": sugar_delay_k(pct)}
    for lines, key in ((PASTRY, "pastry_cream"), (BRULEE, "anglaise")):
        thick = Thickener.of(mix(lines), families()[key])
        for temp in (20, 60, 70, 75, 80, 83, 86, 92, 98):
            yield {"lines": key, "temp_c": temp, "pa_s": thick.pa_s(temp)}
        yield {"lines": f"{key}, held", "temp_c": 98, "pa_s": thick.pa_s(98, 98, 90)}


BAKES = (
    ("hay pots, half bath", HAY, RAMEKIN, 6, 163, {"level": "half", "water_c": 80}, "wobble"),
    ("hay pots, rim bath", HAY, RAMEKIN, 6, 150, {"level": "rim", "water_c": 95}, "wobble"),
    ("hay pots, covered", HAY, RAMEKIN, 6, 163,
     {"level": "half", "water_c": 80, "covered": True}, "wobble"),
    ("hay pots, water beside", HAY, RAMEKIN, 6, 150, {"level": "beside"}, "wobble"),
    ("hay pots, dry", HAY, RAMEKIN, 6, 150, None, "wobble"),
    ("hay pots, just set", HAY, RAMEKIN, 6, 163, {"level": "half", "water_c": 80}, "just_set"),
    ("hay pots, clean knife", HAY, RAMEKIN, 6, 163, {"level": "half", "water_c": 80},
     "clean_knife"),
    ("hay pots, twelve", HAY, RAMEKIN, 12, 163, {"level": "half", "water_c": 80}, "wobble"),
    ("brulee", BRULEE, {**RAMEKIN, "fill_mm": 25}, 8, 130, {"level": "half", "water_c": 80},
     "wobble"),
    ("custard tart", HAY, TIN, 1, 150, None, "domed"),
    ("custard tart, hot", HAY, TIN, 1, 180, None, "domed"),
    ("cheesecake", CHEESE, SPRING, 1, 150, None, "wobble"),
    ("cheesecake, bath", CHEESE, SPRING, 1, 160, {"level": "half", "water_c": 90}, "wobble"),
    ("cheesecake, fan", CHEESE, SPRING, 1, 140, None, "just_set"),
)  # fmt: skip


def bakes() -> Iterator[Row]:
    """Windows, temperatures and signs of fourteen bakes."""
    for name, lines, vessel, count, dial, bath, doneness in BAKES:
        kind = "fan" if "fan" in name else "static"
        found = compute("bake", {
            "mix": {"lines": lines, "temp_c": 20}, "vessel": vessel, "count": count,
            "oven": {"kind": kind, "set_c": dial}, "bath": bath, "doneness": doneness,
        })  # fmt: skip
        yield {"bake": name, **{k: found[k] for k in (
            "pull_from_min", "pull_to_min", "centre_c_at_pull", "peak_centre_c", "carry_over_k",
            "bath_c_at_pull")}}  # fmt: skip


def baths() -> Iterator[Row]:
    """How many fit a pan and what water their bath takes."""
    for vessel, count, level in product(
        ("ramekin_150", "ramekin_180"), (4, 8), ("half", "rim", 20)
    ):
        found = compute("formula", {
            "lines": HAY, "vessel": vessel, "count": count, "tray": "gn_1_1_65",
            "bath_level": level,
        })  # fmt: skip
        tray = found["fit"]["tray"] or {}
        yield {"vessel": vessel, "count": count, "level": level,
               **{k: tray.get(k) for k in ("per_pan", "pans", "water_ml", "level_mm")}}  # fmt: skip


def cooling() -> Iterator[Row]:
    """A tray and a deep pan through the warm zone, by every method."""
    for method, depth in product(("fridge", "ice_bath", "stirred_ice_bath", "blast"), (25, 60)):
        pan = {"shape": "rect", "length_mm": 300, "width_mm": 200, "depth_mm": 80, "fill_mm": depth}
        found = compute("cool", {"mix": {"lines": PASTRY}, "vessel": pan, "method": method})
        yield {"method": method, "depth_mm": depth, **{
            k: found[k] for k in ("to_21_min", "to_5_min", "complies",
                                  "max_depth_mm")}}  # fmt: skip


def pots() -> Iterator[Row]:
    """Pots on a ring: when they thicken, when they are there, how they run on."""
    for lines, ring, target in (
        (["1 l whole milk"], "medium", "boil"), (["1 l whole milk"], "high", "boil"),
        (["1 l whole milk"], 3000, 85), (PASTRY, "medium", "boil"), (PASTRY, "high", "boil"),
        (["750 g whole milk", "250 g cream 35%", "200 g yolk", "180 g sugar"], "medium", "nappe"),
    ):  # fmt: skip
        asked = {"lines": lines, "ring": ring, "target": target, "hold_s": 60, "temp_c": 20}
        found = compute("pot", asked)
        yield {"lines": lines[0], "n": len(lines), "ring": ring, "target": target, **{
            k: found[k] for k in ("thickens_s", "reaches_s", "overshoot_k", "evaporated_g",
                                  "scorch")}}  # fmt: skip


def syrups() -> Iterator[Row]:
    """Syrups to their temperatures: water left, stage, time."""
    for target in (102, 105, 110, 115, 118, 121, 130, 145, 160, 170, 178):
        found = compute("syrup", {
            "sugar_g": 300, "water_g": 100, "target_c": target, "ring": "medium"})  # fmt: skip
        yield {"target_c": target, **{
            k: found[k] for k in ("water_left_g", "solids_pct", "time_s", "stage")}}  # fmt: skip


def caramel() -> Iterator[Row]:
    """Off the heat: how long it pours, stands in cold water, runs on; what a lining takes."""
    for sugar, temp in product((150, 400), (138, 150, 165, 178)):
        pot = pot_for(sugar / 1.59)
        pan = Pan(float(sugar), 2.0, float(temp), diameter_mm=pot.diameter_mm, pan_g=pot.mass_g)
        yield {"sugar_g": sugar, "temp_c": temp, "pours_s": pour_window_s(pan),
               "cold_water_s": seconds_in_cold_water(pan), "runs_on_k": pan.run_on_k(400.0),
               "lining_g": lining_g(50.0 * sugar, 1.5)}  # fmt: skip


def pans() -> Iterator[Row]:
    """The pot a cook takes for so much."""
    for ml in (300, 700, 701, 1800, 1900, 3500, 3600, 6000, 6100, 12000, 13000, 40000):
        pot = pot_for(ml)
        yield {"ml": ml, "diameter_mm": pot.diameter_mm, "mass_g": pot.mass_g}


def starches() -> Iterator[Row]:
    """Every starch on its way up, alone and sweet, and eggs without any."""
    for key in PASTING:
        name = shipped().key(key)
        made = Mix.of([(shipped().key("milk_whole"), 1000.0), (name, 60.0),
                       (shipped().key("sugar"), 150.0)])  # fmt: skip
        thick = Thickener.of(made, families()["starch_pudding"])
        for temp in (60, 68, 74, 80, 88, 96):
            yield {"starch": key, "temp_c": temp, "pa_s": thick.pa_s(temp)}
        yield {"starch": f"{key}, held", "temp_c": 96, "pa_s": thick.pa_s(96, 97, 150)}
    for family in ("anglaise", "starch_pudding"):
        for lines in (["1 l whole milk"], ["1 l whole milk", "300 g yolk"]):
            thick = Thickener.of(mix(lines), families()[family])
            yield {"starch": f"none, {family}, {len(lines)}", "temp_c": 84, "pa_s": thick.pa_s(84)}


def words() -> Iterator[Row]:
    """Every unit in three countries and every number written as a word."""
    for spelling, country in product(sorted(SPELLINGS), ("us", "uk", "au")):
        found = unit(spelling, country)  # type: ignore[arg-type]
        yield {"word": spelling, "of": country, "is": found.size, "spread": found.spread}
    for word, value in sorted(NUMBER_WORDS.items()):
        amount, _ = read_amount(f"{word} eggs")
        yield {
            "word": word,
            "of": "number",
            "is": amount.value if amount else None,
            "spread": value,
        }
    for text in (
        "1 sachet of gelatine",
        "2 bay leaves",
        "about 3 eggs",
        "1-2 tbsp rum",
        "0.01 g salt",
        "3 lemons",
        "juice of 2 lemons",
        "1 cup flour",
        "1 cup packed brown sugar",
        "5 tbsp cocoa powder",
        "1 dash rum",
        "2 cans coconut milk",
        "40 eggs",
    ):
        line = understand_all([text], None, GRADE)[0]
        yield {"word": text, "of": line.confidence if line else None,
               "is": line.grams if line else None,
               "spread": line.spread_g if line else None}  # fmt: skip


_LOGS = {
    "seconds, C": "t,temp\n" + "\n".join(f"{n},{20 + n}" for n in range(6)),
    "clock, F": "Elapsed;Core °F\n" + "\n".join(f"0:{n:02d};{150 + n}" for n in range(6)),
    "hours": "Time;Probe °C\n" + "\n".join(f"1:0{n}:30;{60 + n},5" for n in range(6)),
    "minutes": "min\tC\n" + "\n".join(f"{n / 2}\t{40 + n}" for n in range(6)),
    "hours as numbers": "hours,°C\n" + "\n".join(f"{n / 10},{40 + n}" for n in range(6)),
    "millis": "ms,deg C\n" + "\n".join(f"{1000 * n},{40 + n}" for n in range(6)),
    "dates": "date,ch1\n" + "\n".join(f"25/11/2026 10:00:{n:02d},{200 + n}" for n in range(6)),
    "iso": "time,core,air\n"
    + "\n".join(f"2026-11-25T10:0{n}:00+01:00,{n},{90 + n}" for n in range(6)),
    "no heading": "\n".join(f"{n},{70 + n}" for n in range(6)),
    "no time": "temp\n" + "\n".join(f"{70 + n}" for n in range(6)),
    "backwards": "t,temp\n" + "\n".join(f"{9 - n},{20 + n}" for n in range(6)),
    "odd rows": "t,temp\n0,20\nx,21\n2,900\n3,23\n4,-41\n5,301\n6,26",
    "letters": "t,value\n" + "\n".join(f"{n},{150 + n}F" for n in range(6)),
    "one row": "t,temp\n0,20", "no numbers": "a,b\nc,d\ne,f", "nothing": "",
}  # fmt: skip


def loggers() -> Iterator[Row]:
    """Files of loggers of many makes: what was taken for what, and the curve's ends."""
    for name, text in _LOGS.items():
        try:
            found = read_curve(text)
        except CraftError as error:
            yield {"file": name, "said": f"{error.field}: {error.message}"}
            continue
        yield {"file": name, "said": " ".join(found.said), "time": found.time_column,
               "temp": found.temp_column, "unit": found.unit, "n": len(found.points),
               "last_s": found.points[-1][0], "last_c": found.points[-1][1],
               "began": found.began.isoformat() if found.began else ""}  # fmt: skip


def meringues() -> Iterator[Row]:
    """Meringues by method and sugar, and cream whipped."""
    for method, sugar, temp in (
        ("italian", 200, 105), ("italian", 200, 118), ("italian", 120, 118), ("italian", 250, 121),
        ("swiss", 200, 60), ("swiss", 200, 72), ("french", 150, None), ("french", 220, None),
    ):  # fmt: skip
        asked: dict[str, object] = {"whites_g": 100, "sugar_g": sugar, "kind": method}
        if temp is not None:
            asked["syrup_c" if method == "italian" else "swiss_c"] = temp
        found = compute("meringue", asked)
        yield {"method": method, "sugar_g": sugar, "temp_c": temp, **{
            k: v for k, v in found.items() if isinstance(v, int | float)}}  # fmt: skip


def tempers() -> Iterator[Row]:
    """Ladders of three schools, from warm and from cold eggs."""
    for school, eggs_c, starch in product(
        ("hot_into_eggs", "eggs_after_boil", "held_back_liquid"), (5, 20), (0, 80)
    ):
        eggs = ["9 yolks", "150 g sugar"] + ([f"{starch} g corn starch"] if starch else [])
        found = compute("temper", {
            "hot": {"lines": ["1 l whole milk"], "temp_c": 90},
            "eggs": {"lines": eggs, "temp_c": eggs_c}, "ladle_ml": 100, "school": school,
            "held_back_ml": 250,
        })  # fmt: skip
        yield {"school": school, "eggs_c": eggs_c, "starch_g": starch, "rungs": len(found["rungs"]),
               "rung_1_c": found["rungs"][0]["mix_temp_c"],
               "margin_1_k": found["rungs"][0]["margin_k"],
               **{k: found[k] for k in ("first_safe_g", "end_temp_c", "scramble_c")}}  # fmt: skip


def kills() -> Iterator[Row]:
    """What a hold does to egg: by product, temperature and time, and with gaps in the curve."""
    for what, temp, seconds in product(
        ("whole_egg", "yolk", "sugared_yolk", "white", "mix"),
        (52, 55.5, 57, 60, 61.1, 63, 66, 70, 74, 80), (15, 60, 210, 600),
    ):  # fmt: skip
        held = [(t, float(temp)) for t in range(0, seconds + 1, 5)]
        found = lethality(what, held)  # type: ignore[arg-type]
        yield {"product": what, "temp_c": temp, "hold_s": seconds, "gap": "",
               "logs": found.log_reduction, "meets": found.meets}  # fmt: skip
    rise = [(t, 40 + 0.1 * t) for t in range(0, 401, 5)]
    for gap, points in (
        ("none", rise), ("a minute", [p for p in rise if not 200 < p[0] < 260]),
        ("ten minutes", [(t + (600 if t > 300 else 0), c) for t, c in rise]), ("one", rise[:1]),
    ):  # fmt: skip
        found = lethality("mix", points)
        yield {"product": "mix", "temp_c": "rising", "hold_s": 400, "gap": gap,
               "logs": found.log_reduction, "meets": found.meets}  # fmt: skip


def keeping() -> Iterator[Row]:
    """How long each family chills and keeps, and the sign a cook sees when it is done."""
    for key, fam in families().items():
        yield {"family": key, "chill_low_h": fam.chill_h[0], "chill_high_h": fam.chill_h[1],
               "keep_low_d": fam.keep_days[0], "keep_high_d": fam.keep_days[1],
               "doneness": fam.doneness}  # fmt: skip


TABLES = {
    law.__name__: law
    for law in (water, setting, family, set_index, viscosity, bakes, baths, cooling, pots, syrups,
                meringues, tempers, kills, keeping, answers, caramel, pans, starches, words,
                loggers, reads, guides, threads, formulas, moments,
                finishes, stacks, buildings, more_answers, oven_moments, laid,
                maps, rehearsed, tasks, lists, ranked)
}  # fmt: skip


def text_of(value: object) -> str:
    """A value as a table writes it: six figures are more than any law means."""
    if value is None:
        return ""
    if isinstance(value, float):
        return "inf" if math.isinf(value) else f"{value:.6g}"
    return closed(str(value))


def made(name: str) -> list[dict[str, str]]:
    """A table's rows as they come out today."""
    return [{k: text_of(v) for k, v in row.items()} for row in TABLES[name]()]


def kept(name: str) -> list[dict[str, str]]:
    """A table's rows as they are kept."""
    with (FOLDER / f"{name}.csv").open(newline="") as file:
        return list(csv.DictReader(file))


def main() -> None:
    """Write every table again."""
    FOLDER.mkdir(exist_ok=True)
    for name in TABLES:
        rows = made(name)
        columns = list(dict.fromkeys(key for row in rows for key in row))
        with (FOLDER / f"{name}.csv").open("w", newline="") as file:
            out = csv.DictWriter(file, columns, restval="", lineterminator="\n")
            out.writeheader()
            out.writerows(rows)
        print(f"{name}: {len(rows)} rows")


if __name__ == "__main__":
    main()

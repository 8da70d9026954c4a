"""Why a batch came out as it did: causes of a fault ranked by what is known of the batch.

Bayes' rule over a readable table: each cause has a prior among the causes of its fault, and each
piece of evidence a likelihood ratio for holding and for not holding, against the other causes. They
overlap, so the strongest counts in full, the others at the root, and none beyond thirty to one.
Priors and ratios are our estimates, good to a factor of two; the order is what they are for.
"""

import csv
import math
from dataclasses import KW_ONLY, dataclass
from functools import cache
from importlib.resources import files

from bellcrumb.book.signals import Signals, holds
from bellcrumb.texture.families import families
from bellcrumb.words import say

KINDS = ("curve", "formula", "setting", "event", "look")
MOST_RATIO = 30.0


@dataclass(frozen=True)
class Evidence:
    """What may hold of a batch, in words, and the ratios for holding and not."""

    kind: str
    holds: str
    says: str
    _: KW_ONLY
    yes: float
    no: float


@dataclass(frozen=True)
class CauseRow:
    """A cause of a fault: where it applies, its prior and evidence, what to ask and to mend."""

    fault: str
    app_key: str
    scope: frozenset[str]
    _: KW_ONLY
    key: str
    cause: str
    prior: float
    evidence: tuple[Evidence, ...]
    ask: str
    mend: str
    source: str


@dataclass(frozen=True)
class Cause:
    """A cause with its probability, and the evidence for and against it that is known."""

    fault: str
    of: str
    key: str
    _: KW_ONLY
    cause: str
    probability: float
    speaks_for: list[str]
    speaks_against: list[str]
    ask: str
    mend: str
    source: str


@cache
def _words(table: str, key: str) -> dict[str, str]:
    """What a table says of its keys."""
    text = files("bellcrumb.book").joinpath(f"data/{table}.csv").read_text("utf8")
    return {row[key]: say(row["says"]) for row in csv.DictReader(text.splitlines())}


@cache
def rows() -> tuple[CauseRow, ...]:
    """The causal table."""
    text = files("bellcrumb.book").joinpath("data/causes.csv").read_text("utf8")
    words = _words("evidence", "holds")
    return tuple(
        CauseRow(
            r["fault"], r["app_key"], frozenset(r["scope"].split(";")), key=r["cause_key"],
            cause=say(r["cause"]), prior=float(r["prior"]),
            evidence=tuple(
                Evidence(
                    k, r[k], words[r[k]], yes=float(r[f"{k}_lr_yes"] or 1),
                    no=float(r[f"{k}_lr_no"] or 1)
                )
                for k in KINDS if r[k]
            ),
            ask=say(r["ask"]), mend=say(r["mend"]), source=say(r["source"]),
        )
        for r in csv.DictReader(text.splitlines())
    )  # fmt: skip


@cache
def _meant() -> dict[tuple[str, str], str]:
    """The fault that a cook's word means, by the group of a family: what is baked and what is
    stirred go wrong each in its own way. What is in no row has no causes that we know."""
    text = files("bellcrumb.book").joinpath("data/meant.csv").read_text("utf8")
    return {(r["word"], r["group"]): r["fault"] for r in csv.DictReader(text.splitlines())}


def fault_of(app_key: str, family: str) -> str | None:
    """The fault of the table that a cook means, for a family; None where the table has none."""
    named = {row.fault: row.scope for row in rows() if row.app_key == app_key}
    for fault, scope in named.items():
        if family in scope:
            return fault
    if any(word == app_key for word, _ in _meant()):
        known = families().get(family)
        return _meant().get((app_key, known.group)) if known else None
    return next(iter(named), None)


def causes(fault: str, signals: Signals) -> list[Cause]:
    """The causes of a fault, the likeliest first; probabilities add up to one."""
    found, named = [], _words("faults", "fault")
    for row in rows():
        if row.fault != fault:
            continue
        told: list[float] = []
        speaks_for: list[str] = []
        against: list[str] = []
        for evidence in row.evidence:
            known = _known(evidence, signals)
            if known is None:
                continue
            says = evidence.says if known else say("book.not", says=evidence.says)
            ratio = evidence.yes if known else evidence.no
            told.append(math.log(ratio))
            if ratio > 1:
                speaks_for.append(says)
            elif ratio < 1:
                against.append(says)
        found.append((row, row.prior * _together(told), speaks_for, against))
    whole = sum(weight for _, weight, _, _ in found) or 1.0
    ranked = [
        Cause(row.fault, named[row.fault], row.key, cause=row.cause, probability=weight / whole,
        speaks_for=pro, speaks_against=con, ask=row.ask,
              mend=row.mend, source=row.source)
        for row, weight, pro, con in found
    ]  # fmt: skip
    return sorted(ranked, key=lambda c: -c.probability)


def _known(evidence: Evidence, signals: Signals) -> bool | None:
    """Looks are sentences a cook agrees to or not, by their words; the rest are signals."""
    if evidence.kind == "look":
        seen = signals.get(evidence.holds)
        return None if seen is None else bool(seen)
    return holds(evidence.holds, signals)


def _together(logs: list[float]) -> float:
    """Ratios that overlap: the strongest in full, the others at the root, capped."""
    if not logs:
        return 1.0
    strongest = max(logs, key=abs)
    total = strongest + 0.5 * (sum(logs) - strongest)
    cap = math.log(MOST_RATIO)
    return math.exp(max(-cap, min(cap, total)))

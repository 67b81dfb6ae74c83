"""From what is seen, measured and known to causes ranked, with the evidence for and against each, and the next check."""

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from tuyere.core.stations.inspect.diagnosis.knowledge import NOTHING, Cause, Knowledge, knowledge
from tuyere.core.stations.inspect.diagnosis.model import Net, Vector, net

Answer = bool | float | Literal["cannot"]
_SHOWN = 0.2  # a sign that a cause shows so often speaks for it
_EXPECTED = 0.45  # and one that it shows so often speaks against it where it is not there
_WALK_MIN = 5.0  # to any check: a judgement
_WORTH_BITS = 0.015  # of a check, less is not worth the walk: a judgement
_NEARLY_SURE = 0.9  # of a cause, and a check must say more to be worth it
_THEN_BITS = 0.06
_TOLD = 0.6  # a cause as likely as that, and twice the next, is enough to act on
_NEARLY = 0.7  # of the likeliest: as likely as makes no difference to what is looked at next
_LEAST = 0.005  # less likely causes are not listed


@dataclass(frozen=True)
class Ranked:
    """A cause, how likely, what speaks for it and against it, and what to do."""

    cause: Cause
    probability: float
    speaks_for: tuple[str, ...]
    against: tuple[str, ...]


@dataclass(frozen=True)
class Next:
    """The check that says most for its minutes, and why."""

    check: str
    minutes: float
    why: str


@dataclass(frozen=True)
class Diagnosis:
    """Causes, likeliest first; the next check, None where none is worth it; whether it is enough to act on."""

    causes: tuple[Ranked, ...]
    next_check: Next | None
    enough: bool

    @property
    def nearly(self) -> tuple[Ranked, ...]:
        """The causes about as likely as the first, that one too; empty where it stands out."""
        near = tuple(r for r in self.causes if r.probability >= _NEARLY * self.causes[0].probability)
        return near if len(near) > 1 else ()


def diagnose(
    family: str,
    seen: Sequence[str],
    not_seen: Sequence[str] = (),
    checks: Mapping[str, Answer] | None = None,
    facts: Mapping[str, bool | float] | None = None,
    known: Knowledge | None = None,
    there: Collection[str] | None = None,
) -> Diagnosis:
    """Keys as in the knowledge. A sign that is said to be there and not there is there. Raises KeyError for a key that is not known.

    `known`: with the limits of this drive (knowledge). `there`: what is known to be on drive and machine, None where nothing is: what
    cannot be there is neither asked nor named, unless a person saw it.
    """
    known = known or knowledge()
    signs = {known.signs[k].key: False for k in not_seen} | {known.signs[k].key: True for k in seen}
    there = None if there is None else frozenset(there).union(*(known.signs[k].needs for k in seen))
    on = net(family, frozenset(c.key for c in known.causes.values() if not known.there(c.needs, there)))
    answered = _answered(known, checks or {})
    found = {k: known.checks[k].yes(a) for k, a in answered.items() if not isinstance(a, str)}
    for key, told in (facts or {}).items():
        for then in known.facts[key].then:
            if then.kind == "sign":
                # A record that lacks a sign is weaker than eyes: only what it has counts.
                if then.holds(told):
                    signs.setdefault(then.key, True)
            elif then.key not in answered:
                found[then.key] = then.holds(told)
    states = on.states(signs, found)
    likely = on.causes_of(states)
    order = np.argsort(-likely, kind="stable")
    ranked = tuple(
        _ranked(known, on.causes[i], float(likely[i]), signs, found, family) for i in order if likely[i] >= _LEAST or i == order[0]
    )
    enough = _enough([r.probability for r in ranked], signs, found)
    asked = {*answered, *found} | {
        c.key for c in known.checks.values() if not known.there(c.needs, there) or not signs.keys().isdisjoint(c.told_by)
    }
    return Diagnosis(ranked, _next(known, on, states, likely, asked), enough)


def _answered(known: Knowledge, checks: Mapping[str, Answer]) -> dict[str, Answer]:
    """Answers by check; one number, or that it cannot be measured, answers every check of what it measures."""
    found: dict[str, Answer] = {}
    for key, a in checks.items():
        one = known.checks[key]
        if one.measures and not isinstance(a, bool):
            found |= {c.key: a for c in known.checks.values() if c.measures == one.measures and c.key not in checks}
        found[key] = a
    return found


def _enough(probabilities: Sequence[float], signs: Mapping[str, bool], found: Mapping[str, bool]) -> bool:
    second = probabilities[1] if len(probabilities) > 1 else 0.0
    looked = any(signs.values()) or bool(found)
    return looked and probabilities[0] >= _TOLD and probabilities[0] >= 2 * second


def _ranked(
    known: Knowledge, cause: Cause, probability: float, signs: Mapping[str, bool], found: Mapping[str, bool], family: str
) -> Ranked:
    """What speaks for and against a cause, in the words of the questions."""
    speaks_for, against = [], []
    for key, there in signs.items():
        sign, strength = known.signs[key], cause.shows.get(key, 0.0)
        if family not in sign.families:
            continue
        if there and strength >= _SHOWN:
            speaks_for.append(sign.question)
        elif there and (strength < 0.05 or cause.key == NOTHING) and strength < _SHOWN:
            against.append(f"Does not explain: {_small(sign.question)}")
        elif not there and strength >= _EXPECTED:
            against.append(f"Would mostly show: {_small(sign.question)}")
    for key, yes in found.items():
        check, strength = known.checks[key], cause.checks.get(key, 0.0)
        if family not in check.families:
            continue
        if yes and strength >= _SHOWN:
            speaks_for.append(f"Found: {_small(check.question)} Yes")
        elif not yes and strength >= _EXPECTED:
            against.append(f"Looked for, not found: {_small(check.question)}")
        elif yes and cause.key == NOTHING and strength < _SHOWN:
            against.append(f"Found: {_small(check.question)} Yes")
    return Ranked(cause, probability, tuple(speaks_for), tuple(against))


def _small(text: str) -> str:
    return text[:1].lower() + text[1:]


def _next(known: Knowledge, on: Net, states: Vector, likely: Vector, asked: set[str]) -> Next | None:
    """The check that says most a minute, the walk to it counted."""
    worth = [(on.tells(states, k), k) for k in on.checks if k not in asked]
    least = _THEN_BITS if float(likely.max()) >= _NEARLY_SURE else _WORTH_BITS
    worth = [(bits / (known.checks[k].minutes + _WALK_MIN), k) for bits, k in worth if bits >= least]
    if not worth:
        return None
    _, best = max(worth, key=lambda w: (round(w[0], 12), w[1]))
    return Next(best, known.checks[best].minutes, _why(known, on, likely, best))


def _why(known: Knowledge, on: Net, likely: Vector, check: str) -> str:
    """Between which of the likely causes it tells."""
    top = [on.causes[i] for i in np.argsort(-likely, kind="stable")[:8] if likely[i] > 0.02]
    strength = {c.key: c.checks.get(check, known.checks[check].leak) for c in top}
    yes, no = max(top, key=lambda c: strength[c.key]), min(top, key=lambda c: strength[c.key])
    if strength[yes.key] - strength[no.key] < 0.1:
        return "It rules out what none of the likely ones would show."
    return f"Yes speaks for {_small(yes.name)}, no for {_small(no.name)}."

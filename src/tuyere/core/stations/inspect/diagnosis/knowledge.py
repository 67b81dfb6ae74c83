"""Signs, causes, checks and facts as knowledge.toml has them."""

import tomllib
from collections.abc import Callable, Collection
from dataclasses import dataclass
from functools import cache
from importlib import resources
from typing import Any, Literal

from tuyere.core.basis import keeper
from tuyere.core.basis.figure import both
from tuyere.core.kinds.wear_limits import WearLimit, limit_of
from tuyere.core.stations.inspect.diagnosis.check import FAMILIES as FAMILIES
from tuyere.core.stations.inspect.diagnosis.check import Family as Family
from tuyere.core.stations.inspect.diagnosis.check import check

RUNS = {"": "belt or chain", "chain": "chain", "conveyor": "chain"}
NOTHING = "nothing_wrong"  # the cause that says so; it is never one of two


@dataclass(frozen=True)
class Sign:
    """Something to see, hear, smell or feel, and where it is tapped.

    `leak`: how often it is there with none of the causes; `said`: how people put it.

    `needs`, here and below: what must be there for it, one of these (Knowledge.there).
    """

    key: str
    question: str
    families: tuple[str, ...]
    leak: float
    said: tuple[str, ...]
    place: str
    look: str = ""
    needs: tuple[str, ...] = ()


@dataclass(frozen=True)
class Check:
    """Something to do and look at.

    `leak`: how often it comes out yes with none of its causes; a number counts as yes `over` or `under` a value.

    `measures`: what is measured, where one number answers several checks. `told_by`: signs that say the same: whoever told one is not
    asked.
    """

    key: str
    question: str
    families: tuple[str, ...]
    minutes: float
    state: str
    leak: float
    over: float | None = None
    under: float | None = None
    unit: str = ""
    measures: str = ""
    look: str = ""
    needs: tuple[str, ...] = ()
    told_by: tuple[str, ...] = ()

    def yes(self, answer: bool | float) -> bool:
        """Whether an answer says that what it asks for was found."""
        if isinstance(answer, bool) or (self.over is None and self.under is None):
            return bool(answer)
        return answer > self.over if self.over is not None else answer < (self.under or 0.0)


@dataclass(frozen=True)
class Cause:
    """What may be wrong, what to do, how likely it is in a drive somebody complains of, by family, and how likely it shows each sign and
    check.

    `page`: the station that shows it; `jobs`: kinds of job that mend it, whichever this drive takes.
    """

    key: str
    name: str
    do: str
    prior: dict[str, float]
    shows: dict[str, float]
    checks: dict[str, float]
    needs: tuple[str, ...] = ()
    page: str = ""
    jobs: tuple[str, ...] = ()


@dataclass(frozen=True)
class Then:
    """What a fact answers: a check or a sign, from which value on, or by yes or no."""

    kind: Literal["check", "sign"]
    key: str
    when: Literal["over", "under", "yes", "no"]
    value: float

    def holds(self, told: bool | float) -> bool:
        """Whether what the record tells, told in the unit of the fact, answers so."""
        if self.when in ("yes", "no"):
            return bool(told) == (self.when == "yes")
        return told > self.value if self.when == "over" else told < self.value


@dataclass(frozen=True)
class Fact:
    """Something that a drive's record knows."""

    key: str
    question: str
    families: tuple[str, ...]
    unit: str
    then: tuple[Then, ...]


@dataclass(frozen=True)
class TriageStep:
    """One step of a triage: done and ticked, or a check; what it means where it comes out `yes` or `no`, empty where one goes on."""

    family: str
    sign: str
    key: str
    ask: str
    how: str
    state: str
    look: str
    check: str = ""
    yes: str = ""
    no: str = ""


@dataclass(frozen=True)
class Knowledge:
    """All of it, by key. `sure`: what a survey says for certain; `kinds`: what says which kind of machine it is."""

    signs: dict[str, Sign]
    causes: dict[str, Cause]
    checks: dict[str, Check]
    facts: dict[str, Fact]
    triage: tuple[TriageStep, ...]
    sure: frozenset[str]
    kinds: frozenset[str]

    def there(self, needs: Collection[str], on: Collection[str] | None) -> bool:
        """Whether one of `needs` is there: `on` is what is known of drive and machine, None where nobody knows.

        Of a machine whose kind nobody knows, everything may be there.
        """
        if not needs or on is None or not set(needs).isdisjoint(on):
            return True
        return not self.sure.issuperset(needs) and self.kinds.isdisjoint(on)


@cache
def knowledge(narrow: bool = False, fixed: bool = False, large_teeth: int | None = None, family: str = "") -> Knowledge:
    """As the file has it, with wear's own limits for this drive: narrow, joined or ribbed belts, fixed centres, a chain's large sprocket.

    `family`: in the words of its kind; without one, of all kinds.
    """
    text = _text()

    def limit(what: str) -> WearLimit:
        return limit_of(what, narrow, fixed, large_teeth)

    text = keeper.filled(text).replace("{groove}", _words(limit("groove")))
    runs = RUNS.get(family, "belt")
    text = text.replace("{belt}", runs).replace("{Belt}", runs.capitalize())
    told = tomllib.loads(text)
    facts = {
        k: Fact(k, f["question"], tuple(f["families"]), f["unit"], tuple(_then(t, limit) for t in f["then"]))
        for k, f in told["facts"].items()
    }
    found = {k: Sign(key=k, **_row(s)) for k, s in told["signs"].items()}
    return Knowledge(
        found,
        {k: Cause(key=k, **_row(c)) for k, c in told["causes"].items()},
        {k: _check(k, c, limit(c["limit"]) if "limit" in c else None) for k, c in told["checks"].items()},
        facts | _on_record(found),
        tuple(TriageStep(**s) for s in told["triage"]),
        frozenset(told["there"]["sure"]),
        frozenset(told["there"]["kinds"]),
    )


@cache
def _text() -> str:
    """The file, once it has been checked whole. Raises KnowledgeError."""
    text = (resources.files("tuyere.core.stations.inspect.diagnosis") / "knowledge.toml").read_text(encoding="utf-8")
    check(text, tomllib.loads(text))
    return text


def _on_record(found: dict[str, Sign]) -> dict[str, Fact]:
    """Every sign as a fact: somebody told it of the drive, at whichever station, and nobody closed it."""
    return {
        f"seen {s.key}": Fact(
            f"seen {s.key}",
            f"On the record: {s.question[:1].lower()}{s.question[1:]}",
            s.families,
            "yes or no",
            (Then("sign", s.key, "yes", 0),),
        )
        for s in found.values()
    }


def _row(told: dict[str, Any]) -> dict[str, Any]:
    return {k: tuple(v) if isinstance(v, list) else v for k, v in told.items()}


def _check(key: str, told: dict[str, Any], limit: WearLimit | None) -> Check:
    over = _shown_unit(limit) if limit and told.get("unit") else told.get("over")
    question = told["question"].replace("{limit}", _words(limit)) if limit else told["question"]
    return Check(
        key,
        question,
        tuple(told["families"]),
        told["minutes"],
        told["state"],
        told["default"],
        over,
        told.get("under"),
        told.get("unit", ""),
        told.get("measures", ""),
        told.get("look", ""),
        tuple(told.get("needs", ())),
        tuple(told.get("told_by", ())),
    )


def _then(told: dict[str, Any], limit: Callable[[str], WearLimit]) -> Then:
    value = _shown_unit(limit(told["value"])) if isinstance(told["value"], str) else told["value"]
    return Then(**{**told, "value": value})


def _shown_unit(limit: WearLimit) -> float:
    """A limit in the unit that a check asks for: per cent of a share, millimetres of a length."""
    return limit.limit * (100 if limit.unit == "share" else 1000)


def _words(limit: WearLimit) -> str:
    return f"{limit.limit * 100:.3g} %" if limit.unit == "share" else both(limit.limit, decimals=None)

"""The library of jobs: steps.toml (steps and groups that kinds share), kinds/*.toml (one kind of job each), machines.toml (words for machines)."""

import re
import tomllib
from collections.abc import Collection, Iterable, Mapping
from dataclasses import asdict, dataclass
from functools import cache
from importlib import resources
from importlib.resources.abc import Traversable
from typing import Any, Literal

from tuyere.core.table import rows

State = Literal["isolated", "running", "any"]
Safety = Literal["", "lock", "guard"]
EVENTS = ("", "new set", "new wheel", "re-tension", "first start", "oil change")


class LibraryError(ValueError):
    """A data file of the library that does not hang together: which, and why."""


@dataclass(frozen=True)
class Step:
    """One thing to do. `when`: terms that must all hold; `after`: steps that must be done before it, where they are part of the job.

    `state`: of the machine; "any" before the lock and after the start. `number`: the figure of the drive that stands with it; `read`: the page that takes its reading; `safety`: no sign-off with it open
    unless a written reason is given.
    """

    key: str
    do: str
    why: str
    source: str
    when: tuple[str, ...] = ()
    after: tuple[str, ...] = ()
    number: str = ""
    read: str = ""
    look: str = ""
    cautions: tuple[str, ...] = ()
    state: State = "isolated"
    safety: Safety = ""
    photo: bool = False


@dataclass(frozen=True)
class Ask:
    """What is asked before a job begins: one of `options` (or of a table's names), or a quantity of a `field`."""

    key: str
    question: str
    options: tuple[str, ...] = ()
    field: str = ""
    when: tuple[str, ...] = ()
    optional: bool = False


@dataclass(frozen=True)
class Kind:
    """A kind of job. `fits`: what the drive must have; `event`: what it is on the record when signed off; `closes`: findings that it may answer;
    `again_days`: when it is to be done again, where it is by the calendar.
    """

    key: str
    title: str
    about: str
    fits: tuple[str, ...]
    minutes: int
    event: str
    closes: tuple[str, ...]
    steps: tuple[str, ...]
    asks: tuple[Ask, ...]
    again_days: int = 0


@dataclass(frozen=True)
class Machine:
    """What a machine is called, and what that says of it."""

    words: tuple[str, ...]
    facts: tuple[str, ...]


@dataclass(frozen=True)
class Library:
    """Every step and kind. A kind's own steps stand under `kind.step` where two kinds name different ones alike."""

    kinds: Mapping[str, Kind]
    machines: tuple[Machine, ...]
    shared: Mapping[str, Step]
    own: Mapping[str, Mapping[str, Step]]
    groups: Mapping[str, tuple[str, ...]]

    def step(self, kind: str, key: str) -> Step | None:
        """A step as a kind means it: its own, or the shared one."""
        return self.own.get(kind, {}).get(key) or self.shared.get(key)

    def steps_of(self, kind: Kind) -> tuple[Step, ...]:
        """The steps of a kind in order, its groups opened."""
        keys = [k for key in kind.steps for k in (self.groups[key[1:]] if key.startswith("@") else (key,))]
        found = (self.step(kind.key, k) for k in keys)
        return tuple(s for s in found if s)


def holds(terms: Iterable[str], facts: Collection[str]) -> bool:
    """Whether every term holds: a fact, `!` before it where it must not, `|` between those of which one is enough.

    >>> holds(["v|flat", "!set"], {"flat"}), holds(["v|flat", "!set"], {"flat", "set"}), holds([], ())
    (True, False, True)
    """
    return all(any((a[1:] not in facts) if a.startswith("!") else a in facts for a in term.split("|")) for term in terms)


def called(library: Library, *names: str) -> frozenset[str]:
    """What the words for a machine say of it.

    >>> sorted(called(library(), "centrifugal fan")), sorted(called(library(), "two-pair roller mill"))
    (['fan'], ['dust'])
    """
    said = " ".join(names).lower()
    return frozenset(f for m in library.machines if any(re.search(rf"\b{re.escape(w)}(s|es)?\b", said) for w in m.words) for f in m.facts)


@cache
def library() -> Library:
    """The library as it ships."""
    return read_library(resources.files("tuyere.core.jobs"))


def read_library(*folders: Traversable) -> Library:
    """A library from folders laid out alike, the later adding to the earlier. Raises LibraryError."""
    shared: dict[str, Step] = {}
    groups: dict[str, tuple[str, ...]] = {}
    kinds: dict[str, Kind] = {}
    own: dict[str, dict[str, Step]] = {}
    machines: list[Machine] = []
    for folder in folders:
        steps = _toml(folder / "steps.toml")
        shared |= {key: _step({"key": key, **told}) for key, told in steps.get("step", {}).items()}
        groups |= {key: tuple(told) for key, told in steps.get("groups", {}).items()}
        machines += [Machine(tuple(m["words"]), tuple(m["facts"])) for m in _toml(folder / "machines.toml").get("machine", [])]
        for file in sorted((f for f in (folder / "kinds").iterdir() if f.name.endswith(".toml")), key=lambda f: f.name):
            kind, steps_of_it = _kind(_toml(file), file.name)
            kinds[kind.key], own[kind.key] = kind, steps_of_it
    found = Library(kinds, tuple(machines), shared, own, groups)
    _check(found)
    return found


def _toml(file: Traversable) -> dict[str, Any]:
    if not file.is_file():
        return {}
    try:
        return tomllib.loads(file.read_text(encoding="utf-8"))
    except tomllib.TOMLDecodeError as reason:
        raise LibraryError(f"{file.name}: {reason}") from None


def as_kept(step: Step) -> dict[str, Any]:
    """A step as it is kept with a job."""
    return asdict(step)


def from_kept(told: Mapping[str, Any]) -> Step:
    """A step of a job as it was kept. Raises LibraryError."""
    return _step(told)


def _step(told: Mapping[str, Any]) -> Step:
    lists = {k: tuple(told[k]) for k in ("when", "after", "cautions") if k in told}
    try:
        return Step(**{**told, **lists})
    except TypeError as reason:
        raise LibraryError(f"step {told.get('key')}: {reason}") from None


def _kind(told: dict[str, Any], name: str) -> tuple[Kind, dict[str, Step]]:
    steps = {s["key"]: _step(s) for s in told.pop("step", [])}
    asks = []
    for a in told.pop("ask", []):
        options = tuple(a.get("options", ())) or _names(a.get("options_from", ""))
        asks.append(Ask(a["key"], a["question"], options, a.get("field", ""), tuple(a.get("when", ())), a.get("optional", False)))
    try:
        kind = Kind(
            told["key"], told["title"], told["about"], tuple(told["for"]), told["minutes"], told["event"], tuple(told["closes"]),
            tuple(told["steps"]), tuple(asks), told.get("again_days", 0),
        )  # fmt: skip
    except KeyError as missing:
        raise LibraryError(f"{name} lacks {missing}") from None
    return kind, steps


def _names(table: str) -> tuple[str, ...]:
    """The first column of a table: what its rows are called."""
    return tuple(next(iter(r.values())) for r in rows(table)) if table else ()


def _check(found: Library) -> None:
    for kind in found.kinds.values():
        if kind.event not in EVENTS:
            raise LibraryError(f"{kind.key}: no event “{kind.event}”")
        for key in kind.steps:
            if key.startswith("@") and key[1:] not in found.groups:
                raise LibraryError(f"{kind.key}: no group “{key}”")
            if not key.startswith("@") and found.step(kind.key, key) is None:
                raise LibraryError(f"{kind.key}: no step “{key}”")
        steps = found.steps_of(kind)
        for i, step in enumerate(steps):
            late = {s.key for s in steps[i:]} - {s.key for s in steps[:i]}
            if late & set(step.after):
                raise LibraryError(
                    f"{kind.key}: “{step.key}” waits for {', '.join(sorted(late & set(step.after)))}, which stands behind it"
                )
        unused = set(found.own[kind.key]) - {s.key for s in steps}
        if unused:
            raise LibraryError(f"{kind.key}: steps not used: {', '.join(sorted(unused))}")

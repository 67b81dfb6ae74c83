"""Reading the library: steps.toml (steps that kinds share), isolation.toml (the way there, locking out, blocks, all of it taken back),
kinds/*.toml (one kind of job each), machines.toml (what is asked of a machine)."""

import tomllib
from collections.abc import Mapping
from dataclasses import asdict
from functools import cache
from importlib import resources
from importlib.resources.abc import Traversable
from typing import Any

from tuyere.core.basis.table import rows
from tuyere.core.stations.inspect.diagnosis.knowledge import knowledge
from tuyere.core.stations.jobs.check import check
from tuyere.core.stations.jobs.library import LOCKS, STATES, Ask, JobKind, Library, LibraryError, Step, Trait


@cache
def library() -> Library:
    """The library as it ships."""
    return read_library(resources.files("tuyere.core.stations.jobs"))


def read_library(*folders: Traversable) -> Library:
    """A library from folders laid out alike, the later adding to the earlier. Raises LibraryError."""
    shared: dict[str, Step] = {}
    groups: dict[str, tuple[str, ...]] = {}
    kinds: dict[str, JobKind] = {}
    own: dict[str, dict[str, Step]] = {}
    traits: dict[str, Trait] = {}
    drive_facts: set[str] = {"electric"}
    for folder in folders:
        for name in ("isolation.toml", "steps.toml"):
            steps = _toml(folder / name)
            shared |= {key: _step({"key": key, **told}) for key, told in steps.get("step", {}).items()}
            groups |= {key: tuple(told) for key, told in steps.get("groups", {}).items()}
        machines = _toml(folder / "machines.toml")
        traits |= {t["key"]: _trait(t) for t in machines.get("trait", [])}
        drive_facts |= set(machines.get("drive_facts", []))
        for file in sorted((f for f in (folder / "kinds").iterdir() if f.name.endswith(".toml")), key=lambda f: f.name):
            kind, steps_of_it = _kind(_toml(file), file.name)
            kinds[kind.key], own[kind.key] = kind, steps_of_it
    found = Library(kinds, traits, frozenset(drive_facts), shared, own, groups)
    check(found)
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
    told = dict(told)
    if asked := told.pop("triage", ""):
        step = next((t for t in knowledge().triage if t.key == asked), None)
        if step is None:
            raise LibraryError(f"step {told.get('key')}: no triage step “{asked}”")
        told = {"do": step.ask, "why": step.how, "look": step.look, **told}
    lists: dict[str, Any] = {k: tuple(told[k]) for k in ("when", "after", "cautions", "undoes") if k in told}
    sort = told.get("sort", "hands")
    if sort not in STATES:
        raise LibraryError(f"step {told.get('key')}: no sort “{sort}”")
    whole: dict[str, Any] = {"state": STATES[sort][0], **told, **lists}
    if sort in LOCKS:
        whole["safety"] = "lock"
    try:
        return Step(**whole)
    except TypeError as reason:
        raise LibraryError(f"step {told.get('key')}: {reason}") from None


def _trait(told: Mapping[str, Any]) -> Trait:
    lists = {k: tuple(told[k]) for k in ("words", "but", "given", "when") if k in told}
    return Trait(**{**told, **lists})


def _kind(told: dict[str, Any], name: str) -> tuple[JobKind, dict[str, Step]]:
    steps = {s["key"]: _step(s) for s in told.pop("step", [])}
    asks = []
    for a in told.pop("ask", []):
        rows_of, more = _rows(a.get("options_from", "")), tuple(a.get("also", ()))
        options = tuple(a.get("options", ())) or tuple(next(iter(r.values())) for r in rows_of) + more
        narrowed = {
            said: tuple(next(iter(r.values())) for r in rows_of if r["kind"] == kind) + more for said, kind in a.get("narrowed", {}).items()
        }
        asks.append(
            Ask(
                a["key"],
                a["question"],
                options,
                a.get("field", ""),
                tuple(a.get("when", ())),
                a.get("optional", False),
                a.get("by", ""),
                narrowed,
            )
        )
    try:
        kind = JobKind(
            told["key"],
            told["title"],
            told["about"],
            tuple(told["for"]),
            told["minutes"],
            told["event"],
            tuple(told["closes"]),
            tuple(told["steps"]),
            tuple(asks),
            told.get("again_days", 0),
            told.get("stopped", False),
            told.get("anew", False),
        )
    except KeyError as missing:
        raise LibraryError(f"{name} lacks {missing}") from None
    return kind, steps


def _rows(table: str) -> tuple[dict[str, str], ...]:
    return tuple(rows(table)) if table else ()

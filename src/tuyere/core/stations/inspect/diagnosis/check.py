"""What is told in knowledge.toml is refused as it is read where it does not hang together: by line, entry and key."""

from collections.abc import Collection, Iterator, Mapping
from typing import Any, Literal, get_args

Family = Literal["v", "ribbed", "synchronous", "flat", "chain", "conveyor"]
FAMILIES: tuple[Family, ...] = get_args(Family)
PLACES = ("belt", "chain", "conveyor", "hear", "machine", "past", "strand", "wheel")
PAGES = ("survey", "speed", "size", "tension", "align", "inspect")
WHEN = ("over", "under", "yes", "no")


class KnowledgeError(ValueError):
    """An entry that cannot be: the message names its line, the entry, its key and what is wrong."""


def check(text: str, told: Mapping[str, Any]) -> None:
    """Raises KnowledgeError for the first entry that does not hold."""
    for section, key, field, wrong in _wrong(told):
        raise KnowledgeError(f"knowledge.toml, line {_line(text, section, key)}, {section}.{key}, {field}: {wrong}")


def _line(text: str, section: str, key: str) -> int:
    return next((n for n, line in enumerate(text.splitlines(), 1) if line.strip() == f"[{section}.{key}]"), 1)


def _wrong(told: Mapping[str, Any]) -> Iterator[tuple[str, str, str, str]]:
    signs, checks = told["signs"], told["checks"]
    for section in ("signs", "checks", "facts"):
        for key, one in told[section].items():
            yield from (_at(section, key, "families", w) for w in _unknown(one["families"], FAMILIES))
            if not one["question"].strip():
                yield section, key, "question", "nothing is asked"
    for key, one in signs.items():
        yield from (_at("signs", key, "place", w) for w in _unknown([one["place"]], PLACES))
        yield from (_at("signs", key, "leak", w) for w in _shares({"leak": one["leak"]}))
    for key, one in checks.items():
        yield from (_at("checks", key, "told_by", w) for w in _unknown(one.get("told_by", ()), signs))
        yield from (_at("checks", key, "default", w) for w in _shares({"default": one["default"]}))
        if "over" in one and "under" in one:
            yield "checks", key, "over", "a number counts over a value or under one, not both"
    for key, one in told["causes"].items():
        yield from (_at("causes", key, "prior", w) for w in _unknown(one["prior"], FAMILIES))
        yield from (_at("causes", key, "shows", w) for w in (*_unknown(one["shows"], signs), *_shares(one["shows"])))
        yield from (_at("causes", key, "checks", w) for w in (*_unknown(one["checks"], checks), *_shares(one["checks"])))
        yield from (_at("causes", key, "page", w) for w in _unknown([one["page"].partition("/")[0]] if one.get("page") else (), PAGES))
    for key, one in told["facts"].items():
        for then in one["then"]:
            yield from (_at("facts", key, "then", w) for w in _unknown([then["when"]], WHEN))
            yield from (_at("facts", key, "then", w) for w in _unknown([then["key"]], signs if then["kind"] == "sign" else checks))
    for one in told["triage"]:
        place = f"{one['family']} {one['sign']} {one['key']}"
        yield from (_at("triage", place, "sign", w) for w in _unknown([one["sign"]], signs))
        yield from (_at("triage", place, "check", w) for w in _unknown([one["check"]] if one.get("check") else (), checks))


def _at(section: str, key: str, field: str, wrong: str) -> tuple[str, str, str, str]:
    return section, key, field, wrong


def _unknown(said: Collection[str], known: Collection[str]) -> list[str]:
    return [f"“{word}” is not known" for word in said if word not in known]


def _shares(told: Mapping[str, float]) -> list[str]:
    return [f"{key} is {p}: it lies between 0 and 1" for key, p in told.items() if not 0 < p < 1]

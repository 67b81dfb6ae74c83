"""No room leans on one that leans on it: imports run one way, those for types alone included."""

import ast
from collections import defaultdict
from graphlib import CycleError, TopologicalSorter
from pathlib import Path

import pytest

import tuyere

ROOT = Path(tuyere.__file__).parent


def modules() -> dict[str, Path]:
    """Every module by its dotted name."""
    found = {}
    for path in ROOT.rglob("*.py"):
        parts = path.relative_to(ROOT.parent).with_suffix("").parts
        found[".".join(parts[:-1] if parts[-1] == "__init__" else parts)] = path
    return found


def imports(every: dict[str, Path]) -> dict[str, set[str]]:
    """What each module imports of ours, wherever in its text."""
    found: dict[str, set[str]] = {}
    for name, path in every.items():
        asked = set()
        for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
            if isinstance(node, ast.Import):
                asked |= {alias.name for alias in node.names if alias.name in every}
            elif isinstance(node, ast.ImportFrom) and node.module:
                asked |= {full if (full := f"{node.module}.{alias.name}") in every else node.module for alias in node.names}
        found[name] = (asked & every.keys()) - {name}
    return found


GRAPH = imports(modules())
PACKAGES = sorted({name.rpartition(".")[0] for name in GRAPH if "." in name})


def circle(graph: dict[str, set[str]]) -> list[str]:
    try:
        TopologicalSorter(graph).prepare()
    except CycleError as found:
        return list(found.args[1])
    return []


def test_a_circle_is_seen() -> None:
    assert circle({"a": {"b"}, "b": {"c"}, "c": {"a"}}) and not circle({"a": {"b", "c"}, "b": {"c"}, "c": set()})
    assert len(GRAPH) > 300 and any("drive.answer" in asked for asked in map(str, GRAPH.values()))


def test_no_two_modules_import_each_other() -> None:
    assert not circle(GRAPH)


@pytest.mark.parametrize("package", PACKAGES)
def test_no_two_rooms_of_a_package_lean_on_each_other(package: str) -> None:
    """Of a package, its modules and packages, each taken whole."""
    depth = package.count(".") + 2
    rooms: dict[str, set[str]] = defaultdict(set)
    for name, asked in GRAPH.items():
        if name.startswith(package + "."):
            room = ".".join(name.split(".")[:depth])
            rooms[room] |= {other for a in asked if a.startswith(package + ".") and (other := ".".join(a.split(".")[:depth])) != room}
    assert not circle(rooms)

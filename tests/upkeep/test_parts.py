"""What it is made of: every part listed with a licence we ship under and no hole that is known; and the list as others read it."""

import json
import re
import subprocess
import sys
import tomllib
from pathlib import Path

from packaging.version import Version

import tuyere
from tuyere.upkeep.parts import HOLES, Part, known_holes, odd_licences, parts, python_parts, sbom


def test_no_part_has_a_known_hole_or_a_licence_that_we_cannot_ship_under() -> None:
    found = parts()
    assert len(list(python_parts())) > 40 and sum(p.kind == "npm" for p in found) > 100
    assert known_holes(found) == [] and odd_licences(found) == []
    old = Part("pypi", "werkzeug", "3.0.5", ("BSD-3-Clause",))
    assert len(known_holes([old])) >= 2 and not known_holes([Part("pypi", "werkzeug", "9.0", ())])
    assert odd_licences([Part("npm", "x", "1", ("GPL-3.0-only",)), Part("npm", "y", "1", ())]) == [
        "pkg:npm/x@1: GPL-3.0-only",
        "pkg:npm/y@1: no licence told",
    ]


def test_the_list_of_holes_can_be_read() -> None:
    rows = HOLES.read_text().splitlines()
    assert len(rows) == len(set(rows)) > 15
    assert all(Version(row.split(",")[2]) for row in rows[1:])


def test_the_parts_as_cyclonedx() -> None:
    told = json.loads(sbom())
    assert (told["bomFormat"], told["specVersion"]) == ("CycloneDX", "1.6")
    listed = {c["purl"]: c for c in told["components"]}
    assert len(listed) == len(told["components"]) == sum(p.shipped for p in parts())
    assert any(p.startswith("pkg:pypi/flask@") for p in listed) and any(p.startswith("pkg:npm/vue@") for p in listed)
    assert not any(p.startswith("pkg:npm/vite@") for p in listed), "what only builds is not shipped"
    assert sum("licenses" in c for c in listed.values()) > 0.7 * len(listed)


def test_each_line_of_the_security_checklist_names_what_holds_it() -> None:
    """A line that says yes names a test, a module or a command that is there; so no line outlives what it was written of."""
    root = Path(__file__).parents[2]
    lines = [line for line in (root / "docs" / "security.md").read_text().splitlines() if re.match(r"\| [^|]+ \|[^|]+\| yes", line)]
    assert len(lines) > 70
    for line in lines:
        tests = re.findall(r"\b((?:web|upkeep|browser)/test_\w+)", line)
        code = re.findall(r"`((?:web|store|upkeep|serving|documents)/\w+\.py)`", line)
        other = re.findall(r"`([\w./-]+\.(?:vue|js|lock|json))`", line) + re.findall(r"\b(bin/[\w-]+)", line)
        assert tests or code or other or "by reading" in line, line
        for test in tests:
            assert (root / "tests" / f"{test}.py").exists(), line
        for module in code:
            assert (root / "src" / "tuyere" / module).exists(), line
        for path in other:
            assert any(root.glob(path)) or any((root / "frontend" / "src").rglob(path)), line


def test_the_package_carries_every_file_that_is_read() -> None:
    """What stands beside the code and is no code: a wheel without it starts, and then has no jobs or no tables."""
    root = Path(tuyere.__file__).parent
    patterns = tomllib.loads((root.parents[1] / "pyproject.toml").read_text())["tool"]["setuptools"]["package-data"]["tuyere"]
    packed = {file for pattern in patterns for file in root.glob(pattern + "/*" if pattern.endswith("**") else pattern)}
    left = [f for f in root.rglob("*") if f.is_file() and f.suffix not in (".py", ".pyc") and f not in packed]
    assert left == [] and len(packed) > 100
    packages = {f.parent for f in root.rglob("*.py")}
    assert not [p for p in packages if not (p / "__init__.py").exists() and p.name not in ("versions", "migrations")]


def test_no_request_imports_a_migration() -> None:
    code = "import sys, tuyere.web.app; print([m for m in sys.modules if m.startswith('tuyere.store.migrations')])"
    said = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True)
    assert said.stdout.strip() == "[]"


def test_whoever_asks_for_every_table_has_every_table() -> None:
    """A process that grants rights knows no page; a table that only pages import would have none."""
    code = "import sys, {0}; from sqlmodel import SQLModel; print(*sorted(SQLModel.metadata.tables))"
    asked = [
        subprocess.run([sys.executable, "-c", code.format(module)], capture_output=True, text=True, check=True).stdout
        for module in ("tuyere.store.roles", "tuyere.web.app")
    ]
    assert asked[0] == asked[1] and len(asked[0].split()) > 30

"""What the application is made of: a list of its parts (CycloneDX), their licences, and holes that are known in them.

python -m tuyere.upkeep.parts sbom [FILE] | licences | holes
"""

import argparse
import csv
import json
import re
import subprocess
import sys
from collections.abc import Iterator
from dataclasses import dataclass
from importlib.metadata import PackageNotFoundError, metadata
from importlib.util import find_spec
from pathlib import Path

from packaging.utils import canonicalize_name
from packaging.version import Version

from tuyere import __version__
from tuyere.upkeep.said import say

ROOT = Path(__file__).parents[3]
HOLES = Path(__file__).with_name("known_holes.csv")
# A part may be used under any one of the licences it offers; these we ship under. Text in the metadata is free: words that tell them.
ALLOWED = re.compile(
    r"\b(MIT|MIT-0|MIT-CMU|BSD|0BSD|BSD-[23]-Clause|Apache|ISC|PSF|Python Software Foundation|MPL|Mozilla Public|LGPL|Lesser General|Zlib"
    r"|CC0|OFL|Unlicense|HPND|Artistic)\b"
)


@dataclass(frozen=True)
class Part:
    """A package: where it is from (pypi or npm), its name, its version, the licences it offers, and whether it is shipped."""

    kind: str
    name: str
    version: str
    licences: tuple[str, ...]
    shipped: bool = True

    @property
    def purl(self) -> str:
        """Its address as package URL."""
        return f"pkg:{self.kind}/{self.name.replace('@', '%40', 1)}@{self.version}"


def python_parts() -> Iterator[Part]:
    """What requirements.lock pins, with the licence that the installed package tells."""
    for line in (ROOT / "requirements.lock").read_text().splitlines():
        if found := re.fullmatch(r"([\w.-]+)==([\w.+!-]+)", line.strip()):
            name, version = canonicalize_name(found[1]), found[2]
            yield Part("pypi", name, version, tuple(_told(name)))


def _told(name: str) -> list[str]:
    try:
        told = metadata(name)
    except PackageNotFoundError:
        return []
    named = [c.rpartition("::")[2].strip() for c in told.get_all("Classifier") or [] if c.startswith("License ::")]
    plain = [(text or "").split("\n")[0] for text in told.get_all("License") or []]
    return [x for x in (*(told.get_all("License-Expression") or []), *named) if x] or plain


def front_parts() -> Iterator[Part]:
    """What package-lock.json pins; what only builds and checks is not shipped."""
    for path, told in json.loads((ROOT / "frontend" / "package-lock.json").read_text())["packages"].items():
        if path:
            name = path.rpartition("node_modules/")[2]
            yield Part("npm", name, told["version"], tuple(filter(None, [told.get("license", "")])), not told.get("dev"))


def parts() -> list[Part]:
    """All of them, the shipped and those that only build."""
    return sorted({*python_parts(), *front_parts()}, key=lambda p: (p.kind, p.name, p.version))


def sbom() -> str:
    """The shipped parts as CycloneDX 1.6, in JSON."""
    from cyclonedx.model.bom import Bom
    from cyclonedx.model.component import Component, ComponentType
    from cyclonedx.model.license import LicenseExpression
    from cyclonedx.output.json import JsonV1Dot6
    from license_expression import get_spdx_licensing
    from packageurl import PackageURL

    known = get_spdx_licensing()
    bom = Bom()
    bom.metadata.component = Component(name="tuyere", version=__version__, type=ComponentType.APPLICATION, bom_ref="tuyere")
    for part in (p for p in parts() if p.shipped):
        told = next((x for x in part.licences if not known.validate(x).errors), "")
        bom.components.add(
            Component(
                name=part.name,
                version=part.version,
                type=ComponentType.LIBRARY,
                bom_ref=part.purl,
                purl=PackageURL.from_string(part.purl),
                licenses=[LicenseExpression(told)] if told else None,
            )
        )
    bom.register_dependency(bom.metadata.component, list(bom.components))
    return str(JsonV1Dot6(bom).output_as_string(indent=1))


def odd_licences(found: list[Part]) -> list[str]:
    """The shipped parts that offer no licence we ship under, in a line each."""
    odd = (p for p in found if p.shipped and not ALLOWED.search(" ".join(p.licences)))
    return [f"{p.purl}: {', '.join(p.licences) or 'no licence told'}" for p in odd]


def known_holes(found: list[Part]) -> list[str]:
    """Parts with a hole that the list beside this module knows, in a line each."""
    holes = list(csv.DictReader(HOLES.open()))
    return [
        f"{part.purl}: {hole['id']}, mended in {hole['mended_in']}: {hole['what']}"
        for part in found
        for hole in holes
        if (hole["kind"], hole["name"]) == (part.kind, part.name) and _version(part.version) < _version(hole["mended_in"])
    ]


def _version(text: str) -> Version:
    return Version(re.sub(r"[^0-9a-zA-Z.+!-].*", "", text))


def _audited() -> bool | None:
    """What pip-audit says, which asks the network; None where it is not there."""
    if find_spec("pip_audit") is None:
        return None
    command = [sys.executable, "-m", "pip_audit", "-r", str(ROOT / "requirements.lock"), "--no-deps"]
    return subprocess.run(command, check=False).returncode == 0


def main() -> int:
    """What bin/parts runs."""
    parser = argparse.ArgumentParser(prog="bin/parts", description=__doc__.split("\n", 1)[0])
    parser.add_argument("what", choices=("sbom", "licences", "holes"))
    parser.add_argument("file", nargs="?", type=Path, help="sbom: where to write it; without one it is printed")
    words = parser.parse_args()
    if words.what == "sbom":
        if words.file:
            words.file.write_text(sbom())
            say(f"Wrote {words.file}.")
        else:
            print(sbom())
        return 0
    found = parts()
    lines = odd_licences(found) if words.what == "licences" else known_holes(found)
    for line in lines:
        say(line)
    if words.what == "holes":
        asked = _audited()
        if asked is None:
            say(
                "Looked up in the list that ships. Where there is a network, install pip-audit beside it and run this again; npm audit too."
            )
        elif not asked:
            return 1
    say(f"{len(found)} parts, {len(lines)} to look at.")
    return 1 if lines else 0


if __name__ == "__main__":
    sys.exit(main())

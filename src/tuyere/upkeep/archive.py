"""What a backup file is: a zip of PostgreSQL's dump and of a manifest, with hash and counts, signed where the site has a key."""

import contextlib
import hashlib
import hmac
import json
import os
import tempfile
import zipfile
from collections.abc import Iterator
from datetime import datetime
from pathlib import Path

from pydantic import BaseModel, ConfigDict, Field, ValidationError

from tuyere import __version__
from tuyere.store.clock import now
from tuyere.upkeep.said import GivingUp

DUMP, MANIFEST = "plant.dump", "manifest.json"
_PIECE = 1024 * 1024
LARGEST_MANIFEST = 1024 * 1024


class Manifest(BaseModel):
    """What is in a backup. `revision`: of the migrations; `rows`: of each table; `signature`: over all the rest, by the site's key."""

    model_config = ConfigDict(extra="forbid")
    format: int = 1
    tuyere: str = __version__
    plant: str
    made_at: datetime = Field(default_factory=now)
    revision: str = Field(pattern=r"^\w{1,40}$")
    rows: dict[str, int]
    size: int = 0
    sha256: str = ""
    signature: str = ""

    def signed_with(self, key: bytes) -> str:
        """The signature that this manifest has by that key."""
        said = json.dumps(self.model_dump(mode="json", exclude={"signature"}), sort_keys=True).encode()
        return hmac.new(key, said, "sha256").hexdigest()


def site_key(state: Path) -> bytes:
    """The key that backups are signed with: TUYERE_BACKUP_KEY, or the file backup-key in the state folder; empty where there is none."""
    given = os.environ.get("TUYERE_BACKUP_KEY", "")
    kept = state / "backup-key"
    return (given or (kept.read_text() if kept.exists() else "")).strip().encode()


def pack(dump: Path, manifest: Manifest, key: bytes, file: Path) -> None:
    """Write dump and manifest to `file`, readable by its owner alone."""
    digest, size = _digest(dump)
    told = manifest.model_copy(update={"sha256": digest, "size": size})
    if key:
        told = told.model_copy(update={"signature": told.signed_with(key)})
    making = file.with_name(file.name + ".making")
    try:
        with os.fdopen(os.open(making, os.O_WRONLY | os.O_CREAT | os.O_TRUNC, 0o600), "wb") as raw, zipfile.ZipFile(raw, "w") as packed:
            packed.writestr(MANIFEST, told.model_dump_json(indent=2))
            packed.write(dump, DUMP)
        making.rename(file)
    finally:
        making.unlink(missing_ok=True)


@contextlib.contextmanager
def unpacked(file: Path, key: bytes) -> Iterator[tuple[Manifest, Path]]:
    """The manifest and the dump of a backup, once the hash (and, where the site has a key, the signature) holds. Raises GivingUp."""
    with tempfile.TemporaryDirectory(prefix="tuyere-restore-") as folder:
        dump = Path(folder) / DUMP
        try:
            with zipfile.ZipFile(file) as packed:
                if sorted(packed.namelist()) != sorted((MANIFEST, DUMP)) or packed.getinfo(MANIFEST).file_size > LARGEST_MANIFEST:
                    raise GivingUp(f"{file} is no backup of Tuyere's.")
                manifest = Manifest.model_validate_json(packed.read(MANIFEST))
                _check_signature(file, manifest, key)
                _take_out(packed, dump, manifest.size)
        except (OSError, EOFError, zipfile.BadZipFile, ValidationError, NotImplementedError, RuntimeError) as error:
            raise GivingUp(f"{file} could not be read as a backup: {str(error).splitlines()[0]}") from None
        if _digest(dump) != (manifest.sha256, manifest.size):
            raise GivingUp(f"{file} is damaged or was changed: what it holds does not fit the hash in its manifest.")
        yield manifest, dump


def _check_signature(file: Path, manifest: Manifest, key: bytes) -> None:
    if not key:
        return
    if not manifest.signature:
        raise GivingUp(f"{file} is not signed, and this site signs its backups: take one that is, or put the site's key aside to trust it.")
    if not hmac.compare_digest(manifest.signature, manifest.signed_with(key)):
        raise GivingUp(f"{file} is signed with another key than this site's, or was changed.")


def _take_out(packed: zipfile.ZipFile, dump: Path, most: int) -> None:
    with packed.open(DUMP) as inside, dump.open("wb") as out:
        left = most + 1
        while left > 0 and (piece := inside.read(min(_PIECE, left))):
            out.write(piece)
            left -= len(piece)


def _digest(path: Path) -> tuple[str, int]:
    found = hashlib.sha256()
    with path.open("rb") as file:
        while piece := file.read(_PIECE):
            found.update(piece)
    return found.hexdigest(), path.stat().st_size

"""What is long comes in pages, each line once; what is large comes small; what lasts is told once."""

import gzip
import json
from typing import Any

import pytest

from tests.conftest import Caller


def longest(caller: Caller) -> tuple[str, list[dict[str, Any]]]:
    """The drive whose log is the longest, and its lines."""
    found = {
        d["id"]: caller.get(f"/api/drives/{d['id']}/log").json["entries"]
        for d in caller.get(f"/api/sites/{caller.site_id}/floor").json["drives"][:25]
    }
    drive = max(found, key=lambda d: len(found[d]))
    return drive, found[drive]


def paged(caller: Caller, path: str, limit: int) -> list[dict[str, Any]]:
    lines, before = [], ""
    while True:
        found = caller.get(f"{path}{'&' if '?' in path else '?'}limit={limit}&before={before.replace('+', '%2B')}").json
        lines += found["entries"]
        if not (before := found["next"]):
            return lines


@pytest.mark.parametrize("limit", [1, 3, 7])
def test_a_log_page_by_page_is_the_log(sign_in: Any, limit: int) -> None:
    caller = sign_in("Ines")
    drive, whole = longest(caller)
    assert len(whole) > 8
    assert paged(caller, f"/api/drives/{drive}/log", limit) == whole
    times = [e["at"] for e in whole]
    assert times == sorted(times, reverse=True)


def test_a_log_of_some_kinds_is_those_lines_of_the_whole(sign_in: Any) -> None:
    caller = sign_in("Ines")
    drive, whole = longest(caller)
    for kinds in ({"belt tension"}, {"finding", "round"}, {"survey", "done", "due", "job", "hours"}, {"wear"}):
        found = paged(caller, f"/api/drives/{drive}/log?kinds={','.join(sorted(kinds)).replace(' ', '+')}", 2)
        assert found == [e for e in whole if e["kind"] in kinds]
    assert caller.get(f"/api/drives/{drive}/log?before=yesterday").status_code == 422
    assert caller.get(f"/api/drives/{drive}/log?limit=0").status_code == 422


def test_curves_are_drawn_of_the_same_readings(sign_in: Any) -> None:
    caller = sign_in("Ines")
    drive, whole = longest(caller)
    drawn = caller.get(f"/api/drives/{drive}/trend").json["entries"]
    kinds = {"belt tension", "alignment", "survey", "set ended", "done"}
    assert [e["id"] for e in drawn] == [e["id"] for e in whole if e["kind"] in kinds]
    assert all(e["values"] == [] for e in drawn) and any(e["figures"] for e in drawn)


def test_large_answers_come_small_and_hold_the_same(sign_in: Any) -> None:
    caller = sign_in("Ines")
    path = f"/api/sites/{caller.site_id}/floor"
    plain, small = caller.client.get(path), caller.client.get(path, headers={"Accept-Encoding": "gzip"})
    assert (
        "Content-Encoding" not in plain.headers
        and small.headers["Content-Encoding"] == "gzip"
        and "Accept-Encoding" in small.headers["Vary"]
    )
    assert json.loads(gzip.decompress(small.data)) == plain.json and len(small.data) < len(plain.data) / 3
    assert int(small.headers["Content-Length"]) == len(small.data)
    secret = caller.client.get("/api/session", headers={"Accept-Encoding": "gzip"})
    assert "Content-Encoding" not in secret.headers, "its length would tell of the token in it"


def test_what_lasts_is_told_once(sign_in: Any) -> None:
    caller = sign_in("Ines")
    for path in ("/api/choices", "/api/families", "/api/calc/size/choices"):
        first = caller.client.get(path, headers={"Accept-Encoding": "gzip"})
        again = caller.client.get(path, headers={"Accept-Encoding": "gzip", "If-None-Match": first.headers["ETag"]})
        assert again.status_code == 304 and not again.data
    assert "ETag" not in caller.get(f"/api/sites/{caller.site_id}/floor").headers

"""A shop's own lists over the web: looked at row by row, kept, what they change, taken back, fetched."""

import csv
import io
import uuid
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from tests.core.test_selection import PARTS_TEXT
from tests.web.test_layout import drive_of
from tuyere.core.basis.rows_file import guarded, read_rows
from tuyere.core.stations.size import own_ratings as own
from tuyere.core.stations.size import parts_list

FAN = {
    "quantities": {
        k: {"text": t}
        for k, t in {"power": "3 hp", "driver_speed": "1750", "driven_speed": "860", "centre_low": "20 in", "centre_high": "24 in"}.items()
    },
    "words": {"driven_class": "light"},
}


def keep(caller: Any, what: str, content: str) -> Any:
    body = {"id": str(uuid.uuid4()), "what": what, "content": content, "file_name": " our  list.csv "}
    return caller.post(f"/api/sites/{caller.site_id}/lists", body)


def test_a_file_is_looked_at_before_it_is_kept(sign_in: Any) -> None:
    caller = sign_in("Ines")
    before = caller.get(f"/api/sites/{caller.site_id}/lists").json
    assert before["parts"]["now"]["rows_taken"] == before["part_count"] == 69, "the demo plant's own"
    assert [c["name"] for c in before["ratings"]["columns"]] == list(own.COLUMNS)
    text = parts_list.EXAMPLE + "wheel,B,5,1,,,,\n"
    said = caller.post(f"/api/sites/{caller.site_id}/lists/check", {"what": "parts", "content": text}).json
    assert said["taken"] == 7 and [r["line"] for r in said["rows"] if not r["taken"]] == [9]
    assert caller.get(f"/api/sites/{caller.site_id}/lists").json == before
    refused = keep(caller, "ratings", "power,for\n")
    assert refused.status_code == 422 and "size and speed is missing" in refused.json["errors"][0]["detail"]
    assert "No row of this file" in keep(caller, "parts", "part,for,size\nbolt,B,1\n").json["detail"]
    viewer = sign_in("Rowan")
    assert keep(viewer, "parts", parts_list.EXAMPLE).status_code == 403


def test_own_ratings_override_where_the_shop_is_named_and_come_off_again(sign_in: Any) -> None:
    caller = sign_in("Ines")
    fan = drive_of(caller, "Dust-collector fan")
    sheet = {"family": fan["family"], "survey": fan["survey"]}
    site = caller.site_id

    def rated(named: str) -> tuple[float, str]:
        figure = caller.post("/api/calc/sheet", sheet, site=named).json["figures"]["rated_power"]
        return figure["value_si"], figure["working"]["source"]

    standard = rated("")
    assert rated(site) == standard
    section = fan["survey"]["stages"][0]["fitted"]["choices"]["section"]
    cells = [f"{section},{d} mm,{n} rpm,{d * n / 6e4:.3f} kW,own trials" for d in (60, 200, 900) for n in (100, 4000)]
    text = "\n".join(["for,size,speed,power,source", *cells])
    assert keep(caller, "ratings", text).status_code == 201
    assert rated("") == standard, "nobody's shop: the standard"
    assert rated(site) != standard and rated(site)[1] == "your own table (own trials)"
    lists = caller.get(f"/api/sites/{site}/lists").json
    table = next(t for t in lists["compared"] if t["name"] == section)
    assert "against the standard's figures" in table["says"] and len(table["curves"]) == 3 and lists["power"]["us_unit"] == "hp"
    now = lists["ratings"]["now"]
    assert (now["file_name"], now["who"], lists["ratings"]["before"]["file_name"]) == ("our list.csv", "Ines", "workshop-ratings.csv")
    fetched = caller.get(f"/api/shop-lists/{now['id']}/file")
    assert fetched.get_data(as_text=True) == text + "\n" and fetched.content_type.startswith("text/csv")
    # What the record shows of the drive goes by the list as well, without being asked.
    away = caller.post(f"/api/shop-lists/{now['id']}/away", {"row_version": 1})
    assert away.status_code == 200 and rated(site) == standard
    assert caller.post(f"/api/shop-lists/{now['id']}/away", {"row_version": 1}).status_code == 409
    assert caller.get(f"/api/sites/{site}/lists").json["ratings"]["put_away"]["id"] == now["id"]
    assert caller.post("/api/calc/sheet", sheet, site=str(uuid.uuid4())).status_code == 404
    assert caller.post("/api/calc/sheet", sheet, site="nowhere").status_code == 404


def test_size_goes_by_the_list_the_shelf_and_the_prices(sign_in: Any) -> None:
    caller = sign_in("Ines")
    site = caller.site_id
    assert keep(caller, "parts", PARTS_TEXT).status_code == 201
    choices = caller.client.get("/api/calc/size/choices", headers={"Tuyere-Site": site}).json
    assert choices["listed_parts"] == 22 and "price" in choices["wishes"] and "price" in choices["axes"]
    assert "price" not in caller.get("/api/calc/size/choices").json["wishes"]
    sizes = {}
    for which in ("common", "list", "shelf"):
        said = caller.post("/api/calc/size", {"size": {**FAN, "stock": which, "weights": {"price": 1.0}, "x": "price"}}, site=site).json
        sizes[which] = said["looked_at"]
        priced = [c for c in said["listed"] if c["price"]]
        assert priced and priced[0]["score"] >= priced[-1]["score"] and said["x"]["key"] == "price"
        assert all(d["x"] > 0 for d in said["dots"])
        full = caller.post("/api/calc/size/candidates", {"size": {**FAN, "stock": which}, "keys": [priced[0]["key"]]}, site=site).json
        assert full["candidates"][0]["price"] == priced[0]["price"]
    assert sizes["common"] > 1e7 > sizes["list"] > sizes["shelf"]
    stock = caller.post("/api/calc/size/stock", {"size": {**FAN, "stock": "shelf"}, "kind": "B"}, site=site).json
    assert stock["assumed"] is False and stock["lengths"] == ["B68"]
    why = caller.post(
        "/api/calc/size/why", {"size": {**FAN, "stock": "shelf"}, "kind": "B", "driver": 0, "driven": 1, "count": 2}, site=site
    ).json
    assert "Your list has no 3 × B as B68, or not enough of them." in [f["detail"] for f in why["candidates"][0]["failures"]]
    assert caller.post("/api/calc/size/stock", {"size": {**FAN, "stock": "shelf"}, "kind": "A"}, site=site).status_code == 422
    now = caller.get(f"/api/sites/{site}/lists").json["parts"]["now"]
    assert caller.post(f"/api/shop-lists/{now['id']}/away", {"row_version": 1}).status_code == 200


@given(st.lists(st.lists(st.text("=+-@' ,;\"a1\t", max_size=6), min_size=3, max_size=3), min_size=1, max_size=6))
def test_no_cell_of_a_file_we_write_is_run_as_a_formula(rows: list[list[str]]) -> None:
    """And what is read from the guarded file is what was read from the file as it came."""
    out = io.StringIO()
    csv.writer(out).writerows([["for", "power", "note"], *rows])
    safe = guarded(out.getvalue())
    for row in csv.reader(io.StringIO(safe)):
        assert not any(cell.strip().startswith(("=", "+", "-", "@")) for cell in row)
    assert read_rows(safe, ("for", "power", "note"), 3, 99) == read_rows(out.getvalue(), ("for", "power", "note"), 3, 99)

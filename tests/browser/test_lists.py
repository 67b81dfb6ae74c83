"""Own lists through the interface: a file with bad rows, kept, chosen from, weighed by price, taken back."""

import re
from typing import Any

from playwright.sync_api import expect

PARTS = """part;for;size;grooves;width;on_hand;price
wheel;B;5.4 in;2;;2;31,50
wheel;B;11 in;2;;1;58
wheel;B;11;2;;1;58
belt;B;B68;;;4;12,40
"""
RATINGS = "for,size,speed,power\n" + "\n".join(f"B,{d} mm,{n} rpm,{d * n / 7e4:.2f} kW" for d in (130, 300) for n in (600, 1800))


def test_a_list_is_brought_looked_at_kept_searched_and_taken_back(open_as: Any, address: str) -> None:
    page = open_as("Ines")
    page.goto(f"{address}/bench/lists")
    expect(page.get_by_role("heading", name="69 rows hold")).to_be_visible()
    pick = page.get_by_label(re.compile("Choose a CSV or JSON file"))
    pick.set_input_files({"name": "odd.csv", "mimeType": "text/csv", "buffer": b"what,is,this\n1,2,3\n"})
    expect(page.get_by_role("alert")).to_contain_text("The first line must name the columns")
    pick.set_input_files({"name": "b-drives.csv", "mimeType": "text/csv", "buffer": PARTS.encode()})
    expect(page.get_by_text("3 rows can be taken, 1 cannot")).to_be_visible()
    expect(page.get_by_role("row", name=re.compile("^4 wheel B 11 ▲ Write the size with its unit"))).to_be_visible()
    page.get_by_role("button", name="Keep the 3 that can").click()
    expect(page.get_by_role("heading", name="3 rows hold")).to_be_visible()
    expect(page.get_by_role("region", name="B", exact=True).get_by_text("11 in", exact=True)).to_be_visible()

    page.goto(f"{address}/bench/size")
    page.get_by_role("button", name="Blank").click()
    page.get_by_role("button", name="Start blank").click()
    for key, text in {"power": "5 hp", "driver_speed": "1750", "driven_speed": "885", "centre_low": "18", "centre_high": "26"}.items():
        page.locator(f"#f-{key}").fill(text)
    page.locator("#f-driven_class").select_option("light")
    page.locator("#f-stock").select_option("shelf")
    expect(page.get_by_role("heading", name="2 would do")).to_be_visible()
    expect(page.locator("[data-drive]").first.get_by_text(re.compile(r"^\d+\.\d\d$"))).to_have_text("101.90")
    page.locator("[data-drive] .pick").first.click()
    expect(page.get_by_text(re.compile("To fetch, 1(01|14)\\.[39]0 by your list"))).to_be_visible()
    page.reload()
    expect(page.locator("#f-stock")).to_have_value("shelf")

    page.goto(f"{address}/bench/lists")
    page.get_by_role("button", name="Back to “workshop-parts.csv”").click()
    expect(page.get_by_role("heading", name="69 rows hold")).to_be_visible()
    page.get_by_role("button", name="Restore").click()
    expect(page.get_by_role("heading", name="3 rows hold")).to_be_visible()
    page.get_by_role("button", name="Back to “workshop-parts.csv”").click()
    expect(page.get_by_role("heading", name="69 rows hold")).to_be_visible()


def test_own_ratings_stand_beside_the_standard_and_on_the_sheet(open_as: Any, address: str) -> None:
    page = open_as("Ines", width=390, height=844, touch=True)
    page.goto(f"{address}/bench/lists/ratings")
    pick = page.get_by_label(re.compile("Choose a CSV or JSON file"))
    pick.set_input_files({"name": "b.csv", "mimeType": "text/csv", "buffer": RATINGS.encode()})
    page.get_by_role("button", name="Keep it").click()
    expect(page.get_by_role("img", name=re.compile("^B: .* against the standard's figures"))).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    page.goto(f"{address}/bench/size")
    expect(page.get_by_text("Rated by tables of your own: B.")).to_be_visible()
    page.goto(f"{address}/bench/lists/ratings")
    page.get_by_role("button", name="Back to “workshop-ratings.csv”").click()
    expect(page.get_by_text("“b.csv” is archived.").first).to_be_visible()
    viewer = open_as("Rowan")
    viewer.goto(f"{address}/bench/lists")
    expect(viewer.get_by_role("heading", name="69 rows hold")).to_be_visible()
    expect(viewer.get_by_text("Choose a CSV or JSON file")).to_have_count(0)

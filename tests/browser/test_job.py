"""The whole job at a blower, and what must not be lost on the way."""

import re
import time
from typing import Any

from playwright.sync_api import Page, Route, expect

from tests.browser.conftest import open_drive

SURVEY = {
    "driver_power": "3 hp",
    "driver_speed": "1740",
    "hours_per_day": "12",
    "belt_count": "2",
    "belt": "B68",
    "driver_diameter": "5 3/4",
    "driven_diameter": "10.35",
    "centre_distance": '22-5/8"',
}


def fill(page: Page, values: dict[str, str]) -> None:
    for name, text in values.items():
        page.locator(f"#f-{name}").fill(text)


def figure(page: Page, label: str) -> Any:
    return page.locator(".strip .figure").filter(has_text=label).locator(".value")


def test_from_the_tape_measure_to_a_kept_reading(open_as: Any) -> None:
    page = open_as("Ines")
    started = time.monotonic()
    page.get_by_role("button", name="New drive").click()
    page.get_by_placeholder("as painted on it").fill("Germination blower 3")
    page.get_by_placeholder("main drive, supply fan drive…").fill("Blower drive")
    page.get_by_role("button", name="Keep, and go to its survey").click()
    expect(page.get_by_role("heading", name="Germination blower 3")).to_be_visible()
    assert time.monotonic() - started < 60
    expect(page.get_by_text("Nothing to draw yet")).to_be_visible()

    page.locator("#f-section").select_option("B")
    page.locator("#f-driven_class").select_option("light")
    fill(page, SURVEY)
    expect(page.get_by_text("B68 is the right length here")).to_be_visible()
    expect(page.get_by_text(re.compile("2 belts will carry it"))).to_be_visible()
    expect(figure(page, "Ratio")).to_have_text("1.80")
    expect(figure(page, "Driven")).to_contain_text("967 rpm")
    expect(page.locator("svg[role=img] .belt")).to_be_visible()
    page.get_by_role("button", name="Keep this survey").click()
    expect(page.get_by_text("Survey 1 kept.")).to_be_visible()

    page.get_by_role("link", name="Speed").click()
    fill(page, {"tach_driver": "1748", "tach_driven": "957"})
    expect(page.get_by_text(re.compile(r"Slip 1\.\d %"))).to_be_visible()
    page.get_by_role("button", name="Keep these speeds").click()
    expect(page.get_by_text(re.compile("It stands in the log"))).to_be_visible()

    page.get_by_role("link", name="Tension").click()
    expect(page.locator(".do")).to_contain_text("23/64 in")
    page.get_by_text("Tension to aim for").click()
    working = page.get_by_role("dialog", name="Working")
    expect(working).to_contain_text("published, from")
    working.get_by_role("button", name="Close").click()
    page.locator(".pair").get_by_role("button", name=re.compile("Should show")).click()
    expect(working).to_contain_text("less bending")
    page.keyboard.press("Escape")
    fill(page, {"force_1": "2.2", "force_2": "2.4"})
    expect(page.locator(".gauge").nth(1)).to_contain_text("→ 2")
    page.get_by_label("Note").fill("first gauge round")
    page.get_by_role("button", name="Keep this reading").click()
    expect(page.get_by_text(re.compile("It stands in the log"))).to_be_visible()

    page.reload()
    page.get_by_role("link", name="Log").click()
    kept = page.locator(".entries .belt-tension")
    expect(kept).to_have_count(1)
    for text in (
        "Ines",
        "spring gauge, deflection at mid-span",
        "machine isolated",
        "run in belts",
        "2.2 lbf",
        "± 1.0 lbf",
        "first gauge round",
    ):
        expect(kept).to_contain_text(text)
    expect(page.locator(".entries .shaft-speed")).to_have_count(1)
    page.go_back()
    expect(page).to_have_url(re.compile("/tension$"))


def test_a_save_over_a_dropped_connection_is_one_reading(open_as: Any) -> None:
    page = open_as("Tobias")
    open_drive(page, "Roller mill", "Tension")
    fill(page, {"force_1": "9.7", "force_2": "8.6", "force_3": "8.9"})
    keys: list[str] = []

    def drop(route: Route) -> None:
        keys.append(route.request.headers["idempotency-key"])
        if len(keys) == 1:
            route.fetch()  # the server stores it; the answer is lost on the way back
            route.abort()
        elif len(keys) == 2:
            route.abort()  # the server never hears of this one
        else:
            route.continue_()

    page.route("**/readings", drop)
    page.get_by_role("button", name="Keep this reading").click()
    expect(page.get_by_text("It is sent again by itself")).to_be_visible()
    page.get_by_role("button", name="Send now").click()
    expect(page.get_by_text(re.compile("It stands in the log"))).to_be_visible()
    assert len(keys) == 3 and len(set(keys)) == 1
    page.get_by_role("link", name="Log").click()
    expect(page.locator(".entries .belt-tension").filter(has_text="9.7 lbf")).to_have_count(1)


def test_after_a_reload_in_the_middle_the_same_save_is_still_one(open_as: Any) -> None:
    page = open_as("Tobias")
    open_drive(page, "Drill press", "Tension")
    fill(page, {"force_1": "1.96"})

    def lose(route: Route) -> None:
        route.fetch()
        route.abort()

    page.route("**/readings", lose)
    page.get_by_role("button", name="Keep this reading").click()
    expect(page.get_by_text("It is sent again by itself")).to_be_visible()
    page.unroute("**/readings")
    page.reload()
    expect(page.locator("#f-force_1")).to_have_value("1.96")
    page.get_by_role("button", name="Keep this reading").click()
    expect(page.get_by_text(re.compile("It stands in the log"))).to_be_visible()
    page.get_by_role("link", name="Log").click()
    expect(page.locator(".entries .belt-tension").filter(has_text="2.0 lbf")).to_have_count(1)


def test_two_people_at_one_survey(open_as: Any) -> None:
    first, second = open_as("Ines"), open_as("Marta")
    for page in (first, second):
        open_drive(page, "Refrigeration compressor 1")
    first.locator("#f-hours_per_day").fill("14")
    first.locator("#f-centre_distance").fill("41.5")
    first.get_by_role("button", name="Keep this survey").click()
    expect(first.get_by_text(re.compile(r"Survey \d kept"))).to_be_visible()
    second.locator("#f-hours_per_day").fill("22")
    second.get_by_role("button", name="Keep this survey").click()
    clash = second.get_by_role("dialog", name="Changed while you were at it")
    expect(clash).to_contain_text("Ines")
    expect(clash.get_by_role("radio", name=re.compile("hours per day: yours, 22"))).to_be_checked()
    expect(clash.get_by_role("radio", name=re.compile("hours per day: theirs, 14"))).not_to_be_checked()
    expect(clash.get_by_role("radio", name=re.compile("centre distance: theirs, 41.5"))).to_be_checked()
    clash.get_by_role("button", name="Keep mine in 1 field").click()
    expect(second.get_by_text(re.compile(r"Survey \d kept"))).to_be_visible()
    expect(second.locator("#f-hours_per_day")).to_have_value("22")
    expect(second.locator("#f-centre_distance")).to_have_value("41.5")
    second.reload()
    second.locator("#f-hours_per_day").fill("20")
    second.get_by_role("button", name="Keep this survey").click()
    expect(second.get_by_text(re.compile(r"Survey \d kept"))).to_be_visible()
    second.get_by_role("button", name="Undo: bring back the survey before").click()
    expect(second.locator("#f-hours_per_day")).to_have_value("22")


def test_a_reading_struck_out_stays_and_comes_back(open_as: Any) -> None:
    page = open_as("Marta")
    open_drive(page, "Grain auger", "Log")
    entry = page.locator(".entries .belt-tension").first
    entry.get_by_role("button", name="Strike out").click()
    page.get_by_role("button", name="Strike out", exact=True).last.click()
    expect(entry).to_contain_text("struck out")
    entry.get_by_role("button", name="Bring back").click()
    expect(entry).not_to_contain_text("struck out")

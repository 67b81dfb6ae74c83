"""The sheet at work: workings, settings, another's survey, no server, putting away, the trend, print."""

import re
from typing import Any

from playwright.sync_api import expect

from tests.browser.conftest import open_drive


def test_a_working_opens_the_working_of_its_inputs(open_as: Any) -> None:
    page = open_as("Rowan")
    open_drive(page, "Kiln exhaust fan")
    page.locator(".strip").get_by_role("button", name=re.compile("Set carries")).click()
    slip = page.get_by_role("dialog", name="Working")
    expect(slip.get_by_role("heading", name="power the set carries")).to_be_visible()
    for figure, formula in (("power one belt carries here", "HP K"), ("rated power of one belt", "K1 - K2/d")):
        slip.get_by_role("row", name=re.compile(figure)).get_by_role("button").click()
        expect(slip.get_by_role("heading", name=figure)).to_be_visible()
        expect(slip.locator(".formula")).to_contain_text(formula)
    expect(slip).to_contain_text("datum gives the lower, safer rating")
    expect(slip).to_contain_text("medium confidence")
    slip.get_by_role("button", name=re.compile("back to power one belt")).click()
    expect(slip.get_by_role("heading", name="power one belt carries here")).to_be_visible()


def test_the_persons_own_word_units_and_paper_stay(open_as: Any) -> None:
    page = open_as("Ines")
    page.get_by_role("button", name="Settings").click()
    for choice in ("pulley", "mm, N, kW", "dark"):
        page.get_by_text(choice, exact=True).click()
    page.keyboard.press("Escape")
    open_drive(page, "Bucket elevator 2")
    page.reload()
    expect(page.get_by_text("The driver pulley is below the smallest for section B").first).to_be_visible()
    expect(page.get_by_text("sheave")).to_have_count(0)
    expect(page.locator(".strip")).to_contain_text("kW")
    expect(page.locator("html")).to_have_class(re.compile("dark"))


def test_taking_theirs_after_a_clash(open_as: Any) -> None:
    first, second = open_as("Ines"), open_as("Marta")
    for page in (first, second):
        open_drive(page, "Roller mill")
    first.locator("#f-hours_per_day").fill("11")
    first.get_by_role("button", name="Keep this survey").click()
    expect(first.get_by_text(re.compile(r"Survey \d kept"))).to_be_visible()
    second.locator("#f-hours_per_day").fill("13")
    second.get_by_role("button", name="Keep this survey").click()
    second.get_by_role("button", name="Take all of theirs").click()
    expect(second.locator("#f-hours_per_day")).to_have_value("11")
    expect(second.get_by_text(re.compile("On the record since"))).to_be_visible()


def test_without_a_server_the_last_numbers_stand_and_typing_is_kept(open_as: Any) -> None:
    page = open_as("Ines")
    open_drive(page, "Dust-collector fan")
    expect(page.locator(".strip")).to_contain_text("rpm")
    before = page.locator(".strip").inner_text()
    page.route("**/api/calc/sheet", lambda route: route.abort())
    page.locator("#f-driver_diameter").fill("6 1/4")
    expect(page.get_by_text("No answer from the server: the numbers shown are the last ones")).to_be_visible()
    assert page.locator(".strip").inner_text() == before
    page.unroute("**/api/calc/sheet")
    page.get_by_role("button", name="Ask again").click()
    expect(page.get_by_text("No answer from the server")).to_have_count(0)
    expect(page.locator(".strip")).not_to_have_text(before)
    page.reload()
    expect(page.locator("#f-driver_diameter")).to_have_value("6 1/4")


def test_renaming_putting_away_and_bringing_back(open_as: Any) -> None:
    page = open_as("Ines")
    open_drive(page, "Yard sweeper")
    page.get_by_title("Names, place, part number, note").click()
    page.get_by_label("Where it stands").fill("Shed 2")
    page.get_by_role("button", name="Keep", exact=True).click()
    expect(page.get_by_text("· Shed 2")).to_be_visible()
    page.get_by_title("Names, place, part number, note").click()
    page.get_by_role("button", name="Archive this drive").click()
    page.get_by_role("button", name="Archive", exact=True).click()
    expect(page.get_by_text("archived", exact=True)).to_be_visible()
    page.get_by_role("link", name="Floor", exact=True).click()
    expect(page.locator("a.drive").filter(has_text="Yard sweeper")).to_have_count(0)
    page.get_by_role("button", name="Archived: 1").click()
    page.locator("a.drive").filter(has_text="Yard sweeper").click()
    page.get_by_title("Names, place, part number, note").click()
    page.get_by_role("button", name="Restore to the floor").click()
    expect(page.get_by_text("archived", exact=True)).to_have_count(0)


def test_the_trend_leads_to_its_readings_and_the_log_prints(open_as: Any) -> None:
    page = open_as("Rowan")
    open_drive(page, "Kiln exhaust fan", "Log")
    points = page.locator("figure").first.locator(".point")
    expect(points).to_have_count(7)
    expect(page.get_by_text("new set", exact=True)).to_be_visible()
    points.first.focus()
    page.keyboard.press("Enter")
    marked = page.locator(".entries .marked")
    expect(marked).to_contain_text("Squeals at start")
    expect(marked).to_be_in_viewport()
    page.emulate_media(media="print")
    expect(page.get_by_role("navigation")).to_have_count(0)
    expect(page.locator(".entries li").last).to_be_visible()


def test_new_belts_ask_for_more_than_run_in_ones(open_as: Any) -> None:
    page = open_as("Ines")
    open_drive(page, "Refrigeration compressor 1", "Tension")
    lowest = page.locator(".pair .value").first
    run_in = float(lowest.inner_text().split()[0])
    page.get_by_text("New belts", exact=True).click()
    expect(lowest).not_to_contain_text(f"{run_in}")
    assert float(lowest.inner_text().split()[0]) > run_in
    expect(page.locator("svg[role=img]").first).to_contain_text(lowest.inner_text().split()[0])


def test_a_survey_not_kept_must_be_kept_before_a_reading(open_as: Any) -> None:
    page = open_as("Ines")
    open_drive(page, "Grain auger")
    page.locator("#f-hours_per_day").fill("5")
    page.get_by_role("link", name="Tension").click()
    page.locator("#f-force_1").fill("6")
    expect(page.get_by_text("The survey has changes that are not kept")).to_be_visible()
    expect(page.get_by_role("button", name="Keep this reading")).to_be_disabled()


OLD_DRAFT = """([id, at]) => {
  const entry = (text, unit) => ({ text, unit, origin: null })
  const survey = {
    quantities: { driver_diameter: entry('7.7', 'in'), hours_per_day: entry('13', 'h'), travel_in: entry('1 1/4', 'in') },
    choices: { section: 'BX', belt: 'BX68', rotation: 'counter-clockwise' },
    toothed: { drive: { name: '80' } },
  }
  const form = { family: 'v-belt', survey, gauge: { forces: [] }, tachometer: {} }
  localStorage.setItem(`tuyere-draft-${id}`, JSON.stringify({ based_on: 1, at, form }))
}"""


def test_a_draft_of_before_surveys_had_stages_loses_nothing_typed(open_as: Any) -> None:
    page = open_as("Ines")
    open_drive(page, "Roller mill")
    address = page.url
    page.get_by_role("link", name="Back to the floor").click()
    expect(page.get_by_role("heading", name="Sallowfield Maltings")).to_be_visible()
    page.evaluate(OLD_DRAFT, [address.split("/")[-2], "2026-11-20T08:00:00Z"])
    page.goto(address)
    for field, text in (("driver_diameter", "7.7"), ("hours_per_day", "13"), ("travel_in", "1 1/4"), ("belt", "BX68")):
        expect(page.locator(f"#f-{field}")).to_have_value(text)
    expect(page.locator("#f-rotation")).to_have_value("counter-clockwise")
    expect(page.get_by_text("Not kept yet; on this device since")).to_be_visible()

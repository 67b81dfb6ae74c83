"""Size, through the interface.

A new hammer-mill drive chosen, a chain drive converted, a "why not" answered, a what-if made into a drive.
"""

import re
from typing import Any

from playwright.sync_api import Page, expect

from tests.browser.conftest import open_drive


def ask(page: Page, title: str) -> None:
    page.get_by_role("navigation", name="Questions").get_by_role("link", name=title).click()


def room(page: Page, low: str, high: str) -> None:
    page.locator("#f-centre_low").fill(low)
    page.locator("#f-centre_high").fill(high)


def test_a_new_hammer_mill_drive_is_sized_compared_and_proposed(open_as: Any) -> None:
    page = open_as("Ines")
    open_drive(page, "Hammer mill", "Size")
    expect(page.get_by_text("Not known yet:")).to_be_visible()
    ask(page, "Options")
    expect(page.get_by_text("Still to say: the room for the centres")).to_be_visible()
    room(page, "26 in", "24 in")
    expect(page.get_by_text("The far end of the room is nearer than the near end: swap them.")).to_be_visible()
    room(page, "26 in", "30 in")
    expect(page.get_by_role("heading", name=re.compile(r"[\d,]+ would do"))).to_be_visible()
    drives = page.locator("[data-drive]")
    expect(drives.first).to_be_visible()
    before = page.get_by_role("heading", name=re.compile("would do")).inner_text()
    page.get_by_text("Shafts and motor").click()
    page.locator("#f-frame").select_option("286T")
    page.locator("#f-driven_shaft").fill("2 1/8")
    expect(page.get_by_text("too hard on the motor's shaft")).to_be_visible()
    expect(page.get_by_role("heading", name=re.compile("would do"))).not_to_have_text(before)
    # The list and the plot are one: a drive picked in the list stands ringed on the plot, drawn to scale, with its parts.
    drives.first.get_by_role("button", pressed=False).first.click()
    slip = page.get_by_role("region", name=re.compile("5VX|CX|BX|5V|XP"))
    expect(slip.get_by_text("power the set carries")).to_be_visible()
    expect(slip.get_by_text(re.compile("grooves$")).first).to_be_visible()
    expect(page.locator(".dot.chosen")).to_have_count(1)
    slip.get_by_role("button", name=re.compile("power the set carries|capacity")).first.click()
    expect(page.get_by_role("dialog").get_by_text("power one belt carries here")).to_be_visible()
    page.keyboard.press("Escape")
    for n in (0, 8):
        drives.nth(n).get_by_role("button", name="side by side").click()
    page.get_by_role("button", name="Compare the 2 side by side").click()
    expect(page.get_by_role("img", name=re.compile("Drawn to one scale"))).to_be_visible()
    beside = page.get_by_role("table", name="Side by side")
    expect(beside.get_by_role("columnheader")).to_have_count(2)
    expect(beside.get_by_role("row", name=re.compile("tight strand in a jolt"))).to_be_visible()
    page.go_back()
    expect(slip).to_be_visible()
    # Turned over on the bench, the question goes along; the drive's own page is as it was.
    page.get_by_role("button", name="Turn it over on the bench").click()
    expect(page.locator("#f-power")).to_have_value("30.0 hp")
    expect(page.locator("[data-drive]").first).to_be_visible()
    page.go_back()
    slip.get_by_role("button", name="Propose it").click()
    expect(page.get_by_text("Proposed, with its parts")).to_be_visible()
    page.get_by_role("link", name=re.compile("Log")).click()
    expect(page.get_by_text(re.compile("Proposal, not fitted")).first).to_be_visible()


def test_a_chain_drive_is_converted_and_a_why_not_is_answered(open_as: Any) -> None:
    page = open_as("Ines")
    open_drive(page, "Drag-chain conveyor", "Size")
    expect(page.get_by_role("heading", name=re.compile("It will carry it, with"))).to_be_visible()
    expect(page.get_by_role("heading", name="Oil it by hand or by drip")).to_be_visible()
    ask(page, "Options")
    page.get_by_text("Belts and wheels").click()
    for family in ("roller chain", "V-belt", "flat belt"):
        page.get_by_role("group", name="Kinds of drive").get_by_text(family, exact=True).click()
    expect(page.locator("[data-drive]").filter(has_text="chain")).to_have_count(0)
    page.locator("[data-drive] .pick").filter(has_text="AT20").first.click()
    slip = page.get_by_role("region", name=re.compile("AT20"))
    expect(slip.get_by_text("Ask its maker before you rely on it")).to_be_visible()
    expect(slip.get_by_text("No more oil")).to_be_visible()
    page.get_by_text("Changing one kind for another").click()
    page.locator("#f-price_kwh").fill("0.20")
    expect(slip.get_by_text(re.compile(r"Saves about \d+ kWh a year"))).to_be_visible()
    expect(slip.get_by_text("by your price")).to_be_visible()
    slip.get_by_role("button", name="Write it into the survey").click()
    expect(page.get_by_role("alert")).to_contain_text("This drive is surveyed as roller chain; that one is synchronous.")
    slip.get_by_role("button", name="Propose it").click()
    expect(page.get_by_text("Proposed, with its parts")).to_be_visible()
    ask(page, "As fitted")
    page.get_by_role("button", name="It is fitted now").click()
    page.get_by_role("button", name="Not yet").click()
    ask(page, "Why not?")
    page.locator("#f-kind").select_option("H8M")
    expect(page.get_by_role("heading", name=re.compile("demands? kills? it"))).to_be_visible()
    expect(page.get_by_text("Does not carry the power")).to_be_visible()
    expect(page.get_by_text(re.compile(r"the design power is 5\.\d+ hp .*: \d+% short"))).to_be_visible()
    page.locator("#f-why_driver").select_option("0")
    expect(page.get_by_text(re.compile("Driven speed off by more than you allow"))).to_be_visible()
    page.reload()
    expect(page.locator("#f-kind")).to_have_value("H8M")


def test_what_if_on_the_bench_kept_opened_and_made_a_drive(open_as: Any, address: str) -> None:
    page = open_as("Ines")
    page.goto(f"{address}/bench/size")
    expect(page.get_by_text("the driver's power; the driver's speed")).to_be_visible()
    for key, text in {"power": "3 hp", "driver_speed": "1750", "driven_speed": "700"}.items():
        page.locator(f"#f-{key}").fill(text)
    page.locator("#f-driven_class").select_option("light")
    room(page, "2 in", "3 in")
    expect(page.get_by_text("What relaxing each limit would allow")).to_have_count(0)
    room(page, "18 in", "22 in")
    expect(page.get_by_role("heading", name=re.compile(r"[\d,]+ would do"))).to_be_visible()
    page.get_by_role("button", name="Keep", exact=True).click()
    expect(page.get_by_text("Give it a name of up to 120 letters")).to_be_visible()
    page.locator("#what-if-name").fill("cooler, slower")
    page.get_by_role("button", name="Keep", exact=True).click()
    expect(page.get_by_text("Kept as “cooler, slower”.")).to_be_visible()
    page.get_by_role("button", name="Blank").click()
    page.get_by_role("button", name="Start blank").click()
    expect(page.locator("#f-power")).to_have_value("")
    page.get_by_role("button", name=re.compile("^cooler, slower")).click()
    expect(page.locator("#f-power")).to_have_value("3 hp")
    page.locator("[data-drive] .pick").first.click()
    page.get_by_role("button", name="Make it a drive").click()
    page.get_by_label("On which machine").fill("Grain cooler")
    page.get_by_label("The drive", exact=True).fill("Fan drive")
    page.get_by_role("button", name="Make it", exact=True).click()
    expect(page).to_have_url(re.compile(r"/drives/[0-9a-f-]+/log"))
    expect(page.get_by_text("Proposal, not fitted").first).to_be_visible()
    page.goto(f"{address}/bench/size")
    page.get_by_role("button", name="Archive cooler, slower").click()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("button", name=re.compile("^cooler, slower"))).to_be_visible()


def test_size_on_a_phone_and_what_the_pull_does_to_a_shaft(open_as: Any) -> None:
    page = open_as("Ines", width=390, height=844, touch=True)
    open_drive(page, "Kiln exhaust fan", "Size")
    ask(page, "Shafts")
    page.locator("#f-shaft_frame").select_option("326T")
    expect(page.get_by_role("heading", name=re.compile("The sheave is (large enough|too small) for frame 326T"))).to_be_visible()
    for key, text in {"overhang": "4 1/2", "bearing_span": "14", "shaft": "2 1/8", "bearing_rating": "55 kN"}.items():
        page.locator(f"#f-{key}").fill(text)
    expect(page.get_by_text("near bearing’s life")).to_be_visible()
    page.locator("#f-bearing").select_option("bushing")
    expect(page.get_by_role("heading", name="Measure the shaft and the bushing's length")).to_be_visible()
    page.locator("#f-bushing_length").fill("3")
    expect(page.get_by_role("heading", name=re.compile(r"The bushing works at \d+% of its limit: .* governs"))).to_be_visible()
    ask(page, "Options")
    expect(page.locator("[data-drive]").first).to_be_visible()
    wide = page.evaluate("document.documentElement.scrollWidth")
    assert wide <= 390, f"the page is {wide} px wide"


def test_a_stage_of_a_train_is_chosen_for_and_written_into_the_layout(open_as: Any) -> None:
    page = open_as("Ines")
    open_drive(page, "Intake bucket elevator", "Size")
    ask(page, "Options")
    page.get_by_role("radiogroup", name="Stage").get_by_text("jackshaft sprocket to head shaft").click()
    expect(page.get_by_text("survey 110 rpm")).to_be_visible()
    page.locator("[data-drive] .pick").filter(has_text="10B chain").first.click()
    slip = page.get_by_role("region", name=re.compile("10B chain"))
    slip.get_by_role("button", name="Write it into the survey").click()
    expect(page.get_by_text(re.compile("In the survey, not kept yet"))).to_be_in_viewport()
    # What the shaft of the second stage's driver carries is not one belt's pull alone, and it is no motor's.
    ask(page, "Shafts")
    expect(page.get_by_role("heading", name=re.compile("More than this belt pulls on this shaft"))).to_be_visible()
    expect(page.get_by_label("Electric motor")).to_have_count(0)
    ask(page, "As fitted")
    second = page.get_by_role("region", name="Stage 2")
    expect(second.get_by_text(re.compile("10B, 17[02] pitches"))).to_be_visible()
    second.get_by_text("Try another wheel in this stage").click()
    expect(second.get_by_label("head shaft, teeth")).to_have_value("114")

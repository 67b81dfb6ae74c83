"""Retake the pictures in docs/screenshots from a running demo plant:

.venv/bin/python docs/take_screenshots.py [http://127.0.0.1:8640]
"""

import os
import shutil
import sys
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

HERE = Path(__file__).parent / "screenshots"
FLAGS = ["--no-sandbox", "--disable-gpu", "--disable-background-networking"]


def shot(page: Page, name: str) -> None:
    page.wait_for_timeout(500)
    page.screenshot(path=HERE / f"{name}.png")


def open_drive(page: Page, address: str, machine: str, station: str) -> None:
    page.goto(f"{address}/floor")
    page.locator("a.drive").filter(has_text=machine).click()
    page.get_by_role("navigation", name="Stations").get_by_role("link", name=station).click()
    page.wait_for_selector("svg[role=img] .belt")


def gauge(page: Page, forces: list[str]) -> None:
    for number, force in enumerate(forces, 1):
        page.locator(f"#f-force_{number}").fill(force)
    page.wait_for_timeout(300)
    page.locator("[data-panel]").evaluate("panel => panel.scrollTo(0, 0)")


def which_belt(page: Page, address: str) -> None:
    open_drive(page, address, "Barley screener", "Survey")
    page.get_by_role("link", name="Which belt?").click()
    page.locator("#f-top_width").fill("12.6 mm")
    page.locator("#f-thickness").fill("9.9 mm")
    page.locator("#f-construction").select_option("wrapped")
    page.locator("#f-outside_length").fill("1876 mm")
    page.wait_for_timeout(400)
    page.locator("[data-panel]").first.evaluate("panel => panel.scrollTo(0, 0)")


def size(page: Page, address: str) -> None:
    page.goto(f"{address}/floor")
    page.locator("a.drive").filter(has_text="Hammer mill").click()
    page.get_by_role("navigation", name="Stations").get_by_role("link", name="Size").click()
    page.get_by_role("link", name="Options").click()
    page.locator("#f-centre_low").fill("26 in")
    page.locator("#f-centre_high").fill("30 in")
    page.wait_for_selector("[data-drive]")
    page.wait_for_timeout(600)
    page.locator("[data-drive] .pick").first.click()
    page.wait_for_selector(".slip")
    shot(page, "size")


def align(page: Page, address: str) -> None:
    page.goto(f"{address}/floor")
    page.locator("a.drive").filter(has_text="Refrigeration compressor 1").click()
    page.get_by_role("navigation", name="Stations").get_by_role("link", name="Align").click()
    page.get_by_role("button", name="Another reading").click()
    for point, said in (("gap_1", "0"), ("gap_2", "0.8 mm"), ("gap_3", "2.2 mm"), ("gap_4", "0")):
        page.locator(f"#f-r1_{point}").fill(said)
    page.locator("#f-r2_top").fill("-1.9 mm")
    page.locator("#f-r2_bottom").fill("0.4 mm")
    page.locator("#f-r1_gap_1").focus()
    page.wait_for_timeout(500)
    page.locator("[data-panel]").evaluate("panel => panel.scrollTo(0, 0)")
    shot(page, "align")
    open_drive(page, address, "Kiln exhaust fan", "Survey")
    page.get_by_role("navigation", name="Stations").get_by_role("link", name="Inspect").click()
    for place, sign in (("On the belt", "worn on one side only"), ("What was before", "after another fails far too early")):
        page.locator(".spot").filter(has_text=place).click()
        page.locator(".signs button").filter(has_text=sign).click()
    page.wait_for_selector(".causes li")
    shot(page, "inspect")
    open_drive(page, address, "Kiln exhaust fan", "Survey")
    page.get_by_role("navigation", name="Stations").get_by_role("link", name="Inspect").click()
    page.get_by_role("navigation", name="Questions").get_by_role("link", name="How worn").click()
    page.locator(".wear li button").first.click()
    page.wait_for_selector("svg[role=img] .fan")
    shot(page, "wear")


def desk(page: Page, address: str) -> None:
    open_drive(page, address, "Kiln exhaust fan", "Survey")
    shot(page, "survey")
    open_drive(page, address, "Steep-water pump", "Speed")
    page.locator("#f-tach_driver").fill("1762")
    page.locator("#f-tach_driven").fill("1268")
    shot(page, "speed")
    open_drive(page, address, "Kiln exhaust fan", "Survey")
    page.get_by_role("navigation", name="Stations").get_by_role("link", name="Speed").click()
    page.get_by_role("navigation", name="Questions").get_by_role("link", name="The machine").click()
    page.locator("#f-new_speed").fill("720")
    shot(page, "the-machine")
    size(page, address)
    open_drive(page, address, "Kiln exhaust fan", "Tension")
    gauge(page, ["6.3", "5.9", "6.5", "6.1", "6.2"])
    shot(page, "tension")
    page.goto(f"{address}/floor")
    page.locator("aside a").filter(has_text="Change a belt or set").click()
    page.get_by_role("navigation", name="Steps").get_by_role("button", name="Gauge every belt at mid-span").first.click()
    page.wait_for_selector(".number")
    shot(page, "job")
    align(page, address)
    open_drive(page, address, "Kiln exhaust fan", "Log")
    page.wait_for_selector(".entries li")
    shot(page, "log")
    which_belt(page, address)
    shot(page, "which-belt")
    page.goto(f"{address}/floor")
    page.locator("a.drive").filter(has_text="Yard sweeper").click()
    page.get_by_role("link", name="Many wheels").click()
    page.wait_for_selector("svg[role=img] .belt")
    shot(page, "many-wheels")
    page.goto(f"{address}/floor")
    page.locator("a.drive").filter(has_text="Drag-chain conveyor").click()
    page.wait_for_selector("svg[role=img] .rim")
    shot(page, "chain")
    page.goto(f"{address}/bench/tables/v_grooves?find=5V")
    page.wait_for_selector("tbody")
    shot(page, "tables")
    page.goto(f"{address}/bench/lists")
    page.wait_for_selector(".wheel")
    shot(page, "own-lists")


def main(address: str) -> None:
    HERE.mkdir(exist_ok=True)
    chromium = os.environ.get("TUYERE_CHROMIUM") or shutil.which("chromium-headless-shell") or shutil.which("chromium")
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=chromium, args=FLAGS)
        for width, height, touch in ((1280, 800, False), (390, 844, True)):
            context = browser.new_context(
                viewport={"width": width, "height": height}, color_scheme="light", has_touch=touch, is_mobile=touch
            )  # type: ignore[arg-type]
            page = context.new_page()
            page.goto(address)
            page.wait_for_selector(".person")
            page.get_by_role("button", name="Tobias").click()
            page.wait_for_selector("a.drive")
            if touch:
                open_drive(page, address, "Steep-water pump", "Tension")
                gauge(page, ["4.0", "3.9"])
                shot(page, "phone-tension")
                page.get_by_role("button", name="Saw something").click()
                shot(page, "phone-saw-something")
            else:
                shot(page, "floor")
                open_drive(page, address, "Yard sweeper", "Tension")
                page.locator(".open .now").click()
                shot(page, "open")
                desk(page, address)
            context.close()
        browser.close()


if __name__ == "__main__":
    main(sys.argv[1] if len(sys.argv) > 1 else "http://127.0.0.1:8640")

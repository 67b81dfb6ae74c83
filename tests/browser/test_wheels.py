"""A drive on many wheels, measured by tape only, on the real interface."""

import math
import re
from typing import Any

from playwright.sync_api import Page, expect

from tests.browser.conftest import open_drive
from tests.browser.test_find import ask

# An invented seven-wheel brush deck: name, role, diameter and the true centres (in), which only the tapes below tell the tool.
DECK = [
    ("engine", "driver", "5", 0.0, 0.0),
    ("tensioner", "idler", "3 1/2", -10.0, 0.7),
    ("left rotor", "driven", "6", -20.0, 8.0),
    ("upper guide", "idler", "3", -10.4, 16.6),
    ("centre rotor", "driven", "6", 0.0, 18.0),
    ("right rotor", "driven", "6", 20.0, 8.0),
    ("right guide", "idler", "3 1/2", 10.0, 0.5),
]


def sixteenths(inches: float) -> str:
    return f"{round(inches * 16) // 16} {round(inches * 16) % 16}/16"


def enter(page: Page) -> None:
    page.locator("#f-section").select_option("HB")
    page.locator("#f-rotation").select_option("clockwise")
    for k, (name, role, diameter, *_) in enumerate(DECK, 1):
        page.get_by_role("button", name={"driver": "Add the driver", "driven": "Add a driven wheel", "idler": "Add an idler"}[role]).click()
        page.get_by_label(f"Name of wheel {k}").fill(name)
        page.locator(f"#f-wheel_{k}_diameter").fill(f"{diameter} in")
    number = 0
    for k in range(2, len(DECK) + 1):
        for a in range(max(1, k - 3), k):
            number += 1
            page.locator(f"#f-tape_{number}").fill(sixteenths(math.dist(DECK[a - 1][3:], DECK[k - 1][3:])) + " in")
    page.get_by_text("Add an idler").first.focus()


def new_drive(page: Page, machine: str) -> None:
    page.get_by_role("button", name="New drive").click()
    page.get_by_placeholder("as painted on it").fill(machine)
    page.get_by_placeholder("main drive, supply fan drive…").fill("Deck")
    page.get_by_role("button", name="Keep, and go to its survey").click()
    expect(page.get_by_role("heading", name=machine)).to_be_visible()


def test_a_seven_wheel_deck_by_tape_only(open_as: Any) -> None:
    page = open_as("Ines")
    new_drive(page, "Spare sweeper")
    ask(page, "Many wheels")
    enter(page)
    expect(page.get_by_text(re.compile("It would run in the mirror image"))).to_be_visible()
    page.get_by_text("it looks the other way round").click()
    drawing = page.get_by_role("img", name=re.compile("1 engine, driver, belt on its inside, turns clockwise, wrap"))
    expect(drawing).to_have_accessible_name(re.compile("2 tensioner, idler, belt on its back, turns counter-clockwise"))
    expect(page.get_by_text("belt line 105.7 in")).to_be_visible()
    expect(page.get_by_role("heading", name="The tapes agree with each other")).to_be_visible()
    page.locator("fieldset.wheel").nth(1).get_by_text("Power, turning, shaft, how it takes up").click()
    page.locator("#f-wheel_2_moves").select_option("line")
    page.locator("#f-wheel_2_tighten").fill("1 in")
    page.locator("#f-wheel_2_slacken").fill("3/4 in")
    expect(page.get_by_role("heading", name="tensioner sits on the slack side")).to_be_visible()
    page.get_by_role("button", name="Run").click()
    expect(page.get_by_role("button", name="Stand still")).to_be_visible()
    page.get_by_role("button", name="Keep this survey").click()
    expect(page.get_by_text(re.compile(r"Survey \d kept"))).to_be_visible()
    page.reload()
    expect(page.get_by_text("belt line 105.7 in")).to_be_visible()
    labels = page.locator("svg[role=img] rect.ground").evaluate_all(
        "found => found.map(r => { const b = r.getBoundingClientRect(); return [b.x, b.y, b.right, b.bottom] })"
    )
    assert len(labels) >= 7
    for i, a in enumerate(labels):
        for b in labels[i + 1 :]:
            assert not (a[0] < b[2] and b[0] < a[2] and a[1] < b[3] and b[1] < a[3]), (a, b)


def test_wrong_routing_and_a_bad_tape_are_caught_and_undone(open_as: Any) -> None:
    page = open_as("Ines")
    open_drive(page, "Yard sweeper")
    ask(page, "Many wheels")
    expect(page.get_by_text("belt line 114.8 in")).to_be_visible()
    page.locator("#f-wheel_5_contact").select_option("back")
    expect(page.get_by_text("The taut belt does not reach centre rotor")).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_text("belt line 114.8 in")).to_be_visible()
    page.locator("#f-wheel_4_contact").select_option("inside")
    expect(page.get_by_role("heading", name="upper guide: a flat idler on the groove side")).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_text("belt line 114.8 in")).to_be_visible()
    page.locator("#f-wheel_4_face").select_option("grooved")
    expect(page.get_by_role("heading", name="upper guide: a grooved idler on the belt's back")).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    page.locator("#f-tape_6").fill("19 in")
    expect(page.get_by_role("heading", name=re.compile("One tape does not close"))).to_be_visible()
    page.locator("#f-tape_6").fill("a lot")
    expect(page.locator("#d-tape_6 .problem")).to_be_visible()
    expect(page.locator("#f-tape_6")).to_have_value("a lot")


def test_a_keeper_on_the_wrong_side_is_refused_and_a_missing_one_is_a_finding(open_as: Any) -> None:
    page = open_as("Ines")
    open_drive(page, "Yard sweeper")
    ask(page, "Many wheels")
    expect(page.get_by_role("heading", name="engine finger is right")).to_be_visible()
    # Two tapes put it between the belt and the wheels: the belt shows it its inside.
    page.locator("#f-keeper_1_tape_b").fill("20 in")
    page.locator("#f-keeper_1_tape_a").fill("2 in")
    stop = page.get_by_role("heading", name="The belt runs on the wrong side of engine finger")
    expect(stop).to_be_visible()
    expect(page.locator("svg text", has_text="engine finger, wrong side")).to_be_visible()
    page.locator(".standing").click()
    page.get_by_role("option", name="As left: parts changed").click()
    page.get_by_role("button", name="Keep this survey").click()
    expect(page.get_by_text("A drive is not left so. The belt runs on the wrong side of engine finger")).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("heading", name="engine finger is right")).to_be_visible()
    page.locator("#f-keeper_1_state").select_option("missing")
    page.locator("#f-keeper_2_state").select_option("in place")
    page.locator(".standing").click()
    page.get_by_role("option", name="As found").click()
    page.get_by_role("button", name="Keep this survey").click()
    expect(page.get_by_text(re.compile(r"Survey \d kept"))).to_be_visible()
    page.get_by_role("link", name="Log").click()
    expect(page.get_by_text("Belt keeper engine finger: missing. Replace it before the machine runs.").first).to_be_visible()


def test_a_jackshaft_drive_from_the_motor_to_the_mill(open_as: Any) -> None:
    """Speeds through both stages: 1750 x 5/12 x 6/13.95 by pitch diameters, the outside ones of a standard B groove (IP-20)."""
    page = open_as("Tobias")
    new_drive(page, "Spare mill")
    ask(page, "Many wheels")
    page.locator("#f-section").select_option("B")
    page.locator("#f-driver_speed").fill("1750 rpm")
    for role, diameter in (("Add the driver", "5"), ("Add a driven wheel", "12")):
        page.get_by_role("button", name=role).click()
        page.locator("#f-wheel_1_diameter, #f-wheel_2_diameter").last.fill(f"{diameter} in")
    page.get_by_role("button", name="Add a stage").click()
    page.locator("#f-belt_2_section").select_option("B")
    expect(page.locator("#f-wheel_3_shaft")).to_have_value("2")
    page.locator("#f-wheel_3_diameter").fill("6 in")
    page.get_by_role("button", name="Add a driven wheel").click()
    page.locator("#f-wheel_4_diameter").fill("13.95 in")
    page.get_by_label("Name of wheel 4").fill("mill")
    page.locator("#f-wheel_4_power").fill("10 hp")
    for tape, inches in ((1, 24), (2, 40), (3, 30)):
        page.locator(f"#f-tape_{tape}").fill(f"{inches} in")
    expect(page.get_by_text("belt 2 line")).to_be_visible()
    expect(
        page.get_by_role("img", name=re.compile(r"4 mill, driven, belt on its inside, turns clockwise, wrap \d+°, 314 rpm"))
    ).to_be_visible()
    shaft = page.locator("table.shafts tr")
    expect(shaft).to_have_text(re.compile(r"driven 2 \+ driven 2, belt 2.*729 rpm.*the belts pull it with \d+"))
    expect(page.get_by_role("heading", name=re.compile("Belt 1: Overloaded, driver slips first"))).to_be_visible()
    page.get_by_role("button", name="Keep this survey").click()
    expect(page.get_by_text(re.compile(r"Survey \d kept"))).to_be_visible()
    page.reload()
    expect(page.get_by_text("belt 2 line")).to_be_visible()
    page.get_by_role("button", name="Take belt 2 out, with its wheels").click()
    expect(page.get_by_text("belt 2 line")).to_be_hidden()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_text("belt 2 line")).to_be_visible()
    # A chain in place of the second belt: its sprockets are counted, and turn by their teeth: 729 x 17/51.
    page.locator("#f-belt_2_kind").select_option("roller chain")
    page.locator("#f-belt_2_name").select_option("60")
    for wheel, teeth in ((3, "17"), (4, "51")):
        page.locator(f"#f-wheel_{wheel}_teeth").fill(teeth)
    mill = re.compile(r"4 mill, driven, chain on its inside, turns clockwise, wrap \d+°, 243 rpm")
    expect(page.get_by_role("img", name=mill)).to_be_visible()
    page.get_by_role("button", name="Keep this survey").click()
    expect(page.get_by_text(re.compile(r"Survey \d kept"))).to_be_visible()
    page.reload()
    expect(page.get_by_role("img", name=mill)).to_be_visible()
    station(page, "Size")
    expect(
        page.get_by_role("region", name="Stage 2").get_by_role("row", name=re.compile(r"^mill 10.3 hp 10.0 hp at its shaft \d+°"))
    ).to_be_visible()


def test_dragging_keeps_what_was_taped(open_as: Any) -> None:
    page = open_as("Ines")
    new_drive(page, "Spare sorter")
    ask(page, "Many wheels")
    page.locator("#f-section").select_option("B")
    page.get_by_text("by hand on the drawing").click()
    for role in ("Add the driver", "Add a driven wheel", "Add a driven wheel"):
        page.get_by_role("button", name=role).click()
    for k in (1, 2, 3):
        page.locator(f"#f-wheel_{k}_diameter").fill("5 in")
    page.locator("#f-tape_1").fill("20 in")
    wheel = page.get_by_role("button", name=re.compile("driven 2: arrows move it"))
    expect(wheel).to_be_visible()
    line = page.locator(".board .length")
    expect(line).to_contain_text("belt line")

    def lengths() -> str:
        """The text once the answers to the last movements are in."""
        page.wait_for_function("!document.querySelector('.board .ghost')")
        page.wait_for_function(
            "() => { const now = document.querySelector('.board .length').innerText; const same = window.was === now; window.was = now; "
            "return same }",
            polling=300,
        )
        return line.inner_text()

    before = lengths()
    third = page.get_by_role("button", name=re.compile("driven 3: arrows move it"))
    box = third.bounding_box()
    assert box
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.mouse.down()
    page.mouse.move(box["x"] + box["width"] / 2 - 60, box["y"] + 150, steps=6)
    page.mouse.up()
    expect(line).not_to_have_text(before)
    moved = lengths()
    wheel.focus()
    for _ in range(12):
        page.keyboard.press("ArrowUp")
    page.keyboard.press("Enter")
    expect(line).not_to_have_text(moved)
    centres = page.locator(".board .wheel .rim").evaluate_all(
        "rims => rims.map(r => [Number(r.getAttribute('cx')), Number(r.getAttribute('cy')), Number(r.getAttribute('r'))])"
    )
    # Twenty inches between the first two, at the scale of a five-inch rim, wherever they were dragged.
    reach = min(abs(math.dist(a[:2], b[:2]) / (2 * a[2] / 5) - 20) for i, a in enumerate(centres) for b in centres[i + 1 :])
    assert reach < 0.05
    page.get_by_role("button", name="Undo").click()
    expect(line).to_have_text(moved)


def test_many_wheels_on_a_phone(open_as: Any) -> None:
    page = open_as("Rowan", 390, 844, touch=True)
    open_drive(page, "Yard sweeper")
    ask(page, "Many wheels")
    expect(page.get_by_text("belt line 114.8 in")).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    frame = page.locator(".board .frame").bounding_box()
    assert frame and frame["height"] >= 140


def test_a_clash_over_the_layout_is_said_and_settled(open_as: Any) -> None:
    first, second = open_as("Ines"), open_as("Marta")
    for page in (first, second):
        open_drive(page, "Yard sweeper")
        ask(page, "Many wheels")
        expect(page.get_by_text(re.compile("belt line"))).to_be_visible()
    for page, name in ((first, "reel"), (second, "drum")):
        page.get_by_label("Name of wheel 6").fill(name)
    keep = "Keep this survey"
    first.get_by_role("button", name=keep).click()
    expect(first.get_by_text(re.compile(r"Survey \d kept"))).to_be_visible()
    second.get_by_role("button", name=keep).click()
    second.get_by_role("button", name="Take all of theirs").click()
    expect(second.get_by_label("Name of wheel 6")).to_have_value("reel")


def station(page: Page, name: str) -> None:
    tab = page.get_by_role("navigation", name="Stations").get_by_role("link", name=name)
    tab.click()
    expect(tab).to_have_attribute("aria-current", "step")


def test_a_deck_and_a_train_are_known_at_every_station(open_as: Any) -> None:
    page = open_as("Ines")
    open_drive(page, "Yard sweeper", "Speed")
    for rotor in ("left rotor", "centre rotor", "right rotor"):
        expect(page.get_by_role("row", name=re.compile(f"^{rotor} 3200 rpm 1.000"))).to_be_visible()
    expect(page.locator(".strip")).to_contain_text("3200")
    station(page, "Size")
    expect(page.get_by_role("row", name=re.compile("^left rotor 1.26 hp"))).to_be_visible()
    expect(page.get_by_text("Engineering estimate", exact=False).first).to_be_visible()
    station(page, "Tension")
    expect(page.get_by_text("slips first at the engine")).to_be_visible()
    page.get_by_text("What it pulls its shafts with").click()
    expect(page.get_by_role("row", name=re.compile(r"^right rotor \d+\.\d lbf"))).to_be_visible()
    page.goto("/floor")
    open_drive(page, "Dust pellet press", "Speed")
    expect(page.get_by_role("row", name=re.compile("^die 366 rpm 4.812"))).to_be_visible()
    page.locator("#f-tach_driver").fill("1760 rpm")
    page.locator("#f-tach_driven").fill("354 rpm")
    expect(page.get_by_role("heading", name=re.compile("Slip 3.2 ?%.*as it should be"))).to_be_visible()
    page.get_by_role("button", name="Keep these speeds").click()
    expect(page.get_by_text(re.compile("Kept. Slip 3.2"))).to_be_visible()
    station(page, "Size")
    expect(page.get_by_role("row", name=re.compile("^die 13.7 hp 13.0 hp at its shaft"))).to_be_visible()
    second = page.get_by_role("region", name="Stage 2")
    second.get_by_text("Try another wheel in this stage").click()
    second.get_by_role("textbox", name="die, outside").fill("18")
    expect(page.locator(".strip")).not_to_contain_text("4.812")
    expect(page.locator(".strip")).to_contain_text("4.2")
    expect(page.get_by_role("button", name="Keep this survey")).to_be_enabled()
    second.get_by_role("textbox", name="die, outside").fill("many")
    expect(second.locator(".problem")).to_be_visible()
    second.get_by_role("textbox", name="die, outside").fill("20.4")
    expect(page.locator(".strip")).to_contain_text("4.812")
    station(page, "Tension")
    page.get_by_text("What it pulls its shafts with").click()
    expect(page.get_by_text(re.compile("jackshaft, large and jackshaft, small:"))).to_be_visible()

"""What runs, seen in every header; stopped there; found again after a reload; flags and tools."""

import pytest

from solids import DATA

pytestmark = pytest.mark.browser


def test_what_runs_is_seen_on_every_page_stopped_and_found_again(server, bench, page):
    bench.bring_in(server, DATA / "bunny.ply")
    address = page.url
    bench.go("Reshape")
    page.locator('[data-do="find-small"]').click()
    page.wait_for_function(
        "() => document.querySelector('[data-work-text]').innerText.startsWith('Small changes')"
    )
    assert "Small changes to Bunny" in page.locator("[data-work-text]").inner_text()
    # On another page too, from where one gets back.
    page.goto(f"{server.url}/workshop/")
    page.wait_for_selector("[data-work-line]:visible")
    page.locator("[data-work-details] summary").click()
    link = page.locator(".work-row", has_text="Small changes to Bunny").locator("a")
    assert address.endswith(link.get_attribute("href"))
    link.click()
    bench.ready()
    # After a reload the page follows what runs instead of offering it again.
    bench.go("Reshape")
    page.wait_for_selector('[data-do="cancel-small"]:visible')
    assert page.locator('[data-do="find-small"]').is_hidden()
    page.locator("[data-work-stop]").click()
    page.wait_for_selector('[data-do="find-small"]:visible')
    page.wait_for_function(
        "() => !document.querySelector('[data-work-text]').innerText.includes('Small changes')"
        " || document.querySelector('[data-work-line]').hidden"
    )


def test_a_flag_lets_the_tool_in_hand_have_the_click(server, bench, page):
    bench.bring_in(server, DATA / "bunny.ply")
    bench.settled()
    pin = page.locator("[data-pin]:visible").first
    box = pin.bounding_box()
    at = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2

    def hit():
        return page.evaluate("([x, y]) => document.elementFromPoint(x, y).tagName", list(at))

    assert hit() == "BUTTON"
    bench.go("Prop")
    bench.settled()
    assert hit() == "CANVAS"
    page.keyboard.press("Escape")
    bench.go("Inspect")
    assert hit() == "BUTTON"


def test_a_change_that_takes_long_shows_how_far_it_is_and_can_be_stopped(server, bench, page):
    """Scaling after a change of shape makes it anew: beyond a moment that is work with progress."""
    bench.bring_in(server, DATA / "bunny.ply")
    bench.go("Reshape")
    page.locator('[data-change="hollow"]').click()
    page.wait_for_selector('[data-do="take-change"]:not([disabled])')
    bench.do("take-change")
    page.wait_for_selector("[data-made-change]")
    bench.settled()
    revision = page.evaluate("() => document.querySelector('[data-made-change]') !== null")
    assert revision
    bench.go("Turn")
    seen = []
    page.expose_function("noteMaking", lambda text: seen.append(text))
    page.evaluate(
        """() => window.addEventListener("making", (e) => e.detail && noteMaking(e.detail.stage))"""
    )
    bench.fill("scale-x", 1.13)
    bench.settled()
    assert bench.field("scale-x") == pytest.approx(1.13)
    assert any("change" in text or "turn" in text for text in seen)

"""Prop as a maker works: propose and take, choose several, join, set out, insist."""

import pytest

from printability.mesh import binary_stl
from solids import table

pytestmark = pytest.mark.browser

LIST = "document.querySelector('[data-model]').view.supports.list"


@pytest.fixture(scope="module")
def table_file(tmp_path_factory):
    path = tmp_path_factory.mktemp("models") / "propped table.stl"
    path.write_bytes(binary_stl(table(), "table"))
    return path


def _list(page):
    return page.evaluate(f"{LIST}.map((s) => [s.kind, s.fit])")


def test_proposed_supports_are_seen_left_out_taken_undone_and_kept(server, bench, page, table_file):
    bench.bring_in(server, table_file)
    bench.go("Prop")
    bench.look("below")
    bench.do("propose")
    page.wait_for_selector('[data-do="take-proposal"]:visible', timeout=90_000)
    told = page.locator('[data-part="proposal"]').inner_text()
    assert "plain grid supports" in told
    proposed = page.locator('[data-part="proposal"] input[type=checkbox]').count()
    assert proposed > 3
    assert _list(page) == []
    # The last one is not wanted: whatever rests on it would go too, so a branch is taken.
    page.locator('[data-part="proposal"] input[type=checkbox]').last.click()
    bench.do("take-proposal")
    taken = len(_list(page))
    assert 0 < taken < proposed
    assert {fit for _, fit in _list(page)} == {"stands"}
    page.keyboard.press("Control+z")
    bench.settled()
    assert _list(page) == []
    page.keyboard.press("Control+Shift+z")
    bench.settled()
    page.reload()
    bench.ready()
    assert len(_list(page)) == taken
    # What they hold is washed over the underside.
    bench.go("Prop")
    page.wait_for_function(
        "() => document.querySelector('[data-model]').view.supports.wash.visible"
    )


def test_several_are_chosen_changed_joined_and_taken_away(server, bench, page, table_file):
    bench.bring_in(server, table_file)
    bench.go("Prop")
    bench.look("below")
    for place in ([12, 8, 20], [12, -8, 20], [-12, 8, 20]):
        bench.click_at(place)
    # A box drawn with Shift: all that are in it.
    ends = [bench.at(p) for p in ([12, 8, 20], [12, -8, 20])]
    xs, ys = zip(*ends, strict=True)
    page.keyboard.press("Escape")
    page.keyboard.down("Shift")
    page.mouse.move(min(xs) - 12, min(ys) - 12)
    page.mouse.down()
    page.mouse.move(max(xs) + 12, max(ys) + 12, steps=4)
    page.mouse.up()
    page.keyboard.up("Shift")
    bench.settled()
    chosen = page.locator('[data-pillar][aria-current="true"]')
    assert chosen.evaluate_all("all => all.map((one) => one.dataset.pillar)") == ["1", "2"]
    bench.fill("shaft_mm", 2.6)
    assert page.evaluate(f"{LIST}.map((s) => s.size.shaft_mm)") == [2.6, 2.6, 2.2]
    bench.do("row")
    assert len(_list(page)) == 5
    page.locator('[data-pillar="1"]').click()
    page.locator('[data-pillar="2"]').click(modifiers=["Shift"])
    bench.settled()
    bench.do("brace")
    assert "too far apart" in bench.problem()  # 16 mm apart, and only 13 mm of shaft to rise in
    page.locator('[data-pillar="1"]').click()
    page.locator('[data-pillar="4"]').click(modifiers=["Shift"])
    bench.settled()
    bench.do("brace")
    assert _list(page)[-1] == ["brace", "stands"]
    bench.do("raft")
    assert _list(page)[-1] == ["raft", "stands"]
    page.wait_for_function(
        "() => document.querySelector('[data-model]').view.supports.solids.visible"
    )
    # Nudged by an arrow, along the underside.
    page.locator('[data-pillar="3"]').click()
    bench.settled()
    page.locator("[data-model]").focus()
    page.keyboard.press("ArrowRight")
    bench.settled()
    moved = page.evaluate(f"{LIST}.find((s) => s.key === '3').contact_mm")
    assert moved == pytest.approx([-11.5, 8, 20], abs=0.3)
    bench.do("choose-all")
    page.keyboard.press("Delete")
    bench.settled()
    assert _list(page) == []
    page.keyboard.press("Control+z")
    bench.settled()
    assert len(_list(page)) == 7


def test_struts_and_checkerboards_are_stood_by_clicking(server, bench, page, table_file):
    bench.bring_in(server, table_file)
    bench.go("Prop")
    bench.look("below")
    bench.click_at([12, 8, 20])
    # A strut from the underside to the pillar's shaft: a second tip on it.
    page.locator('[data-tool="strut"]').click()
    bench.click_at([12, -4, 20])
    bench.click_at([12, 8, 20])
    assert _list(page) == [["pillar", "stands"], ["strut", "stands"]]
    page.locator('[data-tool="face"]').click()
    bench.click_at([-12, -8, 20])
    bench.settled()
    few = page.locator('[data-do="take-spread"]').inner_text()
    page.locator("#spread-spacing").fill("8")
    bench.settled()
    page.wait_for_function(
        "(few) => document.querySelector('[data-do=\"take-spread\"]').innerText !== few", arg=few
    )
    count = int(page.locator('[data-do="take-spread"]').inner_text().split()[1])
    bench.do("take-spread")
    standing = [kind for kind, fit in _list(page) if fit == "stands"]
    assert 4 < len(standing) <= count + 2

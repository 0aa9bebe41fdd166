"""The application with its demo pieces, in Chromium rendering by software."""

from collections.abc import Iterator
from contextlib import contextmanager

from playwright.sync_api import Page
from tools.running import chromium_path, demo_page

__all__ = ["demo_pages"]


@contextmanager
def demo_pages() -> Iterator[tuple[Page, list[tuple[str, str]]] | None]:
    """A page, and the addresses and names of the demo pieces; None without Chromium."""
    if not chromium_path():
        print("Not measured: there is no Chromium.")
        yield None
        return
    with demo_page() as (page, url):
        page.goto(url, wait_until="networkidle")
        links = page.locator("[data-piece] a").evaluate_all(
            "all => all.map((a) => [a.href, a.querySelector('.font-semibold').innerText])"
        )
        yield page, links

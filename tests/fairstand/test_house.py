"""Rules of the house that a person would forget: fresh assets, migrations, licences."""

import hashlib
import json
from pathlib import Path

import pytest
from django.core.management import call_command

ROOT = Path(__file__).parents[2]
STATIC = ROOT / "src/fairstand/static"


def _digest(paths):
    total = hashlib.sha256()
    for path in sorted(p.relative_to(ROOT).as_posix() for p in paths):
        content = hashlib.sha256((ROOT / path).read_bytes()).hexdigest()
        total.update(f"{path}\n{content}\n".encode())
    return total.hexdigest()


def test_built_assets_are_fresh():
    stamp = json.loads((STATIC / "built/stamp.json").read_text(encoding="utf-8"))
    inputs = [
        ROOT / "package-lock.json",
        ROOT / "tools/build_assets.mjs",
        ROOT / "assets/app.css",
        ROOT / "assets/pick_worker.js",
        ROOT / "src/printability/colours.json",
        *(ROOT / "src/fairstand").rglob("*.html"),
        *(p for p in (STATIC / "js").rglob("*") if p.is_file()),
    ]
    outputs = [
        *(p for p in (STATIC / "vendor").rglob("*") if p.is_file()),
        STATIC / "built/app.css",
    ]
    assert stamp["inputs"] == _digest(inputs), "run `make assets` and commit what it builds"
    assert stamp["outputs"] == _digest(outputs), "run `make assets` and commit what it builds"


def test_every_vendored_script_has_its_licence():
    names = {p.stem for p in (STATIC / "vendor").iterdir() if p.suffix in (".js", ".woff2")}
    licences = {p.name.split(".")[1] for p in (STATIC / "vendor").glob("LICENSE.*")}
    assert names == {"three", "three-mesh-bvh", "alpine", "source-sans-3"}
    assert licences == {"three", "three-mesh-bvh", "alpinejs", "source-sans-3"}


@pytest.mark.django_db
def test_migrations_are_complete():
    call_command("makemigrations", check=True, dry_run=True, verbosity=0)


def test_the_readme_shows_only_pictures_that_exist():
    import re

    text = (ROOT / "README.md").read_text(encoding="utf-8")
    pictures = re.findall(r"\((docs/screenshots/[^)]+)\)", text)
    assert pictures
    for picture in pictures:
        assert (ROOT / picture).is_file()

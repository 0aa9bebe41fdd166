"""Rules of the house that a person would forget: fresh assets, migrations, licences."""

import hashlib
import json
import re
from pathlib import Path

import numpy as np
import pytest
from django.core.management import call_command

from fairstand import memory
from printability import compiled

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
        *(p for p in (ROOT / "assets/js").rglob("*") if p.is_file()),
    ]
    outputs = [
        *(p for p in (STATIC / "vendor").rglob("*") if p.is_file()),
        *(p for p in (STATIC / "built").iterdir() if p.name != "stamp.json"),
    ]
    assert stamp["inputs"] == _digest(inputs), "run `make assets` and commit what it builds"
    assert stamp["outputs"] == _digest(outputs), "run `make assets` and commit what it builds"


def test_every_vendored_script_has_its_licence():
    imported = {
        name.split("/")[0]
        for path in (ROOT / "assets").rglob("*.js")
        for name in re.findall(r'from "([^."][^"]*)"', path.read_text(encoding="utf-8"))
    }
    licences = {p.name.split(".")[1] for p in (STATIC / "vendor").glob("LICENSE.*")}
    fonts = {p.stem for p in (STATIC / "vendor").glob("*.woff2")}
    assert imported == {"three", "three-mesh-bvh", "alpinejs"}
    assert fonts == {"source-sans-3"}
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


def test_a_change_of_a_kernel_compiles_what_is_made_of_it_and_nothing_else():
    def made_of(name):
        files = compiled._made_of(compiled._ROOT / name)
        return {path.relative_to(compiled._ROOT).as_posix() for path in files}

    scores = made_of("turning/_kernels.py")
    # Those that it calls, those that these call, and where its constants come from.
    assert {"layers/levels.py", "mesh/index.py", "mesh/_kernels.py", "estimate.py"} <= scores
    assert not {"surface/_held_kernels.py", "layers/_thin_kernels.py"} & scores
    assert made_of("layers/levels.py") == {"compiled.py", "layers/levels.py"}
    assert "surface/overhang.py" in made_of("estimate.py")
    # What is kept is kept for the files as they are.
    stamp, names = compiled._known()
    assert stamp
    folder = compiled._folder_of(compiled._ROOT / "layers/levels.py")
    assert folder.name == compiled._name_of(compiled._ROOT / "layers/levels.py")
    assert names["layers/levels.py"] == folder.name


def test_a_long_list_is_weighed_in_part_and_again_when_more_hangs_on_it(monkeypatch):
    memory.forget()
    many = [{"row": [float(i)] * 3} for i in range(100_000)]
    assert memory._bytes_of([np.zeros(1000), many], 50) == 8000
    grows = {}
    memory.remembered("grows", lambda: grows)
    assert memory._weights["grows"] == 0
    grows["later"] = np.zeros(500)
    monkeypatch.setattr(memory, "_WEIGHED_EVERY_S", 0.0)
    memory.remembered("another", lambda: 1)
    assert memory._weights["grows"] == 4000
    memory.forget()

"""``fairstand make``: the files of a stance, and what ``inspect`` says of it, without the page."""

import argparse
import hashlib
import json
import os
from dataclasses import replace
from pathlib import Path

from printability.errors import HandOverError, StanceFileError
from printability.handover import file_stem, part_named, stl_of, threemf_of, title_of
from printability.judging import faults_of_changes, faults_of_cuts, faults_of_supports
from printability.parts import Frame
from printability.stance import Placed, Setup, fold, parts_of, stand
from printability.stance_file import MOST_BYTES, StanceFile, read_stance
from printability.surface import Dyes, colours_of, painted_sides

from .inspect import open_file, report_of, table_of

__all__ = ["NOT_AS_SAID", "arguments", "make", "run"]

# Exit code where something of the stance cannot be made as it says.
NOT_AS_SAID = 3


def arguments(command: argparse.ArgumentParser) -> None:
    """What can be said to it."""
    command.add_argument("file", help="the model that the stance was made for")
    command.add_argument("stance", help="a stance file, written by the bench")
    command.add_argument("--out", required=True, metavar="DIR", help="the folder to write into")
    command.add_argument(
        "--go-on", action="store_true",
        help="write the files also where something of the stance cannot be made",
    )  # fmt: skip
    command.add_argument("--json", action="store_true", help="print JSON instead of a table")


def run(options: argparse.Namespace) -> int:
    """Make the files of ``options.stance`` and print what they are."""
    told = make(Path(options.file), Path(options.stance), Path(options.out), options.go_on)
    is_made = options.go_on or not told["left_out"]
    if options.json:
        print(json.dumps(told, indent=2, allow_nan=False))
        return 0 if is_made else NOT_AS_SAID
    for part in told["parts"]:
        print(table_of(part["inspection"]))
        for file in part["files"]:
            print(f"Wrote {file['path']}")
        for sentence in part["not_made"]:
            print(sentence)
    for one in told["left_out"]:
        said = "Left out" if one["left_out"] else "Not sound"
        print(f"{said}: {one['said']}. {one['text']}")
    if not is_made:
        print("Nothing was written. With --go-on the files are made all the same.")
    return 0 if is_made else NOT_AS_SAID


def make(model: Path, stance: Path, folder: Path, go_on: bool = False) -> dict:
    """Write the files of every part of a stance: the bytes that the bench hands over.

    Where something of the stance cannot be made as it says, nothing is written unless told to
    ``go_on``; what it is stands under ``left_out``.

    Raises
    ------
    PrintabilityError
        If model or stance cannot be read, belong to different files, or an edit cannot be made.
    """
    recipe = _recipe(stance)
    opened = open_file(model)
    recipe.check_model(hashlib.sha256(model.read_bytes()).hexdigest())
    start = replace(Setup().framed(Frame(recipe.unit)), dyes=Dyes(opened.colours))
    known: dict = {}

    def remembered(name, step, parts):
        if name not in known:
            known[name] = step.applied(parts)
        return known[name]

    setup = fold(opened.mesh, recipe.edits, start)
    faults = faults_of_changes(opened.mesh, setup.shape, remembered)
    wall = setup.process["hole_wall_mm"]
    faults += faults_of_cuts(opened.mesh, setup.shape, wall, remembered)
    parts = []
    for part in parts_of(opened.mesh, setup, remembered):
        own = fold(opened.mesh, recipe.edits, start, part=part.key)
        parts.append((own, stand(part, own)))
        faults += faults_of_supports(parts[-1][1])
    faults = [fault for fault in faults if not fault.is_insisted]
    told = []
    try:
        if go_on or not faults:
            folder.mkdir(parents=True, exist_ok=True)
        for own, placed in parts:
            told.append(_made(model, opened, recipe, own, placed, folder, go_on or not faults))
    except OSError as error:
        raise HandOverError(f"“{folder}” cannot be written to: {error.strerror}.") from error
    return {
        "piece": recipe.piece, "stance": recipe.name, "edits": len(recipe.edits), "parts": told,
        "left_out": [
            {"kind": one.kind, "key": one.key, "of": one.of, "text": one.text,
             "left_out": one.is_left_out, "said": one.said}
            for one in faults
        ],
    }  # fmt: skip


def _made(
    model: Path, opened, recipe: StanceFile, setup: Setup, placed: Placed, folder: Path, write: bool
) -> dict:
    """The files of one part, and what is said of it."""
    part = placed.part
    name = part_named(part.key)
    stance = f"{recipe.name} {name}".strip()
    title = title_of(recipe.piece, stance)
    files, not_made = [], []
    colours = colours_of(part, setup.dyes)
    for kind in ("stl", "3mf") if write else ():
        try:
            data = stl_of(placed, title) if kind == "stl" else threemf_of(placed, title, colours)
        except HandOverError as error:
            not_made.append(str(error))
            continue
        path = folder / f"{file_stem(recipe.piece, stance)}.{kind}"
        _write(path, data)
        files.append({"path": str(path), "sha256": hashlib.sha256(data).hexdigest()})
    return {
        "key": part.key,
        "files": files,
        "not_made": not_made,
        "supports": [
            {"key": key, "kind": s.support.kind, "fit": s.fit.value, "text": s.text}
            for key, s in placed.supports.items()
        ],
        "inspection": report_of(
            model.name, opened, setup, placed, painted_sides(part, setup.strokes)
        ),
    }


def _recipe(path: Path) -> StanceFile:
    try:
        if path.stat().st_size > MOST_BYTES:
            raise StanceFileError("The stance file is larger than any stance; it is refused.")
        return read_stance(path.read_bytes())
    except OSError as error:
        reason = error.strerror or "it cannot be opened"
        raise StanceFileError(f"The file “{path}” cannot be read: {reason}.") from error


def _write(path: Path, data: bytes) -> None:
    """Whole or not at all."""
    part = path.with_name(f"{path.name}.{os.getpid()}.part")
    part.write_bytes(data)
    os.replace(part, path)

"""The command `fairstand`, in this process or in one of its own."""

import contextlib
import io
import subprocess
import sys
from dataclasses import dataclass

from fairstand.cli import main


@dataclass
class Done:
    returncode: int
    stdout: str
    stderr: str


def fairstand(*words) -> Done:
    """Run it here: the compiled loops are warm already."""
    out, err = io.StringIO(), io.StringIO()
    with contextlib.redirect_stdout(out), contextlib.redirect_stderr(err):
        try:
            code = main([str(word) for word in words])
        except SystemExit as end:
            code = end.code
    return Done(code, out.getvalue(), err.getvalue())


def fairstand_process(*words) -> Done:
    """Run it as a script does: a process, its output, its exit code."""
    done = subprocess.run(
        [sys.executable, "-c", "import sys; from fairstand.cli import main; sys.exit(main())",
         *map(str, words)],
        capture_output=True, encoding="utf-8", timeout=240,
    )  # fmt: skip
    return Done(done.returncode, done.stdout, done.stderr)

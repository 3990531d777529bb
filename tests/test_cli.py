"""The headless commands: stable keys, one sentence and exit code 2 for bad input, no Qt where none is needed."""

from __future__ import annotations

import json
import os
import subprocess
import sys
import zipfile
from pathlib import Path

import pytest

from larch.cli import Refused, chosen_pages, main

ROOT = Path(__file__).parents[1]
pytestmark = pytest.mark.usefixtures("qapp")  # else a command would make one that the window's tests can't use


def run(capsys: pytest.CaptureFixture[str], *arguments: str) -> tuple[int, str, str]:
    code = main(arguments)
    out, err = capsys.readouterr()
    return code, out, err


@pytest.fixture
def demo(tmp_path: Path) -> str:
    from larch.core.files.lesson_file import write_lesson
    from larch.demo import demo_lesson

    path = tmp_path / "demo.larch"
    write_lesson(demo_lesson(), path)
    return str(path)


def test_evaluate(capsys: pytest.CaptureFixture[str]) -> None:
    code, out, _err = run(capsys, "evaluate", "y = 3/4 x - 6", "--at", "8", "--json")
    assert code == 0
    assert json.loads(out) == {"value": 0.0, "text": "0", "reading": "y = 3/4·x − 6"}
    assert run(capsys, "evaluate", "x^2", "--at", "-3")[1] == "9\n"
    assert run(capsys, "evaluate", "-2^2 + x", "--at", "1")[1] == "−3\n"
    assert json.loads(run(capsys, "evaluate", "1/3+1/6", "--json")[1])["exact"] == "1/2"
    assert json.loads(run(capsys, "evaluate", "x < 3", "--at", "2", "--json")[1])["value"] is True


def test_an_undefined_value_is_null_and_says_why(capsys: pytest.CaptureFixture[str]) -> None:
    code, out, _err = run(capsys, "evaluate", "1/x", "--at", "0", "--json")
    assert code == 0
    result = json.loads(out)
    assert result["value"] is None
    assert "divided by zero" in result["why"]


@pytest.mark.parametrize(
    "arguments",
    [["evaluate", "2+"], ["evaluate", "x"], ["evaluate", "a x", "--at", "1"], ["evaluate", "x", "--at", "tall"],
     ["facts", "/nowhere.larch"], ["check", "/nowhere.larch"], ["export", "/nowhere.larch", "--to", "x.pdf"],
     ["facts"], ["facts", "a", "--page", "many"], ["evaluate", "1", "--loud"], ["demo", "--save", "/proc/x/y.larch"]],
)  # fmt: skip
def test_bad_input_is_one_sentence_and_code_2(capsys: pytest.CaptureFixture[str], arguments: list[str]) -> None:
    code, out, err = run(capsys, *arguments)
    assert (code, out) == (2, "")
    assert err.startswith("larch: ")
    assert err.count("\n") == 1


def test_facts_have_stable_keys(capsys: pytest.CaptureFixture[str], demo: str) -> None:
    code, out, _err = run(capsys, "facts", demo, "--page", "4", "--json")
    assert code == 0
    (page,) = json.loads(out)["pages"]
    triangle = next(thing for thing in page["things"] if thing["kind"] == "polygon")
    assert triangle.keys() == {"id", "kind", "name", "facts"}
    known = {fact["name"]: fact for fact in triangle["facts"]}
    assert known["AB"] == {"name": "AB", "value": 12.0, "unit": "cm", "text": "12 cm"}
    assert sum(known[f"angle {c}"]["value"] for c in "ABC") == pytest.approx(180)
    assert run(capsys, "facts", demo, "--page", "99")[0] == 2


def test_check_tells_sound_lossy_and_unreadable_apart(capsys: pytest.CaptureFixture[str], demo: str, tmp_path: Path) -> None:
    assert run(capsys, "check", demo)[:2] == (0, "sound\n")
    with zipfile.ZipFile(demo) as archive:
        entries = {name: archive.read(name) for name in archive.namelist()}
    entries["pages/p2.json"] = b"{"
    with zipfile.ZipFile(demo, "w") as archive:
        for name, data in entries.items():
            archive.writestr(name, data)
    code, out, _err = run(capsys, "check", demo)
    assert (code, out) == (1, "Page 2 is damaged and was left out.\n")
    broken = tmp_path / "b.larch"
    broken.write_text("no")
    assert run(capsys, "check", str(broken))[0] == 2


@pytest.mark.parametrize(
    ("text", "pages"), [(None, [0, 1, 2, 3]), ("2-3", [1, 2]), ("4", [3]), ("3-", [2, 3]), ("-2", [0, 1]), ("1,3,1", [0, 2])]
)
def test_pages_are_chosen(text: str | None, pages: list[int]) -> None:
    assert chosen_pages(text, 4) == pages


@pytest.mark.parametrize("text", ["0", "5", "3-2", "a", "1-x", "", "2--3"])
def test_pages_that_are_not_there(text: str) -> None:
    with pytest.raises(Refused, match=r"\.$"):
        chosen_pages(text, 4)


def larch(*arguments: str, **environment: str) -> subprocess.CompletedProcess[str]:
    kept = {k: v for k, v in os.environ.items() if k not in ("DISPLAY", "WAYLAND_DISPLAY", "QT_QPA_PLATFORM")}
    return subprocess.run(
        [sys.executable, "-m", "larch", *arguments], capture_output=True, text=True, env={**kept, **environment}, timeout=120
    )


def test_demo_and_export_work_without_any_display(tmp_path: Path) -> None:
    lesson = tmp_path / "night.larch"
    assert larch("demo", "--save", str(lesson)).returncode == 0
    with zipfile.ZipFile(lesson) as archive:
        assert b"<svg" in archive.read("pages/p1.svg")
    done = larch("export", str(lesson), "--to", str(tmp_path / "n.png"), "--pages", "2-3", "--width", "400")
    assert done.stdout.split() == [str(tmp_path / "n-1.png"), str(tmp_path / "n-2.png")]
    refused = larch("export", str(lesson), "--to", str(tmp_path / "n.doc"))
    assert (refused.returncode, refused.stderr.count("\n")) == (2, 1)


def test_core_commands_never_import_qt() -> None:
    script = (
        "import sys\nsys.modules['PyQt6'] = None\nfrom larch.cli import main\nraise SystemExit(main(['evaluate', '2+2']))"
    )
    command = [sys.executable, "-c", script, "evaluate", "2+2"]
    done = subprocess.run(command, capture_output=True, text=True, timeout=60)
    assert (done.returncode, done.stdout) == (0, "4\n")


def test_the_core_works_with_qt_unimportable() -> None:
    """Core is proved free of Qt a second time: a run of its own tests in which PyQt6 cannot be imported."""
    script = "import sys\nsys.modules['PyQt6'] = None\nimport pytest\nraise SystemExit(pytest.main(sys.argv[1:]))"
    chosen = ["tests/core/maths/test_geometry.py",
              "tests/core/session", "tests/core/things", "-q", "-p", "no:pytest-qt", "-p",
              "no:cacheprovider", "-o", "addopts=", "-o", "qt_api=", "-W", "ignore"]  # fmt: skip
    few = {**os.environ, "LARCH_EXAMPLES": "3"}  # it looks for imports of Qt; the laws are tried elsewhere
    done = subprocess.run(
        [sys.executable, "-c", script, *chosen], capture_output=True, text=True, timeout=300, cwd=ROOT, env=few
    )
    assert done.returncode == 0, done.stdout[-2000:]

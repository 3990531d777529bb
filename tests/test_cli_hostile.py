"""Headless commands given what is meant to harm: an answer is JSON or one sentence, in bounded time."""

from __future__ import annotations

import json
import os
import time
import zipfile
from pathlib import Path

import pytest

from larch.cli import main
from larch.cli_bounds import bounded
from larch.refused import Refused

pytestmark = pytest.mark.usefixtures("qapp")
DEEP = r"\begin{cases}" * 500 + "x" + r"\end{cases}" * 500


@pytest.fixture(params=["pipe", "link to a pipe", "device"])
def special(request: pytest.FixtureRequest, tmp_path: Path) -> Path:
    if request.param == "device":
        made = tmp_path / "zero.larch"
        made.symlink_to("/dev/zero")
        return made
    os.mkfifo(tmp_path / "pipe")
    if request.param == "pipe":
        return tmp_path / "pipe"
    (tmp_path / "link").symlink_to(tmp_path / "pipe")
    return tmp_path / "link"


@pytest.mark.parametrize("command", [
    ["check"], ["facts"], ["export", "--to", "a.pdf"], ["measure"], ["act"], ["evaluate", "--batch"], ["same", "--batch"],
    ["read", "--as", "maths"], ["read", "--as", "shape"],
])  # fmt: skip
def test_special_files_are_refused_at_once(special: Path, command: list[str], capsys: pytest.CaptureFixture[str]) -> None:
    given = [command[0], str(special), *command[1:]] if "--batch" not in command else [*command, str(special)]
    began = time.monotonic()
    assert main(given) in (1, 2)
    assert time.monotonic() - began < 10
    told = capsys.readouterr()
    assert "no ordinary file" in told.out + told.err and "Traceback" not in told.err


def test_a_picture_or_a_sound_that_is_none_is_refused(special: Path) -> None:
    from larch.board.media.pictures import NoPicture, picture_from_file

    with pytest.raises(NoPicture, match="no ordinary file"):
        picture_from_file(special)


@pytest.mark.parametrize("command", ["evaluate", "typeset"])
def test_what_is_nested_too_deeply_is_said(command: str, capsys: pytest.CaptureFixture[str]) -> None:
    assert main([command, DEEP]) == 2
    assert capsys.readouterr().err == "larch: It is nested too deeply.\n"


@pytest.mark.parametrize("command", ["evaluate", "typeset", "work"])
def test_a_batch_goes_on_after_anything(command: str, tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    lines = [json.dumps({"expr": "\ud800x"}), json.dumps({"expr": DEEP}), "{", "[]", "x" * 900_000,
             '{"expr": "x", "at": "\\ud800"}', json.dumps({"expr": "2 + 3"})]  # fmt: skip
    (tmp_path / "batch").write_text("\n".join(lines))
    assert main([command, "--batch", str(tmp_path / "batch")]) == 0
    answers = [json.loads(line) for line in capsys.readouterr().out.splitlines()]
    assert len(answers) == len(lines)
    assert all("error" in answer for answer in answers[:5])
    assert "error" not in answers[-1]


def lesson(path: Path, things: list[dict[str, object]]) -> Path:
    with zipfile.ZipFile(path, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("mimetype", "application/vnd.larch.lesson+zip")
        archive.writestr("lesson.json", json.dumps({"version": 1, "pages": [{"id": "p1"}]}))
        archive.writestr("pages/p1.json", json.dumps({"id": "p1", "things": things, "next": 99_999}))
    return path


def test_a_lesson_that_takes_too_long_is_not_looked_through_to_the_end(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    texts: list[dict[str, object]] = [{"kind": "text", "id": f"t{k}", "text": "{t1.area} " * 190} for k in range(1, 6000)]
    began = time.process_time()
    assert main(["check", str(lesson(tmp_path / "slow.larch", texts))]) == 2
    assert time.process_time() - began < 4.0
    assert "takes too long" in capsys.readouterr().err


def test_one_bad_point_spoils_no_lesson(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    path = lesson(tmp_path / "a.larch", [
        {"kind": "axes", "id": "t1"}, {"kind": "point", "id": "t2", "rule": "plotted", "of": ["t1"], "values": []},
        {"kind": "text", "id": "t3", "text": "seven lanterns"},
    ])  # fmt: skip
    assert main(["check", str(path)]) == 0
    assert main(["facts", str(path), "--json"]) == 0
    told = json.loads(capsys.readouterr().out.removeprefix("sound\n"))
    assert [thing["kind"] for thing in told["pages"][0]["things"]] == ["axes", "point", "text"]
    assert main(["export", str(path), "--to", str(tmp_path / "a.svg")]) == 0
    assert b"seven lanterns" in (tmp_path / "a.svg").read_bytes()


def test_long_paths_are_measured_or_left_out_in_time(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    picture = tmp_path / "long.svg"
    picture.write_text('<svg xmlns="http://www.w3.org/2000/svg"><path id="p" d="M0 0' + " l1 1" * 1_000_000 + '"/></svg>')
    began = time.process_time()
    assert main(["measure", str(picture), "--json"]) == 0
    assert time.process_time() - began < 7
    told = capsys.readouterr()
    assert json.loads(told.out) == {"shapes": []} and "too many points" in told.err


def test_gaps_in_a_style_sheet_are_searched_in_linear_time() -> None:
    from larch.core.media.svg_clean import clean_svg

    began = time.process_time()
    made = clean_svg(
        b'<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><g style="url(' + b" " * 600_000 + b'"/></svg>'
    )
    assert time.process_time() - began < 1.0 and made.dropped


def test_a_bound_ends_what_never_would_and_nothing_else() -> None:
    with pytest.raises(Refused, match="no end"), bounded("There is no end to it.", 0.3):
        while True:
            try:
                sum(range(10_000))
            except Exception:  # a mistake that is held does not hold this up
                raise AssertionError from None
    with bounded("There is no end to it.", 5.0):
        assert sum(range(10)) == 45

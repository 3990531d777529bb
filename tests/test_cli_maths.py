"""The headless commands about mathematics, as others call them."""

from __future__ import annotations

import json
import subprocess
import sys
import time
from pathlib import Path
from typing import Any

import pytest

from larch.cli import main


def run(capsys: pytest.CaptureFixture[str], *arguments: str) -> tuple[int, Any, str]:
    code = main(list(arguments))
    out, err = capsys.readouterr()
    return code, json.loads(out) if out.strip().startswith("{") and out.count("\n") == 1 else out, err


def test_same_in_any_notation(capsys: pytest.CaptureFixture[str]) -> None:
    assert run(capsys, "same", "x/x", "1", "--json")[1]["same"] is False
    assert run(capsys, "same", r"\frac{1}{2}", "0,5", "--json")[1]["same"] is True
    found = run(capsys, "same", "--json", "--", "-x", "0-x")[1]
    assert found["same"] is True and found["why"]


def test_follows_and_work(capsys: pytest.CaptureFixture[str]) -> None:
    code, found, _err = run(capsys, "follows", "x^2 = 3x", "x = 3", "--json")
    assert (code, found["follows"], found["when"]) == (0, "only if", "x ≠ 0")
    assert run(capsys, "follows", "2x=4", "x=2", "--json")[1]["when"] is None
    work = run(capsys, "work", "2x+5=15", "--json")[1]
    assert [step["line"] for step in work["steps"]] == ["2x + 5 = 15", "2x = 10", "x = 5"]
    assert work["answer"] == ["x = 5"] and all(step["reason"] for step in work["steps"])


def test_evaluate_says_units_and_doubts(capsys: pytest.CaptureFixture[str]) -> None:
    found = run(capsys, "evaluate", "5 cm + 3 mm", "--json")[1]
    assert (found["value"], found["text"]) == (5.3, "5.3 cm")
    assert run(capsys, "evaluate", "5 cm + 3 kg", "--json")[1]["value"] is None
    assert run(capsys, "evaluate", "1/2x", "--at", "4", "--json")[1]["doubts"]
    assert run(capsys, "evaluate", "f(x) = 2x+1", "--at", "3", "--json")[1]["value"] == 7


@pytest.mark.parametrize("name", ["same", "follows", "work", "evaluate", "typeset"])
def test_a_batch_answers_line_by_line(capsys: pytest.CaptureFixture[str], tmp_path: Path, name: str) -> None:
    good = {"a": "2x=4", "b": "x=2"} if name in ("same", "follows") else {"expr": "2+3"}
    bad = ["no json", "[]", json.dumps({"a": 5}), json.dumps({"a": "2+", "b": "1", "expr": "2+"})]
    file = tmp_path / "in.jsonl"
    file.write_text("\n".join([json.dumps(good), *bad, json.dumps(good)]) + "\n")
    assert main([name, "--batch", str(file)]) == 0
    answers = [json.loads(line) for line in capsys.readouterr().out.splitlines()]
    assert len(answers) == 6
    assert answers[0] == answers[5] and "error" not in answers[0]
    assert all(set(answer) == {"error"} and answer["error"].endswith(".") for answer in answers[1:5])


@pytest.mark.parametrize(
    "arguments",
    [["same", "x"], ["same", "2+", "1"], ["follows", "x=", "1"], ["work", "1/0"], ["work"], ["typeset", "2+"],
     ["typeset", "x", "--to", "a.doc"], ["same", "--batch", "/nowhere/at.all"], ["work", "9^9^9^9"]],
)  # fmt: skip
def test_bad_input_is_one_sentence(capsys: pytest.CaptureFixture[str], arguments: list[str]) -> None:
    code, _out, err = run(capsys, *arguments)
    assert code == 2 and err.count("\n") == 1 and err.strip().endswith(".")


@pytest.mark.parametrize("ending", ["svg", "mml", "tex", "txt"])
def test_typeset_writes_all_notations(capsys: pytest.CaptureFixture[str], tmp_path: Path, ending: str) -> None:
    target = tmp_path / f"out.{ending}"
    assert main(["typeset", "y = 3/4 x - 6", "--to", str(target)]) == 0
    text = target.read_text()
    assert {"svg": "<svg", "mml": "<mfrac>", "tex": r"\frac{3}{4}", "txt": "3/4·x"}[ending] in text
    if ending != "svg":
        assert main(["same", "y = 3/4 x - 6", text, "--json"]) == 0
        assert json.loads(capsys.readouterr().out.splitlines()[-1])["same"] is True


@pytest.mark.parametrize(
    "hostile",
    ["9^9^9^9", "x^x^x^x^x", "sin(1/sin(1/sin(1/x)))", "((((x+1)^9)^9)^9)^9", "1" * 900, "sqrt(" * 30 + "x" + ")" * 30],
)
def test_hostile_expressions_end_in_time(hostile: str) -> None:
    start = time.monotonic()
    command = [sys.executable, "-m", "larch", "same", hostile, "x", "--json"]
    done = subprocess.run(command, capture_output=True, timeout=60, check=False)
    assert done.returncode in (0, 2)
    assert time.monotonic() - start < 12  # two seconds on a machine that does nothing else
    assert done.stdout.startswith(b"{") or done.stderr.count(b"\n") == 1


def test_plot_tells_branches_and_features(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    code, found, _err = run(capsys, "plot", "--x", "-4", "4", "--json", "--", "-1/(x-2)")
    told = found["features"]
    assert (code, found["kind"], told["poles"], told["y_intercept"], told["domain"]) == (0, "function", [2], 0.5, "x ≠ 2")
    assert len(found["branches"]) == 2 and found["branches"][0][-1][0] < 2 < found["branches"][1][0][0]
    for ending, start in ((".svg", b"<svg"), (".png", b"\x89PNG")):
        target = tmp_path / f"out{ending}"
        assert main(["plot", "x^2 - 4", "--x", "-3", "3", "--to", str(target)]) == 0
        assert target.read_bytes().lstrip().startswith((start, b"<?xml"))


def test_plot_answers_a_batch_in_order(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    lines: list[object] = [
        {"expr": "floor(x)", "x": [0.5, 2.5]}, {"expr": "x", "x": [2, 1]}, {"expr": "x"},
        {"expr": "x^2+y^2<9", "x": [-4, 4]},
        {"expr": "x", "x": [0, 1e9]}, 7, {"expr": "(x^2-1)/(x-1)", "x": [-2, 2]},
    ]  # fmt: skip
    file = tmp_path / "in.jsonl"
    file.write_text("\n".join(map(json.dumps, lines)))
    assert main(["plot", "--batch", str(file)]) == 0
    answers = [json.loads(line) for line in capsys.readouterr().out.splitlines()]
    assert answers[0]["features"]["jumps"] == [1, 2] and answers[6]["features"]["holes"] == [[1, 2]]
    assert all(set(answer) == {"error"} and answer["error"].endswith(".") for answer in answers[1:6])

"""Steps that are written down: as a hand at the Board, through the same session, and all or nothing."""

from __future__ import annotations

import json
import math
from pathlib import Path
from typing import Any

import pytest

from larch.cli import main
from larch.core.model.kinds import shelf_items
from larch.core.model.lesson import blank_lesson
from larch.core.session.steps import Doing, StepError, described


def done(*steps: Any) -> list[dict[str, Any]]:
    return Doing(blank_lesson()).run(steps)


def test_a_clock_is_put_set_and_its_hand_turned() -> None:
    steps: list[Any] = [{"put": "clock", "as": "c", "at": [400, 300]}, {"set": "c", "fact": "time", "to": "14:35"}]
    (answer,) = done(*steps, {"facts": ["c"]})
    assert (answer["c"]["time"], answer["c"]["words"], answer["c"]["hands"]) == ("14:35", "twenty-five to three", "geared")
    angle = math.radians(300)  # to 50 minutes past, from 35
    to = [400 + 130 * math.sin(angle), 300 - 130 * math.cos(angle)]
    (answer,) = done(*steps, {"drag": "c", "part": "minute", "to": to}, {"facts": ["c"]})
    assert (answer["c"]["time"], answer["c"]["minute hand"]) == ("14:50", 300)
    assert done(*steps, {"drag": "c", "part": "minute hand", "to": to}, {"facts": ["c"]})[0]["c"]["time"] == "14:50"
    (answer,) = done(*steps, {"drag": "c", "part": "minute", "to": to}, {"undo": 1}, {"facts": ["c"]})
    assert answer["c"]["time"] == "14:35"


def test_bundles_as_children_make_them() -> None:
    chart = [{"put": "place-value chart", "as": "chart", "at": [300, 300]}, {"put": "ones", "as": "one", "at": [900, 300]}]
    steps = [*chart, {"do": "supply", "on": ["one"]}]
    for k in range(12):
        steps.append({"drag": "one", "to": [400 + 30 * (k % 4), 220 + 30 * (k // 4)]})
    before, after = done(*steps, {"facts": ["chart"]}, {"do": "as few as possible", "on": ["chart"]}, {"facts": ["chart"]})
    assert (before["chart"]["value"], before["chart"]["ones"]) == (12, 12)
    assert (after["chart"]["value"], after["chart"]["tens"], after["chart"]["ones"]) == (12, 1, 2)
    assert (after["chart"]["words"], after["chart"]["expanded"]) == ("twelve", "10 + 2")


def test_chance_is_told_again_from_its_seed() -> None:
    steps = [{"put": "coins", "as": "c"}, {"set": "c", "fact": "count", "to": "100"}, {"seed": 7},
             {"do": "toss", "on": ["c"], "times": 5}, {"facts": ["c"]}]  # fmt: skip
    (first,), (again,) = done(*steps), done(*steps)
    assert first == again
    assert first["c"]["tosses"] == 500


def test_a_task_is_asked_and_checked() -> None:
    answers = done({"put": "ten frame", "as": "f"}, {"ask": "f", "fact": "value", "wanted": 7, "as": "t"}, {"check": "t"},
                   {"set": "f", "fact": "value", "to": "7"}, {"check": "t"},
                   {"ask": "f", "fact": "value", "wanted": "", "as": "u"}, {"check": "u"})  # fmt: skip
    assert [next(iter(answer.values()))["right"] for answer in answers] == [False, True, None]
    assert all(next(iter(answer.values()))["says"] for answer in answers)


@pytest.mark.parametrize(
    "step",
    ["put", 7, None, {}, {"put": "lighthouse"}, {"put": "clock", "at": [1]}, {"put": "clock", "at": ["a", "b"]},
     {"set": "c", "fact": "mood", "to": "x"}, {"set": "c", "fact": "angle", "to": "90"},
     {"set": "c", "fact": "time", "to": "25:99"},
     {"set": "c", "fact": "time"}, {"do": "fly", "on": ["c"]}, {"do": "roll", "on": ["nobody"]}, {"do": "let go", "on": 5},
     {"do": "time 5", "on": ["c"], "times": -1}, {"drag": "c", "part": "nose", "to": [1, 2]}, {"drag": "c"}, {"tap": "x"},
     {"seed": -1}, {"seed": True}, {"undo": 99}, {"page": "old"}, {"ask": "c", "fact": "x", "wanted": "1"}, {"check": "c"},
     {"facts": 7}, {"facts": ["x"]}, {"put": "clock", "as": 7}],
    ids=str,
)  # fmt: skip
def test_a_bad_step_names_its_number_and_changes_nothing(
    step: Any, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    with pytest.raises(StepError, match=r"^Step 2: .*\.$"):
        done({"put": "clock", "as": "c"}, step)
    (tmp_path / "steps.json").write_text(json.dumps([{"put": "clock", "as": "c"}, step]))
    out = tmp_path / "out.larch"
    assert main(["act", str(tmp_path / "steps.json"), "--to", str(out), "--json"]) == 2
    said = capsys.readouterr()
    assert said.out == "" and said.err.count("\n") == 1 and "Step 2" in said.err
    assert not out.exists()


def test_what_was_done_is_in_the_lesson_and_goes_on_from_there(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    first, second, lesson = tmp_path / "1.json", tmp_path / "2.json", tmp_path / "l.larch"
    first.write_text(
        json.dumps([{"put": "spinner", "as": "s"}, {"set": "s", "fact": "sectors", "to": "3 1 2"}, {"page": "new"}])
    )
    second.write_text(json.dumps([{"page": 1}, {"do": "spin", "on": ["t1"], "times": 4}, {"facts": ["t1"]}]))
    assert main(["act", str(first), "--to", str(lesson)]) == 0
    assert main(["act", str(second), "--lesson", str(lesson), "--json"]) == 0
    known = json.loads(capsys.readouterr().out)["answers"][0]["t1"]
    assert (known["sectors"], known["spins"], sum(known[f"came up {k}"] for k in (1, 2, 3))) == ("3 1 2", 4, 4)


def test_everything_can_be_listed_and_every_entry_put() -> None:
    listed = described()
    names = [item["name"] for kind in listed for item in kind["shelf"]]
    assert {"clock", "coins", "die", "spinner", "fraction bar", "fraction circle", "place-value chart", "ones", "tens",
            "hundreds", "thousands", "abacus", "number grid", "number line", "ten frame", "array",
            "factor picture"} <= set(names)  # fmt: skip
    for item in shelf_items():
        done({"put": item.name, "as": "x"}, *([{"facts": ["x"]}] if item.instead is None else []))
    clock = next(kind for kind in listed if kind["kind"] == "clock")
    assert clock["parts"] == ["minute", "hour"]
    assert {"name": "time", "unit": "", "settable": True} in clock["facts"]
    assert all(kind["title"] and isinstance(kind["actions"], list) for kind in listed)

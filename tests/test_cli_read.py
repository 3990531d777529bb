"""`larch read`, called as others call it."""

from __future__ import annotations

import gzip
import json
from pathlib import Path

import pytest

from larch.cli import main

INK = json.loads(gzip.decompress((Path(__file__).parent / "data" / "ink.json.gz").read_bytes()))


def file_of(folder: Path, name: str, strokes: list[list[list[float]]]) -> Path:
    traces = "".join("<trace>" + ", ".join(f"{x} {y}" for x, y in stroke) + "</trace>" for stroke in strokes)
    path = folder / name
    path.write_text(f'<ink xmlns="http://www.w3.org/2003/InkML">{traces}</ink>')
    return path


def answers(capsys: pytest.CaptureFixture[str], *given: str) -> tuple[int, list[dict[str, object]]]:
    code = main(["read", *given, "--json"])
    return code, [json.loads(line) for line in capsys.readouterr().out.splitlines()]


def test_several_files_in_order_and_a_bad_one_between_them(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    square = next(one for one in INK["shapes"] if one["kind"] == "square")
    good = file_of(tmp_path, "a.inkml", square["strokes"])
    bad = tmp_path / "b.inkml"
    bad.write_text("no ink")
    code, found = answers(capsys, str(good), str(bad), str(tmp_path / "none.inkml"), str(good), "--as", "shape")
    assert code == 1 and [one["file"] for one in found] == [str(good), str(bad), str(tmp_path / "none.inkml"), str(good)]
    assert found[0]["kind"] == "square" and len(found[0]["vertices"]) == 4  # type: ignore[arg-type]
    assert {"confidence", "alternatives"} <= set(found[0])
    assert all(str(one["error"]).endswith(".") for one in found[1:3])


def test_mathematics_with_its_symbols(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    one = next(one for one in INK["maths"] if one["latex"] == "7+5=12")
    code, (found,) = answers(capsys, str(file_of(tmp_path, "m.inkml", one["strokes"])), "--as", "maths")
    assert code == 0 and {"latex", "text", "alternatives", "symbols"} <= set(found)
    strokes = sorted(k for symbol in found["symbols"] for k in symbol["strokes"])  # type: ignore[union-attr, index]
    assert strokes == list(range(len(one["strokes"])))


def test_words_with_their_boxes_and_baselines(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    code, (found,) = answers(capsys, str(file_of(tmp_path, "w.inkml", INK["words"][0]["strokes"])), "--as", "words")
    assert code == 0 and " ".join(word["text"] for word in found["words"]) == found["text"]  # type: ignore[union-attr, index]
    assert all(len(word["box"]) == 4 for word in found["words"])  # type: ignore[union-attr, index]


def test_a_circle_has_a_centre_and_radii(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    circle = next(one for one in INK["shapes"] if one["kind"] == "circle")
    _code, (found,) = answers(capsys, str(file_of(tmp_path, "c.inkml", circle["strokes"])), "--as", "shape")
    assert found["kind"] == "circle" and len(found["center"]) == 2 and len(found["radii"]) == 2  # type: ignore[arg-type]
    assert found["vertices"] == []

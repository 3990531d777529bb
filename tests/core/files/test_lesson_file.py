"""The .larch file: everything comes back, strangers are kept, damage is said, hostile files change nothing."""

from __future__ import annotations

import json
import os
import zipfile
from pathlib import Path
from xml.etree import ElementTree

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.files import lesson_file
from larch.core.files.codec import page_from_json, page_schema, page_to_json, thing_from_json, thing_to_json
from larch.core.files.lesson_file import LessonFileError, read_lesson, write_lesson
from larch.core.model.lesson import Lesson, blank_lesson
from larch.core.model.page import Arrangement, Page
from larch.core.model.thing import Unknown
from larch.core.things.geometry.polygon import Polygon
from larch.core.things.numbers.block import Block
from larch.demo import demo_lesson
from tests.samples import page_with, sample_things, stroke


@pytest.fixture
def saved(tmp_path: Path) -> Path:
    path = tmp_path / "night.larch"
    write_lesson(demo_lesson(), path)
    return path


def rewrite(path: Path, change: dict[str, bytes | None]) -> None:
    """Replaces or removes entries of a ZIP."""
    with zipfile.ZipFile(path) as archive:
        entries = {name: archive.read(name) for name in archive.namelist()}
    entries.update({name: data for name, data in change.items() if data is not None})
    with zipfile.ZipFile(path, "w") as archive:
        for name, data in entries.items():
            if name not in change or change[name] is not None:
                archive.writestr(name, data)


def test_a_lesson_comes_back_as_it_was(saved: Path) -> None:
    opened = read_lesson(saved)
    assert opened.lesson == demo_lesson()
    assert opened.losses == ()


def test_every_kind_and_arrangement_comes_back() -> None:
    page = page_with(*sample_things(), stroke(), title="Lanterns on water", draws=3)
    page = page.replace(setouts=(Arrangement("", page.things[:3]),))
    assert page_from_json(page_to_json(page)) == page


def test_any_unzip_program_shows_it(saved: Path) -> None:
    with zipfile.ZipFile(saved) as archive:
        first = archive.infolist()[0]
        assert (first.filename, first.compress_type) == ("mimetype", zipfile.ZIP_STORED)
        assert archive.read("mimetype") == lesson_file.MIMETYPE.encode()
        assert json.loads(archive.read("lesson.json"))["version"] == lesson_file.VERSION


def test_ink_is_also_inkml(tmp_path: Path) -> None:
    path = tmp_path / "ink.larch"
    lesson = blank_lesson()
    write_lesson(lesson.with_page(lesson.pages[0].put(stroke(), stroke(200, "berry"))), path)
    with zipfile.ZipFile(path) as archive:
        root = ElementTree.fromstring(archive.read("pages/p1.inkml"))
    traces = root.findall("{http://www.w3.org/2003/InkML}trace")
    assert len(traces) == 2
    assert (traces[0].text or "").startswith("50.00 100.00 0.500 0")


STRANGE = b'{"kind":"loom","id":"t5","beads":[1,2,{"deep":null}],"placement":{"x":3.0,"y":4.0}}'


def test_an_unknown_kind_is_kept_and_written_back_unchanged() -> None:
    thing = thing_from_json(STRANGE)
    assert isinstance(thing, Unknown)
    assert (thing.was, thing.placement.x) == ("loom", 3.0)
    assert thing_to_json(thing) == STRANGE


@given(
    st.dictionaries(
        st.text("abcxyz_", min_size=3).map(lambda s: "new_" + s), st.integers() | st.text() | st.none(), max_size=4
    )
)
def test_unknown_fields_are_kept(fields: dict[str, object]) -> None:
    raw = {"kind": "block", "id": "t1", "value": 10, "placement": {"x": 1.5, "y": 2.0, **fields}, **fields}
    thing = thing_from_json(json.dumps(raw).encode())
    assert isinstance(thing, Block)
    changed = thing.moved(1, 0)
    written = json.loads(thing_to_json(changed))
    assert written == {**raw, "placement": {**raw["placement"], "x": 2.5}}  # type: ignore[dict-item]


def test_unknown_fields_of_pages_and_lessons_are_kept(saved: Path, tmp_path: Path) -> None:
    with zipfile.ZipFile(saved) as archive:
        head, page = (json.loads(archive.read(name)) for name in ("lesson.json", "pages/p1.json"))
    change = {"lesson.json": {**head, "mood": "calm"}, "pages/p1.json": {**page, "scent": [1]}}
    rewrite(saved, {name: json.dumps(value).encode() for name, value in change.items()})
    again = tmp_path / "again.larch"
    write_lesson(read_lesson(saved).lesson, again)
    with zipfile.ZipFile(again) as archive:
        assert json.loads(archive.read("lesson.json"))["mood"] == "calm"
        assert json.loads(archive.read("pages/p1.json"))["scent"] == [1]


def test_a_thing_with_bad_values_does_not_lose_its_page() -> None:
    page = page_from_json(b'{"id":"p1","things":[{"kind":"die","id":"t1","value":99},{"kind":"block","id":"t2"}]}')
    assert [type(thing).__name__ for thing in page.things] == ["Unknown", "Block"]


def test_repeated_ids_become_unique() -> None:
    page = page_from_json(
        b'{"id":"p1","next":1,"things":[{"kind":"block","id":"t7"},{"kind":"block","id":"t7"},{"kind":"die"}]}'
    )
    assert [thing.id for thing in page.things] == ["t7", "t8", "t9"]
    assert page.put(Block()).things[-1].id == "t10"


def test_a_newer_version_opens_and_says_so(saved: Path) -> None:
    with zipfile.ZipFile(saved) as archive:
        head = json.loads(archive.read("lesson.json"))
    rewrite(saved, {"lesson.json": json.dumps({**head, "version": 99}).encode()})
    opened = read_lesson(saved)
    assert opened.newer
    assert len(opened.lesson.pages) == len(demo_lesson().pages)
    assert "newer" in opened.losses[0]


def test_a_missing_and_a_damaged_page_are_said_and_the_rest_is_read(saved: Path) -> None:
    rewrite(
        saved,
        {"pages/p2.json": None, "pages/p3.json": b"{broken", "pages/p4.json": b'{"id":"p4","things":[3,{"kind":"die"}]}'},
    )
    opened = read_lesson(saved)
    assert len(opened.lesson.pages) == len(demo_lesson().pages) - 2
    assert [loss.split(" ")[1] for loss in opened.losses] == ["2", "3", "thing"]


@pytest.mark.parametrize(
    "data",
    [b"", b"not a zip", b"PK\x03\x04" + b"\0" * 50, b"PK\x05\x06" + b"\0" * 18, os.urandom(2000)],
)
def test_what_is_no_lesson_gets_one_sentence(tmp_path: Path, data: bytes) -> None:
    path = tmp_path / "odd.larch"
    path.write_bytes(data)
    with pytest.raises(LessonFileError, match=r"^[^.]*odd\.larch[^.]*\.$"):
        read_lesson(path)
    assert path.read_bytes() == data


@pytest.mark.parametrize("name", ["../evil.json", "/etc/evil", "pages/../../evil", "a\\..\\b"])
def test_a_path_outside_is_refused(saved: Path, name: str) -> None:
    rewrite(saved, {name: b"x"})
    with pytest.raises(LessonFileError, match="outside"):
        read_lesson(saved)


@pytest.mark.parametrize("head", [b"[]", b'{"version":"x"}', b"{}", b"\xff\xfe", b"[" * 100_000, b'{"version":1,"pages":5}'])
def test_a_wrong_head_is_refused(saved: Path, head: bytes) -> None:
    rewrite(saved, {"lesson.json": head})
    with pytest.raises(LessonFileError, match=r"\.$"):
        read_lesson(saved)


def test_a_zip_bomb_is_not_unpacked(saved: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(lesson_file, "LARGEST_ENTRY", 100_000)
    with zipfile.ZipFile(saved, "a", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("pages/p99.json", b" " * 5_000_000)
        head = json.loads(archive.read("lesson.json"))
    head["pages"].append({"id": "p99"})
    rewrite(saved, {"lesson.json": json.dumps(head).encode()})
    opened = read_lesson(saved)
    assert "damaged" in opened.losses[-1]
    with zipfile.ZipFile(saved, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("lesson.json", b" " * 5_000_000)
    with pytest.raises(LessonFileError):
        read_lesson(saved)


@given(st.data())
def test_flipped_bytes_never_crash(data: st.DataObject) -> None:
    """Fuzz: whatever is damaged, the file opens with losses or is refused with a sentence."""
    import tempfile

    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "x.larch"
        path.write_bytes(_demo_bytes())
        raw = bytearray(path.read_bytes())
        for _ in range(data.draw(st.integers(1, 30))):
            raw[data.draw(st.integers(0, len(raw) - 1))] = data.draw(st.integers(0, 255))
        path.write_bytes(raw[: data.draw(st.integers(1, len(raw)))])
        try:
            assert read_lesson(path).lesson.pages
        except LessonFileError as error:
            assert str(error).endswith(".")


def _demo_bytes(cache: list[bytes] = []) -> bytes:  # noqa: B006
    if not cache:
        import tempfile

        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "x.larch"
            write_lesson(demo_lesson(), path)
            cache.append(path.read_bytes())
    return cache[0]


def test_a_failed_write_leaves_the_old_file(saved: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    before = saved.read_bytes()

    def full(_handle: int) -> None:
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(os, "fsync", full)
    with pytest.raises(OSError, match="space"):
        write_lesson(Lesson(title="other").insert(page_with(Block())), saved)
    assert saved.read_bytes() == before
    assert [p.name for p in saved.parent.iterdir() if p.suffix == ".part"] == []


def test_writing_through_a_link_keeps_the_link(saved: Path, tmp_path: Path) -> None:
    link = tmp_path / "link.larch"
    link.symlink_to(saved)
    write_lesson(blank_lesson(), link)
    assert link.is_symlink()
    assert len(read_lesson(saved).lesson.pages) == 1


def test_the_schema_in_docs_is_current_and_describes_every_kind() -> None:
    schema = page_schema()
    written = json.loads((Path(__file__).parents[3] / "docs/page.schema.json").read_text())
    assert written == json.loads(json.dumps(schema)), "run: python -m larch.core.files.codec > docs/page.schema.json"
    assert {"Polygon", "Ink", "Die"} <= schema["$defs"].keys()


def test_a_polygon_can_be_written_by_hand() -> None:
    raw = b'{"kind":"polygon","vertices":[[0,0],[3,0],[3,4]]}'
    thing = thing_from_json(raw)
    assert isinstance(thing, Polygon)
    assert thing.vertices[2] == (3.0, 4.0)


def test_what_is_unzipped_can_be_read(tmp_path: Path) -> None:
    path = tmp_path / "l.larch"
    write_lesson(Lesson(pages=(page_with(stroke()),)), path, lambda page: b"<svg/>")
    with zipfile.ZipFile(path) as archive:
        modes = {entry.filename: entry.external_attr >> 16 for entry in archive.infolist()}
    assert set(modes.values()) == {0o644}, modes


def test_what_a_class_may_do_is_kept(tmp_path: Path) -> None:
    page = page_with(stroke()).replace(pupils=("write", "shelf"))
    assert page_from_json(page_to_json(page)).pupils == ("write", "shelf")
    assert page_from_json(page_to_json(page.replace(pupils=()))).pupils == ()
    old = json.loads(page_to_json(page_with(stroke())))
    assert "pupils" not in old  # a lesson of before is as safe as a fresh one
    assert page_from_json(json.dumps(old).encode()).pupils == Page(id="p").pupils


def test_the_schema_refuses_what_the_program_refuses() -> None:
    schema = json.loads((Path(__file__).parents[3] / "docs/page.schema.json").read_text())
    assert schema["properties"]["unit"]["exclusiveMinimum"] == 0
    assert all(side["minimum"] == 1 for side in schema["properties"]["size"]["prefixItems"])
    assert schema["properties"]["things"]["uniqueItems"]
    placement = schema["$defs"]["Placement"]["properties"]
    assert placement["scale"]["minimum"] > 0
    for name, properties in ((n, d.get("properties", {})) for n, d in schema["$defs"].items()):
        for field, known in properties.items():
            usual = known.get("default")
            if isinstance(usual, int | float) and not isinstance(usual, bool):
                assert known.get("minimum", usual) <= usual <= known.get("maximum", usual), (name, field)

"""The set of drawings, the store of media, and pictures as things."""

from __future__ import annotations

import zipfile
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.base.shape import Placement
from larch.core.files.codec import thing_from_json
from larch.core.files.lesson_file import media_in, read_lesson, write_lesson
from larch.core.media import picture_set
from larch.core.media.store import Media, digest, store
from larch.core.media.svg_clean import clean_svg
from larch.core.model.lesson import Lesson
from larch.core.model.page import Arrangement, Page
from larch.core.model.thing import Unknown
from larch.core.things.pictures.picture import TRIM, Picture
from larch.core.things.words.text import Text


@pytest.mark.parametrize(
    ("query", "label"),
    [
        ("red apple", "red apple"), ("apfel", "red apple"), ("pomme", "red apple"), ("manzana", "red apple"),
        ("mela", "red apple"), ("maçã", "red apple"), ("appel", "red apple"), ("äpple", "red apple"),
        ("omena", "red apple"), ("jabłko", "red apple"), ("яблоко", "red apple"), ("яблуко", "red apple"),
        ("alma", "red apple"), ("りんご", "red apple"), ("사과", "red apple"), ("苹果", "red apple"),
        ("lantern", "red paper lantern"), ("BOAT", "sailboat"),
    ],
)  # fmt: skip
def test_a_drawing_is_found_in_many_languages(query: str, label: str) -> None:
    assert label in [found.label for found in picture_set.search(query, 12)]


def test_names_come_before_keywords_and_variants_last() -> None:
    assert picture_set.search("cat")[0].label == "cat"
    found = [one.label for one in picture_set.search("thumbs up")]
    assert found.index("thumbs up") < min(k for k, label in enumerate(found) if "skin tone" in label)


def test_there_are_thousands_and_all_are_harmless() -> None:
    assert picture_set.count() > 3000
    for sort in picture_set.TRAYS:
        drawings = picture_set.tray(sort)
        assert len(drawings) > 40
        for one in drawings[::60]:
            data = picture_set.drawing(one.hash)
            assert data is not None and digest(data) == one.hash
            assert not clean_svg(data).dropped
    assert picture_set.drawing("0" * 64) is None
    assert picture_set.search("zzzzqq") == picture_set.search("  ") == []


@given(st.text(max_size=30))
def test_any_query_has_an_answer(query: str) -> None:
    assert len(picture_set.search(query, 5)) <= 5


def test_the_store_keeps_by_content_and_survives(tmp_path: Path) -> None:
    first = Media(tmp_path)
    name = first.keep(b"hello", "png")
    assert name == f"{digest(b'hello')}.png" == first.keep(b"hello", "png")
    again = Media(tmp_path)
    assert again.data(name) == b"hello" and again.has(name)
    (tmp_path / name).write_bytes(b"spoilt")
    assert Media(tmp_path).data(name) is None  # what is damaged is not shown as if it were whole
    assert again.data("../../etc/passwd") is None and not again.has("../x")
    with pytest.raises(ValueError):
        first.keep(b"x", "exe")


def test_a_lesson_file_carries_its_pictures_once(tmp_path: Path) -> None:
    name = store.keep(b"<svg viewBox='0 0 4 4'></svg>", "svg")
    hidden = Picture(media=store.keep(b"GIF89a-not-really", "gif"))
    page = Page(id="").put(
        Picture(media=name), Picture(media=name), Text(text="a", link=f"sound:{store.keep(b'Ogg', 'ogg')}")
    )
    lesson = Lesson().insert(page.replace(setouts=(Arrangement("", (hidden,)),)))
    path = tmp_path / "a.larch"
    write_lesson(lesson, path)
    with zipfile.ZipFile(path) as archive:
        assert sorted(n for n in archive.namelist() if n.startswith("media/")) == [
            f"media/{n}" for n in media_in(lesson.pages)
        ]
    assert len(media_in(lesson.pages)) == 3
    store._held.clear()
    store.folder = None
    opened = read_lesson(path)
    assert not opened.losses and store.data(name) is not None and store.data(hidden.media) == b"GIF89a-not-really"


def test_pictures_that_are_missing_or_false_are_told_and_the_lesson_opens(tmp_path: Path) -> None:
    evil = b"<svg viewBox='0 0 4 4'><script>x</script></svg>"
    names = [f"{digest(evil)}.svg", f"{'0' * 64}.png", f"{'1' * 64}.jpg"]
    lesson = Lesson().insert(Page(id="").put(*(Picture(media=name) for name in names)))
    path = tmp_path / "a.larch"
    write_lesson(lesson, path)
    with zipfile.ZipFile(path, "a") as archive:
        archive.writestr(f"media/{names[0]}", evil)
        archive.writestr(f"media/{names[1]}", b"not what its name says")
    store.folder = None
    opened = read_lesson(path)
    assert opened.losses == ("3 pictures are missing or damaged.",)
    assert len(opened.lesson.pages[0].things) == 3
    assert store.data(names[0]) is None and store.data(names[1]) is None


picture = Picture(width=200, height=100, placement=Placement(50, 60, 30, 1.5))


@given(st.sampled_from(TRIM), st.floats(-100, 300), st.floats(-100, 200), st.booleans(), st.booleans())
def test_trimming_keeps_the_rest_where_it_was(side: str, x: float, y: float, flipped: bool, upended: bool) -> None:
    whole = picture.replace(flipped=flipped, upended=upended)
    cut = whole.with_handle(f"trim {side}", x, y)
    assert isinstance(cut, Picture)
    box = cut.extent()
    assert box.width >= 0.039 * 200 and box.height >= 0.039 * 100
    opposite = {"left": (200.0, 100.0), "top": (200.0, 100.0), "right": (0.0, 0.0), "bottom": (0.0, 0.0)}[side]
    mine = (box.x1, box.y1) if side in ("left", "top") else (0.0, 0.0)
    assert cut.placement.to_page(*mine) == pytest.approx(whole.placement.to_page(*opposite), abs=1e-6)
    back = next(action for action in cut.actions() if action.name == "untrim")
    page = Page(id="p").put(cut)
    restored = back.run(page, page.things).after.things[0]  # type: ignore[union-attr]
    assert restored.placement.x == pytest.approx(whole.placement.x, abs=1e-6) and restored.trim == (0, 0, 0, 0)


def test_pictures_are_mirrored_paled_and_fitted() -> None:
    page = Page(id="p").put(picture.replace(placement=Placement(0, 0)))
    run = {action.name: action for action in picture.actions()}

    def done(name: str) -> Picture:
        thing = run[name].run(page, page.things).after.things[0]  # type: ignore[union-attr]
        assert isinstance(thing, Picture)
        return thing

    assert done("flip across").flipped and done("flip down").upended
    assert done("paler").opacity == 0.8
    wide = done("fit width").box()
    assert (wide.x0, wide.x1) == (pytest.approx(0), pytest.approx(1280)) and wide.centre[1] == pytest.approx(360)
    assert done("fit height").box().height == pytest.approx(720)
    facts = {fact.name: fact for fact in picture.facts(page)}
    assert facts["width"].set is not None and facts["strength"].set is not None
    assert facts["width"].set("4").extent().width * facts["width"].set("4").placement.scale == pytest.approx(4 * 32)
    with pytest.raises(ValueError, match="5 to 100"):
        facts["strength"].set("3")


def test_media_in_things_from_a_newer_version_are_carried_along(tmp_path: Path) -> None:
    name = store.keep(b"a film", "ogg")
    raw = f'{{"kind": "film", "id": "t1", "reel": {{"media": "{name}"}}}}'.encode()
    unknown = thing_from_json(raw)
    assert isinstance(unknown, Unknown) and unknown.media_names() == (name,)
    path = tmp_path / "newer.larch"
    write_lesson(Lesson().insert(Page(id="").put(unknown)), path)
    with zipfile.ZipFile(path) as archive:
        assert archive.read(f"media/{name}") == b"a film"

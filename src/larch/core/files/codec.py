"""Values to JSON and back. What a newer version wrote and this one cannot read is kept and written back."""

from __future__ import annotations

from collections.abc import Callable
from functools import cache
from typing import Any

import msgspec
from msgspec import Raw, Struct

from larch.core.base.bounds import MOST_THINGS
from larch.core.base.shape import Placement
from larch.core.model.capabilities import Derives
from larch.core.model.kinds import kind_of, kinds
from larch.core.model.page import PUPILS_MAY, Arrangement, Page, Paper, Scale
from larch.core.model.page_list import Slot
from larch.core.model.thing import Thing, Unknown

Fields = dict[str, Raw]


class CodecError(ValueError):
    """The JSON is not what it should be; the message says where."""


@cache
def _decoder(kind: type[Thing]) -> msgspec.json.Decoder[Thing]:
    return msgspec.json.Decoder(kind)


class _Tag(Struct):
    kind: str = ""
    id: str = ""


_tag_decoder = msgspec.json.Decoder(_Tag)
_fields_decoder = msgspec.json.Decoder(Fields)


def _bare(thing: Thing) -> Thing:
    return thing.bare() if isinstance(thing, Derives) else thing


def thing_to_json(thing: Thing) -> bytes:
    if isinstance(thing, Unknown):
        return thing.raw if _id_in(thing.raw) == thing.id else _with_id(thing.raw, thing.id)
    if not thing.extra:
        return msgspec.json.encode(_bare(thing))
    fields: Fields = _fields_decoder.decode(msgspec.json.encode(_bare(thing).replace(extra=())))
    for path, raw in thing.extra:
        outer, _slash, inner = path.partition("/")
        if not inner:
            fields[outer] = Raw(raw)
            continue
        within: Fields = _fields_decoder.decode(fields[outer]) if outer in fields else {}
        fields[outer] = Raw(msgspec.json.encode({**within, inner: Raw(raw)}))
    return msgspec.json.encode(fields)


def _id_in(raw: bytes) -> str:
    try:
        found = _fields_decoder.decode(raw).get("id")
        return msgspec.json.decode(found, type=str) if found is not None else ""
    except msgspec.MsgspecError:
        return ""


def _with_id(raw: bytes, id: str) -> bytes:
    """What is not understood, under another id: one that stood twice in a file."""
    return msgspec.json.encode({**_fields_decoder.decode(raw), "id": id})


def thing_from_json(data: bytes) -> Thing:
    """Reads a thing. One of an unknown kind, or with values out of range, becomes an `Unknown`.

    Raises CodecError only if it is not a JSON object at all.
    """
    try:
        tag = _tag_decoder.decode(data)
    except msgspec.MsgspecError as error:
        raise CodecError(str(error)) from error
    kind = kind_of(tag.kind)
    if kind is None:
        return _unknown(tag, data)
    try:
        return _decoder(kind).decode(data)
    except (msgspec.MsgspecError, RecursionError):
        pass
    try:
        return _with_extra(kind, data)
    except (msgspec.MsgspecError, RecursionError):
        return _unknown(tag, data)


def _with_extra(kind: type[Thing], data: bytes) -> Thing:
    """Reads a thing that has fields this version does not know."""
    fields: Fields = _fields_decoder.decode(data)
    extra: list[tuple[str, bytes]] = []
    if "placement" in fields:
        within: Fields = _fields_decoder.decode(fields["placement"])
        strange = within.keys() - set(Placement.__struct_fields__)
        extra += [(f"placement/{name}", bytes(within[name])) for name in sorted(strange)]
        fields["placement"] = Raw(msgspec.json.encode({k: v for k, v in within.items() if k not in strange}))
    known = {*kind.__struct_fields__, "kind"} - {"extra"}
    extra += [(name, bytes(fields[name])) for name in sorted(fields.keys() - known)]
    thing = _decoder(kind).decode(msgspec.json.encode({k: v for k, v in fields.items() if k in known}))
    changed: Thing = thing.replace(extra=tuple(extra))
    return changed


def _unknown(tag: _Tag, data: bytes) -> Unknown:
    placement = Placement()
    try:
        fields = _fields_decoder.decode(data)
        placement = msgspec.json.decode(fields["placement"], type=Placement)
    except (msgspec.MsgspecError, KeyError, RecursionError):
        pass
    return Unknown(id=tag.id, raw=bytes(data), was=tag.kind[:60], placement=placement, locked=True)


class _RawArrangement(Struct):
    name: str
    things: list[Raw]


class _RawPage(Struct, omit_defaults=True):
    """A page on disk. Things are read one by one, so that one bad thing does not lose the page."""

    id: str
    title: str = ""
    paper: Paper = Paper()
    size: tuple[float, float] = (1280.0, 720.0)
    unit: float = 32.0
    scale: Scale = Scale()
    things: list[Raw] = []
    next: int = 1
    seed: int = 0
    draws: int = 0
    setouts: list[_RawArrangement] = []
    pupils: tuple[str, ...] = PUPILS_MAY


_page_decoder = msgspec.json.Decoder(_RawPage)


def page_to_json(page: Page, things: bool = True) -> bytes:
    """The page as JSON; without things and arrangements if only its head is wanted."""
    listed = [Raw(thing_to_json(thing)) for thing in page.things] if things else []
    setouts = [_RawArrangement(a.name, [Raw(thing_to_json(t)) for t in a.things]) for a in page.setouts]
    raw = _RawPage(
        page.id, page.title, page.paper, page.size, page.unit, page.scale, listed, page.next, page.seed, page.draws, setouts,
        page.pupils,
    )  # fmt: skip
    if not page.extra:
        return msgspec.json.encode(raw)
    fields: Fields = _fields_decoder.decode(msgspec.json.encode(raw))
    return msgspec.json.encode({**fields, **{name: Raw(value) for name, value in page.extra}})


def _read_page(data: bytes) -> tuple[_RawPage, Fields]:
    """A page whose things are not decoded yet, and its fields as they stand. Raises CodecError if it is no page."""
    try:
        fields: Fields = _fields_decoder.decode(data)
        raw = _raw_page(data, fields)
    except (msgspec.MsgspecError, RecursionError) as error:
        raise CodecError(str(error)) from error
    if not (0 < raw.unit <= 1e6 and all(1 <= side <= 1e6 for side in raw.size)):
        raise CodecError("a page must have a size")
    return raw, fields


def page_from_json(data: bytes, losses: list[str] | None = None) -> Page:
    """Reads a page. Raises CodecError if it is no page; says in `losses` which things had to be left out."""
    raw, fields = _read_page(data)
    lost = [] if losses is None else losses
    return _page_of(raw, fields, lost)


def page_later(data: bytes, id: str, losses: list[str]) -> Slot:
    """A page that is made when it is first wanted. What can be wrong with it is found out at once: raises CodecError if it
    is no page; says in `losses` which things will be left out."""
    raw, _fields = _read_page(data)
    if len(raw.things) > MOST_THINGS or any(len(kept.things) > MOST_THINGS for kept in raw.setouts):
        raise CodecError("too many things")
    for thing in (*raw.things, *(thing for kept in raw.setouts for thing in kept.things)):
        try:
            _tag_decoder.decode(thing)
        except msgspec.MsgspecError as error:
            losses.append(str(error))
    return Slot(id, lambda: page_from_json(data).replace(id=id), raw=data)


def _page_of(raw: _RawPage, fields: Fields, lost: list[str]) -> Page:
    from larch.core.figures.settle import settle

    setouts = tuple(Arrangement(a.name, _things(a.things, lost)) for a in raw.setouts)
    extra = tuple((k, bytes(v)) for k, v in sorted(fields.items()) if k not in _RawPage.__struct_fields__)
    things = _unique(_things(raw.things, lost), raw.next)
    page = settle(Page(
        id=raw.id, title=raw.title, paper=raw.paper, size=raw.size, unit=raw.unit, scale=raw.scale, things=things,
        next=max(raw.next, _highest(things) + 1), seed=raw.seed, draws=max(0, raw.draws), setouts=setouts, pupils=raw.pupils,
        extra=extra,
    ))  # fmt: skip
    return page.replace(setouts=tuple(_settled(page, kept) for kept in setouts)) if setouts else page


def _settled(page: Page, kept: Arrangement) -> Arrangement:
    """What follows from other things of an arrangement is not written either."""
    from larch.core.figures.settle import settle

    return Arrangement(kept.name, settle(page.replace(things=kept.things)).things)


def _raw_page(data: bytes, fields: Fields) -> _RawPage:
    """A page whose paper or scale can't be read has a plain one: its things matter more."""
    try:
        return _page_decoder.decode(data)
    except msgspec.MsgspecError:
        return _page_decoder.decode(msgspec.json.encode({k: v for k, v in fields.items() if k not in ("paper", "scale")}))


def _things(raws: list[Raw], losses: list[str]) -> tuple[Thing, ...]:
    found = []
    for raw in raws:
        try:
            found.append(thing_from_json(bytes(raw)))
        except CodecError as error:
            losses.append(str(error))
    return tuple(found)


def _highest(things: tuple[Thing, ...]) -> int:
    return max((int(t.id[1:]) for t in things if t.id[:1] == "t" and t.id[1:].isdecimal()), default=0)


def _unique(things: tuple[Thing, ...], following: int) -> tuple[Thing, ...]:
    """Every id once, even if the file repeats one."""
    seen: set[str] = set()
    fresh = max(following, _highest(things) + 1)
    found = []
    for thing in things:
        if thing.id in seen or not thing.id:
            thing = thing.replace(id=f"t{fresh}")
            fresh += 1
        seen.add(thing.id)
        found.append(thing)
    return tuple(found)


def _limit(kind: type[Any], properties: dict[str, Any]) -> None:
    """States the numbers that a value refuses: found by trying, so that the schema says what the program does."""
    for name, known in properties.items():
        if known.get("type") not in ("number", "integer") or name == "id":
            continue

        def takes(value: float, name: str = name, whole: bool = known["type"] == "integer") -> bool:
            try:
                kind(**{name: int(value) if whole else float(value)})
            except (ValueError, TypeError, OverflowError):
                return False
            return True

        usual = known.get("default")
        if not isinstance(usual, int | float) or not takes(usual):
            continue
        if not takes(0) and usual > 0:
            known["minimum"] = _edge(takes, usual, 0.0)
        elif not takes(-1) and usual >= 0:
            known["minimum"] = 0
        if usual >= 0 and not takes(1e12):
            most = _edge(takes, max(usual, 1e-3), 1e12)
            if not any(takes(most * k) for k in (2, 5, 10, 100, 1000)):  # else some numbers are taken and some are not
                known["maximum"] = most
        if known["type"] == "integer":
            known |= {edge: round(known[edge]) for edge in ("minimum", "maximum") if edge in known}


def _edge(takes: Callable[[float], bool], good: float, bad: float) -> float:
    """The last number that is taken on the way from one that is to one that isn't, to six digits; 0 if all but 0 are."""
    for _round in range(200):
        middle = (good + bad) / 2
        if takes(middle):
            good = middle
        else:
            bad = middle
    return float(f"{good:.6g}") if abs(good) > 1e-12 else 0.0


def page_schema() -> dict[str, Any]:
    """JSON Schema of a page's file, with every kind of thing."""
    schemas, components = msgspec.json.schema_components(
        [_RawPage, *(kind for kind in kinds().values() if kind is not Unknown)], ref_template="#/$defs/{name}"
    )
    page = components.pop("_RawPage")
    page["properties"]["things"] |= {"items": {"oneOf": list(schemas[1:])}, "uniqueItems": True}
    page["properties"]["unit"] |= {"exclusiveMinimum": 0, "maximum": 1e6}
    for side in page["properties"]["size"]["prefixItems"]:
        side |= {"minimum": 1, "maximum": 1e6}
    limited: list[type[Any]] = [Placement, Scale, *(kind for kind in kinds().values() if kind is not Unknown)]
    for kind in limited:
        _limit(kind, components[kind.__name__]["properties"])
    for definition in components.values():
        definition.pop("additionalProperties", None)
        definition.get("properties", {}).pop("extra", None)
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema", "title": "Larch page", **page, "$defs": components
    }  # fmt: skip


if __name__ == "__main__":
    import json

    print(json.dumps(page_schema(), indent=2, ensure_ascii=False))

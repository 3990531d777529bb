"""Words a person sees: gettext for the core and all that stands on it."""

import gettext
from pathlib import Path

_LOCALES = Path(__file__).parents[2] / "assets" / "locale"
_current: gettext.NullTranslations = gettext.NullTranslations()


def speak(language: str) -> None:
    """Chooses the language of every later text, e.g. "de"; falls back to English."""
    global _current
    _current = gettext.translation("larch", _LOCALES, [language], fallback=True)


def use(translations: gettext.NullTranslations) -> gettext.NullTranslations:
    """Has every later text translated by these; returns those that did it before."""
    global _current
    before, _current = _current, translations
    return before


def N_(text: str) -> str:
    """Marks a text for translation where it is stated once and translated when it is shown, by `_(…)` of what holds it."""
    return text


def _(text: str) -> str:
    return _current.gettext(text) if text else ""  # gettext gives its own head for an empty text


def many(one: str, several: str, count: int) -> str:
    """`one` or `several` by the plural rule of the language, with {n} filled in."""
    return _current.ngettext(one, several, count).format(n=count)

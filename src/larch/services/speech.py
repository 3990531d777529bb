"""Words said aloud: what counts says its number. Until there is a voice, a stand-in listens and is silent."""

from __future__ import annotations

from collections import deque
from typing import Protocol


class Speaker(Protocol):
    def say(self, text: str) -> None:
        """Says a text; what is being said is broken off."""
        ...


class Mute:
    """The stand-in: remembers what was to be said."""

    def __init__(self) -> None:
        self.asked: deque[str] = deque(maxlen=100)

    def say(self, text: str) -> None:
        self.asked.append(text)

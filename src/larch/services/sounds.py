"""Short sounds, asked for by name: a bead that arrives, a clock that strikes. Made here, so that none has to be shipped."""

from __future__ import annotations

import array
import math
import sys
from collections import deque
from pathlib import Path
from typing import Any, Protocol

from larch.services.places import state_folder

RATE = 22_050  # samples a second
# name: (frequency in Hz, length in seconds, how quickly it fades, loudness)
NAMES: dict[str, tuple[float, float, float, float]] = {
    "click": (1900.0, 0.05, 90.0, 0.5),
    "tick": (1200.0, 0.04, 120.0, 0.35),
    "chime": (660.0, 1.2, 3.5, 0.6),
    "right": (880.0, 0.5, 7.0, 0.5),
    "not yet": (330.0, 0.4, 9.0, 0.4),
    "bell": (988.0, 1.6, 2.6, 0.7),
}


class SoundPlayer(Protocol):
    def play(self, name: str) -> None:
        """Plays a sound of NAMES; an unknown name is silent."""
        ...


class Silent:
    """The stand-in where nothing is to be heard, or can be: remembers what was asked for."""

    def __init__(self) -> None:
        self.asked: deque[str] = deque(maxlen=100)

    def play(self, name: str) -> None:
        self.asked.append(name)


class Loudspeaker:
    """Plays through Qt; silent where that has no way to. What it needs is imported when the first sound is wanted."""

    def __init__(self) -> None:
        self._effects: dict[str, Any] = {}

    def play(self, name: str) -> None:
        if name not in self._effects:
            self._effects[name] = self._made(name)
        if self._effects[name] is not None:
            self._effects[name].play()

    def _made(self, name: str) -> Any:
        if name not in NAMES:
            return None
        try:
            from PyQt6.QtCore import QUrl
            from PyQt6.QtMultimedia import QSoundEffect

            effect = QSoundEffect()
            effect.setSource(QUrl.fromLocalFile(str(sound_file(name))))
        except (ImportError, OSError):
            return None
        return effect


def sound_file(name: str) -> Path:
    """The sound as a WAV file in the state folder, written when it is first wanted. Raises OSError, KeyError."""
    import wave

    path = state_folder() / "sounds" / f"{name}.wav"
    if not path.exists():
        path.parent.mkdir(parents=True, exist_ok=True)
        fresh = path.with_suffix(".part")
        with wave.open(str(fresh), "wb") as file:
            file.setparams((1, 2, RATE, 0, "NONE", ""))
            file.writeframes(samples(name))
        fresh.replace(path)
    return path


def samples(name: str) -> bytes:
    """16-bit samples of a struck tone: a sine with its octave and twelfth, fading."""
    frequency, length, fading, loud = NAMES[name]
    found = array.array("h")
    for k in range(round(RATE * length)):
        t = k / RATE
        tone = sum(math.sin(2 * math.pi * frequency * n * t) / (n * n) for n in (1, 2, 3))
        attack = min(1.0, t * 400)
        found.append(round(20_000 * loud * attack * math.exp(-fading * t) * tone / 1.4))
    if sys.byteorder == "big":
        found.byteswap()
    return found.tobytes()

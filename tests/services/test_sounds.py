"""Sounds by name: made once, harmless where nothing can be heard."""

from __future__ import annotations

import wave

import pytest

from larch.services.sounds import NAMES, RATE, Loudspeaker, Silent, sound_file


@pytest.mark.parametrize("name", NAMES)
def test_a_sound_is_a_wave_file_that_fades_out(name: str) -> None:
    with wave.open(str(sound_file(name))) as file:
        assert (file.getframerate(), file.getsampwidth(), file.getnchannels()) == (RATE, 2, 1)
        frames = file.readframes(file.getnframes())
    samples = memoryview(frames).cast("h")
    assert max(map(abs, samples)) > 3000 and max(map(abs, samples[-40:])) < 0.2 * max(map(abs, samples))
    assert sound_file(name).stat().st_mtime == sound_file(name).stat().st_mtime


def test_an_unknown_sound_is_silent() -> None:
    Loudspeaker().play("thunder")
    silent = Silent()
    silent.play("click")
    assert list(silent.asked) == ["click"]

"""The program as anyone starts it, but that it tells whether it still handles events."""

from __future__ import annotations

import os
import sys
from pathlib import Path

from larch.board.timers import timer

BEAT = "LARCH_HEARTBEAT"  # names the file that is touched while events are handled
BEAT_EVERY = 100  # ms


def main(given: list[str]) -> int:
    from larch.desk.app import application, run

    app = application()
    beat = Path(os.environ[BEAT])
    timer(app, lambda: beat.touch(), BEAT_EVERY).start()
    return run(demo=True) if given == ["demo"] else run(Path(given[0]))


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))

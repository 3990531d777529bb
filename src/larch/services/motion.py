"""Whether the desktop asks for reduced motion. Qt 6.11 does not say, so the desktop's own setting is asked."""

from __future__ import annotations

import shutil

KEY = ["org.gnome.desktop.interface", "enable-animations"]  # honoured by the desktops that use GSettings


def desktop_wants_stillness() -> bool:
    """Asks once; False where nothing answers. Takes a moment: call it off the interface's thread."""
    import subprocess

    if not shutil.which("gsettings"):
        return False
    try:
        answer = subprocess.run(["gsettings", "get", *KEY], capture_output=True, text=True, timeout=2, check=False)
    except (OSError, subprocess.TimeoutExpired):
        return False
    return answer.stdout.strip() == "false"

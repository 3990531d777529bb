"""Desktop entry, file type, metainfo and icon, installed for one user by the freedesktop rules."""

from __future__ import annotations

import os
import shutil
import subprocess
from pathlib import Path

SOURCE = Path(__file__).parent.parent / "assets" / "freedesktop"


def _data_home() -> Path:
    base = os.environ.get("XDG_DATA_HOME", "")
    return Path(base) if base.startswith("/") else Path.home() / ".local/share"


def targets() -> dict[str, Path]:
    """Where each file of assets/freedesktop goes."""
    home = _data_home()
    return {
        "larch.desktop": home / "applications" / "larch.desktop",
        "larch-mime.xml": home / "mime" / "packages" / "larch-mime.xml",
        "larch.metainfo.xml": home / "metainfo" / "larch.metainfo.xml",
        "larch.svg": home / "icons" / "hicolor" / "scalable" / "apps" / "larch.svg",
    }


def install() -> list[str]:
    """Installs and returns the paths written. The entry starts the launcher of this checkout."""
    launcher = Path(os.environ.get("LARCH_HOME", "")) / "larch"
    command = f'"{launcher}"' if launcher.is_file() else "larch"
    written = []
    for name, target in targets().items():
        target.parent.mkdir(parents=True, exist_ok=True)
        target.write_text((SOURCE / name).read_text().replace("@LARCH@", command))
        written.append(str(target))
    _refresh()
    return written


def remove() -> list[str]:
    gone = [str(path) for path in targets().values() if path.exists()]
    for path in targets().values():
        path.unlink(missing_ok=True)
    _refresh()
    return gone


def _refresh() -> None:
    """Tells the desktop's caches, where its tools exist."""
    home = _data_home()
    for command in (["update-mime-database", str(home / "mime")], ["update-desktop-database", str(home / "applications")]):
        if shutil.which(command[0]):
            subprocess.run(command, check=False, capture_output=True)

"""Words as they are compared when something is searched."""

from __future__ import annotations

import unicodedata
from functools import lru_cache


@lru_cache(8192)
def folded(text: str) -> str:
    """Small letters without marks, single spaces."""
    apart = unicodedata.normalize("NFKD", text.casefold())
    return " ".join("".join(c for c in apart if not unicodedata.combining(c)).split())

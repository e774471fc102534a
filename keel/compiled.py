"""Compiling: what is decorated here is compiled at its first use and kept.

The compiler goes by a function's own file and doesn't see that one which it calls has changed in another: what it
keeps would then give yesterday's figures. So it is kept by the digest of all files with compiled functions.
"""

import os
from hashlib import sha256
from pathlib import Path

KEEL = Path(__file__).parent
USED_BY = b"from keel.compiled import"


def _kept_in() -> Path:
    digest = sha256()
    for file in sorted(KEEL.rglob("*.py")):
        text = file.read_bytes()
        if USED_BY in text:
            digest.update(text)
    return KEEL / "__pycache__" / f"compiled-{digest.hexdigest()[:16]}"


os.environ.setdefault("NUMBA_CACHE_DIR", str(_kept_in()))

from numba import njit  # noqa: E402 - it reads where to keep things as it is imported

compiled = njit(cache=True, error_model="numpy")
compiled_apart = njit(cache=True, error_model="numpy", nogil=True)
"""For what runs in several threads at once."""

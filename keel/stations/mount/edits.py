"""Edits of a mount's lists that remedies share."""

from collections.abc import Sequence
from typing import Any

from keel.design.mount import Bearer, Foot, Mount, Stop
from keel.findings.finding import Patch

LISTS = {"strap": "straps", "foot": "feet", "stop": "stops", "bearer": "bearers"}
"""Where each kind of mount is kept."""


def mount_patch(**lists: Sequence[Any]) -> Patch:
    """Some of a mount's lists as they are to be.

    Parameters
    ----------
    **lists : sequence of Part
        By the name of each list.

    Returns
    -------
    Patch
        A merge patch.
    """
    return {"mount": {name: [one.model_dump(mode="json") for one in held] for name, held in lists.items()}}


def bolted_down(mount: Mount) -> list[Foot | Stop | Bearer]:
    """All that is bolted to the vehicle but straps."""
    return [*mount.feet, *mount.stops, *mount.bearers]

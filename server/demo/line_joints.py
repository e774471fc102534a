"""Connections of the made-up line parts."""

from typing import Any


def joint(name: str, standard: str, size: str, hand: str = "male", **more: Any) -> dict[str, Any]:
    """A connection of a part."""
    return {"id": name, "standard": standard, "size": size, "hand": hand} | more


def flares(size: str, *names: str) -> list[dict[str, Any]]:
    """Male 37° flares, all of a size."""
    return [joint(name, "37° flare", size) for name in names]


def bosses(size: str, *names: str) -> list[dict[str, Any]]:
    """Female O-ring bosses, all of a size."""
    return [joint(name, "O-ring boss", size, "female", seal="fluoroelastomer") for name in names]

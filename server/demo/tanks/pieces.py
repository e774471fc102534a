"""Pieces that several made-up tanks have."""

from typing import Any


def bend(across: float, up: float, bow: float = 0.0) -> dict[str, Any]:
    """A corner, bent."""
    return {"across_mm": across, "up_mm": up, "bow_mm": bow, "joint": "bend"}


def vent(bore: float, length: float, **more: Any) -> dict[str, Any]:
    """A vent line that goes where it should."""
    asked = dict.fromkeys(("outside", "below_people", "away_from_exhaust", "falls_away"), True)
    return {"bore_mm": bore, "length_m": length} | asked | more


def facing_aft(sender: dict[str, Any]) -> dict[str, Any]:
    """A sender with its arm to the rear."""
    return sender | {"action": sender["action"] | {"heading_deg": 180.0}}


def box(name: str, place: tuple[float, float, float], size: tuple[float, float, float], kind: str) -> dict[str, Any]:
    """A keep-out."""
    return {
        "kind": "box",
        "id": name.replace(" ", "-"),
        "name": name,
        **dict(zip(("x_mm", "y_mm", "z_mm"), place, strict=True)),
        **dict(zip(("length_mm", "width_mm", "height_mm"), size, strict=True)),
        "clearance": {"kind": kind},
    }


def strap(number: int, at: float, ends: tuple[float, float], up: float, **more: Any) -> dict[str, Any]:
    """A strap over a tank, both its anchors alike."""
    bolted = {name: more.pop(name) for name in ("bolts", "structure") if name in more}
    low, high = ({"out_mm": end, "z_mm": up} | bolted for end in ends)
    return {"id": f"strap-{number}", "name": f"strap {number}", "at_mm": at, "low": low, "high": high} | more


def stop(side: str, place: tuple[float, float, float], **more: Any) -> dict[str, Any]:
    """A block against one side of a tank."""
    x, y, z = place
    return {"id": f"{side}-stop", "name": f"{side} stop", "side": side, "x_mm": x, "y_mm": y, "z_mm": z} | more

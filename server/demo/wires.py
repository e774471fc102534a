"""Devices and wires of the made-up tanks, written short."""

from typing import Any


def device(kind: str, key: str, name: str, at: tuple[float, float, float], **more: Any) -> dict[str, Any]:
    """A device where it stands [mm]; what it does and what else is said of it by name."""
    own = {field: more.pop(field) for field in ("stands", "sealed") if field in more}
    x, y, z = at
    return {"id": key, "name": name, "does": {"kind": kind} | more, "x_mm": x, "y_mm": y, "z_mm": z} | own


def wire(number: int, start: str, end: str, colour: str, **more: Any) -> dict[str, Any]:
    """A wire between "device.terminal" and another; "pump:" or "sender:" before what stands at other stations."""
    corners = [dict(zip(("x_mm", "y_mm", "z_mm"), spot, strict=True)) for spot in more.pop("corners", [])]
    ends = {"start": _end(start), "end": _end(end)}
    known = {"colour": colour, "corners": corners, "supported": True}
    return {"id": f"w{number}", "name": f"W{number}"} | known | ends | more


def _end(text: str) -> dict[str, str]:
    of, _, rest = text.rpartition(":")
    name, _, terminal = rest.partition(".")
    return {"of": of or "device", "id": name, "terminal": terminal}

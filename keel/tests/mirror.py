"""A design seen in a mirror: left is right, everything else as it was."""

from typing import Any

Item = dict[str, Any]
SWAPPED = {"left": "right", "right": "left", "ahead": "back", "back": "ahead"}


def swapped(word: str) -> str:
    """Right for left, and left for right."""
    return SWAPPED.get(word, word)


def mirrored(document: Item) -> Item:
    """The document of a tank's mirror image.

    A bay keeps its right side at zero: what was so far from its right is as far from its left.
    """
    bay, shell = document.get("bay"), document["shell"]
    bay_wide = bay["width_mm"] if bay else 0.0
    low, wide = across(shell)
    changed: Item = {"shell": _shell(shell, bay_wide, low, wide), "ports": [_port(p, wide) for p in document["ports"]]}
    changed["gauge"] = {"senders": [s | {"y_mm": wide - s["y_mm"]} for s in document["gauge"]["senders"]]}
    if bay:
        changed["bay"] = bay | {"keep_outs": [_keep_out(k, bay_wide) for k in bay["keep_outs"]]}
        changed["bay"] |= {"opening": bay.get("opening") and _opening(bay["opening"], bay)}
    return document | changed


def across(shell: Item) -> tuple[float, float]:
    """The body's right side over its place, and its width [mm]."""
    if shell["kind"] == "box":
        return 0.0, shell["width_mm"]
    if shell["kind"] == "cylinder":
        lies = shell["axis"] == "y"
        return (-shell["dish_mm"], shell["run_mm"] + 2 * shell["dish_mm"]) if lies else (0.0, shell["diameter_mm"])
    if shell["wrap_axis"] == "y":
        return 0.0, shell["run_mm"]
    places = [corner["across_mm"] for corner in shell["corners"]]
    return min(places), max(places) - min(places)


def from_behind(corners: list[Item]) -> list[Item]:
    """A profile's corners seen from its other end: each edge runs the other way, and its bow goes with it."""
    bows = [corner.get("bow_mm", 0.0) for corner in corners]
    return [c | {"across_mm": -c["across_mm"], "bow_mm": bows[n - 1]} for n, c in reversed(list(enumerate(corners)))]


def _shell(shell: Item, bay_wide: float, low: float, wide: float) -> Item:
    turned = shell["kind"] == "profile" and shell["wrap_axis"] == "x"
    place = bay_wide - shell["y_mm"] - (0.0 if turned else 2 * low + wide)
    changed: Item = {"y_mm": place, "features": [_feature(f, wide, shell["thickness_mm"]) for f in shell["features"]]}
    if turned:
        changed["corners"] = from_behind(shell["corners"])
    return shell | changed


def _feature(feature: Item, wide: float, wall: float) -> Item:
    kind = feature["kind"]
    size = feature.get("long_mm" if feature.get("form") == "round" else "wide_mm", 0.0)
    if kind == "well" and feature.get("face", "roof") in ("front", "rear"):
        return feature | {"a_mm": wide - feature["a_mm"] - feature["long_mm"]}
    if kind == "well" and feature.get("face", "roof") in ("left", "right"):
        return feature | {"face": swapped(feature["face"])}
    if kind in ("well", "sump", "pot"):
        doors = [door | {"side": swapped(door["side"])} for door in feature.get("doors", [])]
        return feature | {"b_mm": wide - feature["b_mm"] - size} | ({"doors": doors} if doors else {})
    if kind == "relief":
        return feature | {"y_mm": wide - feature["y_mm"] - feature["width_mm"]}
    if kind == "roof step":
        return feature | {"side": swapped(feature["side"])}
    return _plate(feature, wide, wall)


def _plate(plate: Item, wide: float, wall: float) -> Item:
    thick = plate.get("thickness_mm") or wall
    if plate["axis"] == "y":
        doors = [door | {"opens": swapped(door.get("opens", "ahead"))} for door in plate.get("doors", [])]
        return plate | {"at_mm": wide - plate["at_mm"] - thick} | ({"doors": doors} if doors else {})
    cuts = {
        name: [cut | {"at_mm": wide - cut["at_mm"] - _run(cut)} for cut in plate[name]]
        for name in ("notches", "doors", "holes")
        if name in plate
    }
    return plate | cuts


def _run(cut: Item) -> float:
    """From the first hole of a row to its last [mm]."""
    return float((cut.get("count", 1) - 1) * cut.get("pitch_mm", 0.0))


def _port(port: Item, wide: float) -> Item:
    turned = {name: -port[name] for name in ("clock_deg", "hose_deg", "stop_deg") if port.get(name) is not None}
    return port | {"y_mm": wide - port["y_mm"], "face": swapped(port["face"])} | turned


def _keep_out(keep_out: Item, wide: float) -> Item:
    own = keep_out["width_mm"] if keep_out["kind"] == "box" else 0.0
    if keep_out["kind"] == "cylinder" and keep_out["axis"] == "y":
        own = keep_out["run_mm"]
    return keep_out | {"y_mm": wide - keep_out["y_mm"] - own}


def _opening(opening: Item, bay: Item) -> Item:
    if opening["side"] in ("front", "rear"):
        return opening | {"a_mm": bay["width_mm"] - opening["a_mm"] - opening["long_mm"]}
    if opening["side"] in ("roof", "floor"):
        return opening | {"b_mm": bay["width_mm"] - opening["b_mm"] - opening["wide_mm"]}
    return opening | {"side": swapped(opening["side"])}

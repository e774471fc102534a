"""A design turned by a quarter, its front to the left: along becomes across."""

from typing import Any

from keel.tests.mirror import across, from_behind

Item = dict[str, Any]
TURNED = {"front": "left", "left": "rear", "rear": "right", "right": "front"}
OTHER = {"x": "y", "y": "x", "z": "z"}


def quartered(document: Item) -> Item:
    """The document of a tank without a bay, turned: what was so far from the rear is as far from the right, and what
    was so far from the left is as far from the rear.
    """
    shell = document["shell"]
    _, wide = across(shell)
    changed: Item = {"shell": _shell(shell, wide), "bay": None}
    changed["ports"] = [
        _placed(port, wide) | {"face": TURNED.get(port["face"], port["face"])} for port in document["ports"]
    ]
    changed["gauge"] = {"senders": [_sender(sender, wide) for sender in document["gauge"]["senders"]]}
    return document | changed


def _placed(item: Item, wide: float) -> Item:
    return item | {"x_mm": wide - item["y_mm"], "y_mm": item["x_mm"]}


def _sender(sender: Item, wide: float) -> Item:
    action = sender["action"]
    if action["kind"] == "swing arm":
        action = action | {"heading_deg": action.get("heading_deg", 0.0) + 90.0}
    return _placed(sender, wide) | {"action": action}


def _shell(shell: Item, wide: float) -> Item:
    wall = shell["thickness_mm"]
    changed: Item = {"features": [_feature(feature, wide, wall) for feature in shell["features"]]}
    if shell["kind"] == "cylinder":
        return shell | changed | {"axis": OTHER[shell["axis"]]}
    if shell["kind"] == "box":
        changed |= {"length_mm": shell["width_mm"], "width_mm": shell["length_mm"]}
        return shell | changed | {"wrap_axis": OTHER[shell.get("wrap_axis", "x")]}
    if shell["wrap_axis"] == "x":
        changed["corners"] = from_behind(shell["corners"])
    return shell | changed | {"wrap_axis": OTHER[shell["wrap_axis"]]}


def _feature(feature: Item, wide: float, wall: float) -> Item:
    kind = feature["kind"]
    if kind in ("well", "sump", "pot"):
        long, across_ = feature["long_mm"], feature["wide_mm"]
        size = long if feature.get("form") == "round" else across_
        swapped = {} if feature.get("form") == "round" else {"long_mm": across_, "wide_mm": long}
        return feature | {"a_mm": wide - feature["b_mm"] - size, "b_mm": feature["a_mm"]} | swapped
    if kind == "relief":
        place = {"x_mm": wide - feature["y_mm"] - feature["width_mm"], "y_mm": feature["x_mm"]}
        size = {"length_mm": feature["width_mm"], "width_mm": feature["length_mm"]}
        return feature | place | size | {"form": OTHER.get(feature["form"], feature["form"])}
    if kind == "roof step":
        return feature | {"side": TURNED[feature["side"]]}
    thick = feature.get("thickness_mm") or wall
    at = wide - feature["at_mm"] - thick if feature["axis"] == "y" else feature["at_mm"]
    return feature | {"axis": OTHER[feature["axis"]], "at_mm": at}

"""The cutter's wiring: one lift pump, stopped in a crash, and by hand."""

from typing import Any

from server.demo.wires import device, wire

DAY_WIRING: dict[str, Any] = {
    "devices": [
        device("battery", "battery", "battery", (1750.0, 560.0, 320.0)),
        device("earth point", "earth-1", "earth by the battery", (1750.0, 560.0, 260.0)),
        device("earth point", "earth-2", "earth by the tank", (750.0, 430.0, 468.0)),
        device("fuse", "fuse-0", "ignition fuse", (1750.0, 560.0, 200.0)),
        device("switch", "ignition", "ignition switch", (1750.0, 560.0, 140.0)),
        device("cut-off", "cut-off", "inertia cut-off", (1750.0, 560.0, 80.0)),
        device("fuse", "fuse-1", "fuse of lift pump", (1810.0, 560.0, 200.0)),
        device("relay", "relay-1", "relay of lift pump", (1810.0, 560.0, 80.0)),
        device("gauge", "gauge", "fuel gauge", (1870.0, 560.0, 140.0)),
        device(
            "level switch",
            "low-switch",
            "low-level switch",
            (340.0, 160.0, 438.0),
            height_mm=53.9,
            stands="in the tank's wall",
            sealed=True,
        ),
        device("lamp", "low-lamp", "low-level lamp", (1870.0, 560.0, 80.0), means="down to the reserve: refuel"),
    ],
    "wires": [
        wire(1, "battery.-", "earth-1.earth", "black", area_mm2=10.0, length_mm=300.0),
        wire(2, "battery.+", "fuse-0.in", "red", length_mm=150.0),
        wire(3, "fuse-0.out", "ignition.in", "red"),
        wire(4, "ignition.out", "cut-off.in", "yellow"),
        wire(5, "battery.+", "fuse-1.in", "red", length_mm=150.0),
        wire(6, "fuse-1.out", "relay-1.in", "red"),
        wire(7, "cut-off.out", "relay-1.coil +", "yellow"),
        wire(8, "relay-1.coil -", "earth-1.earth", "black"),
        wire(9, "relay-1.out", "pump:lift.+", "red", along=["to-engine", "to-filter"]),
        wire(10, "pump:lift.-", "earth-2.earth", "black"),
        wire(11, "ignition.out", "gauge.+", "yellow"),
        wire(12, "gauge.-", "earth-1.earth", "black"),
        wire(13, "gauge.sender", "sender:starboard-sender.signal", "blue", along=["to-engine", "to-filter"]),
        wire(14, "sender:starboard-sender.-", "earth-2.earth", "black"),
        wire(15, "ignition.out", "low-lamp.+", "yellow"),
        wire(16, "low-lamp.-", "low-switch.in", "blue", along=["to-engine", "to-filter"]),
        wire(17, "low-switch.out", "earth-2.earth", "black"),
    ],
    "bonds": [
        {"id": "bond-1", "name": "tank strap", "start": "tank", "end": "chassis", "length_mm": 250.0},
    ],
}

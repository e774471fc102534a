"""Kinds of work at the bench, and how long a workshop takes for each."""

from typing import Annotated, Literal

from pydantic import Field

from keel.design.base import Name, Part

WorkKind = Literal[
    "prepare", "receive", "send", "cut", "deburr", "seat", "bend", "roll", "join", "tack", "weld", "clean", "look",
    "close", "dress", "plug", "trim", "fit", "prove", "cover", "commission",
]  # fmt: skip
"""Each has its own rate, and somebody who may do it."""
Minutes = Annotated[float, Field(ge=0, le=10_000)]


class WorkRates(Part):
    """Times that operations are planned with, beside those of bends, ports and fittings; empty: not typed yet."""

    receive_min_each: Minutes | None = Field(default=None, description="One bought part counted and looked at [min]")
    prepare_min_per_m2: Minutes | None = Field(
        default=None, description="Surface of a flat cleaned and prepared, both faces [min/m²]"
    )
    send_min_each: Minutes | None = Field(default=None, description="One part packed, written up and sent [min]")
    cut_min_per_m: Minutes | None = Field(default=None, description="Outline marked out and cut [min/m]")
    deburr_min_per_m: Minutes | None = Field(default=None, description="Edge deburred [min/m]")
    roll_min_each: Minutes | None = Field(default=None, description="One piece rolled [min]")
    join_min_each: Minutes | None = Field(default=None, description="Two plates put together and tacked [min]")
    tack_min_per_m: Minutes | None = Field(default=None, description="Seam fitted and tacked [min/m]")
    weld_min_per_m: Minutes | None = Field(default=None, description="Seam cleaned and welded [min/m]")
    clean_min_each: Minutes | None = Field(default=None, description="One room of the inside cleaned [min]")
    look_min_each: Minutes | None = Field(default=None, description="One room of the inside looked at [min]")
    dress_min_per_m: Minutes | None = Field(default=None, description="Seam dressed where it is seen [min/m]")
    plug_min_each: Minutes | None = Field(default=None, description="One opening plugged or opened [min]")
    trim_min_each: Minutes | None = Field(default=None, description="One piece of a hanger cut to length [min]")
    prove_min_each: Minutes | None = Field(
        default=None, description="One cell set up for its leak test and looked at [min]"
    )
    cover_min_per_m2: Minutes | None = Field(default=None, description="Outside primed and painted [min/m²]")
    commission_min_each: Minutes | None = Field(
        default=None, description="One step between first fuel and hand-over [min]"
    )
    by: dict[WorkKind, Name] = Field(
        default_factory=dict, description="The trade that a kind of work is for; others: anybody who builds"
    )

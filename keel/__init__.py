"""The computation of Core Keel, to be used as a library: see docs/library.md.

What stands here is its public face; everything else may move.
"""

from importlib import import_module
from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    from keel.analysis.showing import Showing as Showing
    from keel.design.document import Design as Design
    from keel.design.workshop import Workshop as Workshop
    from keel.evaluation import Evaluation as Evaluation
    from keel.evaluation import evaluate as evaluate
    from keel.findings.patch import apply as apply
    from keel.formats.document import design_json as design_json
    from keel.formats.document import read_design as read_design
    from keel.solid.faults import GeometryError as GeometryError

FACE = {
    "Design": "keel.design.document",
    "Workshop": "keel.design.workshop",
    "Evaluation": "keel.evaluation",
    "Showing": "keel.analysis.showing",
    "evaluate": "keel.evaluation",
    "apply": "keel.findings.patch",
    "design_json": "keel.formats.document",
    "read_design": "keel.formats.document",
    "GeometryError": "keel.solid.faults",
}
"""Where each name of the public face lives; loaded when it is first asked for."""
__all__ = list(FACE)


def __getattr__(name: str) -> Any:
    if name not in FACE:
        raise AttributeError(f"keel has no {name}")
    return getattr(import_module(FACE[name]), name)

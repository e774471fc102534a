"""The core on its own: `python -m keel evaluate design.json`, `python -m keel schema`, `python -m keel warm`."""

import argparse
import json
import sys
from collections.abc import Sequence
from pathlib import Path

from pydantic import ValidationError

from keel.design.faults import faults
from keel.design.workshop import Workshop
from keel.evaluation import evaluate
from keel.formats.document import UnreadableDesignError, design_schema, read_design
from keel.reference.connections import SIZES
from keel.reference.gauges import gauges_by_metal
from keel.reference.hoses import DASH_BORE_MM
from keel.reference.quantities import quantity_table
from keel.reference.wires import GAUGES, gauge_mm2
from keel.solid.faults import GeometryError
from keel.warm import warm_answers, warm_kernels

BAD_INPUT = 2


def main(arguments: Sequence[str] | None = None) -> int:
    """Run a command; 0 when it went well, 2 on bad input with a line for each fault on stderr.

    Parameters
    ----------
    arguments : sequence of str, optional
        Command and its options; those of the process by default.

    Returns
    -------
    int
        Exit code.
    """
    parser = argparse.ArgumentParser(prog="python -m keel", description="Fuel tank computation")
    commands = parser.add_subparsers(dest="command", required=True)
    command = commands.add_parser("evaluate", help="print the evaluation of a design as JSON")
    command.add_argument("design", type=Path, help="design document (JSON), or - for standard input")
    command.add_argument("--workshop", type=Path, help="workshop document (JSON); the usual rules by default")
    commands.add_parser("schema", help="print the design document's JSON Schema")
    commands.add_parser("quantities", help="print the table of quantities and their units as JSON")
    commands.add_parser("warm", help="compile the kernels ahead of their first use")
    options = parser.parse_args(arguments)
    if options.command == "schema":
        print(json.dumps(design_schema(), indent=2, ensure_ascii=False))
        return 0
    if options.command == "quantities":
        table = {"quantities": quantity_table(), "gauges": gauges_by_metal(), "dash_bores_mm": DASH_BORE_MM}
        table |= {"connection_sizes": {standard: list(sizes) for standard, sizes in SIZES.items()}}
        table |= {"wire_gauges_mm2": {str(gauge): gauge_mm2(gauge) for gauge in GAUGES}}
        print(json.dumps(table, indent=1, ensure_ascii=False))
        return 0
    if options.command == "warm":
        warm_kernels()
        warm_answers()
        return 0
    return _evaluate(options.design, options.workshop)


def _evaluate(design_path: Path, workshop_path: Path | None) -> int:
    try:
        design = read_design(sys.stdin.buffer.read() if str(design_path) == "-" else design_path.read_bytes())
        workshop = Workshop.model_validate_json(workshop_path.read_bytes()) if workshop_path else Workshop()
    except UnreadableDesignError as error:
        return _complain([f"{f.field}: {f.message} (is {f.value}, allowed: {f.limit})" for f in error.faults])
    except ValidationError as error:
        return _complain([f"{f.field}: {f.message} (is {f.value}, allowed: {f.limit})" for f in faults(error)])
    except OSError as error:
        return _complain([f"{error.filename}: {error.strerror}"])
    try:
        answer = evaluate(design, workshop)
    except GeometryError as error:
        return _complain([f"{error.fault.field}: {error.fault.message}"])
    print(answer.model_dump_json(indent=2))
    return 0


def _complain(lines: list[str]) -> int:
    for line in lines:
        print(line.replace("\n", " "), file=sys.stderr)
    return BAD_INPUT


if __name__ == "__main__":
    sys.exit(main())

"""The order of work of a tank: operations and gates, from its parts, its seams and what is fitted to it."""

from dataclasses import dataclass, replace

from keel.analysis.parts import WORKSHOP, only
from keel.analysis.study import study
from keel.design.document import Design
from keel.design.workshop import Workshop
from keel.solid.solids import Solids
from keel.studies.build.bench import Bench
from keel.studies.build.bond_work import BondWork
from keel.studies.build.flat_work import FlatWork
from keel.studies.build.goods import goods, goods_gates
from keel.studies.build.handover_work import HandoverWork
from keel.studies.build.mount_work import MountWork
from keel.studies.build.operation import Bought, Operation, Traveller
from keel.studies.build.port_work import PortWork
from keel.studies.build.proof_work import ProofWork, cell_tests
from keel.studies.build.shell_work import ShellWork
from keel.studies.buying.line_goods import LINE_GOODS
from keel.studies.cost.figures import FIGURES, Figures
from keel.studies.handover.first_fill import FIRST_FILL, FillStep
from keel.studies.handover.line_joints import LINE_PROOF, LineProof
from keel.studies.inside.assembly import ASSEMBLY, Assembly
from keel.studies.mount.straps import STRAPS, StrapPath
from keel.studies.ports.reach import REACHES, Reach
from keel.studies.proof.walk import WALK, WalkSeam
from keel.studies.result import words
from keel.studies.sheet.bending import BENDINGS, Bendings
from keel.studies.sheet.cutting import CUTTING, Cutting
from keel.studies.sheet.flats import FLATS
from keel.studies.sheet.model import Sheet
from keel.studies.sheet.shell_parts import BARE_SOLIDS
from keel.studies.wiring.bonds import BONDING, Bonding


@dataclass(frozen=True, slots=True)
class Means:
    """How a tank's parts are cut and bent, and in which order they are put together."""

    cutting: list[Cutting]
    bendings: Bendings
    solids: Solids
    assembly: Assembly
    walk: list[WalkSeam]
    straps: list[StrapPath]
    figures: Figures


@dataclass(frozen=True, slots=True)
class Fitting:
    """Which metal is bonded, what lines and wiring take (no step of the tank waits for it), how all is proved."""

    bonding: Bonding
    bought: list[Bought]
    proof: LineProof
    fills: list[FillStep]


def traveller(
    made: Sheet,
    means: Means,
    reaches: list[Reach],
    design: Design,
    workshop: Workshop,
    fitting: Fitting,
) -> Traveller:
    """The order of work of a tank.

    Parameters
    ----------
    made : Sheet
        Parts as they are cut, and seams.
    means : Means
        What cuts and bends each, what stands inside, in which order it goes in.
    reaches : list of Reach
        Hangers and how they are cut.
    design : Design
        With a shell: metal, ports, senders, which parts are sent out.
    workshop : Workshop
        Rates and trades.
    fitting : Fitting
        What comes with lines and wiring, up to hand-over.

    Returns
    -------
    Traveller
        Empty where the shell can't be made of sheet.
    """
    if design.shell is None or made.impossible is not None or not made.seams:
        return Traveller([], [])
    bench, ports, senders = Bench(workshop, design.shell.metal, made.parts), design.ports, design.gauge.senders
    fuel = design.brief.fuel
    cut = FlatWork(bench, made.parts, means.cutting, means.bendings.parts, ports, design.sheet.sent_out)
    flat = cut.all()
    shell_work = ShellWork(bench, made, means.solids, means.assembly, flat)
    closed = [*flat, *shell_work.closing()]
    mount_work = MountWork(bench, design.mount, means.straps, means.figures.empty_kg)
    closed += mount_work.hot([closed[-1].id])
    plugged = PortWork(bench, ports, senders, reaches, closed, fuel).plugged([closed[-1].id])
    heated = [*closed, *plugged, shell_work.dressed([one.id for one in plugged] or [closed[-1].id])]
    cells = [cell.name for cell in means.solids.cells]
    tests = cell_tests(cells, means.walk, workshop.rules.calibration_months)
    proof_work = ProofWork(bench, tests, shell_work.own)
    proving = proof_work.proving([heated[-1].id])
    covering = proof_work.covering([one.id for one in proving], design.inside.lining)
    masked = mount_work.masked([one.id for one in proving], covering)
    covering = [replace(one, needs=[*one.needs, *(m.id for m in masked)]) for one in covering]
    port_work = PortWork(bench, ports, senders, reaches, [*heated, *proving], fuel)
    fitted = port_work.all()
    mounting = mount_work.mounted([one.id for one in [*proving, *covering]])
    bond_work = BondWork(bench, fitting.bonding)
    strapped = bond_work.all([one.id for one in mounting[-1:] or [*proving, *covering]])
    bought = goods(ports, senders, design.inside)
    operations = [
        *_received(bench, bought),
        *_lines_received(bench, fitting.bought),
        *heated,
        *proving,
        *masked,
        *covering,
        *fitted,
        *mount_work.made(),
        *mounting,
        *strapped,
    ]
    last = HandoverWork(bench, fitting.proof, fitting.fills, fuel)
    operations += last.all(_leaves(operations))
    gates = [*goods_gates(bought, operations), *shell_work.gates(), *proof_work.gates(covering), *port_work.gates()]
    gates += [*mount_work.gates(operations), *bond_work.gates(), *last.gates()]
    names = {part.name: part.title for part in made.parts} | {one.id: one.name for one in ports}
    names |= {one.id: one.name for one in senders}
    return Traveller(operations, gates, [*bought, *fitting.bought], names, tests)


def _leaves(operations: list[Operation]) -> list[str]:
    """Operations that nothing else waits for."""
    needed = {name for one in operations for name in one.needs}
    return [one.id for one in operations if one.id not in needed]


def _received(bench: Bench, bought: list[Bought]) -> list[Operation]:
    """What is bought is counted and looked at when it comes, whatever else is in work."""
    if not bought:
        return []
    pieces = sum(item.quantity for item in bought)
    said = words("Count {n} bought pieces in against the list, caps too, and note what their makers ask for", n=pieces)
    parts = dict.fromkeys(part for item in bought for part in item.parts)
    return [bench.operation("receive", "goods", said, pieces, parts=parts, tools=["the list", "a box for caps"])]


def _lines_received(bench: Bench, more: list[Bought]) -> list[Operation]:
    """The same of what lines and wiring take."""
    if not more:
        return []
    said = words("Count the lines' parts in against the buying list: {n} kinds", n=len(more))
    tools = ["the list", "caps for every open end"]
    return [bench.operation("receive", "lines", said, len(more), tools=tools)]


MEANS = study(Means, CUTTING, BENDINGS, BARE_SOLIDS, ASSEMBLY, WALK, STRAPS, FIGURES)
FITTING = study(Fitting, BONDING, LINE_GOODS, LINE_PROOF, FIRST_FILL)
DRAWN = only("shell", "brief.fuel", "ports", "gauge", "inside", "sheet.sent_out", "mount")
TRAVELLER = study(traveller, FLATS, MEANS, REACHES, DRAWN, WORKSHOP, FITTING).at_rest()
"""The order of work; not worked out during a drag."""

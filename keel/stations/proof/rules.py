"""What is wrong with a leak test as it is planned."""

from collections.abc import Iterator

from keel.analysis.tank import TankAnalysis
from keel.design.proof import Proof
from keel.findings.finding import Finding, saying
from keel.studies.proof.plan import PROOF_PLAN, CellPlan

_proof = saying("proof")
HAIR_KPA = 1e-6
TALLEST_COLUMN_MM = 2000.0
LONGEST_MIN = 24 * 60.0


def cell_bears_it(tank: TankAnalysis) -> Iterator[Finding]:
    """No cell is pressed beyond what its weakest panel bears."""
    for cell in _cells(tank):
        if cell.pressure_kpa > cell.bears_kpa + HAIR_KPA:
            limits = f"what its {cell.panels[0].name} bears" if cell.panels[0].safe_kpa < cell.cap_kpa else "house rule"
            yield _proof(
                "proof.pressure",
                cell.cell,
                "stop",
                "Test pressure of the {cell} {pressure_finekpa}, limit {safe_finekpa} ({limits})",
                "Above it the panel bows for good or tears, with all the air behind it.",
                cell=cell.cell,
                pressure_finekpa=cell.pressure_kpa,
                safe_finekpa=cell.bears_kpa,
                limits=limits,
            )


def limiter_is_between(tank: TankAnalysis) -> Iterator[Finding]:
    """The limiter opens above the test pressure and before the weakest panel gives."""
    for cell in _cells(tank):
        if cell.limiter_kpa > cell.bears_kpa + HAIR_KPA:
            said = "Limiter of the {cell} opens at {limiter_finekpa}, limit {safe_finekpa} (what the cell bears)"
            why = "A regulator that creeps then bursts the tank with the limiter still shut."
        elif cell.limiter_kpa < cell.pressure_kpa - HAIR_KPA:
            said = "Limiter of the {cell} opens at {limiter_finekpa}, below the test pressure of {pressure_finekpa}"
            why = "It lets the test off before it has begun."
        else:
            continue
        yield _proof(
            "proof.limiter",
            cell.cell,
            "stop",
            said,
            why,
            cell=cell.cell,
            limiter_finekpa=cell.limiter_kpa,
            safe_finekpa=cell.bears_kpa,
            pressure_finekpa=cell.pressure_kpa,
        )


def column_can_be_built(tank: TankAnalysis) -> Iterator[Finding]:
    """A water column no taller than a ladder reaches."""
    if tank.design.proof.limiter != "water column":
        return
    for cell in _cells(tank):
        if cell.column_mm > TALLEST_COLUMN_MM:
            yield _proof(
                "proof.column",
                cell.cell,
                "note",
                "Water column of the {cell} {column_mm} tall, limit {most_mm} (a ladder)",
                "Nobody sees its top. A relief valve set on the gauge does the same.",
                cell=cell.cell,
                column_mm=cell.column_mm,
                most_mm=TALLEST_COLUMN_MM,
            )


def lasts_long_enough(tank: TankAnalysis) -> Iterator[Finding]:
    """Readings last as long as the instruments need."""
    if tank.design.proof.method != "pressure decay":
        return
    for cell in _cells(tank):
        if cell.minutes < cell.least_min.both:
            yield _proof(
                "proof.short",
                cell.cell,
                "stop",
                "Test of the {cell} {planned_min} long, at least {least_min} (gauge and thermometer)",
                "The largest leak allowed doesn't show by then: whatever it reads, nothing is proved.",
                cell=cell.cell,
                planned_min=cell.minutes,
                least_min=cell.least_min.both,
            )
        elif cell.least_min.both > LONGEST_MIN:
            yield _proof(
                "proof.coarse",
                cell.cell,
                "caution",
                "Test of the {cell} takes at least {least_min} with this gauge, limit {most_min} (a day)",
                "Sun and weather move the pressure more than the leak. Take a finer gauge or thermometer, or soap.",
                cell=cell.cell,
                least_min=cell.least_min.both,
                most_min=LONGEST_MIN,
            )


def gauge_reaches(tank: TankAnalysis) -> Iterator[Finding]:
    """The limiter's pressure is on the gauge's scale."""
    asked = tank.design.proof.gauge
    gauge = tank.workshop.test_gauge(asked)
    if asked and gauge.name != asked:
        yield _proof(
            "proof.gauge",
            "",
            "note",
            "Gauge {asked} is not among the workshop's: {taken} is taken",
            "Its resolution decides how long the test has to last. Choose one, or add it under Workshop.",
            asked=asked,
            taken=gauge.name,
        )
    for cell in _cells(tank):
        if cell.limiter_kpa > gauge.most_kpa:
            yield _proof(
                "proof.scale",
                cell.cell,
                "stop",
                "Limiter of the {cell} opens at {limiter_finekpa}, end of the gauge's scale {most_kpa}",
                "Between the two nobody sees what the pressure does.",
                cell=cell.cell,
                limiter_finekpa=cell.limiter_kpa,
                most_kpa=gauge.most_kpa,
            )


def paper_comes_last(tank: TankAnalysis) -> Iterator[Finding]:
    """Filling with fuel is the last check."""
    if tank.design.proof.method == "filled, on dry paper":
        yield _proof(
            "proof.paper",
            "",
            "caution",
            "Filled on dry paper: last check, 0 other methods before it",
            "A leak found with fuel in the tank has to be made safe before it is welded. Air first, fuel last.",
        )


def _cells(tank: TankAnalysis) -> list[CellPlan]:
    """All cells; where nothing of the test is typed, not before the hand rests: what isn't typed follows the tank."""
    return tank[PROOF_PLAN].cells if tank.is_at_rest or tank.design.proof != Proof() else []

"""What would put a planned leak test right."""

from collections.abc import Iterator

from keel.analysis.tank import TankAnalysis
from keel.findings.finding import Finding, Remedy
from keel.stations.proof.rules import LONGEST_MIN
from keel.studies.proof.decay import PressureReading, least_minutes
from keel.studies.proof.plan import PLAN_BAROMETER_KPA, PLAN_C, PROOF_PLAN, CellPlan, down, leak_test
from keel.studies.result import words

STEP_KPA = 0.1


def lower_pressure(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """The pressure that the weakest cell bears; or bars across the weakest panels, as few as do."""
    cell = _cell(tank, finding)
    least = down(min(one.bears_kpa for one in tank[PROOF_PLAN].cells), STEP_KPA)
    patch = {"proof": {"pressure_kpa": least, "limiter_kpa": None, "minutes": None}}
    yield Remedy(label=words("Test at {pressure_finekpa} and for longer", pressure_finekpa=least), patch=patch)
    enough = next((one for one in cell.braced if one.safe_kpa >= cell.pressure_kpa), None)
    if enough:
        label = words("Clamp {n} bars across the weakest panels for the test", n=enough.bars)
        if enough.bars == 1:
            label = words(
                "Clamp a bar of {long_mm} across the {panel} for the test", long_mm=enough.long_mm, panel=enough.panel
            )
        yield Remedy(label=label, patch={"proof": {"braces": enough.bars, "limiter_kpa": None}})


def set_limiter(_tank: TankAnalysis, _finding: Finding) -> Iterator[Remedy]:
    """The limiter as it is worked out."""
    yield Remedy(
        label=words("Limiter a tenth over the test pressure, never over what the cell bears"),
        patch={"proof": {"limiter_kpa": None}},
    )


def relief_instead(_tank: TankAnalysis, _finding: Finding) -> Iterator[Remedy]:
    """A relief valve."""
    yield Remedy(label=words("Relief valve instead of the column"), patch={"proof": {"limiter": "relief valve"}})


def long_enough(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Twice the least."""
    least = max(cell.least_min.both for cell in tank[PROOF_PLAN].cells)
    yield Remedy(label=words("Twice the least, {least_min}", least_min=2 * least), patch={"proof": {"minutes": None}})


def usual_gauge(tank: TankAnalysis, _finding: Finding) -> Iterator[Remedy]:
    """The workshop's usual gauge."""
    yield Remedy(label=words("Take {name}", name=tank[PROOF_PLAN].gauge.name), patch={"proof": {"gauge": ""}})


def wider_gauge(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """One of the workshop's gauges whose scale reaches."""
    cell = _cell(tank, finding)
    for gauge in tank.workshop.test_gauges:
        if gauge.most_kpa >= cell.limiter_kpa:
            patch = {"proof": {"gauge": gauge.name, "minutes": None}}
            yield Remedy(label=words("{name}, to {most_kpa}", name=gauge.name, most_kpa=gauge.most_kpa), patch=patch)


def finer(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """A gauge of the workshop's that is done within a day, or soap."""
    cell = _cell(tank, finding)
    start = PressureReading(0.0, cell.pressure_kpa, PLAN_C, PLAN_BAROMETER_KPA)
    for gauge in tank.workshop.test_gauges:
        test = leak_test(cell.volume_l, cell.limit_sccm, gauge, tank.workshop.rules)
        if least_minutes(start, test).both <= LONGEST_MIN:
            yield Remedy(
                label=words("{name}", name=gauge.name), patch={"proof": {"gauge": gauge.name, "minutes": None}}
            )
    yield Remedy(label=words("Soap and low pressure instead"), patch={"proof": {"method": "soap and low pressure"}})


def air_first(_tank: TankAnalysis, _finding: Finding) -> Iterator[Remedy]:
    """Air before fuel."""
    yield Remedy(label=words("Pressure decay first"), patch={"proof": {"method": "pressure decay"}})


def _cell(tank: TankAnalysis, finding: Finding) -> CellPlan:
    return next(cell for cell in tank[PROOF_PLAN].cells if cell.cell == finding.subject)

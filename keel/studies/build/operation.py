"""What an order of work consists of: operations, and gates that stand before some of them."""

from dataclasses import dataclass, field
from typing import Literal

from keel.design.work import WorkKind
from keel.studies.result import Words


@dataclass(frozen=True, slots=True)
class Count:
    """Pieces of a kind to be counted while an operation is done: so many are expected."""

    what: str
    way: Literal["in", "out"]
    expected: int


@dataclass(frozen=True, slots=True)
class Tightening:
    """Bolts round a ring in the order they are tightened, in passes that are shares of the full torque."""

    order: list[int]
    torque_nm: float | None
    passes: list[float]


@dataclass(frozen=True, slots=True)
class Operation:
    """One step of the work.

    Attributes
    ----------
    id : str
        What entries of the log name it by: its kind and what it is done on.
    kind : WorkKind
        Of work; the rate goes by it.
    title : Words
        What is done.
    parts : list of str
        Flats, ports and features that it is done on, by the names that the drawing has them under.
    needs : list of str
        Operations that have to be done before.
    tools : list of str
        What has to lie ready.
    consumables : list of Words
        What is used up.
    minutes : float or None
        Planned by the workshop's rates [min]; None where the rate isn't typed.
    amount : float
        How much work it is, in the unit of its rate.
    by : str
        Who may do it; empty for anybody who builds.
    cautions : list of Words
        Hazard, harm, action.
    cheap_now : list of Words
        Jobs that cost little here and much later.
    steps : list of Words
        What it consists of, one after the other, where the order matters.
    counts : list of Count
        What is counted in or out meanwhile.
    tightening : Tightening or None
        How its bolts are tightened, where it has any.
    pieces : list of str
        Which pieces of its parts it is done on, as they lie in the tank; all where none is named.
    basis : dict of str to str
        A digest of all that it depends on, by name: what a later revision is compared with.
    covers : bool
        It hides seams: paint, lining, a cover.
    """

    id: str
    kind: WorkKind
    title: Words
    parts: list[str] = field(default_factory=list)
    needs: list[str] = field(default_factory=list)
    tools: list[str] = field(default_factory=list)
    consumables: list[Words] = field(default_factory=list)
    minutes: float | None = None
    amount: float = 0.0
    by: str = ""
    cautions: list[Words] = field(default_factory=list)
    cheap_now: list[Words] = field(default_factory=list)
    steps: list[Words] = field(default_factory=list)
    counts: list[Count] = field(default_factory=list)
    pieces: list[str] = field(default_factory=list)
    tightening: Tightening | None = None
    basis: dict[str, str] = field(default_factory=dict)
    covers: bool = False


@dataclass(frozen=True, slots=True)
class AllDone:
    """These operations are done or skipped with reason."""

    operations: tuple[str, ...]
    kind: Literal["all done"] = "all done"


@dataclass(frozen=True, slots=True)
class Looked:
    """Somebody looked, or tried, and it was so; with a photo where the place is hidden afterwards."""

    check: str
    words: Words
    photo: bool = False
    kind: Literal["looked"] = "looked"


@dataclass(frozen=True, slots=True)
class CountsMatch:
    """Of every kind counted, as many out as in; of any kind at all where none is named."""

    kinds: tuple[str, ...] = ()
    kind: Literal["counts match"] = "counts match"


@dataclass(frozen=True, slots=True)
class ReadingAtMost:
    """The last reading is low enough, and young enough where its age counts."""

    subject: str
    most: float
    oldest_min: float | None = None
    unit: str = ""
    kind: Literal["reading at most"] = "reading at most"


@dataclass(frozen=True, slots=True)
class MeasurementsAgree:
    """Two measurements, taken independently, agree with each other and with what is drawn."""

    subject: str
    planned_mm: float
    within_mm: float
    kind: Literal["measurements agree"] = "measurements agree"


@dataclass(frozen=True, slots=True)
class FlushedClean:
    """Flushed or wiped out until nothing came."""

    subject: str
    kind: Literal["flushed clean"] = "flushed clean"


@dataclass(frozen=True, slots=True)
class NotShut:
    """Another gate is open or overridden."""

    gate: str
    kind: Literal["not shut"] = "not shut"


@dataclass(frozen=True, slots=True)
class AllHere:
    """Bought things have come, whole, as many as are needed."""

    items: tuple[tuple[str, str, int], ...]
    """By id: what it is called, how many are needed."""
    kind: Literal["all here"] = "all here"


@dataclass(frozen=True, slots=True)
class FreeOfVapour:
    """No vapour to burn: it never held fuel, or a reading that is low and young enough says so."""

    check: str
    subject: str
    most: float
    oldest_min: float
    kind: Literal["free of vapour"] = "free of vapour"


@dataclass(frozen=True, slots=True)
class Proved:
    """Each of these cells has passed its leak test, and nothing was done since that would undo it."""

    cells: tuple[str, ...]
    kind: Literal["proved"] = "proved"


Before = Literal["first fuel", "engine running", "hand-over"]
"""A step that something open has to be closed before."""


@dataclass(frozen=True, slots=True)
class NothingOpen:
    """Nothing stands in the ledger that has to be closed before this step."""

    before: Before
    kind: Literal["nothing open"] = "nothing open"


@dataclass(frozen=True, slots=True)
class PouredIn:
    """So much has been poured into a cell, measured, and the gauge read; it holds no more than some litres."""

    subject: str
    litres: float
    holds_l: float
    kind: Literal["poured in"] = "poured in"


@dataclass(frozen=True, slots=True)
class LineHolds:
    """A line has held its working pressure so long, and lost no more of it than a share."""

    circuit: str
    name: str
    kpa: float
    minutes: float
    fall: float
    joints: tuple[str, ...] = ()
    kind: Literal["line holds"] = "line holds"


@dataclass(frozen=True, slots=True)
class JointsDry:
    """Each joint was dry when it was looked at last, after an operation where one is named, and has its marks."""

    joints: tuple[tuple[str, str, tuple[str, ...]], ...]
    """Each by its id, its name, and the marks that it takes."""
    after: str = ""
    kind: Literal["joints dry"] = "joints dry"


@dataclass(frozen=True, slots=True)
class CellTest:
    """A cell that is proved: its seams, cells that stand open meanwhile, how long a gauge's calibration holds."""

    cell: str
    seams: tuple[str, ...]
    neighbours: tuple[str, ...] = ()
    calibration_months: float = 12.0


@dataclass(frozen=True, slots=True)
class Bought:
    """Something that is bought: how many, and the ports and features that it goes to."""

    id: str
    title: Words
    quantity: int
    parts: tuple[str, ...] = ()


Condition = (
    AllHere | AllDone | Looked | CountsMatch | ReadingAtMost | MeasurementsAgree | FlushedClean | NotShut | FreeOfVapour
    | Proved | NothingOpen | PouredIn | LineHolds | JointsDry
)  # fmt: skip


@dataclass(frozen=True, slots=True)
class Gate:
    """What has to hold before some operations are done.

    Attributes
    ----------
    id : str
        What entries of the log name it by.
    title : Words
        What it asks for.
    before : list of str
        Operations that wait for it.
    conditions : list of Condition
        All of them.
    why : Words
        What it costs, or whom it hurts, to pass it unmet.
    covering : bool
        Whether it stands before every step that hides seams, people's own too.
    firm : bool
        Nobody may pass it unmet.
    """

    id: str
    title: Words
    before: list[str]
    conditions: list[Condition]
    why: Words
    covering: bool = False
    firm: bool = False


@dataclass(frozen=True, slots=True)
class Traveller:
    """The order of work of a design: operations as they are done, the gates between them, what is bought."""

    operations: list[Operation]
    gates: list[Gate]
    goods: list[Bought] = field(default_factory=list)
    names: dict[str, str] = field(default_factory=dict)
    """What flats, ports and senders are called."""
    tests: list[CellTest] = field(default_factory=list)
    """Cells that are proved."""

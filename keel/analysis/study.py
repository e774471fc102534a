"""What a study is: a named function of parts of the document and of other studies."""

from __future__ import annotations

import typing
from abc import ABC, abstractmethod
from collections.abc import Callable
from hashlib import blake2b
from typing import TYPE_CHECKING, Any, Generic, Self, TypeVar, overload

from pydantic_core import to_json

if TYPE_CHECKING:
    from keel.analysis.tank import Asked, TankAnalysis

T = TypeVar("T")
T_co = TypeVar("T_co", covariant=True)
A = TypeVar("A")
B = TypeVar("B")
C = TypeVar("C")
D = TypeVar("D")
E = TypeVar("E")
F = TypeVar("F")
G = TypeVar("G")


class Input(ABC, Generic[T_co]):
    """What a study may read.

    Attributes
    ----------
    name : str
        Unique among all inputs.
    """

    name: str

    @abstractmethod
    def is_there(self, asked: Asked) -> bool:
        """Whether there is anything to read: what belongs to a shell is not there without one."""

    @abstractmethod
    def key(self, analysis: TankAnalysis) -> bytes:
        """What it comes from, as a digest: the same digest, the same value."""

    @abstractmethod
    def value(self, analysis: TankAnalysis) -> T_co:
        """The value itself."""

    def __repr__(self) -> str:
        return f"<{self.name}>"


class DocumentPart(Input[T_co]):
    """A part of what is asked: of the design, of the workshop, of what is to be shown.

    Parameters
    ----------
    name : str
        Its path.
    take : callable
        Takes it out of what is asked.
    content : callable, optional
        What tells two values apart: objects that can be written as JSON; the value itself by default.
    is_there : callable, optional
        Whether it is there at all.
    """

    def __init__(
        self,
        name: str,
        take: Callable[[Asked], T_co],
        content: Callable[[Asked], tuple[Any, ...]] | None = None,
        is_there: Callable[[Asked], bool] = lambda _asked: True,
    ) -> None:
        self.name, self._take, self._is_there = name, take, is_there
        self._content = content or (lambda asked: (take(asked),))

    def is_there(self, asked: Asked) -> bool:
        """Whether it is there."""
        return self._is_there(asked)

    def key(self, analysis: TankAnalysis) -> bytes:
        """Digest of its content."""
        return blake2b(to_json(self._content(analysis.asked)), digest_size=16, key=self.name[:64].encode()).digest()

    def is_same(self, asked: Asked, other: Asked) -> bool:
        """Whether two questions have the very same objects there."""
        return all(a is b for a, b in zip(self._content(asked), self._content(other), strict=True))

    def value(self, analysis: TankAnalysis) -> T_co:
        """As it was asked."""
        return self._take(analysis.asked)


class Maybe(Input[T_co | None]):
    """An input that is None where there is nothing to read."""

    def __init__(self, of: Input[T_co]) -> None:
        self.of, self.name = of, f"{of.name} or none"

    def is_there(self, asked: Asked) -> bool:
        """Always."""
        return True

    def key(self, analysis: TankAnalysis) -> bytes:
        """That of the input, if it is there."""
        return analysis.key(self.of) if self.of.is_there(analysis.asked) else b"none"

    def value(self, analysis: TankAnalysis) -> T_co | None:
        """That of the input, if it is there."""
        return analysis[self.of] if self.of.is_there(analysis.asked) else None


class Study(Input[T_co]):
    """A pure function with what it reads: it gets that and nothing else.

    Parameters
    ----------
    function : callable
        Takes the values of `reads`, in their order. What it returns is never changed afterwards.
    reads : sequence of Input
        Parts of the document and other studies.

    Attributes
    ----------
    live : bool
        Whether it is answered during a drag; otherwise only once the hand rests.
    keeps : int
        How many of its results are remembered.
    is_by_value : bool
        Whether what reads it asks for its result, not for what that came from.
    returns
        The type of what it returns, as the function declares it.
    """

    def __init__(self, function: Callable[..., T_co], reads: tuple[Input[Any], ...]) -> None:
        self.name = f"{function.__module__}.{function.__qualname__}"
        self.function, self.reads = function, reads
        self.live, self.keeps, self.is_by_value = True, 32, False

    def at_rest(self) -> Self:
        """It is too long for a drag."""
        self.live = False
        return self

    def keeping(self, most: int) -> Self:
        """Its results are large: so many are remembered."""
        self.keeps = most
        return self

    def by_value(self) -> Self:
        """Its result is small, can be written as JSON, and often stays the same when what it reads doesn't."""
        self.is_by_value = True
        return self

    @property
    def returns(self) -> Any:
        """The declared type of its result."""
        return typing.get_type_hints(self.function)["return"]

    def is_there(self, asked: Asked) -> bool:
        """Whether all it reads is there."""
        return all(read.is_there(asked) for read in self.reads)

    def key(self, analysis: TankAnalysis) -> bytes:
        """Digest of its name and of the digests of what it reads; by value, of its result."""
        if self.is_by_value:
            return blake2b(self.name.encode() + to_json(analysis[self]), digest_size=16).digest()
        return self.origin(analysis)

    def origin(self, analysis: TankAnalysis) -> bytes:
        """Digest of its name and of the digests of what it reads."""
        digest = blake2b(self.name.encode(), digest_size=16)
        for read in self.reads:
            digest.update(analysis.key(read))
        return digest.digest()

    def value(self, analysis: TankAnalysis) -> T_co:
        """Its result, out of memory where it was worked out from the same before."""
        return analysis.remember(self)

    def run(self, analysis: TankAnalysis) -> T_co:
        """Its result, worked out."""
        return self.function(*(analysis[read] for read in self.reads))


@overload
def study(f: Callable[[A], T], a: Input[A], /) -> Study[T]: ...
@overload
def study(f: Callable[[A, B], T], a: Input[A], b: Input[B], /) -> Study[T]: ...
@overload
def study(f: Callable[[A, B, C], T], a: Input[A], b: Input[B], c: Input[C], /) -> Study[T]: ...
@overload
def study(f: Callable[[A, B, C, D], T], a: Input[A], b: Input[B], c: Input[C], d: Input[D], /) -> Study[T]: ...
@overload
def study(
    f: Callable[[A, B, C, D, E], T], a: Input[A], b: Input[B], c: Input[C], d: Input[D], e: Input[E], /
) -> Study[T]: ...
@overload
def study(
    f: Callable[[A, B, C, D, E, F], T], a: Input[A], b: Input[B], c: Input[C], d: Input[D], e: Input[E], g: Input[F], /
) -> Study[T]: ...
@overload
def study(
    f: Callable[[A, B, C, D, E, F, G], T],
    a: Input[A],
    b: Input[B],
    c: Input[C],
    d: Input[D],
    e: Input[E],
    g: Input[F],
    h: Input[G],
    /,
) -> Study[T]: ...
def study(f: Callable[..., T], /, *reads: Input[Any]) -> Study[T]:
    """A study of a function and what it reads, in the order of its parameters; the types are checked.

    Parameters
    ----------
    f : callable
        A pure function.
    *reads : Input[Any]
        What it takes, in that order: parts of the document, other studies.

    Returns
    -------
    Study[T]
        Runs `f` when what it reads changed.
    """
    return Study(f, reads)

"""Geometry that can't be made, named so that it can be put right."""

from keel.design.faults import Fault


class GeometryError(ValueError):
    """A design whose fields are each fine but whose shapes don't work; `fault` says which and why."""

    def __init__(self, fault: Fault) -> None:
        super().__init__(fault.message)
        self.fault = fault


def wrong(
    field: str, message: str, value: str | float | int | None = None, limit: str | float | None = None
) -> GeometryError:
    """The error for a field of the design [dotted path], with the value met and the limit it breaks.

    Parameters
    ----------
    field : str
        Dotted path.
    message : str
        What is wrong, in plain words.
    value : str or float or int, optional
        As met.
    limit : str or float, optional
        What it breaks.

    Returns
    -------
    GeometryError
        An error to be raised.
    """
    return GeometryError(Fault(field=field, value=value, limit="" if limit is None else str(limit), message=message))

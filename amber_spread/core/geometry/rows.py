"""Numbers a row each: what arrays of them are called, and rows of whole numbers told apart."""

import numpy
from numpy.typing import NDArray

Numbers = NDArray[numpy.float64]
Whole = NDArray[numpy.int64]


def keys_of(rows: Whole) -> Whole:
    """One number to each row of whole numbers, alike where the rows are and in their order: it is sorted in a tenth of
    the time of them. Raises ValueError where the rows span more than there are numbers.

    >>> keys_of(numpy.array([[2, 5], [1, 9], [2, 5]])).tolist()
    [5, 4, 5]
    """
    if not len(rows):
        return numpy.zeros(0, dtype=numpy.int64)
    spans = numpy.ptp(rows, axis=0) + 1
    return numpy.asarray(numpy.ravel_multi_index(tuple((rows - rows.min(axis=0)).T), tuple(spans)), dtype=numpy.int64)

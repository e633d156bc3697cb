"""A little linear algebra for five parameters: the browser has no library for it."""

from __future__ import annotations

from collections.abc import Sequence

from ..errors import InvalidInputError

Matrix = tuple[tuple[float, ...], ...]


def inverse(matrix: Matrix) -> Matrix:
    """Return the inverse of a small positive definite matrix.

    Parameters
    ----------
    matrix : tuple of tuple of float, n by n
        Symmetric and positive definite.

    Returns
    -------
    tuple of tuple of float, n by n

    Raises
    ------
    InvalidInputError
        If it has no inverse.

    Notes
    -----
    Gauss-Jordan; without pivoting, which a positive definite matrix does not need.

    Examples
    --------
    >>> inverse(((4.0, 0.0), (0.0, 2.0)))
    ((0.25, 0.0), (0.0, 0.5))
    """
    size = len(matrix)
    rows = [[*row, *(1.0 if i == j else 0.0 for j in range(size))] for i, row in enumerate(matrix)]
    for index in range(size):
        pivot = rows[index][index]
        if not pivot > 0.0:
            raise InvalidInputError("matrix", pivot, "positive definite")
        rows[index] = [value / pivot for value in rows[index]]
        for other in range(size):
            factor = rows[other][index]
            if other != index and factor != 0.0:
                rows[other] = [
                    value - factor * own
                    for value, own in zip(rows[other], rows[index], strict=True)
                ]
    return tuple(tuple(row[size:]) for row in rows)


def quadratic_form(vector: Sequence[float], matrix: Matrix) -> float:
    """Return ``v M v`` of a vector and a symmetric matrix: a variance from slopes and covariance.

    Parameters
    ----------
    vector : sequence of float, length n
        Slopes.
    matrix : tuple of tuple of float, n by n
        Covariance.

    Returns
    -------
    float
        Never negative.

    Examples
    --------
    >>> quadratic_form([1.0, 2.0], ((1.0, 0.0), (0.0, 0.25)))
    2.0
    """
    total = sum(
        a * b * matrix[i][j] for i, a in enumerate(vector) for j, b in enumerate(vector)
    )
    return max(total, 0.0)

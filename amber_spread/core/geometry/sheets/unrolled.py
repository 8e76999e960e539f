"""A patch of a surface of triangles laid out flat with the least change of its lengths, and how much they change.

Lengths are in mm. Corners are a row each, triangles three of their rows each; a patch hangs together and has one edge.
"""

from typing import TYPE_CHECKING, NamedTuple

import numpy
from numpy.typing import NDArray

from amber_spread.core.geometry.bodies.triangles import Triangles
from amber_spread.core.geometry.rows import Numbers

if TYPE_CHECKING:
    from scipy.sparse.linalg import SuperLU

LEAST_WEIGHT = 0.02
"""The cotangent of an obtuse angle is raised to this, so that no edge pushes its ends apart."""
ROUNDS = 8
FLIPPED = 9.0
"""How far a triangle is said to be stretched that is laid upside down."""
LEFT_OUT = 0.05
"""So much of the area may be stretched by more than is told: over corners, where it is smoothed by hand."""


class Flat(NamedTuple):
    """A patch laid out flat: its places in the plane, the area of each triangle on the body, and how much each is
    stretched or gathered at most, as a share.
    """

    places: Numbers
    areas: Numbers
    strained: Numbers

    @property
    def most(self) -> float:
        """How much 95 parts in 100 of it are stretched or gathered at most."""
        return mostly(self.strained, self.areas)


def mostly(shares: Numbers, areas: Numbers) -> float:
    """The most of what there is of something over all of an area but a little of it (`LEFT_OUT`)."""
    order = numpy.argsort(shares)
    there = numpy.cumsum(areas[order]) / areas.sum()
    return float(shares[order][min(len(order) - 1, int(numpy.searchsorted(there, 1 - LEFT_OUT)))])


def unrolled(corners: Numbers, triangles: Triangles) -> Flat:
    """A patch laid out flat so that its triangles are turned and moved, and strained as little as may be.

    By turns each triangle is given the turn that fits it best, and all places are found that fit the turns best,
    weighted by the cotangents of the angles. Source: published: L. Liu, L. Zhang, Y. Xu, C. Gotsman and S. J. Gortler,
    A local/global approach to mesh parameterization, Computer Graphics Forum 27, 2008; begun by B. Lévy, S. Petitjean,
    N. Ray and J. Maillot, Least squares conformal maps, ACM Transactions on Graphics 21, 2002 (both from memory).
    """
    own = _own(corners, triangles)
    weights = _cotangents(own)
    places = _conformal(corners, triangles, own)
    whole = _factored(len(corners), triangles, weights)
    for _ in range(ROUNDS):
        turns = _turns(places, triangles, own, weights)
        wanted = numpy.zeros((len(corners), 2))
        for first, second, opposite in ((1, 2, 0), (2, 0, 1), (0, 1, 2)):
            along = numpy.einsum("nij,nj->ni", turns, own[:, second] - own[:, first]) * weights[:, opposite, None]
            numpy.add.at(wanted, triangles[:, second], along)
            numpy.add.at(wanted, triangles[:, first], -along)
        places = whole.solve(wanted)
    strained, areas = _strained(places, triangles, own)
    return Flat(places, areas, strained)


def _own(corners: Numbers, triangles: Triangles) -> Numbers:
    """Each triangle in a plane of its own: its first corner at 0, its second to the right of it."""
    first, second, third = (corners[triangles[:, index]] for index in range(3))
    along = second - first
    wide = numpy.maximum(1e-12, numpy.linalg.norm(along, axis=1))
    along = along / wide[:, None]
    normal = numpy.cross(along, third - first)
    normal /= numpy.maximum(1e-12, numpy.linalg.norm(normal, axis=1))[:, None]
    found = numpy.zeros((len(triangles), 3, 2))
    found[:, 1, 0] = wide
    found[:, 2, 0] = ((third - first) * along).sum(axis=1)
    found[:, 2, 1] = ((third - first) * numpy.cross(normal, along)).sum(axis=1)
    return found


def _cotangents(own: Numbers) -> Numbers:
    """The cotangent of the angle at each corner of each triangle."""
    found = numpy.empty((len(own), 3))
    for index in range(3):
        one, other = own[:, (index + 1) % 3] - own[:, index], own[:, (index + 2) % 3] - own[:, index]
        across = numpy.abs(one[:, 0] * other[:, 1] - one[:, 1] * other[:, 0])
        found[:, index] = (one * other).sum(axis=1) / numpy.maximum(1e-12, across)
    return numpy.maximum(LEAST_WEIGHT, found)


def _conformal(corners: Numbers, triangles: Triangles, own: Numbers) -> Numbers:
    """A first layout that keeps angles as well as may be; two far corners are held as far apart as they are."""
    from scipy import sparse
    from scipy.sparse.linalg import spsolve

    complex_own = own[:, :, 0] + 1j * own[:, :, 1]
    root = numpy.sqrt(numpy.maximum(1e-9, numpy.abs(own[:, 1, 0] * own[:, 2, 1])))
    sides = numpy.stack(
        [complex_own[:, 2] - complex_own[:, 1], complex_own[:, 0] - complex_own[:, 2], complex_own[:, 1]], axis=1
    )
    rows = numpy.repeat(numpy.arange(len(triangles)), 3)
    count = len(corners)
    system = sparse.csr_matrix(
        ((sides / root[:, None]).ravel(), (rows, triangles.ravel())), shape=(len(triangles), count)
    )
    one = int(numpy.linalg.norm(corners - corners[0], axis=1).argmax())
    other = int(numpy.linalg.norm(corners - corners[one], axis=1).argmax())
    held = numpy.array([0.0, numpy.linalg.norm(corners[one] - corners[other])], dtype=complex)
    free = numpy.ones(count, dtype=bool)
    free[[one, other]] = False
    left = system[:, free]
    right = -(system[:, [one, other]] @ held)
    turned = left.conj().T.tocsc()
    found = numpy.empty(count, dtype=complex)
    found[free] = spsolve((turned @ left).tocsc(), turned @ right)
    found[[one, other]] = held
    return numpy.column_stack([found.real, found.imag])


def _factored(count: int, triangles: Triangles, weights: Numbers) -> "SuperLU":
    from scipy import sparse
    from scipy.sparse.linalg import splu

    rows, columns, values = [], [], []
    for first, second, opposite in ((1, 2, 0), (2, 0, 1), (0, 1, 2)):
        a, b, weight = triangles[:, first], triangles[:, second], weights[:, opposite]
        rows += [a, b, a, b]
        columns += [b, a, a, b]
        values += [-weight, -weight, weight, weight]
    whole = sparse.csc_matrix(
        (numpy.concatenate(values), (numpy.concatenate(rows), numpy.concatenate(columns))), shape=(count, count)
    )
    # Held in place by next to nothing, since the layout may lie anywhere.
    return splu((whole + 1e-9 * sparse.identity(count)).tocsc())


def _turns(places: Numbers, triangles: Triangles, own: Numbers, weights: Numbers) -> Numbers:
    """The turn of each triangle that takes it nearest to where it lies: in the plane, by two sums."""
    straight, across = numpy.zeros(len(triangles)), numpy.zeros(len(triangles))
    for first, second, opposite in ((1, 2, 0), (2, 0, 1), (0, 1, 2)):
        now = (places[triangles[:, second]] - places[triangles[:, first]]) * weights[:, opposite, None]
        was = own[:, second] - own[:, first]
        straight += (now * was).sum(axis=1)
        across += now[:, 1] * was[:, 0] - now[:, 0] * was[:, 1]
    size = numpy.hypot(straight, across) + 1e-15
    cos, sin = straight / size, across / size
    return numpy.stack([numpy.stack([cos, -sin], axis=1), numpy.stack([sin, cos], axis=1)], axis=1)


def _strained(places: Numbers, triangles: Triangles, own: Numbers) -> tuple[Numbers, NDArray[numpy.float64]]:
    """How much each triangle is stretched or gathered at most, laid back on the body, and its area there: by the
    singular values of the map.
    """
    first, second, third = (places[triangles[:, index]] for index in range(3))
    flat = numpy.stack([second - first, third - first], axis=2)
    true = numpy.stack([own[:, 1], own[:, 2]], axis=2)
    areas = numpy.linalg.det(true) / 2
    there = areas > 1e-9
    strained = numpy.zeros(len(triangles))
    maps = flat[there] @ numpy.linalg.inv(true[there])
    sizes = numpy.linalg.svd(maps, compute_uv=False)
    most = numpy.maximum(sizes[:, 0] - 1, 1 / numpy.maximum(1e-6, sizes[:, 1]) - 1)
    strained[there] = numpy.where(numpy.linalg.det(maps) > 0, most, FLIPPED)
    return strained, numpy.maximum(areas, 0.0)

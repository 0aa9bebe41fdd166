"""The small z-buffer of drawings, against the weights of every pixel in every triangle."""

import numpy as np

from depth import about
from printability._drawing_kernels import rasterize

WIDE, HIGH = 40, 30


def test_random_triangles_cover_the_pixels_that_lie_in_them(draws):
    """Slivers, edge-on and without area too, and such as reach far beyond the picture."""
    x, y = np.meshgrid(np.arange(WIDE, dtype=float), np.arange(HIGH, dtype=float))
    for case in range(about(60)):
        corners = draws.uniform(-20, 60, (9, 3))
        if case % 3 == 0:  # on pixels
            corners[:, :2] = np.round(corners[:, :2])
        if case % 4 == 0:  # nearly in a line
            corners[2::3] = corners[::3] + draws.choice([0.0, 1e-12, 1e-6, 1e-3]) * corners[2::3]
        if case % 5 == 0:
            corners *= 10.0 ** draws.uniform(-9, 9)
        depth, facet = rasterize(corners, np.arange(9).reshape(3, 3), WIDE, HIGH)
        best, sure = np.full((HIGH, WIDE), np.inf), np.ones((HIGH, WIDE), bool)
        for a, b, c in corners.reshape(3, 3, 3):
            area = (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])
            if area == 0:
                continue
            u = ((x - a[0]) * (c[1] - a[1]) - (y - a[1]) * (c[0] - a[0])) / area
            v = ((b[0] - a[0]) * (y - a[1]) - (b[1] - a[1]) * (x - a[0])) / area
            least = np.minimum(np.minimum(u, v), 1 - u - v)
            # On an edge, or where the weights are all rounding, either is right.
            size = np.abs(corners).max() + WIDE
            sure &= np.abs(least) > 1e-12 * size**2 / abs(area) + 1e-6
            d = a[2] + u * (b[2] - a[2]) + v * (c[2] - a[2])
            best = np.where((least >= 0) & (d < best), d, best)
        assert (np.isfinite(depth) == (facet >= 0)).all()
        assert ((facet >= 0) == np.isfinite(best))[sure].all(), case
        seen = sure & np.isfinite(best)
        np.testing.assert_allclose(depth[seen], best[seen], rtol=1e-5, atol=1e-4)

"""Places: connected stretches of underside that nothing holds, with their findings.

Findings that one cure would remove belong together. A finding's underside is the overhang patch
under which its layer begins; findings that share one, and patches that one finding spans, are
one place. What has no underside, such as a thin wall, is a place of its own; what concerns the
piece as a whole is none.
"""

from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np

from ..mesh._kernels import root_of
from .base import KINDS, Case, Finding, Severity

__all__ = ["Place", "find_places"]


@dataclass(frozen=True)
class Place:
    """Findings that belong together, the worst first.

    Attributes
    ----------
    id : str
    number : int
        On its flag, from 1.
    findings : tuple of Finding
    z_mm : float
    center_mm : (3,) tuple of float
        Of its worst finding.
    area_mm2 : float
        Of the underside that nothing holds; of its largest finding where it has none.
    severity : Severity
        Of the worst finding that is not accepted, of the worst where all are.
    patches : tuple of int
        Numbers of its overhang patches.
    """

    id: str
    number: int
    findings: tuple[Finding, ...]
    z_mm: float
    center_mm: tuple[float, float, float]
    area_mm2: float
    severity: Severity
    patches: tuple[int, ...]

    @property
    def worst(self) -> Finding:
        """The finding that is named first."""
        return self.findings[0]

    @property
    def others(self) -> int:
        """How many findings there are besides that one."""
        return len(self.findings) - 1

    @property
    def is_accepted(self) -> bool:
        """Whether all of its findings are accepted."""
        return all(f.accepted is not None for f in self.findings)


def rank(finding: Finding) -> tuple:
    """Worst first, accepted ones last."""
    kind = KINDS[finding.kind]
    return finding.accepted is not None, -finding.severity, kind.order, -finding.burden, finding.id


def find_places(case: Case, findings: Iterable[Finding]) -> tuple[Place, ...]:
    """The places of some findings, worst first."""
    spots = [f for f in findings if KINDS[f.kind].about != "whole"]
    under = [_patches_under(case, f) for f in spots]
    # Patches, then steep facets by which findings are told apart, then findings.
    steep = sorted({key for keys in under for key in keys if key < 0})
    first = len(case.overhang.patches) + 1
    number = {key: first + i for i, key in enumerate(steep)}
    parent = np.arange(first + len(steep) + len(spots))
    for i, keys in enumerate(under):
        for key in keys:
            a = root_of(parent, first + len(steep) + i)
            b = root_of(parent, key if key > 0 else number[key])
            parent[a] = b
    members: dict[int, list[int]] = {}
    for i in range(len(spots)):
        members.setdefault(int(root_of(parent, first + len(steep) + i)), []).append(i)
    groups = []
    for own in members.values():
        found = sorted((spots[i] for i in own), key=rank)
        patches = sorted({key for i in own for key in under[i] if key > 0})
        groups.append((found, patches))
    groups.sort(key=lambda group: rank(group[0][0]))
    return tuple(
        _place(case, number, found, patches)
        for number, (found, patches) in enumerate(groups, start=1)
    )


def _place(case: Case, number: int, found: list[Finding], patches: list[int]) -> Place:
    worst = found[0]
    unheld = {f.patch: f.area_mm2 for f in found if f.patch}
    area = sum(unheld.get(p, case.overhang.patches[p - 1].area_mm2) for p in patches)
    return Place(
        id=f"place-{number}", number=number, findings=tuple(found), z_mm=worst.z_mm,
        center_mm=worst.center_mm, area_mm2=float(area or max(f.area_mm2 for f in found)),
        severity=worst.severity, patches=tuple(patches),
    )  # fmt: skip


def _patches_under(case: Case, finding: Finding) -> set[int]:
    """Numbers of the patches that a finding belongs to; minus a facet where that is steep."""
    if finding.patch:
        return {finding.patch}
    if KINDS[finding.kind].about != "underside" or not finding.under_mm:
        return set()
    places = np.array(finding.under_mm, float)
    facets = case.look.facets_above(places, np.full(len(places), finding.layer))
    facets = facets[(facets >= 0) & (facets < len(case.overhang.patch_of_facet))]
    # Only undersides that begin there, not what the line meets further up.
    begins = case.look.begins_in(facets, finding.layer)
    keys = {int(case.overhang.patch_of_facet[f]) or -int(f) - 1 for f in facets[begins]}
    return {key for key in keys if key > 0} or keys

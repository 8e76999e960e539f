"""An outline from a drawing, whichever of the kinds that are read it is."""

from amber_spread.core.kernel import limits
from amber_spread.papers.outline_reading import OutlineError, ReadOutline


def read_outline(data: bytes) -> ReadOutline:
    """The one closed outline in an SVG or DXF file. Raises OutlineError when there is none, or more than one."""
    if len(data) > limits.MAX_FILE_BYTES:
        raise OutlineError(f"The file is larger than {limits.MAX_FILE_BYTES // 1024} kB, the most that is read.")
    # DXF in text form begins with a number on a line of its own, which no SVG does.
    first = data[:60].lstrip()
    # Both take long to load, and are seldom needed.
    if first[:1].isdigit() or b"Binary DXF" in first:
        from amber_spread.papers.dxf_reading import read_dxf

        return read_dxf(data)
    from amber_spread.papers.svg_reading import read_svg

    return read_svg(data)

"""Templates as one SVG drawing at true size: a user unit is a millimetre."""

from collections.abc import Iterator, Sequence
from xml.sax.saxutils import escape, quoteattr

from amber_spread.core.geometry.flat.pieces import Corner, arc_of
from amber_spread.papers.templates import Template

GAP_MM = 15.0


def write_svg(templates: Sequence[Template]) -> str:
    """Every template below the one before it, as an SVG document in millimetres."""
    wide = max((one.size[0] for one in templates), default=0.0) + 2 * GAP_MM
    parts, top = [], GAP_MM
    for one in templates:
        high = one.size[1]
        parts.append(_group(one, GAP_MM, top + high))
        top += high + GAP_MM
    return (
        '<?xml version="1.0" encoding="UTF-8"?>\n'
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{wide:.3f}mm" height="{top:.3f}mm" '
        f'viewBox="0 0 {wide:.3f} {top:.3f}">\n' + "\n".join(parts) + "\n</svg>\n"
    )


def path_of(corners: Sequence[Corner]) -> str:
    """The edge as SVG path data, in the piece's own axes turned so that up is up (y is negated)."""
    x, y, _ = corners[0]
    words = [f"M{x:.4f} {-y:.4f}"]
    for (x0, y0, bulge), (x1, y1, _) in zip(corners, [*corners[1:], corners[0]], strict=True):
        if bulge == 0:
            words.append(f"L{x1:.4f} {-y1:.4f}")
        else:
            _, radius, _, turn = arc_of(x0, y0, x1, y1, bulge)
            large, sweep = int(abs(turn) > 3.14159265), int(bulge < 0)
            words.append(f"A{radius:.4f} {radius:.4f} 0 {large} {sweep} {x1:.4f} {-y1:.4f}")
    return " ".join([*words, "Z"])


def _group(one: Template, x: float, y: float) -> str:
    wide, high = one.size
    lines = [
        f'<g id={quoteattr(one.key)} transform="translate({x:.3f} {y:.3f})">',
        f"<title>{escape(one.words[0])}</title>",
        f'<path class="cut" d="{path_of(one.corners)}" fill="none" stroke="#B3401F" stroke-width="0.2"/>',
    ]
    for mark in one.marks:
        lines.append(
            f'<line class="mark" x1="{mark.x0:.4f}" y1="{-mark.y0:.4f}" x2="{mark.x1:.4f}" y2="{-mark.y1:.4f}" '
            'stroke="#2E6E73" stroke-width="0.2"/>'
        )
        lines.append(_text(mark.name, mark.x0 + 1, -mark.y0 - 0.8, 3.0))
    lines.extend(_words(one))
    return "\n".join([*lines, "</g>"])


def _words(one: Template) -> Iterator[str]:
    """What is written on a piece."""
    for line in one.lines:
        turn = f' transform="rotate(-90 {line.x:.3f} {-line.y:.3f})"' if one.words_turned else ""
        yield _text(line.text, line.x, -line.y, line.high, "middle", turn)
    if one.arrow is not None:
        x, y = one.arrow
        yield (
            f'<path class="up" d="M{x:.3f} {-y:.3f} v-8 m-2 3 l2 -3 l2 3" fill="none" stroke="#33241B" '
            'stroke-width="0.3"/>'
        )


def _text(words: str, x: float, y: float, size: float, anchor: str = "start", turn: str = "") -> str:
    return (
        f'<text x="{x:.3f}" y="{y:.3f}" font-size="{size}" font-family="sans-serif" text-anchor="{anchor}" '
        f'fill="#33241B"{turn}>{escape(words)}</text>'
    )

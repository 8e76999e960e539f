/** Flat pieces as SVG: their edges, with arcs as arcs, up being up. */
import type { Piece } from "@/api/types";

export type Corner = Piece["corners"][number];

/** The edge of a piece as path data in mm, y growing downward from its lowest point. */
export function edgePath(corners: readonly (readonly number[])[]): string {
  const words = corners.map((corner, index) => {
    const [x0 = 0, y0 = 0] = corner;
    if (index === 0) return `M${x0} ${-y0}`;
    return "";
  });
  corners.forEach(([x0 = 0, y0 = 0, bulge = 0], index) => {
    const [x1 = 0, y1 = 0] = corners[(index + 1) % corners.length] ?? [];
    if (bulge === 0) {
      words.push(`L${x1} ${-y1}`);
      return;
    }
    const turn = 4 * Math.atan(bulge);
    const radius = Math.hypot(x1 - x0, y1 - y0) / 2 / Math.abs(Math.sin(turn / 2));
    const large = Math.abs(turn) > Math.PI ? 1 : 0;
    words.push(`A${radius} ${radius} 0 ${large} ${bulge < 0 ? 1 : 0} ${x1} ${-y1}`);
  });
  return `${words.join("")}Z`;
}

/** How wide and high a piece is, from its measures where it has them and its corners where it has not. */
export function pieceSize(piece: Piece): [number, number] {
  const across = piece.sizes.diameter;
  if (across) return [across.value, across.value];
  if (piece.sizes.box_long && piece.sizes.box_high)
    return [piece.sizes.box_long.value, piece.sizes.box_high.value];
  const xs = piece.corners.map(([x = 0]) => x);
  const ys = piece.corners.map(([, y = 0]) => y);
  return [Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys)];
}

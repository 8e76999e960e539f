/** Words in a drawing, broken into lines by how wide they are. */

/** At most so many lines of words that go across `room`; the last is cut short where they do not, with a mark. */
export function brokenLines(
  words: string,
  room: number,
  most: number,
  width: (text: string) => number,
): string[] {
  const lines: string[] = [];
  let left = words.split(" ");
  while (left.length && lines.length < most - 1) {
    let taken = 1;
    while (taken < left.length && width(left.slice(0, taken + 1).join(" ")) <= room) taken += 1;
    lines.push(left.slice(0, taken).join(" "));
    left = left.slice(taken);
  }
  if (left.length) lines.push(left.join(" "));
  return lines.map((line) => cutShort(line, room, width));
}

function cutShort(line: string, room: number, width: (text: string) => number): string {
  if (width(line) <= room) return line;
  let kept = line.length - 1;
  while (kept > 1 && width(`${line.slice(0, kept)}…`) > room) kept -= 1;
  return `${line.slice(0, kept).trimEnd()}…`;
}

export const isCutShort = (lines: readonly string[]): boolean => lines.some((line) => line.endsWith("…"));

let canvas: CanvasRenderingContext2D | null | undefined;

/** How wide a text is in a font as CSS writes it, in px. */
export function widthIn(font: string): (text: string) => number {
  return (text) => {
    canvas ??= document.createElement("canvas").getContext("2d");
    if (!canvas) return text.length * 8;
    canvas.font = font;
    return canvas.measureText(text).width;
  };
}

import { describe, expect, it } from "vitest";
import type { Piece } from "@/api/types";
import { boxOf, crossings } from "./annotations";
import { snapTo, useDrag } from "./drag";
import { edgePath, pieceSize } from "./pieces";
import { bandsSeen, wallAt } from "./tone";

const piece = (corners: number[][], sizes: object = {}): Piece => ({ corners, sizes }) as unknown as Piece;

describe("a flat piece", () => {
  it("is drawn with its arcs as arcs and up being up", () => {
    const rectangle = [
      [0, 0, 0],
      [10, 0, 0],
      [10, 4, 0],
      [0, 4, 0],
    ];
    expect(edgePath(rectangle)).toBe("M0 0L10 0L10 -4L0 -4L0 0Z");
    const circle = [
      [0, 5, 1],
      [10, 5, 1],
    ];
    expect(edgePath(circle)).toBe("M0 -5A5 5 0 0 0 10 -5A5 5 0 0 0 0 -5Z");
  });

  it("is as large as its measures say, or else as its corners reach", () => {
    expect(pieceSize(piece([[0, 5, 1]], { diameter: { value: 10 } }))).toEqual([10, 10]);
    expect(pieceSize(piece([], { box_long: { value: 9 }, box_high: { value: 3 } }))).toEqual([9, 3]);
    const corners = [
      [1, 1, 0],
      [7, 1, 0],
      [7, 3, 0],
    ];
    expect(pieceSize(piece(corners))).toEqual([6, 2]);
  });
});

describe("an outline", () => {
  const cone = [
    [0, 0],
    [10, 0],
    [4, 20],
    [0, 20],
  ];

  it("reaches less far the higher it tapers", () => {
    expect(crossings(cone, 10)).toEqual([7, 0]);
    expect(crossings(cone, 30)).toEqual([]);
    expect(boxOf(cone)).toEqual({ x0: 0, x1: 10, z0: 0, z1: 20 });
  });

  it("is engraved along its own wall", () => {
    expect(wallAt(cone, 0.5)).toEqual([
      [5, 0],
      [2, 20],
    ]);
  });
});

describe("stripes round a tier", () => {
  it("show their second quarter on the left and their third on the right", () => {
    const bands: [string, number][] = [
      ["a", 0.5],
      ["b", 0.5],
    ];
    expect(bandsSeen(bands).map(([hex]) => hex)).toEqual(["a"]);
    expect(bandsSeen(bands, 0.5).map(([hex]) => hex)).toEqual(["b"]);
    const [[, from = 0, to = 9] = []] = bandsSeen(bands) as [string, number, number][];
    expect(from).toBeCloseTo(1);
    expect(to).toBeCloseTo(0);
  });
});

describe("dragging", () => {
  it("catches at the nearest size within reach, or at none", () => {
    expect(snapTo(199, [150, 200, 203], 5)).toBe(200);
    expect(snapTo(180, [150, 200], 5)).toBeNull();
  });

  it("takes what is held once, when it is let go, and nothing when it is given up", () => {
    const taken: number[] = [];
    let focused = 0;
    let stopped = 0;
    const { held, start, on } = useDrag(
      (event) => event.clientX,
      (value: number) => taken.push(value),
    );
    const at = (clientX: number): PointerEvent =>
      ({
        clientX,
        pointerId: 1,
        preventDefault: () => {},
        stopPropagation: () => (stopped += 1),
        currentTarget: { setPointerCapture: () => {}, focus: () => (focused += 1) },
      }) as unknown as PointerEvent;
    on.pointermove(at(3));
    expect(held.value).toBeNull();
    start(at(4));
    on.pointermove(at(7));
    // The drawing below does not move with it.
    expect([held.value, taken, focused, stopped]).toEqual([7, [], 1, 1]);
    on.pointerup();
    expect(taken).toEqual([7]);
    start(at(1));
    on.pointercancel();
    on.pointerup();
    expect(taken).toEqual([7]);
  });
});

/** The pores of cut cake: uneven, and always the same for the same seed; a tile of them joins the next without a seam. */

export interface Grain {
  /** So many pores to a tile, of radii between these; `large` is the share that are far larger than the rest. */
  count: number;
  least: number;
  most: number;
  large: number;
  /** So many flecks beside them, as of ground nuts. */
  flecks: number;
}

/** Width and height of a tile, in pixels at full size. */
export const TILE: readonly [number, number] = [176, 120];

/** A sequence of numbers from 0 to 1 that looks random and begins the same for the same seed (mulberry32). */
export function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
}

interface Pore {
  x: number;
  y: number;
  across: number;
  down: number;
}

/** Pores that do not touch, here and there in bunches, as they bake. */
function bake(grain: Grain, random: () => number): Pore[] {
  const [wide, high] = TILE;
  const found: Pore[] = [];
  for (let tried = 0; found.length < grain.count && tried < grain.count * 12; tried += 1) {
    const beside = found.length && random() < 0.35 ? found[Math.floor(random() * found.length)] : undefined;
    const size = random() < grain.large ? 1.7 + random() : 1;
    const across = (grain.least + (grain.most - grain.least) * random() ** 2) * size;
    const pore = {
      x: ((beside ? beside.x + (random() - 0.5) * 22 : random() * wide) + wide) % wide,
      y: ((beside ? beside.y + (random() - 0.5) * 14 : random() * high) + high) % high,
      across,
      down: across * (0.5 + 0.3 * random()),
    };
    const clear = found.every(
      (other) => Math.hypot(other.x - pore.x, (other.y - pore.y) * 1.3) > other.across + pore.across + 0.8,
    );
    if (clear) found.push(pore);
  }
  return found;
}

/** The same pore wherever it shows on a tile, also where it hangs over an edge. */
function everywhere({ x, y, across, down }: Pore): Pore[] {
  const [wide, high] = TILE;
  const at: Pore[] = [];
  for (const right of [-wide, 0, wide])
    for (const up of [-high, 0, high]) {
      const [left, top] = [x + right, y + up];
      if (left > -across && left < wide + across && top > -down && top < high + down)
        at.push({ x: left, y: top, across, down });
    }
  return at;
}

function ellipse({ x, y, across, down }: Pore, by = 0): string {
  const [a, b] = [across.toFixed(2), down.toFixed(2)];
  return `M${(x - across + by).toFixed(2)} ${(y + by).toFixed(2)}a${a} ${b} 0 1 0 ${(2 * across).toFixed(2)} 0a${a} ${b} 0 1 0 ${(-2 * across).toFixed(2)} 0Z`;
}

/** A tile of pores as paths: the hollows, the lit lips below the larger ones, and flecks. */
export function tile(grain: Grain, seed: number): { hollow: string; lip: string; flecks: string } {
  const random = seeded(seed);
  const pores = bake(grain, random).flatMap(everywhere);
  const flecks = Array.from({ length: grain.flecks }, () => {
    const [x, y] = [4 + random() * (TILE[0] - 8), 4 + random() * (TILE[1] - 8)];
    const [right, up] = [(random() - 0.5) * 5, (random() - 0.5) * 4];
    return `M${x.toFixed(1)} ${y.toFixed(1)}l${right.toFixed(1)} ${up.toFixed(1)}`;
  });
  return {
    hollow: pores.map((pore) => ellipse(pore)).join(""),
    lip: pores
      .filter((pore) => pore.across > 2.1)
      .map((pore) => ellipse(pore, 0.8))
      .join(""),
    flecks: flecks.join(""),
  };
}

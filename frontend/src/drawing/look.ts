/** Where a body in the round is looked at from. */
const NEAREST = 0.35;
const FARTHEST = 3;
const LEVEL = 0.05;
const UPRIGHT = Math.PI / 2 - 0.02;

export interface Look {
  /** Turned about the upright and tipped towards the eye, in radians; so many times as far away as it just fits. */
  turn: number;
  tip: number;
  far: number;
}
/** From the front right, where it is cut open, and a little above. */
export const FIRST: Look = { turn: 0.72, tip: 0.5, far: 1 };

export function bounded(look: Look): Look {
  return {
    turn: look.turn,
    tip: Math.min(UPRIGHT, Math.max(LEVEL, look.tip)),
    far: Math.min(FARTHEST, Math.max(NEAREST, look.far)),
  };
}

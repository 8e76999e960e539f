/** Ids of the parts of a design: they stay with a part when it is moved, copied or merged. */

const LETTERS = "abcdefghijklmnopqrstuvwxyz0123456789";
const LENGTH = 8;

/** An id that no other part has: 36^8 of them, so two people who add a part at once do not get the same one. */
export function newId(): string {
  const numbers = crypto.getRandomValues(new Uint32Array(LENGTH));
  return [...numbers].map((number) => LETTERS[number % LETTERS.length]).join("");
}

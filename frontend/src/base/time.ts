/** Days and hours as people say them, on the kitchen's own clock. */

/** English words in the order and with the clock of whoever reads: an American's own, a Briton's for all who read no English. */
const OWN = globalThis.navigator?.languages.find((one) => one.startsWith("en-")) ?? "en-GB";
const DAY = new Intl.DateTimeFormat(OWN, { weekday: "long", day: "numeric", month: "long" });
const CLOCK = new Intl.DateTimeFormat(OWN, { hour: "2-digit", minute: "2-digit" });
const WEEKDAY = new Intl.DateTimeFormat(OWN, { weekday: "short" });
const STAMP = new Intl.DateTimeFormat(OWN, {
  day: "numeric",
  month: "short",
  hour: "2-digit",
  minute: "2-digit",
});

export const dayWords = (date: Date): string => DAY.format(date);
export const weekdayWords = (date: Date): string => WEEKDAY.format(date);
export const clockWords = (date: Date): string => CLOCK.format(date);
export const stampWords = (date: Date): string => STAMP.format(date);

/** "due Saturday 28 November, 11:00", or that it has no hour yet. */
export function dueWords(due: string | null | undefined): string {
  if (!due) return "no due hour yet";
  const date = new Date(due);
  return `due ${dayWords(date)}, ${clockWords(date)}`;
}

/** An hour, with its day where that is not today: “Thu 11:42”. */
export function hourWords(moment: string, now: Date): string {
  const date = new Date(moment);
  const words = clockWords(date);
  return date.toDateString() === now.toDateString() ? words : `${WEEKDAY.format(date)} ${words}`;
}

const two = (number: number): string => String(number).padStart(2, "0");

/** A day as the server reads it: “2026-12-05”. */
export function dayCode(date: Date): string {
  return `${date.getFullYear()}-${two(date.getMonth() + 1)}-${two(date.getDate())}`;
}

/** A moment on the kitchen's wall clock as the server reads it: “2026-12-05T11:00:00”. */
export function momentCode(date: Date): string {
  return `${dayCode(date)}T${two(date.getHours())}:${two(date.getMinutes())}:00`;
}

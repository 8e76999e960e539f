/** Text with fractions in it, cut where they begin and end. */

export interface Piece {
  plain: string;
  over?: string;
  under?: string;
  /** It follows a whole number, and stands close to it. */
  mixed?: boolean;
}

/** “4 1/4 in” as “4 ”, one over four, “ in”. What is no fraction stays as it is. */
export function pieces(text: string): Piece[] {
  const found: Piece[] = [];
  let from = 0;
  for (const match of text.matchAll(/(?<![\d/.])(\d+)\/(\d+)(?![\d/.])/g)) {
    if (match.index > from) found.push({ plain: text.slice(from, match.index) });
    found.push({
      plain: match[0],
      over: match[1] ?? "",
      under: match[2] ?? "",
      mixed: /\d $/.test(text.slice(0, match.index)),
    });
    from = match.index + match[0].length;
  }
  if (from < text.length) found.push({ plain: text.slice(from) });
  return found;
}

export interface Run extends Piece {
  /** The whole number before the fraction, which no line may part from it. */
  whole?: string;
}

/** The same with the whole number of a mixed one beside its fraction: “21 5/8 in” as 21 with five over eight, “ in”. */
export function runs(text: string): Run[] {
  const found: Run[] = [];
  for (const piece of pieces(text)) {
    const before = found.at(-1);
    const whole = piece.mixed ? /(\d+) $/.exec(before?.plain ?? "") : null;
    if (before && whole) {
      before.plain = before.plain.slice(0, whole.index);
      if (!before.plain) found.pop();
      found.push({ ...piece, whole: whole[1] ?? "" });
    } else {
      found.push(piece);
    }
  }
  return found;
}

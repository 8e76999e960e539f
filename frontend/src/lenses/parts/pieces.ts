/** What the measures of a flat piece are called. */
export const SIZE_WORDS: Record<string, string> = {
  diameter: "across",
  long: "long",
  high: "high",
  wide: "wide",
  wide_at_top: "wide at the top",
  width: "across",
  length: "long",
  outer: "outer radius",
  inner: "inner radius",
  angle: "opens",
  girth: "along its wide edge",
  slant: "up the slope",
  box_long: "lies in a box, long",
  box_high: "lies in a box, high",
};

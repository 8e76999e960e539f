/** A copy of something that is JSON and nothing else; what the screen watches cannot be cloned otherwise. */
export function copied<T>(value: T): T {
  return JSON.parse(JSON.stringify(value)) as T;
}

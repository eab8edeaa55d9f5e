/**
 * Returns a value that is known to be there, such as the item at an index that was checked.
 * Throws an Error where it is missing, which is a fault in the program and never in what a person gave it.
 */
export function must<T>(value: T): NonNullable<T> {
  if (value === undefined || value === null) throw new Error("a value that must be there is missing");
  return value;
}

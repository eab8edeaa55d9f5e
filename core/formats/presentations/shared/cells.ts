/** Returns the letters of a spreadsheet column, counted from 0. */
export function columnName(index: number): string {
  return (index >= 26 ? columnName(Math.floor(index / 26) - 1) : "") + String.fromCharCode(65 + (index % 26));
}

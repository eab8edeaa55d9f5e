/** The letters of a column of a sheet, from 0. */
export function columnName(index: number): string {
  return (index >= 26 ? columnName(Math.floor(index / 26) - 1) : "") + String.fromCharCode(65 + (index % 26));
}

const NUMBER = new Intl.NumberFormat(undefined, { maximumFractionDigits: 6, signDisplay: "exceptZero" });
const POINTS = new Intl.NumberFormat(undefined, { maximumFractionDigits: 2, signDisplay: "exceptZero" });
const PERCENT = new Intl.NumberFormat(undefined, {
  style: "percent",
  maximumFractionDigits: 1,
  signDisplay: "exceptZero",
});

/**
 * Returns the difference between two numbers as text, with its share of the first where that is not 0. Shares that are
 * shown as percentages differ in percentage points.
 */
export function difference({ from, to }: { from: number; to: number }, shown: string): string {
  const change = Number((to - from).toPrecision(12));
  const absolute = shown.includes("%") ? `${POINTS.format(change * 100)} points` : NUMBER.format(change);
  return from === 0 ? absolute : `${absolute} (${PERCENT.format(change / Math.abs(from))})`;
}

/** Returns the cells that differ between two tables, given as rows of texts with tabs between. */
export function changedCells(from: string, to: string): { from: string; to: string }[] {
  const [before, after] = [from, to].map((text) => text.split("\n").map((row) => row.split("\t")));
  return (after ?? []).flatMap((row, y) =>
    row.flatMap((cell, x) => {
      const old = before?.[y]?.[x];
      return old === cell ? [] : [{ from: old ?? "", to: cell }];
    }),
  );
}

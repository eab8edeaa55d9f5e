/**
 * Counts the items of numbered lists as a word processor does: a list goes on after other paragraphs, and the items below
 * an item begin anew.
 */
export class ListCounter {
  private readonly counts = new Map<string, number[]>();

  /**
   * Returns the number of the next item of a list at a level, counted from 0. `first` is the number with which the level
   * begins; with `restart` it begins again.
   */
  next(list: string, level: number, first = 1, restart = false): number {
    const counts = this.counts.get(list) ?? [];
    this.counts.set(list, counts);
    const before = restart ? undefined : counts[level];
    const number = before === undefined ? first : before + 1;
    counts.length = level;
    counts[level] = number;
    return number;
  }
}

/** The part of a file that has arrived so far. */
export class Arrival {
  slides = 0;
  isDocument = false;
  /** The text of a typed deck. */
  typed: string | undefined;

  constructor(readonly document: string) {}
}

/** What a format that decks are written in says about itself. */
export interface FormatDescriptor {
  /** Its name with the extension of its files. */
  label: string;
  /** What people use it for, in a sentence. */
  purpose: string;
  mediaType: string;
  /** Whether it makes one file for each slide, in an archive. */
  archive?: true;
  /** Whether it is made for an audience: without hidden slides. */
  forAudience?: true;
}

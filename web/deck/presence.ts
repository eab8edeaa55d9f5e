import { type Presence, PRESENCE_NEWS, PresenceNews } from "@unitext/server/api";
import { nanoid } from "nanoid";

/** How often a page says that it is still there, and after how long one that is silent is gone, in milliseconds. */
const BEAT = 15_000;
const SILENT = 40_000;
/** How long moves are gathered before they are told, in milliseconds. */
const PAUSE = 250;

/** Where this page is. */
export type Whereabouts = Pick<Presence, "slide" | "element" | "at" | "speaking">;
/** Somebody else in the deck. */
export interface Other extends Whereabouts {
  page: string;
  user: string;
  name: string;
}

/** Says where this page is in a deck, and knows where the others are. */
export class DeckPresence {
  private readonly page = nanoid(10);
  private readonly others = new Map<string, { other: Other; heard: number }>();
  private here: Whereabouts = { slide: null, element: null, at: null, speaking: false };
  private timer: ReturnType<typeof setTimeout> | undefined;
  private readonly beat: ReturnType<typeof setInterval>;

  constructor(
    private readonly deck: string,
    private readonly onChange: (others: readonly Other[]) => void,
  ) {
    this.beat = setInterval(() => {
      this.tell();
      this.forgetSilent();
    }, BEAT);
    this.tell({ isNew: true });
  }

  private tell(more: Partial<Presence> = {}): void {
    clearTimeout(this.timer);
    this.timer = undefined;
    const said: Presence = { page: this.page, isNew: false, gone: false, ...this.here, ...more };
    // Nothing depends on it: while the server is away nobody learns where this page is.
    fetch(`/api/decks/${this.deck}/presence`, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify(said),
      keepalive: said.gone,
    })?.catch?.(() => undefined);
  }

  /** Says where this page is now. */
  move(next: Partial<Whereabouts>): void {
    const here = { ...this.here, ...next };
    if (JSON.stringify(here) === JSON.stringify(this.here)) return;
    this.here = here;
    this.timer ??= setTimeout(() => this.tell(), PAUSE);
  }

  /** Takes a line of the deck's stream. Returns whether it was about people. */
  take(line: string): boolean {
    if (!line.startsWith(PRESENCE_NEWS)) return false;
    const bytes = Uint8Array.from(atob(line.slice(PRESENCE_NEWS.length).replace(/-/g, "+").replace(/_/g, "/")), (one) =>
      one.charCodeAt(0),
    );
    const news = PresenceNews.safeParse(JSON.parse(new TextDecoder().decode(bytes)));
    if (!news.success || news.data.page === this.page) return true;
    const { page, gone, isNew, ...rest } = news.data;
    if (gone) this.others.delete(page);
    else this.others.set(page, { other: { page, ...rest }, heard: Date.now() });
    if (isNew) this.timer ??= setTimeout(() => this.tell(), PAUSE);
    this.changed();
    return true;
  }

  private changed(): void {
    this.onChange([...this.others.values()].map(({ other }) => other));
  }

  private forgetSilent(): void {
    const before = this.others.size;
    for (const [page, { heard }] of this.others) if (Date.now() - heard > SILENT) this.others.delete(page);
    if (this.others.size !== before) this.changed();
  }

  /** Says that this page is closed. */
  close(): void {
    clearInterval(this.beat);
    this.tell({ gone: true });
  }
}

/** The name under which the notes of a slide are an element. */
export const NOTES = "notes";

/** Returns who speaks from the deck and asked that it stays as it is; undefined for nobody. */
export const speakerIn = (others: readonly Other[]): Other | undefined => others.find(({ speaking }) => speaking);

/** The colours of people, each readable under white letters. */
const COLOURS = ["#7a2e57", "#0f5c63", "#4c6629", "#8a4b12", "#3a4f8f", "#b23a30"] as const;

/** Returns the colour of a person, the same on every page. */
export function colourOf(user: string): string {
  let sum = 0;
  for (const character of user) sum = (sum * 31 + character.charCodeAt(0)) % 9973;
  return COLOURS[sum % COLOURS.length] ?? COLOURS[0];
}

import type { Change } from "@unitext/core/edit";
import { readStored, SCHEMA_VERSION } from "@unitext/core/model";
import { SentChange } from "@unitext/server/api";
import { z } from "zod";

/**
 * Changes made in a page that are not known to be committed, with the version that they were made on. They outlive the
 * page.
 */
export interface Outbox {
  base: number;
  changes: SentChange[];
}

/** A change that could not be saved, kept until the user has seen it: what it was, why, and its words. */
export const SetAside = z.object({
  id: z.string(),
  description: z.string(),
  reason: z.string(),
  text: z.string(),
  at: z.string(),
});
export type SetAside = z.infer<typeof SetAside>;

const OUTBOX = "unitext:outbox:";
const ASIDE = "unitext:aside:";

/** Returns all texts of a change, a line each. */
export function wordsOf(change: Change, typed?: string): string {
  if (typed !== undefined) return typed;
  const words: string[] = [];
  const look = (value: unknown, key: string) => {
    if (
      typeof value === "string" &&
      (key === "text" || key === "title" || key === "tex" || key === "caption" || key === "alt" || key === "name") &&
      value.trim()
    )
      words.push(value);
    else if (Array.isArray(value) && key === "runs")
      words.push(value.map((run: { text?: string }) => run.text ?? "").join(""));
    else if (typeof value === "object" && value !== null)
      for (const [name, held] of Object.entries(value)) look(held, Array.isArray(value) ? key : name);
  };
  look(change, "");
  return words.filter((line) => line.trim()).join("\n");
}

/** Returns the browser's storage; undefined when the page may not use it. */
function storage(): Storage | undefined {
  try {
    return localStorage;
  } catch {
    return undefined;
  }
}

function keysWith(prefix: string): string[] {
  const store = storage();
  const keys: string[] = [];
  for (let at = 0; at < (store?.length ?? 0); at++) {
    const key = store?.key(at);
    if (key?.startsWith(prefix)) keys.push(key);
  }
  return keys;
}

const Stored = z.object({
  schema: z.number().int().default(1),
  /** Who made the changes. */
  user: z.string().optional(),
  base: z.number().int().nonnegative(),
  changes: z.array(z.unknown()),
});

/** Returns a stored outbox, upgraded, and what of it can no longer be read. */
function parsed(
  text: string,
  deck: string,
): { user: string | undefined; outbox: Outbox; damaged: SetAside[] } | undefined {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return undefined;
  }
  const found = Stored.safeParse(value);
  if (!found.success) return undefined;
  const damaged: SetAside[] = [];
  const changes = found.data.changes.flatMap((given): SentChange[] => {
    try {
      return [readStored(SentChange, given, found.data.schema, `a change of deck ${deck}`)];
    } catch (error) {
      const { id, description: describeChange, change, text: typed } = given as Partial<SentChange>;
      damaged.push(
        aside(
          { id: String(id ?? ""), description: String(describeChange ?? "A change") },
          error instanceof Error ? error.message : "It can no longer be read.",
          change ? wordsOf(change, typed) : (typed ?? ""),
        ),
      );
      return [];
    }
  });
  return { user: found.data.user, outbox: { base: found.data.base, changes }, damaged };
}

function aside(
  { id, description = "A change" }: { id: string; description?: string | undefined },
  reason: string,
  text: string,
): SetAside {
  return { id, description, reason, text, at: new Date().toISOString() };
}

/** Keeps a change of the page that the server will not take, with the reason. */
export const setAsideOf = (own: SentChange, reason: string): SetAside =>
  aside(own, reason, wordsOf(own.change, own.text));

/**
 * The outbox of one page on a deck. Each page has its own, so that two pages on the same deck do not overwrite each
 * other's.
 */
export class PageOutbox {
  private readonly key: string;
  private release: () => void = () => undefined;

  constructor(
    private readonly deck: string,
    page: string,
    private readonly user: string | undefined,
  ) {
    this.key = `${OUTBOX}${deck}:${page}`;
    // The page holds this lock while it lives: nobody else takes over what it is about to send.
    void navigatorLocks()?.request(this.key, () => new Promise<void>((resolve) => (this.release = resolve)));
  }

  write({ base, changes }: Outbox): void {
    const { user } = this;
    try {
      if (changes.length) storage()?.setItem(this.key, JSON.stringify({ schema: SCHEMA_VERSION, user, base, changes }));
      else storage()?.removeItem(this.key);
    } catch {
      // The browser's storage is full: the changes are still sent, but do not outlive the page.
    }
  }

  /**
   * Takes over the outboxes of closed pages; those of another person wait until that person is here. Nothing is removed
   * before it is stored here.
   */
  async adopt(): Promise<{ outboxes: Outbox[]; damaged: SetAside[]; taken: () => void }> {
    const outboxes: Outbox[] = [];
    const damaged: SetAside[] = [];
    const keys: string[] = [];
    for (const key of [`${OUTBOX}${this.deck}`, ...keysWith(`${OUTBOX}${this.deck}:`)]) {
      const text = storage()?.getItem(key);
      if (!text || key === this.key || !(await isLeft(key))) continue;
      const found = parsed(text, this.deck);
      if (!found || (found.user !== undefined && found.user !== this.user)) continue;
      outboxes.push(found.outbox);
      damaged.push(...found.damaged);
      keys.push(key);
    }
    return {
      outboxes,
      damaged,
      taken: () => {
        for (const key of keys) storage()?.removeItem(key);
      },
    };
  }

  close(): void {
    this.release();
  }
}

function navigatorLocks(): LockManager | undefined {
  return typeof navigator === "undefined" ? undefined : navigator.locks;
}

/** Whether the page that wrote an outbox is closed. */
async function isLeft(key: string): Promise<boolean> {
  const locks = navigatorLocks();
  return locks ? locks.request(key, { ifAvailable: true }, (lock) => lock !== null) : true;
}

/** Returns the changes of a deck that were set aside in this browser. */
export function readAside(deck: string): SetAside[] {
  try {
    return z.array(SetAside).parse(JSON.parse(storage()?.getItem(ASIDE + deck) ?? "[]"));
  } catch {
    return [];
  }
}

/** Keeps the changes of a deck that could not be saved in this browser. */
export function writeAside(deck: string, list: readonly SetAside[]): void {
  try {
    if (list.length) storage()?.setItem(ASIDE + deck, JSON.stringify(list));
    else storage()?.removeItem(ASIDE + deck);
  } catch {
    // Shown as long as the page is open.
  }
}

import {
  bindingsOn,
  type Binding,
  type Deck,
  deckLink,
  hasNotes,
  nameOf,
  type Slide,
  slideLink,
  slideLinks,
  textOf,
} from "@unitext/core/model";

/** What is accounted for one by one when decks become other decks. */
export const ACCOUNTED = ["slide", "notes", "link", "binding"] as const;
export type Accounted = (typeof ACCOUNTED)[number];

/** Something of an input slide that was left out of the output or changed. */
export interface Account {
  kind: Accounted;
  deck: string;
  slide: string;
  what: string;
  /** Why it was left out, or how it was adapted. */
  why: string;
  left: boolean;
}

/**
 * The number of things of a kind, and what became of them: `carried` unchanged, `adapted`, `left` out with a reason,
 * `open` without one; `again` counts further copies.
 */
export interface BalanceRow {
  before: number;
  carried: number;
  adapted: number;
  left: number;
  open: number;
  again: number;
}

/** The proof that nothing was lost in silence: closed when nothing is open. */
export interface Balance {
  closed: boolean;
  rows: Record<Accounted, BalanceRow>;
  /** What is missing without a reason. */
  open: Omit<Account, "why" | "left">[];
  accounts: readonly Account[];
  /** Slides of the output that come from no slide of the input. */
  added: number;
}

interface Held {
  notes: string;
  links: string[];
  bindings: string[];
}

const bindingKey = ({ source, range }: Binding) => `${source} ${range}`;

/** Returns what a slide carries, by name. A link inside the decks is named by the input slide that it leads to. */
function heldBy(slide: Slide, nameOfTarget: (to: string) => string): Held {
  return {
    notes: hasNotes(slide) ? textOf(slide.notes) : "",
    links: slideLinks(slide).map(({ text: words, to }) => `${words}\u0000${nameOfTarget(to)}`),
    bindings: bindingsOn(slide).map(({ binding }) => bindingKey(binding)),
  };
}

/** Removes each of `wanted` once from a copy of `found`, and returns those that were not there. */
function missingFrom(wanted: readonly string[], found: readonly string[]): string[] {
  const left = new Map<string, number>();
  for (const key of found) left.set(key, (left.get(key) ?? 0) + 1);
  return wanted.filter((key) => {
    const n = left.get(key) ?? 0;
    if (n) left.set(key, n - 1);
    return n === 0;
  });
}

const plural = (n: number, one: string) => `${n} ${n === 1 ? one : `${one}s`}`;
const COUNTED: Record<Accounted, (n: number) => string> = {
  slide: (n) => plural(n, "slide"),
  notes: (n) => `notes on ${n}`,
  link: (n) => plural(n, "link"),
  binding: (n) => plural(n, "data binding"),
};

const keyOf = (deck: string, slide: string) => `${deck}/${slide}`;

/** The pairing of the slides before an operation with those after it. */
class Pairing {
  private readonly inputs: ReadonlyMap<string, ReadonlySet<string>>;
  /** The copies of each slide of the input. */
  private readonly copies = new Map<string, Slide[]>();
  /** The slides of the input by the slides of the output that were made from them. */
  private readonly standsFor = new Map<string, string>();
  private readonly homes: ReadonlyMap<Slide, string>;
  /** The number of slides of the output that were made from none of the input. */
  readonly added: number;

  constructor(before: readonly Deck[], after: readonly Deck[]) {
    this.inputs = new Map(before.map((deck) => [deck.id, new Set(deck.slides.map(({ id }) => id))]));
    this.homes = new Map(after.flatMap((deck) => deck.slides.map((slide) => [slide, deck.id] as const)));
    let added = 0;
    for (const deck of after)
      for (const slide of deck.slides) {
        const key = this.inputOf(deck, slide);
        if (key === undefined) {
          added += 1;
          continue;
        }
        this.standsFor.set(keyOf(deck.id, slide.id), key);
        const list = this.copies.get(key);
        if (list) list.push(slide);
        else this.copies.set(key, [slide]);
      }
    this.added = added;
  }

  private inputOf(deck: Deck, { id, origin }: Slide): string | undefined {
    if (origin && this.inputs.get(origin.deck)?.has(origin.slide)) return keyOf(origin.deck, origin.slide);
    return this.inputs.get(deck.id)?.has(id) ? keyOf(deck.id, id) : undefined;
  }

  copiesOf(deck: string, slide: string): readonly Slide[] {
    return this.copies.get(keyOf(deck, slide)) ?? [];
  }

  /** Returns what a slide of the input holds. */
  before(deck: string, slide: Slide): Held {
    return heldBy(slide, (to) => {
      const inside = slideLink(to);
      if (inside !== undefined) return this.inputs.get(deck)?.has(inside) ? keyOf(deck, inside) : `?/${inside}`;
      const other = deckLink(to);
      return other ? keyOf(other.deck, other.slide) : to;
    });
  }

  /**
   * Returns what a slide of the output holds. A link is named by the input slide that it leads to; a broken link keeps
   * its id behind a question mark.
   */
  after(slide: Slide): Held {
    const home = this.homes.get(slide) ?? "";
    return heldBy(slide, (to) => {
      const inside = slideLink(to);
      if (inside !== undefined) return this.standsFor.get(keyOf(home, inside)) ?? `?/${inside}`;
      const other = deckLink(to);
      return other ? (this.standsFor.get(keyOf(other.deck, other.slide)) ?? keyOf(other.deck, other.slide)) : to;
    });
  }
}

/** Sums up what became of things, one row for each kind. */
class BalanceSheet {
  readonly rows = Object.fromEntries(
    ACCOUNTED.map((kind) => [kind, { before: 0, carried: 0, adapted: 0, left: 0, open: 0, again: 0 }]),
  ) as Record<Accounted, BalanceRow>;
  readonly open: Balance["open"] = [];
  private readonly accounts = new Map<string, Account[]>();

  constructor(accounts: readonly Account[]) {
    for (const account of accounts) {
      const key = `${account.kind} ${keyOf(account.deck, account.slide)}`;
      this.accounts.set(key, [...(this.accounts.get(key) ?? []), account]);
    }
  }

  accountsOf(kind: Accounted, deck: string, slide: string): readonly Account[] {
    return this.accounts.get(`${kind} ${keyOf(deck, slide)}`) ?? [];
  }

  /** Counts `all` things of a slide, of which some are missing; each missing one needs an account. */
  settle(kind: Accounted, deck: string, slide: string, all: number, missing: readonly string[]): void {
    const row = this.rows[kind];
    row.before += all;
    row.carried += all - missing.length;
    // A slide that is missing cannot have been adapted.
    const reasons = this.accountsOf(kind, deck, slide).filter(({ left }) => left || kind !== "slide");
    missing.forEach((what, nth) => {
      const reason = reasons[nth];
      if (!reason) {
        row.open += 1;
        this.open.push({ kind, deck, slide, what });
      } else if (reason.left) row.left += 1;
      else row.adapted += 1;
    });
  }

  /** Counts everything on a slide that has no copy: the reason for the slide covers all of it. */
  settleMissing(deck: string, slide: string, own: Held): void {
    const hasReason = this.accountsOf("slide", deck, slide).some(({ left }) => left);
    const kinds: [Accounted, readonly string[]][] = [
      ["notes", own.notes ? [own.notes] : []],
      ["link", own.links],
      ["binding", own.bindings],
    ];
    for (const [kind, list] of kinds) {
      this.rows[kind].before += list.length;
      this.rows[kind][hasReason ? "left" : "open"] += list.length;
      if (!hasReason) for (const what of list) this.open.push({ kind, deck, slide, what });
    }
  }
}

/** Returns what is missing in the copy that lacks most: every copy must carry everything. */
const worstMissing = (wanted: readonly string[], copies: readonly (readonly string[])[]): string[] =>
  copies
    .map((found) => missingFrom(wanted, found))
    .reduce((most, list) => (list.length > most.length ? list : most), [] as string[]);

/**
 * Counts what became of every slide, note, link and binding of the input by walking the decks. A slide of the output
 * stands for the one that it names as its origin, or for the one with its id in the deck of the same id. Whatever is
 * missing or changed must be in `accounts`, or it is `open`. Of the operation, only its accounts are used.
 */
export function balance(before: readonly Deck[], after: readonly Deck[], accounts: readonly Account[]): Balance {
  const pairing = new Pairing(before, after);
  const sheet = new BalanceSheet(accounts);
  for (const deck of before)
    for (const slide of deck.slides) {
      const copies = pairing.copiesOf(deck.id, slide.id);
      const own = pairing.before(deck.id, slide);
      sheet.settle("slide", deck.id, slide.id, 1, copies.length ? [] : [nameOf(slide) || "a slide without words"]);
      if (!copies.length) {
        sheet.settleMissing(deck.id, slide.id, own);
        continue;
      }
      sheet.rows.slide.again += copies.length - 1;
      if (sheet.accountsOf("slide", deck.id, slide.id).some(({ left }) => !left)) {
        sheet.rows.slide.carried -= 1;
        sheet.rows.slide.adapted += 1;
      }
      const held = copies.map((copy) => pairing.after(copy));
      const notes = own.notes ? [own.notes] : [];
      const links = worstMissing(
        own.links,
        held.map((one) => one.links),
      );
      const bindings = worstMissing(
        own.bindings,
        held.map((one) => one.bindings),
      );
      const keepsNotes = held.every((one) => one.notes === own.notes);
      sheet.settle("notes", deck.id, slide.id, notes.length, keepsNotes ? [] : notes);
      sheet.settle("link", deck.id, slide.id, own.links.length, links);
      sheet.settle("binding", deck.id, slide.id, own.bindings.length, bindings);
    }
  return { closed: sheet.open.length === 0, rows: sheet.rows, open: sheet.open, accounts, added: pairing.added };
}

/** Returns a balance as one sentence for the user. */
export function balanceSentence({ rows, closed, open, added }: Balance): string {
  const kinds = ACCOUNTED.filter((kind) => rows[kind].before > 0);
  const counts = kinds.map((kind) => COUNTED[kind](rows[kind].before));
  const list = counts.length > 1 ? `${counts.slice(0, -1).join(", ")} and ${counts.at(-1)}` : (counts[0] ?? "Nothing");
  const sum = (part: keyof BalanceRow) => kinds.reduce((total, kind) => total + rows[kind][part], 0);
  const [left, adapted, again] = [sum("left"), sum("adapted"), rows.slide.again];
  const rest = [
    ...(adapted ? [`${adapted} adapted`] : []),
    ...(left ? [`${left} left out with a reason`] : []),
    ...(again ? [`${plural(again, "slide")} more than once`] : []),
    ...(added ? [`${plural(added, "slide")} added`] : []),
  ];
  if (!closed)
    return `${list} went in; ${open.length} of them cannot be found. Please take the act back and report it.`;
  return `${list}: ${left || adapted ? "each is accounted for" : "all are there"}${rest.length ? ` (${rest.join(", ")})` : ""}.`;
}

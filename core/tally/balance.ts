import {
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
    bindings: slide.elements.flatMap(({ binding }) => (binding ? [bindingKey(binding)] : [])),
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

/**
 * Counts what became of every slide, note, link and binding of the input by walking the decks. A slide of the output
 * stands for the one that it names as its origin, or for the one with its id in the deck of the same id. Whatever is
 * missing or changed must be in `accounts`, or it is `open`. Of the operation, only its accounts are used.
 */
export function balance(before: readonly Deck[], after: readonly Deck[], accounts: readonly Account[]): Balance {
  const inputs = new Map(before.map((deck) => [deck.id, new Set(deck.slides.map(({ id }) => id))]));
  const keyOf = (deck: string, slide: string) => `${deck}/${slide}`;
  const became = new Map<string, Slide[]>();
  const stands = new Map<string, string>();
  let added = 0;
  for (const deck of after) {
    for (const slide of deck.slides) {
      const { origin } = slide;
      const key =
        origin && inputs.get(origin.deck)?.has(origin.slide)
          ? keyOf(origin.deck, origin.slide)
          : inputs.get(deck.id)?.has(slide.id)
            ? keyOf(deck.id, slide.id)
            : undefined;
      if (key === undefined) {
        added += 1;
        continue;
      }
      stands.set(keyOf(deck.id, slide.id), key);
      const list = became.get(key);
      if (list) list.push(slide);
      else became.set(key, [slide]);
    }
  }
  const homes = new Map<Slide, string>(after.flatMap((deck) => deck.slides.map((slide) => [slide, deck.id] as const)));
  // A link is named by the input slide that it leads to; a broken link keeps its id behind a question mark.
  const target = (home: string) => (to: string) => {
    const inside = slideLink(to);
    const other = deckLink(to);
    if (inside !== undefined) return stands.get(keyOf(home, inside)) ?? `?/${inside}`;
    return other ? (stands.get(keyOf(other.deck, other.slide)) ?? keyOf(other.deck, other.slide)) : to;
  };
  const original = (home: string) => (to: string) => {
    const inside = slideLink(to);
    const other = deckLink(to);
    if (inside !== undefined) return inputs.get(home)?.has(inside) ? keyOf(home, inside) : `?/${inside}`;
    return other ? keyOf(other.deck, other.slide) : to;
  };
  const said = new Map<string, Account[]>();
  for (const account of accounts)
    said.set(`${account.kind} ${keyOf(account.deck, account.slide)}`, [
      ...(said.get(`${account.kind} ${keyOf(account.deck, account.slide)}`) ?? []),
      account,
    ]);
  const rows = Object.fromEntries(
    ACCOUNTED.map((kind) => [kind, { before: 0, carried: 0, adapted: 0, left: 0, open: 0, again: 0 }]),
  ) as Record<Accounted, BalanceRow>;
  const open: Balance["open"] = [];
  const settle = (kind: Accounted, deck: string, slide: string, all: number, missing: readonly string[]) => {
    const row = rows[kind];
    row.before += all;
    row.carried += all - missing.length;
    // A slide that is missing cannot have been adapted.
    const reasons = (said.get(`${kind} ${keyOf(deck, slide)}`) ?? []).filter(({ left }) => left || kind !== "slide");
    for (const what of missing) {
      const reason = reasons.shift();
      if (!reason) {
        row.open += 1;
        open.push({ kind, deck, slide, what });
      } else if (reason.left) row.left += 1;
      else row.adapted += 1;
    }
  };
  for (const deck of before) {
    for (const slide of deck.slides) {
      const copies = became.get(keyOf(deck.id, slide.id)) ?? [];
      const [first, ...others] = copies;
      const own = heldBy(slide, original(deck.id));
      rows.slide.again += others.length;
      settle("slide", deck.id, slide.id, 1, first ? [] : [nameOf(slide) || "a slide without words"]);
      const reasons = said.get(`slide ${keyOf(deck.id, slide.id)}`) ?? [];
      if (first && reasons.some(({ left }) => !left)) {
        rows.slide.carried -= 1;
        rows.slide.adapted += 1;
      }
      if (!first) {
        // Everything on a slide that was left out went with it, and its reason covers all of it.
        const went = reasons.some(({ left }) => left);
        const kinds: [Accounted, readonly string[]][] = [
          ["notes", own.notes ? [own.notes] : []],
          ["link", own.links],
          ["binding", own.bindings],
        ];
        for (const [kind, list] of kinds) {
          rows[kind].before += list.length;
          rows[kind][went ? "left" : "open"] += list.length;
          if (!went) for (const what of list) open.push({ kind, deck: deck.id, slide: slide.id, what });
        }
        continue;
      }
      // Every copy must carry it; what is missing in any copy counts once.
      const held = copies.map((copy) => heldBy(copy, target(homes.get(copy) ?? "")));
      const worst = (wanted: readonly string[], found: (one: Held) => readonly string[]) =>
        held
          .map((one) => missingFrom(wanted, found(one)))
          .reduce((most, list) => (list.length > most.length ? list : most), [] as string[]);
      settle(
        "notes",
        deck.id,
        slide.id,
        own.notes ? 1 : 0,
        own.notes && held.some(({ notes }) => notes !== own.notes) ? [own.notes] : [],
      );
      settle(
        "link",
        deck.id,
        slide.id,
        own.links.length,
        worst(own.links, ({ links }) => links),
      );
      settle(
        "binding",
        deck.id,
        slide.id,
        own.bindings.length,
        worst(own.bindings, ({ bindings }) => bindings),
      );
    }
  }
  return { closed: open.length === 0, rows, open, accounts, added };
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

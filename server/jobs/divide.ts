import { type MergeSource, merge, resolvePlan, split } from "@unitext/core/divide";
import { type Deck, Failure, filesOf, secondsOf } from "@unitext/core/model";
import { type Account, ACCOUNTED, type Balance, balance, balanceSentence } from "@unitext/core/tally";
import { nanoid } from "nanoid";
import { permit } from "../access";
import type { JobResult, MergeRequest, SplitRequest } from "../api";
import { type Database, insertDeck, loadDeck, loadDecks, rightOn, shareBlobs, type Transaction } from "../store";

/** The progress of a job: parts or decks done, and their number. */
export type Progress = (done: number, count: number, slides: number) => Promise<boolean>;
/** Ends the transaction of a cancelled job, so that nothing half-made remains. */
export class Cancelled extends Error {}

export interface DivideWork {
  db: Database;
  owner: string;
  progress: Progress;
}

const countsOf = (deck: Deck) => [
  ...new Set(deck.slides.flatMap((slide) => filesOf(slide, deck)).flatMap((name) => deck.assets[name]?.sha256 ?? [])),
];

function resultOf(decks: readonly Deck[], closing: Balance, remarks: readonly string[]): JobResult {
  return {
    decks: decks.map((deck) => ({
      id: deck.id,
      title: deck.properties.title,
      slides: deck.slides.length,
      seconds: deck.slides.reduce((sum, slide) => sum + secondsOf(slide, deck.rate), 0),
    })),
    sentence: balanceSentence(closing),
    rows: ACCOUNTED.map((kind) => ({ kind, ...closing.rows[kind] })),
    remarks: [...remarks],
  };
}

/** Returns a job's accounts with the numbers of their slides in the input decks. */
function entriesOf(
  accounts: readonly Account[],
  decks: readonly Deck[],
): {
  adapted: { slide: number | null; what: string; how: string }[];
  left: { slide: number | null; what: string; why: string }[];
} {
  const numbers = new Map(
    decks.flatMap((deck) => deck.slides.map(({ id }, nth) => [`${deck.id}/${id}`, nth + 1] as const)),
  );
  const number = ({ deck, slide }: Account) => numbers.get(`${deck}/${slide}`) ?? null;
  return {
    adapted: accounts
      .filter(({ left }) => !left)
      .map((account) => ({ slide: number(account), what: account.what, how: account.why })),
    left: accounts
      .filter(({ left }) => left)
      .map((account) => ({ slide: number(account), what: account.what, why: account.why })),
  };
}

/** Returns a number with its noun: “1 deck”, “3 decks”. */
export const many = (count: number, one: string, more = `${one}s`) => `${count} ${count === 1 ? one : more}`;
/** Describes what became of the written decks in a sentence. */
export function entriesTotal(
  decks: number,
  slides: number,
  { adapted, left }: { adapted: readonly unknown[]; left: readonly unknown[] },
): string {
  const lost = left.length ? `${many(left.length, "thing is", "things are")} left out` : "Everything is kept";
  return `${many(decks, "deck", "decks")} with ${many(slides, "slide", "slides")}. ${lost}${adapted.length ? `, ${adapted.length} adapted` : ""}; report.txt in the file says it slide by slide.`;
}

export interface Divided {
  result: JobResult;
  report: ReturnType<typeof entriesOf>;
}

/** Makes the parts of a deck in one transaction, which sees the deck at one moment; a cancel leaves none. */
export async function runSplit(
  { db, owner, progress }: DivideWork,
  id: string,
  { plan, date }: SplitRequest,
): Promise<Divided> {
  return db.transaction(
    async (tx) => {
      // The right may have been withdrawn since the split was requested.
      permit(await rightOn(tx, id, owner), "derive", id);
      const { deck, version } = await loadDeck(tx, id);
      const { parts, remarks } = resolvePlan(deck, plan, date);
      const made = split({ deck, version }, parts, { newId: () => nanoid(10), deckId: () => nanoid(12) });
      const closing = balance([deck], made.parts, made.accounts);
      if (!closing.closed) throw new Failure("not-valid", deck.properties.title, balanceSentence(closing));
      let slides = 0;
      if (!(await progress(0, made.parts.length, 0))) throw new Cancelled();
      for (const [nth, part] of made.parts.entries()) {
        await insertDeck(tx, owner, part, null, { inputs: [deck] });
        await shareBlobs(tx, id, part.id, countsOf(part));
        slides += part.slides.length;
        if (!(await progress(nth + 1, made.parts.length, slides))) throw new Cancelled();
      }
      return { result: resultOf(made.parts, closing, remarks), report: entriesOf(made.accounts, [deck]) };
    },
    { isolationLevel: "repeatable read" },
  );
}

/** Reads the decks to merge, all as they are at one moment. */
async function loadSources(
  tx: Transaction,
  owner: string,
  asked: MergeRequest["decks"],
): Promise<{ list: MergeSource[]; remarks: string[] }> {
  const known = await loadDecks(
    tx,
    asked.map(({ id }) => id),
    owner,
  );
  const remarks: string[] = [];
  const list = asked.map(({ id, version: seen, slides }, nth): MergeSource => {
    const found = known.get(id);
    if (!found)
      throw new Failure(
        "not-found",
        `deck ${nth + 1} of the list`,
        `Deck ${nth + 1} of the list was deleted meanwhile, or is no longer shared with you. Nothing was made; take it off the list and merge again.`,
      );
    if (found.version !== seen)
      remarks.push(`“${found.deck.properties.title}” was changed meanwhile; it was taken as it stands now.`);
    return { ...found, ...(slides ? { slides } : {}) };
  });
  return { list, remarks };
}

/** Makes one deck of several, which are not altered. */
export async function runMerge({ db, owner, progress }: DivideWork, asked: MergeRequest): Promise<Divided> {
  return db.transaction(
    async (tx) => {
      if (!(await progress(0, asked.decks.length, 0))) throw new Cancelled();
      const { list, remarks } = await loadSources(tx, owner, asked.decks);
      const { deck, accounts, files } = merge(
        list,
        { ...asked, drop: new Set(asked.drop) },
        { newId: () => nanoid(10), deckId: () => nanoid(12) },
      );
      const inputs = list.map((one) => one.deck);
      const closing = balance(inputs, [deck], accounts);
      if (!closing.closed) throw new Failure("not-valid", deck.properties.title, balanceSentence(closing));
      await insertDeck(tx, owner, deck, null, { inputs });
      const wanted = new Set(countsOf(deck));
      const byDeck = new Map<string, string[]>();
      for (const { sha256, deck: from } of files)
        if (wanted.has(sha256)) byDeck.set(from, [...(byDeck.get(from) ?? []), sha256]);
      for (const [from, sums] of byDeck) await shareBlobs(tx, from, deck.id, sums);
      if (!(await progress(asked.decks.length, asked.decks.length, deck.slides.length))) throw new Cancelled();
      return { result: resultOf([deck], closing, remarks), report: entriesOf(accounts, inputs) };
    },
    { isolationLevel: "repeatable read" },
  );
}

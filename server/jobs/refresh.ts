import { keepingSourceList, type SingleChange } from "@unitext/core/edit";
import { Failure, must } from "@unitext/core/model";
import type { JobResult, RefreshRequest } from "../api";
import { applyToDecks, decksBehind, type DeckChange, loadDecks, sourceBytes, sourceOf, userName } from "../store";
import type { Compared, SourceFile, Work } from "../work";
import { Cancelled, type DivideWork } from "./divide";

interface RefreshWork extends DivideWork {
  signal: AbortSignal;
  work: Work;
}

type Adapted = { slide: number; what: string; how: string };
type LeftOut = { slide: number; what: string; why: string };

/** How many decks are loaded, compared and written at a time. */
const BATCH = 30;

/** How often decks are compared again when somebody changes them meanwhile. */
const TRIES = 5;

/** The source whose values are taken, as it is compared with decks. */
interface Taken {
  name: string;
  files: SourceFile[];
  take: RefreshRequest["take"];
  takenBy: string;
}

/** A deck as it was loaded, and what comparing it with the source found. */
interface ComparedDeck extends Pick<DeckChange, "deck" | "version"> {
  compared: Compared;
}

/** Loads decks and compares them with the source. Decks that were deleted meanwhile are left out. */
async function compareAll(
  { db, owner, signal, work }: RefreshWork,
  ids: readonly string[],
  { files, take, takenBy }: Taken,
): Promise<ComparedDeck[]> {
  const loaded = [...(await loadDecks(db, ids, owner)).values()];
  const found = await work.run(
    "refreshDecks",
    { decks: loaded.map(({ deck }) => deck), files, take, takenAt: new Date().toISOString(), takenBy },
    { owner, signal },
  );
  return loaded.map((one, nth) => ({ ...one, compared: must(found[nth]) }));
}

/** Takes new values in some decks, each as one change that can be undone. A deck that was changed meanwhile is compared again. */
async function takeInDecks(context: RefreshWork, ids: readonly string[], taken: Taken): Promise<ComparedDeck[]> {
  const done: ComparedDeck[] = [];
  let waiting = ids;
  for (let nth = 1; waiting.length; nth++) {
    if (nth > TRIES)
      throw new Failure(
        "conflict",
        taken.name,
        "A deck is being changed all the time. Take the new values in it later.",
      );
    const compared = await compareAll(context, waiting, taken);
    const changing = compared.filter((one) => one.compared.slides.length > 0);
    const written = await applyToDecks(
      context.db,
      context.owner,
      changing.map(({ deck, version, compared: { slides } }) => {
        const changes = slides.map((slide): SingleChange => ({ kind: "setSlide", slide: slide.id, as: slide }));
        const change = keepingSourceList(deck, { kind: "batch", changes });
        return { deck, version, change, description: `Took new values from ${taken.name}` };
      }),
    );
    const missed = new Set(changing.filter(({ deck }) => !written.has(deck.id)));
    done.push(...compared.filter((one) => !missed.has(one)));
    waiting = [...missed].map(({ deck }) => deck.id);
  }
  return done;
}

/** Adds what became of a deck to the report. Returns how many values were taken in it. */
function record(
  { deck, compared }: ComparedDeck,
  { result, adapted, left }: { result: JobResult; adapted: Adapted[]; left: LeftOut[] },
): number {
  const { title } = deck.properties;
  const taken = new Set(compared.slides.map((slide) => slide.id));
  let values = 0;
  for (const { state, slide, slideId, binding, from, to, reason } of compared.checks) {
    if (state === "stale" && taken.has(slideId)) {
      values += 1;
      adapted.push({ slide, what: `${title}: ${binding.range}`, how: `${from.slice(0, 80)} → ${to.slice(0, 80)}` });
    } else if (state === "moved" || state === "missing" || state === "error")
      left.push({ slide, what: `${title}: ${binding.range}`, why: reason ?? state });
  }
  if (compared.slides.length) result.decks.push({ id: deck.id, title, slides: compared.slides.length, seconds: 0 });
  return values;
}

/** Takes the newest values of a source in every deck of its owner that uses it. Decks deleted meanwhile are left out. */
export async function runRefresh(
  context: RefreshWork,
  { source: id, take, reread }: RefreshRequest,
): Promise<{ result: JobResult; report: { adapted: Adapted[]; left: LeftOut[] } }> {
  const { db, owner, progress } = context;
  const source = await sourceOf(db, owner, id);
  const { name, newest, csv } = source;
  const decks = await decksBehind(db, owner, name, reread ? undefined : newest);
  const taken: Taken = {
    name,
    files: [{ name, version: newest, bytes: await sourceBytes(db, source), csv }],
    take,
    takenBy: await userName(db, owner),
  };
  const result: JobResult = { decks: [], sentence: "", rows: [], remarks: [] };
  const adapted: Adapted[] = [];
  const left: LeftOut[] = [];
  let values = 0;
  for (let from = 0; from < decks.length; from += BATCH) {
    if (!(await progress(from, decks.length, values))) throw new Cancelled();
    for (const one of await takeInDecks(context, decks.slice(from, from + BATCH), taken))
      values += record(one, { result, adapted, left });
  }
  await progress(decks.length, decks.length, values);
  result.sentence = values
    ? `${values} new ${values === 1 ? "value" : "values"} in ${result.decks.length} ${result.decks.length === 1 ? "deck" : "decks"}.`
    : take === "latest"
      ? "No value that follows by itself has changed."
      : "No deck shows a value that has changed.";
  if (left.length)
    result.remarks.push(`${left.length} to look at in Data: cells that have moved, are missing or hold an error.`);
  return { result, report: { adapted, left } };
}

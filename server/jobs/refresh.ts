import { keepingSourceList, type SingleChange } from "@unitext/core/edit";
import { bindingsOn, type Deck, Failure } from "@unitext/core/model";
import { nanoid } from "nanoid";
import type { JobResult, RefreshRequest } from "../api";
import { applyChanges, decksBehind, loadDeck, sourceOf, sourcesOfDeck, userName } from "../store";
import type { Compared, Work } from "../work";
import { Cancelled, type DivideWork } from "./divide";

interface RefreshWork extends DivideWork {
  signal: AbortSignal;
  work: Work;
}

/** How often a deck is compared again when somebody changes it meanwhile. */
const TRIES = 5;

/** Compares a deck with its sources and takes new values, as one change that can be undone. */
async function refreshDeck(
  { db, owner, signal, work }: RefreshWork,
  id: string,
  source: string,
  take: RefreshRequest["take"],
): Promise<{ deck: Deck; compared: Compared }> {
  for (let nth = 1; ; nth++) {
    const { deck, version } = await loadDeck(db, id);
    const names = [...new Set(deck.slides.flatMap((slide) => bindingsOn(slide).map(({ binding }) => binding.source)))];
    const compared = await work.run(
      "refresh",
      {
        deck,
        files: await sourcesOfDeck(
          db,
          id,
          names.filter((name) => name === source),
        ),
        take,
        takenAt: new Date().toISOString(),
        takenBy: await userName(db, owner),
      },
      { owner, signal },
    );
    const changes = compared.slides.map((slide): SingleChange => ({ kind: "setSlide", slide: slide.id, as: slide }));
    if (!changes.length) return { deck, compared };
    try {
      await applyChanges(db, id, owner, {
        base: version,
        changes: [
          {
            id: nanoid(16),
            change: keepingSourceList(deck, { kind: "batch", changes }),
            description: `Took new values from ${source}`,
          },
        ],
      });
      return { deck, compared };
    } catch (error) {
      if (!(error instanceof Failure && error.code === "conflict") || nth >= TRIES) throw error;
    }
  }
}

/** Takes the newest values of a source in every deck of its owner that uses it. Decks deleted meanwhile are left out. */
export async function runRefresh(
  context: RefreshWork,
  { source: id, take, reread }: RefreshRequest,
): Promise<{
  result: JobResult;
  report: {
    adapted: { slide: number; what: string; how: string }[];
    left: { slide: number; what: string; why: string }[];
  };
}> {
  const { db, owner, progress } = context;
  const source = await sourceOf(db, owner, id);
  const decks = await decksBehind(db, owner, source.name, reread ? undefined : source.newest);
  const result: JobResult = { decks: [], sentence: "", rows: [], remarks: [] };
  const adapted: { slide: number; what: string; how: string }[] = [];
  const left: { slide: number; what: string; why: string }[] = [];
  let values = 0;
  for (const [nth, deckId] of decks.entries()) {
    if (!(await progress(nth, decks.length, values))) throw new Cancelled();
    const { deck, compared } = await refreshDeck(context, deckId, source.name, take).catch((error: unknown) => {
      if (error instanceof Failure && error.code === "not-found") return { deck: undefined, compared: undefined };
      throw error;
    });
    if (!deck) continue;
    const title = deck.properties.title;
    const taken = new Set(compared.slides.map((slide) => slide.id));
    for (const { state, slide, slideId, binding, from, to, reason } of compared.checks) {
      if (state === "stale" && taken.has(slideId)) {
        values += 1;
        adapted.push({ slide, what: `${title}: ${binding.range}`, how: `${from.slice(0, 80)} → ${to.slice(0, 80)}` });
      } else if (state === "moved" || state === "missing" || state === "error")
        left.push({ slide, what: `${title}: ${binding.range}`, why: reason ?? state });
    }
    if (compared.slides.length) result.decks.push({ id: deckId, title, slides: compared.slides.length, seconds: 0 });
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

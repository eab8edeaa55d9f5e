import { type Choice, compareDecks, type Comparison } from "@unitext/core/diff";
import { reviewTailored, type TailorReview, takeTailored, type Versioned } from "@unitext/core/divide";
import { loadFormulas } from "@unitext/core/figures";
import { type Pasted, readPasted } from "@unitext/core/formats/documents/pasted";
import {
  generate,
  loadGrammar,
  metadataFrom,
  reconcile,
  type GeneratedSlide,
  type Point,
  type Review,
  review,
  slideChanges,
  takeReview,
} from "@unitext/core/generate";
import {
  facesNeeded,
  FontSet,
  layoutSlide,
  measureSlide,
  leavesOf,
  loadHyphenation,
  plainScene,
  type Scene,
} from "@unitext/core/layout";
import {
  type BreakRule,
  type Deck,
  DEFAULT_RULE,
  type DeckMetadata,
  metadataOf,
  nameOf,
  type Slide,
  must,
} from "@unitext/core/model";
import { apply, type Change, type SingleChange } from "@unitext/core/edit";
import { type Advice, adviceOn, fitOf, legibleVeil, type PagePixels, type SlideFit } from "@unitext/core/advice";
import { nanoid } from "nanoid";
import { type Lines, type Problem, readText, type Reason } from "@unitext/core/text";

const bytes = new Map<string, Uint8Array>();
const coming = new Map<string, Promise<void>>();
/** A face that the layout asked for and that must be fetched. */
class Missing extends Error {
  constructor(readonly face: string) {
    super(`The font ${face} is not loaded.`);
  }
}
const fonts = new FontSet((id) => {
  const found = bytes.get(id);
  if (!found) throw new Missing(id);
  return found;
});

async function load(faces: readonly string[]): Promise<void> {
  await Promise.all(
    faces.map((id) => {
      if (bytes.has(id)) return undefined;
      const known = coming.get(id);
      if (known) return known;
      const loading = fetch(`/fonts/${id}.ttf`).then(async (response) => {
        coming.delete(id);
        if (!response.ok) throw new Error(`The font ${id} could not be loaded.`);
        bytes.set(id, new Uint8Array(await response.arrayBuffer()));
      });
      coming.set(id, loading);
      return loading;
    }),
  );
}

/** Runs a task that may need faces: they are fetched, and it is run again. */
async function withFaces<T>(act: () => T): Promise<T> {
  for (let round = 0; ; round++) {
    try {
      return act();
    } catch (error) {
      if (!(error instanceof Missing) || round > 60) throw error;
      await load([error.face]);
    }
  }
}

const hasFormula = (slides: readonly Slide[]) =>
  slides.some(({ elements, notes }) => JSON.stringify([elements, notes]).includes('"formula"'));

export interface LayoutItem {
  slide: Slide;
  number: number;
}

/** A text and the rule that cuts it. */
export interface Cutting {
  text: string;
  rule: BreakRule;
  metadata: DeckMetadata;
}

interface Generated {
  made: GeneratedSlide[];
  problems: Problem[];
  metadata: DeckMetadata;
}

let serial = 0;
const kept = new Map<string, Generated>();

/** Generates slides from a text. The last few results are cached, since the same texts are compared again and again. */
async function made({ text, rule, metadata }: Cutting, prefix: string): Promise<Generated> {
  const document = metadata.manuscript?.document;
  const key = JSON.stringify([rule, metadata.page, metadata.theme, metadata.language, metadata.assets, document, text]);
  const known = kept.get(key);
  if (known) return known;
  if (text.includes("$")) await loadFormulas();
  if (rule.placement === "both") await loadGrammar();
  const fitting = rule.overflow !== "leave";
  if (fitting) await load(facesNeeded([], metadata));
  const found = await withFaces(() => {
    const manuscript = readText(text, { lines: rule.cuts.some(({ kind }) => kind === "line") });
    const own = metadataFrom(manuscript.front, metadata, manuscript.problems);
    const list = [
      ...generate(manuscript, rule, {
        newId: () => `${prefix}${(serial++).toString(36)}`,
        metadata: own,
        ...(fitting ? { fonts } : {}),
        ...(document ? { document } : {}),
      }),
    ];
    return { made: list, problems: manuscript.problems, metadata: own };
  });
  kept.set(key, found);
  if (kept.size > 4) kept.delete(must(kept.keys().next().value));
  return found;
}

/** A slide as a change leaves it, laid out: its id, its number from 1, its scene, and the faces that drawing needs. */
export interface DrawnSlide {
  id: string;
  number: number;
  scene: Scene;
  faces: string[];
}

/** How many changed slides are laid out with the change itself; more are drawn as they are asked for. */
const DRAWN_AT_ONCE = 3;

/** Lays out the slides that a change alters, if they are few, so that they are drawn as soon as it is applied. */
async function drawChanged(deck: Deck, change: Change | undefined): Promise<DrawnSlide[]> {
  if (!change) return [];
  const next = apply(deck, change).deck;
  const before = new Set(deck.slides);
  const changed = next.slides.flatMap((slide, at) => (before.has(slide) ? [] : [{ slide, number: at + 1 }]));
  if (changed.length > DRAWN_AT_ONCE) return [];
  try {
    const { scenes, faces } = await core.layout(metadataOf(next), changed);
    return changed.map(({ slide, number }, nth) => ({ id: slide.id, number, scene: must(scenes[nth]), faces }));
  } catch {
    // A font did not arrive. The change must not wait for it: the slides are drawn when it is there.
    return [];
  }
}

/** The change that a text makes to a typed deck, and the lines of each slide. */
export interface Followed {
  /** The change that makes the deck say what the text says; undefined where it does already. */
  change: Change | undefined;
  /** For each slide of the text its id in the deck, its lines, and why it has its arrangement. */
  ids: string[];
  lines: Lines[];
  reasons: (Reason | undefined)[];
  problems: Problem[];
  drawn: DrawnSlide[];
}

export interface TakenReview {
  change: Change | undefined;
  /** For each generated slide its id in the deck; null where it is left out. */
  ids: (string | null)[];
  lines: Lines[];
  reasons: Reason[];
  problems: Problem[];
  /** The slides that the user changed since they were generated. */
  hand: string[];
  conflicts: number;
  drawn: DrawnSlide[];
}

/** The core's heavy work, off the page's thread. */
export const core = {
  /** Lays out slides. The scenes come without glyphs, with the faces that drawing them needs. */
  async layout(metadata: DeckMetadata, items: LayoutItem[]): Promise<{ scenes: Scene[]; faces: string[] }> {
    const slides = items.map(({ slide }) => slide);
    await loadHyphenation(metadata.language);
    if (hasFormula(slides)) await loadFormulas();
    await load(facesNeeded(slides, metadata));
    const scenes = await withFaces(() =>
      items.map(({ slide, number }) => plainScene(layoutSlide(slide, { metadata, number, fonts }))),
    );
    const faces = new Set<string>();
    for (const scene of scenes)
      for (const node of leavesOf(scene.nodes))
        if (node.kind === "text") for (const line of node.lines) for (const run of line.runs) faces.add(run.face);
    return { scenes, faces: [...faces] };
  },
  /** Measures how full slides are, without drawing them. */
  async measure(metadata: DeckMetadata, slides: Slide[]): Promise<{ overflow: number; fullness: number }[]> {
    await loadHyphenation(metadata.language);
    if (hasFormula(slides)) await loadFormulas();
    await load(facesNeeded(slides, metadata));
    return withFaces(() =>
      slides.map((slide) => {
        const { overflow, fullness } = measureSlide(slide, { metadata, number: 1, fonts });
        return { overflow, fullness };
      }),
    );
  },
  /** Says how a slide fits, and what would make it fit. */
  async fit(metadata: DeckMetadata, slide: Slide, number: number): Promise<SlideFit> {
    await loadHyphenation(metadata.language);
    if (hasFormula([slide])) await loadFormulas();
    await load(facesNeeded([slide], metadata));
    return withFaces(() => fitOf(slide, { metadata, number, fonts }, () => nanoid(10)));
  },
  /** Returns the lightest veil over a background picture under which a slide can be read; undefined where none is enough. */
  async veil(metadata: DeckMetadata, slide: Slide, pixels: PagePixels): Promise<number | undefined> {
    await load(facesNeeded([slide], metadata));
    return withFaces(() =>
      legibleVeil(layoutSlide(slide, { metadata, number: 1, fonts }), pixels, metadata.theme.colours.paper),
    );
  },
  /** Returns what the checks find on slides of a deck. */
  async advise(deck: Deck, slides: readonly string[]): Promise<Advice[]> {
    const chosen = new Set(slides);
    const shown = deck.slides.filter(({ id }) => chosen.has(id));
    await loadHyphenation(deck.language);
    if (hasFormula(shown)) await loadFormulas();
    await load(facesNeeded(shown, deck));
    return withFaces(() => adviceOn(deck, slides, { fonts, newId: () => nanoid(10) }));
  },
  /** Returns what a typed deck becomes by a text, cut by the deck's rule; new slides get ids from `prefix`. */
  async follow(deck: Deck, text: string, prefix: string): Promise<Followed> {
    const metadata = metadataOf(deck);
    const found = await made({ text, rule: metadata.manuscript?.rule ?? DEFAULT_RULE, metadata }, prefix);
    const wanted = { ...found.metadata, assets: deck.assets };
    const reconciled = reconcile(deck, wanted, found.made, { typed: true });
    return {
      ...reconciled,
      drawn: await drawChanged(deck, reconciled.change),
      lines: found.made.map(({ lines }) => lines),
      reasons: found.made.map(({ reason }) => reason),
      problems: found.problems,
    };
  },
  /** Compares what a text made before and makes now with the deck, slide by slide. */
  async review(deck: Deck, base: Cutting, next: Cutting): Promise<Review & { problems: Problem[] }> {
    const [before, now] = [await made(base, "b"), await made(next, `n${serial}`)];
    return { ...review(deck, before.made, now.made), problems: now.problems };
  },
  /** Returns the change that takes it, as decided; `metadata` replaces the deck's. */
  async take(
    deck: Deck,
    base: Cutting,
    next: Cutting,
    choices: Map<string, Choice>,
    typing: boolean,
  ): Promise<TakenReview> {
    const [before, now] = [await made(base, "b"), await made(next, `n${serial}`)];
    const { counts, items } = review(deck, before.made, now.made, choices, { typing });
    const { change, ids } = takeReview(
      deck,
      before.made,
      now.made,
      choices,
      { ...now.metadata, manuscript: next.metadata.manuscript },
      { typing },
    );
    return {
      change,
      ids,
      lines: now.made.map(({ lines }) => lines),
      reasons: now.made.map(({ reason }) => reason),
      problems: now.problems,
      drawn: typing ? await drawChanged(deck, change) : [],
      hand: items.flatMap(({ hand, mine, state }) => (hand && mine && state !== "added" ? [mine.id] : [])),
      conflicts: counts.conflict,
    };
  },
  /** Returns the points that the rule takes from the text, slide by slide, each with its sentence. */
  async points(cutting: Cutting): Promise<{ title: string; line: number; points: Point[] }[]> {
    const { made: list } = await made(cutting, "p");
    return list.flatMap(({ slide, lines, points }) =>
      points.length ? [{ title: nameOf(slide), line: lines.from, points }] : [],
    );
  },
  /** Returns a slide that the user changed as the text makes it; null when the text makes none. */
  async asMade(deck: Deck, cutting: Cutting, id: string): Promise<{ slide: Slide; changes: SingleChange[] } | null> {
    const { made: list } = await made(cutting, "b");
    const item = review(deck, list, list).items.find(({ mine }) => mine?.id === id);
    return item?.mine && item.base ? { slide: item.base, changes: slideChanges(item.mine, item.base) } : null;
  },
  /** Compares two decks, or two states of one, slide by slide. */
  async compare(here: Deck, there: Deck): Promise<Comparison> {
    return compareDecks(here, there);
  },
  /** Returns what the original brings to a version. */
  async reviewTailored(version: Deck, base: Deck, now: Deck, choices: Map<string, Choice>): Promise<TailorReview> {
    return reviewTailored(version, base, now, choices);
  },
  /** Returns the change that takes it, as decided. */
  async takeTailored(
    version: Deck,
    base: Deck,
    now: Versioned,
    choices: Map<string, Choice>,
  ): Promise<Change | undefined> {
    return takeTailored(version, base, now, choices, () => nanoid(10));
  },
  /** Reads what is on the clipboard, and makes the slides that it gives in a deck with this metadata. */
  async pasted(html: string, text: string, metadata: DeckMetadata): Promise<Pasted & { slides: Slide[] }> {
    const found = readPasted(html, text);
    const { manuscript: _, ...bare } = metadata;
    const { made: slides } = await made({ text: found.text, rule: found.rule, metadata: bare }, `p${serial}`);
    return { ...found, slides: slides.map(({ slide }) => ({ ...slide, parent: null })) };
  },
  /** Returns the slides that a text makes by a rule in a deck with this metadata. */
  async slides(text: string, rule: BreakRule, metadata: DeckMetadata): Promise<Slide[]> {
    const { manuscript: _, ...bare } = metadata;
    const { made: slides } = await made({ text, rule, metadata: bare }, `d${serial}`);
    return slides.map(({ slide }) => ({ ...slide, parent: null }));
  },
  /** Returns clipboard content in the text form. */
  async pastedText(html: string, text: string): Promise<string> {
    return readPasted(html, text).text;
  },
};

import { cssFamily, type Scene } from "@unitext/core/layout";
import { type Deck, type DeckMetadata, metadataOf, type Slide, textHash, must } from "@unitext/core/model";
import { useEffect, useLayoutEffect, useMemo, useState, useSyncExternalStore } from "react";
import { core, type DrawnSlide } from "../worker";

/** How full a slide is: `overflow` in points, `fullness` as a share of its text area. */
export interface Measure {
  overflow: number;
  fullness: number;
}

type Key = string;
const headKeys = new WeakMap<object, string>();
/** Returns a key of the metadata that a layout depends on. */
function headKey(metadata: DeckMetadata): Key {
  const known = headKeys.get(metadata);
  if (known) return known;
  const key = JSON.stringify([
    metadata.page,
    metadata.theme,
    metadata.themes,
    metadata.regions,
    metadata.language,
    metadata.assets,
  ]);
  headKeys.set(metadata, key);
  return key;
}

interface Held {
  key: Key;
  number: number;
  scene: Scene;
}
const scenes = new WeakMap<Slide, Held>();
const measures = new WeakMap<Slide, { key: Key; measure: Measure }>();
/**
 * Scenes by content, so that a slide that comes again from the server is not laid out again. Only the latest are kept.
 */
const byContent = new Map<string, Scene>();
const KEPT = 1500;
const faces = new Map<string, Promise<unknown>>();
const listeners = new Set<() => void>();
let tick = 0;

function announce(): void {
  tick += 1;
  for (const listener of listeners) listener();
}
const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

/** Loads the faces that a drawing needs, each under its own name. */
export function openFaces(ids: readonly string[]): Promise<unknown> {
  return Promise.all(
    ids.map((id) => {
      const known = faces.get(id);
      if (known) return known;
      const face = new FontFace(cssFamily(id), `url(/fonts/${id}.ttf)`);
      document.fonts.add(face);
      const loading = face.load().catch(() => undefined);
      faces.set(id, loading);
      return loading;
    }),
  );
}

/** Returns everything that a scene depends on: the visible fields of the slide, its number and its metadata. */
function contentOf(
  { notes: _, source: __, origin: ___, parent: ____, ...seen }: Slide,
  number: number,
  metadata: DeckMetadata,
): string {
  return textHash(JSON.stringify([seen, number, headKey(metadata)]));
}

function hold(slide: Slide, number: number, metadata: DeckMetadata, scene: Scene): void {
  scenes.set(slide, { key: headKey(metadata), number, scene });
  measures.set(slide, { key: headKey(metadata), measure: { overflow: scene.overflow, fullness: scene.fullness } });
}

interface Wanted {
  slide: Slide;
  number: number;
  metadata: DeckMetadata;
}
const waiting = new Map<Slide, Wanted>();
let busy = false;

/** How many slides are laid out together: few at first, so that something is seen soon, then more. */
const [FIRST_BATCH, BATCH] = [6, 24];

/** Lays out waiting slides, the last requested first, a few at a time, so that what is visible comes first. */
async function work(): Promise<void> {
  if (busy) return;
  busy = true;
  let size = FIRST_BATCH;
  try {
    while (waiting.size) {
      const all = [...waiting.values()];
      const metadata = must(all.at(-1)).metadata;
      const asked = all
        .filter((wanted) => wanted.metadata === metadata)
        .slice(-size)
        .map((wanted) => ({ ...wanted, content: contentOf(wanted.slide, wanted.number, metadata) }));
      for (const { slide } of asked) waiting.delete(slide);
      size = Math.min(BATCH, 2 * size);
      const batch = asked.filter(({ slide, number, content }) => {
        const known = byContent.get(content);
        if (known) hold(slide, number, metadata, known);
        return !known;
      });
      if (batch.length < asked.length) announce();
      if (!batch.length) continue;
      let result: Awaited<ReturnType<typeof core.layout>>;
      try {
        result = await core.layout(
          metadata,
          batch.map(({ slide, number }) => ({ slide, number })),
        );
      } catch {
        // A font did not arrive: the slides are requested again, unless newer ones have replaced them.
        for (const { content: _, ...wanted } of batch)
          if (!waiting.has(wanted.slide)) waiting.set(wanted.slide, wanted);
        setTimeout(work, 1000);
        return;
      }
      const { scenes: laid, faces: needed } = result;
      await openFaces(needed);
      batch.forEach(({ slide, number, content }, nth) => {
        const scene = must(laid[nth]);
        hold(slide, number, metadata, scene);
        byContent.set(content, scene);
        if (byContent.size > KEPT) byContent.delete(must(byContent.keys().next().value));
      });
      announce();
    }
  } finally {
    busy = false;
  }
}

/** Opens the faces of slides that were laid out with a change. */
export const openFacesOf = (drawn: readonly DrawnSlide[]): Promise<unknown> =>
  openFaces([...new Set(drawn.flatMap(({ faces }) => faces))]);

/** Keeps the scenes of slides that were laid out with a change, as soon as it is applied and before it is drawn. */
export function keepScenes(deck: Deck, drawn: readonly DrawnSlide[]): void {
  if (!drawn.length) return;
  const metadata = metadataOf(deck);
  for (const { id, number, scene } of drawn) {
    const slide = deck.slides[number - 1];
    if (slide?.id === id) hold(slide, number, metadata, scene);
  }
  announce();
}

const heads = new WeakMap<Deck["theme"], DeckMetadata[]>();
/** Returns the metadata of a deck, the same object as long as nothing in it changes. */
export function useHead(deck: Deck): DeckMetadata {
  return useMemo(() => {
    const metadata = metadataOf(deck);
    const known = (heads.get(deck.theme) ?? []).find((other) =>
      (Object.keys(metadata) as (keyof DeckMetadata)[]).every((name) => other[name] === metadata[name]),
    );
    if (known) return known;
    heads.set(deck.theme, [...(heads.get(deck.theme) ?? []), metadata]);
    return metadata;
  }, [deck]);
}

/**
 * Returns the scene of a slide, laid out in the worker; the previous scene of the same slide until the new one is
 * there.
 */
export function useScene(slide: Slide, number: number, metadata: DeckMetadata): Scene | undefined {
  useSyncExternalStore(subscribe, () => scenes.get(slide) ?? null);
  const held = scenes.get(slide);
  const current = held && held.number === number && held.key === headKey(metadata);
  const [last, setLast] = useState<Scene | undefined>(held?.scene);
  // Requested before the page is painted, which shows it a frame sooner.
  useLayoutEffect(() => {
    if (current) {
      setLast(held.scene);
      return;
    }
    waiting.set(slide, { slide, number, metadata });
    void Promise.resolve().then(work);
  }, [slide, number, metadata, current, held]);
  return held?.scene ?? last;
}

let measuring: symbol | undefined;
/** Measures all slides of a deck in the background, and returns what is known so far. */
export function useMeasures(deck: Deck, metadata: DeckMetadata): (slide: Slide) => Measure | undefined {
  const version = useSyncExternalStore(subscribe, () => tick);
  useEffect(() => {
    const run = Symbol("measuring");
    measuring = run;
    const key = headKey(metadata);
    const left = deck.slides.filter((slide) => measures.get(slide)?.key !== key);
    const go = async () => {
      for (let at = 0; at < left.length && measuring === run; at += 100) {
        const batch = left.slice(at, at + 100).filter((slide) => measures.get(slide)?.key !== key);
        if (!batch.length) continue;
        const found = await core.measure(metadata, batch);
        batch.forEach((slide, nth) => {
          measures.set(slide, { key, measure: must(found[nth]) });
        });
        announce();
      }
    };
    const timer = setTimeout(go, 120);
    return () => clearTimeout(timer);
  }, [deck, metadata]);
  return useMemo(() => {
    void version;
    return (slide: Slide) => measures.get(slide)?.measure;
  }, [version]);
}

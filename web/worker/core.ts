import { DEFAULT_RULE, generate, headFrom, type Made } from "@unitext/core/generate";
import { facesNeeded, FontSet, layoutSlide, plainScene, type Scene } from "@unitext/core/layout";
import type { DeckHead, Slide } from "@unitext/core/model";
import { type Problem, readText } from "@unitext/core/text";

const bytes = new Map<string, Uint8Array>();
const coming = new Map<string, Promise<void>>();
const fonts = new FontSet((id) => {
  const found = bytes.get(id);
  if (!found) throw new Error(`The font ${id} is not loaded.`);
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

export interface LayoutItem {
  slide: Slide;
  number: number;
}

/** The core's heavy work, off the page's thread. */
export const core = {
  /** Lays slides out; the scenes come without glyphs, with the faces that drawing them needs. */
  async layout(head: DeckHead, items: LayoutItem[]): Promise<{ scenes: Scene[]; faces: string[] }> {
    await load(facesNeeded(items.map(({ slide }) => slide), head));
    const scenes = items.map(({ slide, number }) => plainScene(layoutSlide(slide, { head, number, fonts })));
    const faces = new Set<string>();
    for (const scene of scenes) for (const node of scene.nodes) if (node.kind === "text") for (const line of node.lines) for (const run of line.runs) faces.add(run.face);
    return { scenes, faces: [...faces] };
  },
  /** How full slides are, without drawing them. */
  async measure(head: DeckHead, slides: Slide[]): Promise<{ overflow: number; fullness: number }[]> {
    await load(facesNeeded(slides, head));
    return slides.map((slide) => {
      const { overflow, fullness } = layoutSlide(slide, { head, number: 1, fonts });
      return { overflow, fullness };
    });
  },
  /** Cuts a text into slides; new slides get ids from `prefix`. */
  async read(text: string, head: DeckHead, prefix: string): Promise<{ head: DeckHead; made: Made[]; problems: Problem[] }> {
    let next = 0;
    const manuscript = readText(text);
    const made = [...generate(manuscript, DEFAULT_RULE, () => `${prefix}${(next++).toString(36)}`)];
    const { problems } = manuscript;
    return { head: headFrom(manuscript.front, head, problems), made, problems };
  },
};

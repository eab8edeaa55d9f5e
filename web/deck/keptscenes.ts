import { leavesOf, type Scene } from "@unitext/core/layout";
import { createStore, entries, delMany, get as stored, set } from "idb-keyval";
import { openFaces } from "./scenes";

/** A drawing that was kept, and when it was last shown. */
interface Kept {
  scene: Scene;
  shown: number;
}

/** How many drawings this browser keeps. */
const MOST = 2000;
const store = () => createStore("unitext-first-slides", "scenes");
/** Drawings of this visit, which are there at once. */
export const seenScenes = new Map<string, Scene>();

/** Returns the faces that a scene is drawn in. */
function facesOf(scene: Scene): string[] {
  const faces = new Set<string>();
  for (const node of leavesOf(scene.nodes))
    if (node.kind === "text") for (const line of node.lines) for (const run of line.runs) faces.add(run.face);
  return [...faces];
}

/** Keeps a drawing in this browser under a name that changes with what it shows. */
export async function keepScene(key: string, scene: Scene): Promise<void> {
  seenScenes.set(key, scene);
  try {
    const own = store();
    await set(key, { scene, shown: Date.now() } satisfies Kept, own);
    if (Math.random() > 0.01) return;
    const all = await entries<string, Kept>(own);
    const old = all.sort(([, a], [, b]) => b.shown - a.shown).slice(MOST);
    await delMany(
      old.map(([name]) => name),
      own,
    );
  } catch {
    // Private windows keep nothing: it is drawn again the next time.
  }
}

/** Returns a kept drawing once its faces are loaded; undefined where there is none. */
export async function recallScene(key: string): Promise<Scene | undefined> {
  const known = seenScenes.get(key);
  if (known) return known;
  try {
    const found = await stored<Kept>(key, store());
    if (!found) return undefined;
    await openFaces(facesOf(found.scene));
    seenScenes.set(key, found.scene);
    return found.scene;
  } catch {
    return undefined;
  }
}

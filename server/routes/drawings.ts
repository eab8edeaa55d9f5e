import { createHash } from "node:crypto";
import { elementWords, must } from "@unitext/core/model";
import type { Response } from "express";
import { LRUCache } from "lru-cache";
import type { ViewedSlide } from "../api";
import { loadDeck, picturesOfSlide, type SlideToDraw } from "../store";
import type { Asker } from "../work";
import type { AppContext } from "./context";

/** How many characters of drawings are kept, so that many viewers of a slide cost one drawing. */
const KEPT = 64 * 1024 * 1024;

/** How many decks are kept, and for how long, in milliseconds. */
const DECKS = 20;
const FRESH = 1000;

type LoadedDeck = Awaited<ReturnType<typeof loadDeck>>;

/** What a page may show beside the drawing. */
interface Shown {
  notes: boolean;
  comments: boolean;
}

/** Draws slides in worker processes, and keeps the drawings. */
export class Drawings {
  private readonly kept = new LRUCache<string, string>({ maxSize: KEPT, sizeCalculation: (svg) => svg.length || 1 });

  /** The decks that were looked at in the last second: while many look at one that others write in, it is loaded once. */
  private readonly decks: LRUCache<string, LoadedDeck>;

  constructor(private readonly context: Pick<AppContext, "db" | "work" | "fonts">) {
    this.decks = new LRUCache<string, LoadedDeck>({
      max: DECKS,
      ttl: FRESH,
      fetchMethod: async (id) => loadDeck(this.context.db, id),
    });
  }

  /** Returns a deck as it was at most a second ago, and not before version `since`. Throws a Failure `not-found`. */
  async deck(id: string, since = 0): Promise<LoadedDeck> {
    const known = must(await this.decks.fetch(id));
    return known.version < since ? must(await this.decks.fetch(id, { forceRefresh: true })) : known;
  }

  /** Returns the drawing of a slide as SVG. */
  async draw({ shown: _, version: __, ...placed }: SlideToDraw, asker: Asker): Promise<string> {
    const { db, work, fonts } = this.context;
    // By what is drawn, and not by version: most changes of a deck are on other slides.
    const { notes: ___, comments: ____, ...drawnOf } = placed.slide;
    const key = createHash("sha256")
      .update(JSON.stringify({ ...placed, slide: drawnOf }))
      .digest("base64");
    const known = this.kept.get(key);
    if (known !== undefined) return known;
    const pictures = await picturesOfSlide(db, placed);
    const drawn = await work.run("drawSlide", { fonts, ...placed, pictures }, asker);
    this.kept.set(key, drawn);
    return drawn;
  }

  /** Returns what a page shows beside the drawing of a slide. */
  async view({ version: _, ...placed }: SlideToDraw, show: Shown, asker: Asker): Promise<ViewedSlide> {
    const { work, fonts } = this.context;
    const viewed = await work.run("viewSlide", { fonts, ...placed }, asker);
    const { comments = [], elements } = placed.slide;
    return {
      ...viewed,
      notes: show.notes ? viewed.notes : null,
      comments: show.comments ? comments : null,
      texts: show.comments
        ? elements.flatMap((element) => {
            const text = elementWords(element);
            return text.trim() ? [{ id: element.id, text }] : [];
          })
        : [],
    };
  }
}

/** Sends a drawing, which no browser runs or fetches anything for; `named` says that the address names its version. */
export function sendDrawing(response: Response, drawn: string, named: boolean): void {
  response.set({
    "content-type": "image/svg+xml; charset=utf-8",
    "content-security-policy": "default-src 'none'; style-src 'unsafe-inline'; img-src data:; sandbox",
    "cache-control": named ? "private, max-age=86400, immutable" : "private, no-store",
  });
  response.send(drawn);
}

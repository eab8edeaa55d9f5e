import { isDocumentName } from "@unitext/core/formats/catalogue";
import type { Choice } from "@unitext/core/diff";
import type { Review } from "@unitext/core/generate";
import type { Deck, DeckMetadata } from "@unitext/core/model";
import type { Problem } from "@unitext/core/text";
import { DocumentText, Picture } from "@unitext/server/api";
import { type RefObject, useState } from "react";
import { post } from "../api/client";
import { useDeck } from "../deck/DeckContext";
import { core, type Cutting } from "../worker";
import type { TextEditorHandle } from "./TextEditor";
import type { useManuscript } from "./useManuscript";

/** A newer document to be taken: what it would change, and how it was cut. */
interface Waiting {
  name: string;
  review: Review;
  problems: readonly Problem[];
  base: Cutting;
  next: Cutting;
}

/**
 * Files that are dropped into the text: a newer edition of the deck's document is shown for review before anything is
 * taken; other documents and pictures are inserted at the cursor.
 */
export function useDroppedFiles(
  { cutting, shown }: Pick<ReturnType<typeof useManuscript>, "cutting" | "shown">,
  editor: RefObject<TextEditorHandle | null>,
) {
  const { deck, session, metadata } = useDeck();
  const [waiting, setWaiting] = useState<Waiting>();
  const [taking, setTaking] = useState(false);

  /** Reads a newer edition of the document: what it would change is shown before anything is taken. */
  async function compare(file: File) {
    session.notify(`Reading ${file.name} …`);
    const found = await readDocument(deck, file);
    const next: DeckMetadata = { ...metadata, assets: { ...metadata.assets, ...found.assets } };
    const base = cutting(shown.current);
    const now = cutting(found.text, undefined, next);
    const { problems, ...review } = await core.review(session.snapshot().deck, base, now);
    setWaiting({ name: file.name, review, problems: [...found.problems, ...problems], base, next: now });
    session.dismiss();
  }

  async function takeReview(choices: Map<string, Choice>): Promise<void> {
    if (!waiting) return;
    setTaking(true);
    try {
      const result = await core.take(session.snapshot().deck, waiting.base, waiting.next, choices, false);
      shown.current = waiting.next.text;
      session.apply(result.change ?? { kind: "batch", changes: [] }, {
        text: waiting.next.text,
        words: `Took ${waiting.name} into the slides`,
      });
      setWaiting(undefined);
    } finally {
      setTaking(false);
    }
  }

  async function insertDocument(file: File) {
    const found = await readDocument(deck, file);
    for (const [name, asset] of Object.entries(found.assets))
      session.apply({ kind: "setAsset", name, asset }, { quiet: true });
    editor.current?.insert(found.text.replace(FRONT_MATTER, ""));
  }

  /** A picture that the text names and whose file was missing takes its place there; others are inserted. */
  async function insertPicture(file: File) {
    const missing = missingPicture(deck, file.name);
    const path = encodeURIComponent(missing ?? `pictures/${file.name.replace(/\s+/g, "-")}`);
    const { name, ...asset } = await post(`/decks/${deck.id}/pictures?name=${path}`, file, Picture);
    session.apply({ kind: "setAsset", name, asset });
    if (!missing) editor.current?.insert(`\n![${file.name.replace(/\.[^.]*$/, "")}](${name})\n`);
  }

  async function drop(files: readonly File[]): Promise<void> {
    for (const file of files) {
      try {
        if (!isDocumentName(file.name)) await insertPicture(file);
        else if (deck.manuscript) await compare(file);
        else if (/\.(md|txt)$/i.test(file.name)) editor.current?.insert(await file.text());
        else await insertDocument(file);
      } catch (error) {
        session.notify(`${file.name}: ${error instanceof Error ? error.message : String(error)}`);
      }
    }
  }
  return { drop, waiting, taking, takeReview, closeReview: () => setWaiting(undefined) };
}

/** The metadata at the head of a text, with the lines around it. */
const FRONT_MATTER = /^---\n[\s\S]*?\n---\n+/;

const readDocument = (deck: Deck, file: File) =>
  post(`/decks/${deck.id}/documents?name=${encodeURIComponent(file.name)}`, file, DocumentText);

/** Returns the path of a picture whose file is missing and that has a given file name. */
function missingPicture(deck: Deck, fileName: string): string | undefined {
  for (const { elements } of deck.slides)
    for (const element of elements)
      if (element.kind === "picture" && !deck.assets[element.source] && element.source.split("/").at(-1) === fileName)
        return element.source;
  return undefined;
}

import { batch, inKind, putPicture } from "@unitext/core/edit";
import type { Slide } from "@unitext/core/model";
import { Picture } from "@unitext/server/api";
import { nanoid } from "nanoid";
import { useEffect } from "react";
import { post } from "../api/client";
import { useDeck } from "../deck/DeckContext";

const isPicture = (file: File) => file.type.startsWith("image/") || /\.(?:wmf|emf|tiff?|bmp)$/i.test(file.name);

/** Whether a key or a paste goes to a text field. */
const isField = (target: EventTarget | null) =>
  target instanceof HTMLElement && target.closest("input, textarea, select, [contenteditable=true]") !== null;

/**
 * Returns a function that puts picture files on a slide, one after the other; other files are named in a notice. Pictures
 * that are pasted while no text is edited go there too.
 */
export function usePictures(slide: Slide, onPut: (id: string) => void) {
  const { deck, session, canEdit } = useDeck();
  async function bring(file: File) {
    try {
      const name = `pictures/${(file.name || "pasted.png").replace(/\s+/g, "-")}`;
      const found = await post(`/decks/${deck.id}/pictures?name=${encodeURIComponent(name)}`, file, Picture);
      const { sha256, mediaType, width, height } = found;
      const asset = { sha256, mediaType, width, height };
      session.apply({ kind: "setAsset", name: found.name, asset }, { quiet: true });
      const { deck: latest } = session.snapshot();
      const now = latest.slides.find(({ id }) => id === slide.id);
      if (!now) return;
      const id = nanoid(10);
      const alt = file.name.replace(/\.[^.]*$/, "");
      const picture = inKind({ id, kind: "picture", slot: null, source: found.name, alt }, deck.theme);
      session.apply(batch(putPicture(latest, now, picture)), { words: "Added a picture" });
      onPut(id);
    } catch (error) {
      session.notify(`${file.name}: ${(error as Error).message}`);
    }
  }
  const put = async (files: readonly File[]) => {
    if (!canEdit) return;
    const others = files.filter((file) => !isPicture(file));
    if (others.length)
      session.notify(
        `${others.map(({ name }) => name).join(", ")}: only pictures go on a slide. Drop documents and decks on the Desk.`,
      );
    for (const file of files.filter(isPicture)) await bring(file);
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: the listener always calls the latest function.
  useEffect(() => {
    const paste = (event: ClipboardEvent) => {
      const files = [...(event.clipboardData?.files ?? [])];
      if (!files.length || isField(event.target)) return;
      event.preventDefault();
      void put(files);
    };
    document.addEventListener("paste", paste);
    return () => document.removeEventListener("paste", paste);
  }, [slide.id, deck, canEdit]);
  return put;
}

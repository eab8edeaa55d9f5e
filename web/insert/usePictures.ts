import { batch, inKind, putPicture, swapPicture } from "@unitext/core/edit";
import { type Frame, newSlide, type Slide } from "@unitext/core/model";
import { Picture } from "@unitext/server/api";
import { nanoid } from "nanoid";
import { post } from "../api/client";
import { useDeck } from "../deck/DeckContext";

/** How many pictures make a set on one slide. */
export const SET = 6;

/** Whether a file is a picture that can be on a slide. */
export const isPicture = (file: File): boolean =>
  file.type.startsWith("image/") || /\.(?:png|jpe?g|gif|svg|wmf|emf|tiff?|bmp)$/i.test(file.name);

/**
 * Returns a function that brings picture files into the deck, one after the other, and hands each to `onPicture`. At the
 * end it says which of them could not be taken, and why.
 */
function usePictureFiles() {
  const { deck, session } = useDeck();
  const bring = async (file: File) => {
    const name = `pictures/${(file.name || "pasted.png").replace(/\s+/g, "-")}`;
    const found = await post(`/decks/${deck.id}/pictures?name=${encodeURIComponent(name)}`, file, Picture);
    const { sha256, mediaType, width, height } = found;
    session.apply({ kind: "setAsset", name: found.name, asset: { sha256, mediaType, width, height } }, { quiet: true });
    const alt = file.name.replace(/\.[^.]*$/, "");
    const picture = { id: nanoid(10), kind: "picture" as const, slot: null, source: found.name, alt };
    return inKind(picture, session.snapshot().deck.theme);
  };
  return async (files: readonly File[], onPicture: (picture: Awaited<ReturnType<typeof bring>>) => void) => {
    const refused: string[] = [];
    for (const [nth, file] of files.entries()) {
      if (files.length > 1) session.notify(`Adding picture ${nth + 1} of ${files.length}: ${file.name} …`);
      try {
        onPicture(await bring(file));
      } catch (error) {
        refused.push(`${file.name}: ${(error as Error).message}`);
      }
    }
    return refused;
  };
}

/**
 * Returns a function that puts pictures on a slide, beside what is there or as a set; `occupied` returns the places of
 * what is drawn on it. Resolves with what was refused.
 */
export function usePictures(onPut: (id: string) => void, occupied: () => readonly Frame[]) {
  const { session } = useDeck();
  const bring = usePictureFiles();
  return (slide: string, files: readonly File[]) =>
    bring(files, (picture) => {
      const { deck } = session.snapshot();
      const now = deck.slides.find(({ id }) => id === slide);
      if (!now) return;
      // What was put before it is not drawn yet.
      const taken = [...occupied(), ...now.elements.flatMap(({ frame }) => frame ?? [])];
      if (session.apply(batch(putPicture(deck, now, picture, taken)), { words: "Added a picture" })) onPut(picture.id);
    });
}

/** Returns a function that puts another picture file in the place of a picture. Resolves with what was refused. */
export function useSwapPicture() {
  const { session } = useDeck();
  const bring = usePictureFiles();
  return (slide: string, element: string, file: File) =>
    bring([file], ({ source, alt }) => {
      const { deck } = session.snapshot();
      const now = deck.slides.find(({ id }) => id === slide)?.elements.find(({ id }) => id === element);
      if (now?.kind !== "picture") return;
      const next = swapPicture(deck, now, { source, alt });
      session.apply({ kind: "setElement", slide, element: next }, { words: "Put another picture in its place" });
    });
}

/** Returns a function that makes slides of pictures, so many on each. Resolves with what was refused. */
export function usePictureSlides(put: (slides: readonly Slide[], words: string) => void) {
  const bring = usePictureFiles();
  return async (files: readonly File[], onEach: number) => {
    const slides: Slide[] = [];
    const [arrangement, slot] = onEach > 1 ? (["pictures", "pictures"] as const) : (["picture", "picture"] as const);
    const refused = await bring(files, (picture) => {
      const last = slides.at(-1);
      const elements = [{ ...picture, slot }];
      if (last && last.elements.length < onEach)
        slides[slides.length - 1] = { ...last, elements: [...last.elements, ...elements] };
      else slides.push({ ...newSlide(nanoid(10), arrangement), elements });
    });
    if (slides.length)
      put(slides, slides.length === 1 ? "Made a slide of pictures" : `Made ${slides.length} slides of pictures`);
    return refused;
  };
}

import { batch, inKind, putPicture } from "@unitext/core/edit";
import { newSlide, type Slide } from "@unitext/core/model";
import { Picture } from "@unitext/server/api";
import { nanoid } from "nanoid";
import { post } from "../api/client";
import { useDeck } from "../deck/DeckContext";

/** Whether a file is a picture that can be on a slide. */
export const isPicture = (file: File): boolean =>
  file.type.startsWith("image/") || /\.(?:png|jpe?g|gif|svg|wmf|emf|tiff?|bmp)$/i.test(file.name);

/** Returns a function that brings picture files into the deck, and says which of them could not be taken. */
function usePictureFiles() {
  const { deck, session } = useDeck();
  return async (file: File) => {
    try {
      const name = `pictures/${(file.name || "pasted.png").replace(/\s+/g, "-")}`;
      const found = await post(`/decks/${deck.id}/pictures?name=${encodeURIComponent(name)}`, file, Picture);
      const { sha256, mediaType, width, height } = found;
      session.apply(
        { kind: "setAsset", name: found.name, asset: { sha256, mediaType, width, height } },
        { quiet: true },
      );
      const { deck: latest } = session.snapshot();
      const alt = file.name.replace(/\.[^.]*$/, "");
      const picture = { id: nanoid(10), kind: "picture" as const, slot: null, source: found.name, alt };
      return { latest, picture: inKind(picture, latest.theme) };
    } catch (error) {
      session.notify(`${file.name}: ${(error as Error).message}`);
      return undefined;
    }
  };
}

/** Returns a function that puts pictures on a slide, one after the other, beside what is there. */
export function usePictures(onPut: (id: string) => void) {
  const { session } = useDeck();
  const bring = usePictureFiles();
  return async (slide: string, files: readonly File[]) => {
    for (const [nth, file] of files.entries()) {
      if (files.length > 1) session.notify(`Adding picture ${nth + 1} of ${files.length}: ${file.name} …`);
      const brought = await bring(file);
      const now = brought?.latest.slides.find(({ id }) => id === slide);
      if (!brought || !now) continue;
      const { latest, picture } = brought;
      if (session.apply(batch(putPicture(latest, now, picture)), { words: "Added a picture" })) onPut(picture.id);
    }
  };
}

/** Returns a function that makes a slide of each picture, with room for a title and a caption. */
export function usePictureSlides(put: (slides: readonly Slide[], words: string) => void) {
  const { session } = useDeck();
  const bring = usePictureFiles();
  return async (files: readonly File[]) => {
    const slides: Slide[] = [];
    for (const [nth, file] of files.entries()) {
      if (files.length > 1) session.notify(`Bringing picture ${nth + 1} of ${files.length}: ${file.name} …`);
      const brought = await bring(file);
      if (brought)
        slides.push({ ...newSlide(nanoid(10), "picture"), elements: [{ ...brought.picture, slot: "picture" }] });
    }
    if (slides.length)
      put(slides, slides.length === 1 ? "Made a slide of a picture" : `Made ${slides.length} slides of pictures`);
  };
}

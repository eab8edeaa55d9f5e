import { batch, inKind, putElement } from "@unitext/core/edit";
import { isDocumentName } from "@unitext/core/formats/catalogue";
import {
  type Element,
  type Frame,
  metadataOf,
  type Slide,
  type TableElement,
  textOf,
  workbookKind,
} from "@unitext/core/model";
import { CellsFound, DocumentText, ImportResult } from "@unitext/server/api";
import { nanoid } from "nanoid";
import { type ReactNode, useEffect, useRef, useState } from "react";
import { useNavigate } from "react-router";
import { post } from "../api/client";
import { useDeck } from "../deck/DeckContext";
import { keepAppearance, lastAppearance } from "../deck/lastappearance";
import { handOverDocument } from "../deck/pending";
import { noteReading } from "../jobs";
import { CELLS_TYPE, clippedCells } from "../sources/cellclipboard";
import { PutOnSlide } from "../sources/PutOnSlide";
import { useIncoming } from "../sources/useIncoming";
import { useSources } from "../sources/useSources";
import { useFileDrop } from "../ui/useFileDrop";
import { core } from "../worker";
import { ContentDialog, type Way } from "./ContentDialog";
import { SlidesDialog } from "./SlidesDialog";
import { type Clipped, SLIDES_TYPE, unclip } from "./slideclipboard";
import { isPicture, SET, usePictureSlides, usePictures } from "./usePictures";
import { useSlideClipboard } from "./useSlideClipboard";

/** The slide on which things land, and what is on it. Without one, everything becomes slides. */
export interface Bed {
  slide: Slide;
  /** The places that its elements take on the page, in points. */
  occupied: () => readonly Frame[];
  /** Called with the id of an element that was put on it. */
  onPut: (id: string) => void;
}

interface Content {
  title: string;
  slides: Slide[];
  assets?: DocumentText["assets"];
  ways: Way[];
}

/** Whether a key or a paste goes to a text field. */
const isField = (target: EventTarget | null) =>
  target instanceof HTMLElement && target.closest("input, textarea, select, [contenteditable=true]") !== null;

/** How long a paste waits for the search of workbooks, in milliseconds. */
const LONGEST_SEARCH = 2500;

/** The largest size of a pasted text, in characters. */
const LONGEST = 1_000_000;

/**
 * Takes what is pasted or dropped on a place of a deck: slides, cells, tables, text, pictures, documents, decks and
 * workbooks. Where there is a choice, a dialog shows what would land first. Returns that dialog, the handlers for the
 * element on which files are dropped, and the acts on slides of the clipboard.
 */
export function useInsert(bed: Bed | undefined) {
  const { deck, session, canEdit } = useDeck();
  const navigate = useNavigate();
  const [clipped, setClipped] = useState<Clipped>();
  const [content, setContent] = useState<Content>();
  const [cells, setCells] = useState<{ source: string; range: string; onUnlinked?: () => void }>();
  const { sources } = useSources();
  const incoming = useIncoming(deck.language);
  const clipboard = useSlideClipboard(setClipped);
  const putPictures = usePictures(
    (id) => bed?.onPut(id),
    () => bed?.occupied() ?? [],
  );
  const makePictureSlides = usePictureSlides(clipboard.put);

  const fresh = (slides: readonly Slide[]) =>
    slides.map((slide) => ({ ...slide, id: nanoid(10), parent: null }) satisfies Slide);
  const add = (element: Element, words: string) => {
    if (!bed) return;
    const changes = putElement(deck, bed.slide, inKind(element, deck.theme), bed.occupied());
    if (session.apply(batch(changes), { words })) bed.onPut(element.id);
  };
  const addText = (text: Slide["notes"]) =>
    add(
      { kind: "text", id: nanoid(10), slot: null, frame: { x: 0, y: 0, width: 420, height: 120 }, text },
      "Pasted text",
    );
  const asSlides = (slides: readonly Slide[], assets: DocumentText["assets"] = {}): Way => ({
    label: slides.length === 1 ? "As a new slide" : `As ${slides.length} new slides`,
    act: () => {
      for (const [name, asset] of Object.entries(assets))
        session.apply({ kind: "setAsset", name, asset }, { quiet: true });
      clipboard.put(fresh(slides), slides.length === 1 ? "Added a slide" : `Added ${slides.length} slides`);
    },
  });

  async function takeText(html: string, text: string) {
    if (text.length > LONGEST) {
      session.notify(
        `The text has ${text.length.toLocaleString()} characters, more than ${LONGEST.toLocaleString()}. Drop it as a file on the Desk instead.`,
      );
      return;
    }
    const found = await core.pasted(html, text, metadataOf(deck));
    const { table, words, slides, structured } = found;
    if (table && bed) {
      const paste = () =>
        add({ ...table, id: nanoid(10), slot: null, frame: { x: 0, y: 0, width: 560, height: 200 } }, "Pasted a table");
      const known = await whereCellsAre(table);
      if (known) setCells({ ...known, onUnlinked: paste });
      else paste();
    } else if (bed && !structured && words.length) addText(words);
    else if (slides.length)
      setContent({
        title: "Paste text",
        slides,
        ways:
          bed && words.length
            ? [asSlides(slides), { label: "On this slide", act: () => addText(words) }]
            : [asSlides(slides)],
      });
    else session.notify("There is nothing on the clipboard that a slide can show.");
  }

  /** Returns which cells of a workbook a pasted table has; undefined where none is found in time. */
  async function whereCellsAre(table: Pick<TableElement, "rows">) {
    const rows = table.rows.map((row) => row.map((cell) => textOf(cell?.text ?? [])));
    try {
      const languages = [...new Set([deck.language, navigator.language])];
      const found = post("/sources/cells", { rows, languages }, CellsFound);
      const late = new Promise<undefined>((resolve) => setTimeout(resolve, LONGEST_SEARCH));
      return (await Promise.race([found, late]))?.found ?? undefined;
    } catch {
      // If the search fails or takes too long, the cells are pasted as a plain table.
      return undefined;
    }
  }

  /** Shows the slides that a document makes; its text can become slides here or a newer state of the deck's document. */
  async function takeDocument(file: File) {
    session.notify(`Reading ${file.name} …`);
    const found = await post(`/decks/${deck.id}/documents?name=${encodeURIComponent(file.name)}`, file, DocumentText);
    const assets = { ...deck.assets, ...found.assets };
    const slides = await core.slides(found.text, found.rule, { ...metadataOf(deck), assets });
    session.dismiss();
    const newer: Way = {
      label: `As a newer version of ${deck.manuscript?.document ?? "the document"}`,
      act: () => {
        handOverDocument(deck.id, file);
        navigate(`/decks/${deck.id}/write`);
      },
    };
    setContent({
      title: file.name,
      slides,
      assets: found.assets,
      ways: [asSlides(slides, found.assets), ...(deck.manuscript ? [newer] : [])],
    });
  }

  /** Hands a deck to the Desk, and opens the list from which its slides are taken. */
  async function takeDeck(file: File) {
    const { id, job } = await post(`/files?name=${encodeURIComponent(file.name)}`, file, ImportResult);
    if (job) noteReading(job, id, file.name);
    navigate(`/decks/${deck.id}/arrange/gather?names=${encodeURIComponent(file.name.replace(/\.[^.]*$/, ""))}`);
    session.notify(`${file.name} is read on the Desk. Add it to the list to take its slides.`);
  }

  async function takeFiles(files: readonly File[]) {
    if (!canEdit) return;
    const pictures = files.filter(isPicture);
    const workbooks = files.filter((file) => workbookKind(file.name) !== undefined && !isDocumentName(file.name));
    const others = files.filter((file) => !pictures.includes(file) && !workbooks.includes(file));
    // Up to six pictures form a set on this slide; the rest go onto new slides.
    const here = bed ? pictures.slice(0, SET) : [];
    const refused = [
      ...(bed && here.length ? await putPictures(bed.slide.id, here) : []),
      ...(pictures.length > here.length ? await makePictureSlides(pictures.slice(here.length), bed ? SET : 1) : []),
    ];
    if (refused.length) session.notify(refused.join(" "));
    if (workbooks.length) session.notify((await incoming.receive(workbooks)).join(" "));
    for (const file of others) {
      try {
        await (isDocumentName(file.name) ? takeDocument(file) : takeDeck(file));
      } catch (error) {
        session.notify(`${file.name}: ${(error as Error).message}`);
      }
    }
  }

  function takeClipboard(data: DataTransfer): boolean {
    const files = [...data.files];
    const [html, text] = [data.getData("text/html"), data.getData("text/plain")];
    const slides = data.getData(SLIDES_TYPE);
    const known = clippedCells(data.getData(CELLS_TYPE));
    if (slides) clipboard.take(unclip(slides));
    else if (known && sources?.some(({ id }) => id === known.source)) setCells(known);
    // A spreadsheet puts a picture of its cells on the clipboard too: the cells are meant.
    else if (files.length && !text) void takeFiles(files);
    else if (text || html) void takeText(html, text);
    else if (files.length) void takeFiles(files);
    else return false;
    return true;
  }
  const latest = useRef(takeClipboard);
  latest.current = takeClipboard;
  useEffect(() => {
    if (!canEdit) return;
    const paste = (event: ClipboardEvent) => {
      if (event.defaultPrevented || isField(event.target) || document.querySelector("dialog[open]")) return;
      if (event.clipboardData && latest.current(event.clipboardData)) event.preventDefault();
    };
    document.addEventListener("paste", paste);
    return () => document.removeEventListener("paste", paste);
  }, [canEdit]);

  const drop = useFileDrop(
    (files) => void takeFiles(files),
    (problem) => session.notify(problem),
  );
  const place = clipboard.after().words;
  const source = sources?.find(({ id }) => id === cells?.source);
  const dialog: ReactNode = (
    <>
      {incoming.dialog}
      {clipped && (
        <SlidesDialog
          clipped={clipped}
          place={place}
          first={lastAppearance()}
          onPaste={(as) => {
            keepAppearance(as);
            clipboard.paste(clipped, as);
          }}
          onClose={() => setClipped(undefined)}
        />
      )}
      {content && <ContentDialog {...content} place={place} onClose={() => setContent(undefined)} />}
      {cells && source && sources && (
        <PutOnSlide
          source={source}
          sources={sources}
          range={cells.range}
          slide={bed?.slide.id}
          onUnlinked={cells.onUnlinked}
          onClose={() => setCells(undefined)}
        />
      )}
    </>
  );
  return { dialog, ...drop, takeFiles, clipboard };
}

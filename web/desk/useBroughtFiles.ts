import { workbookKind } from "@unitext/core/model";
import { isDocumentName } from "@unitext/core/formats/catalogue";
import { Begun, ChangeReply, DeckState, ImportResult, Picture } from "@unitext/server/api";
import { nanoid } from "nanoid";
import { useRef, useState } from "react";
import { useNavigate } from "react-router";
import { mutate as mutateKey } from "swr";
import { requestAhead } from "../api/ahead";
import { get, post } from "../api/client";
import { arrivalOf, noteReading } from "../jobs";
import { reportLines } from "@unitext/core/divide";

/** A file that was read at once: its deck, and what the report says of it. */
export interface ArrivedFile {
  name: string;
  id: string;
  lines: string[];
}

/** Returns the paths of the pictures that a text names, in Markdown or HTML. */
const pathsIn = (text: string): string[] =>
  [...text.matchAll(/!\[[^\]]*\]\(\s*<?([^)\s>]+)|<img\b[^>]*?\ssrc\s*=\s*["']?([^"'\s>]+)/gi)].map((found) =>
    decodeURI(found[1] ?? found[2] ?? ""),
  );

/** Hands files to the server, a few at a time. One file alone opens its deck as soon as the server reads it. */
export function useBroughtFiles({
  onBegin,
  onBusy,
  onProblem,
  onDone,
  onWorkbooks,
}: {
  onBegin: () => void;
  /** Says what is being done; empty when it has ended. */
  onBusy: (text: string) => void;
  onProblem: (text: string) => void;
  onDone: () => Promise<unknown>;
  /** Takes workbooks as sources; resolves with a sentence for each. */
  onWorkbooks: (files: readonly File[]) => Promise<string[]>;
}) {
  const navigate = useNavigate();
  /** Whether a deck is being opened: the Desk is left as it is, so that nothing delays the first slide. */
  const isLeaving = useRef(false);
  const [arrived, setArrived] = useState<ArrivedFile[]>([]);
  const [broughtSources, setBroughtSources] = useState<string[]>([]);

  /** Puts pictures that a text names by their paths where it names them. Returns a line for each that could not be read. */
  async function bringPictures(deck: string, text: string, pictures: readonly File[]): Promise<string[]> {
    const lines: string[] = [];
    for (const picture of pictures) {
      const path = pathsIn(text).find((one) => one.split("/").at(-1) === picture.name);
      if (path === undefined) continue;
      try {
        const { name, ...asset } = await post(
          `/decks/${deck}/pictures?name=${encodeURIComponent(path)}`,
          picture,
          Picture,
        );
        const { version } = await get(`/decks/${deck}`, DeckState);
        const change = { kind: "setAsset", name, asset };
        await post(`/decks/${deck}/changes`, { base: version, changes: [{ id: nanoid(12), change }] }, ChangeReply);
      } catch (reason) {
        lines.push(`${picture.name}: ${(reason as Error).message}`);
      }
    }
    return lines;
  }

  async function bring(given: readonly File[]) {
    onBegin();
    // Pictures that a text names come with it; other pictures belong on a slide.
    const texts = await Promise.all(
      given
        .filter(({ name }) => /\.(?:md|html?)$/i.test(name))
        .map(async (file) => ({ file, text: await file.text() })),
    );
    const pictures = given.filter((file) => /\.(?:png|jpe?g|gif|svg|tiff?|bmp|wmf|emf)$/i.test(file.name));
    const isNamed = (file: File) =>
      texts.some(({ text }) => pathsIn(text).some((path) => path.split("/").at(-1) === file.name));
    const loose = pictures.filter((file) => !isNamed(file));
    if (loose.length)
      onProblem(
        `${loose.map(({ name }) => name).join(", ")}: pictures go on a slide. Open a deck and drop them in Refine or Arrange.`,
      );
    const files = given.filter((file) => !pictures.includes(file));
    const list: ArrivedFile[] = [];
    const isWorkbook = ({ name }: File) => workbookKind(name) !== undefined && !isDocumentName(name);
    const workbooks = files.filter(isWorkbook);
    const isArchive = ({ name }: File) => /\.zip$/i.test(name);
    const waiting = files.filter((file) => !isWorkbook(file));
    let taken = 0;
    const take = async (file: File): Promise<void> => {
      try {
        if (isArchive(file)) {
          await post(`/archives/contents?name=${encodeURIComponent(file.name)}`, file, Begun);
          await mutateKey("/jobs");
          return;
        }
        const { id, report, job } = await post(`/files?name=${encodeURIComponent(file.name)}`, file, ImportResult);
        if (job) {
          noteReading(job, id, file.name);
          if (files.length !== 1) return;
          isLeaving.current = true;
          requestAhead(`/decks/${id}`);
          navigate(`/decks/${id}/${arrivalOf(file.name)}`, { state: { job } });
          return;
        }
        if (!report) return;
        const text = texts.find((one) => one.file === file)?.text;
        const faults = text === undefined ? [] : await bringPictures(id, text, pictures.filter(isNamed));
        list.push({ name: file.name, id, lines: [...reportLines(report), ...faults] });
      } catch (reason) {
        onProblem(`${file.name}: ${(reason as Error).message}`);
      }
    };
    // A few files are uploaded at a time; the server reads them as jobs, also when this page is closed.
    const hand = async () => {
      for (let file = waiting.shift(); file; file = waiting.shift()) {
        onBusy(
          files.length === 1
            ? `Handing over ${file.name} …`
            : `Handing over ${files.length} files: ${++taken}, ${file.name} …`,
        );
        await take(file);
      }
    };
    await Promise.all([hand(), hand(), hand()]);
    if (isLeaving.current && !workbooks.length) return;
    onBusy("");
    setArrived(list);
    setBroughtSources(await onWorkbooks(workbooks));
    await onDone();
  }

  return { arrived, broughtSources, bring, isLeaving };
}

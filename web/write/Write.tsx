import { reconcile } from "@unitext/core/generate";
import { countWords, secondsOf } from "@unitext/core/model";
import { deckText, type Lines, type Problem } from "@unitext/core/text";
import { Picture } from "@unitext/server/api";
import { nanoid } from "nanoid";
import { startTransition, useCallback, useEffect, useMemo, useRef, useState } from "react";
import { post } from "../api/client";
import { useDeck } from "../deck/DeckContext";
import { useMeasures } from "../deck/scenes";
import { clock } from "../deck/time";
import { DeckFrame } from "../shell/DeckFrame";
import { core } from "../worker";
import { Level, type LevelHandle } from "./Level";
import { TextEditor, type TextEditorHandle } from "./TextEditor";

const draftKey = (deck: string) => `unitext:draft:${deck}`;

/** What was typed and is not yet part of the deck; it outlives the page. */
function readDraft(deck: string): string | null {
  try {
    return localStorage.getItem(draftKey(deck));
  } catch {
    return null;
  }
}
function keepDraft(deck: string, text: string | undefined): void {
  try {
    if (text === undefined) localStorage.removeItem(draftKey(deck));
    else localStorage.setItem(draftKey(deck), text);
  } catch {
    // No room in the browser's storage: the text is still on its way to the server.
  }
}

interface Read {
  ids: string[];
  lines: Lines[];
  problems: Problem[];
}

export default function Write() {
  const { deck, text, session, head, select, selected, canEdit } = useDeck();
  const measureOf = useMeasures(deck, head);
  const [read, setRead] = useState<Read>({ ids: [], lines: [], problems: [] });
  const editor = useRef<TextEditorHandle>(null);
  const level = useRef<LevelHandle>(null);
  const typed = useRef<string>(undefined);
  const wait = useRef<ReturnType<typeof setTimeout>>(undefined);
  const running = useRef(false);
  const first = useMemo(() => readDraft(deck.id) ?? text ?? deckText(deck, { ids: false }), []);
  const shown = useRef(first);
  const latest = useRef(deck);
  latest.current = deck;

  /** Cuts what is typed into slides and makes the deck say it. One run at a time; what is typed meanwhile is taken by the next. */
  const take = useCallback(async () => {
    if (running.current || typed.current === undefined) return;
    running.current = true;
    try {
      while (typed.current !== undefined) {
        const now = typed.current;
        typed.current = undefined;
        const result = await core.read(now, head, `${nanoid(8)}`);
        const { change, ids } = reconcile(latest.current, result.head, result.made);
        if (canEdit && (change || session.snapshot().text !== now)) {
          session.apply(change ?? { kind: "batch", changes: [] }, { text: now, quiet: true });
          latest.current = session.snapshot().deck;
        }
        // The slide comes first; the room beside the lines and the notes on the text follow it.
        startTransition(() => setRead({ ids, lines: result.made.map(({ lines }) => lines), problems: result.problems }));
        if (typed.current === undefined) keepDraft(latest.current.id, undefined);
      }
    } finally {
      running.current = false;
    }
  }, [session, head, canEdit]);

  const type = useCallback(
    (value: string) => {
      shown.current = value;
      typed.current = value;
      keepDraft(latest.current.id, value);
      clearTimeout(wait.current);
      wait.current = setTimeout(take, 0);
    },
    [take],
  );

  useEffect(() => {
    const draft = readDraft(deck.id);
    if (draft !== null) type(draft);
    else {
      void core.read(first, head, "x").then(({ made, problems }) => {
        const { ids } = reconcile(latest.current, head, made);
        setRead({ ids, lines: made.map(({ lines }) => lines), problems });
      });
    }
    return () => clearTimeout(wait.current);
  }, []);

  /** When the deck was changed otherwise (undo, another page), the text follows it. */
  useEffect(() => {
    if (text !== null || typed.current !== undefined || running.current) return;
    const next = deckText(deck, { ids: false });
    if (next === shown.current) return;
    shown.current = next;
    editor.current?.replace(next);
    void core.read(next, head, "x").then(({ made, problems }) => {
      const { ids } = reconcile(latest.current, head, made);
      setRead({ ids, lines: made.map(({ lines }) => lines), problems });
    });
  }, [deck, text, head]);

  async function drop(files: readonly File[]) {
    for (const file of files) {
      if (/\.(md|txt)$/i.test(file.name)) {
        editor.current?.insert(await file.text());
        continue;
      }
      // A picture that the text names already, and whose file was missing, takes its place there.
      const named = latest.current.slides.flatMap(({ elements }) => elements).find((element) => element.kind === "picture" && !latest.current.assets[element.source] && element.source.split("/").at(-1) === file.name);
      const wanted = named?.kind === "picture" ? named.source : `pictures/${file.name.replace(/\s+/g, "-")}`;
      try {
        const { name, sha256, mediaType, width, height } = await post(`/decks/${deck.id}/pictures?name=${encodeURIComponent(wanted)}`, file, Picture);
        session.apply({ kind: "setAsset", name, asset: { sha256, mediaType, width, height } });
        if (!named) editor.current?.insert(`\n![${file.name.replace(/\.[^.]*$/, "")}](${name})\n`);
      } catch (error) {
        session.say(`${file.name}: ${(error as Error).message}`);
      }
    }
  }

  const seconds = deck.slides.reduce((sum, slide) => sum + secondsOf(slide, deck.rate), 0);
  const words = useMemo(() => countWords(shown.current), [read]);
  const over = deck.slides.filter((slide) => (measureOf(slide)?.overflow ?? 0) > 0).length;
  const overLines = useMemo(() => {
    const marks: number[] = [];
    const slides = new Map(deck.slides.map((slide) => [slide.id, slide]));
    read.ids.forEach((id, nth) => {
      const slide = slides.get(id);
      const from = read.lines[nth]?.from;
      if (slide && from && (measureOf(slide)?.overflow ?? 0) > 0) marks.push(from);
    });
    return marks;
  }, [read, deck, measureOf]);

  const tools = (
    <p className="quiet flex gap-4 text-sm" aria-live="off">
      <span>
        <strong className="text-base-content">{deck.slides.length}</strong> slides
      </span>
      <span>
        <strong className="text-base-content">{words}</strong> words
      </span>
      <span>
        <strong className="text-base-content">{clock(seconds)}</strong> min
      </span>
      <span className={over ? "text-error" : ""}>
        <strong>{over}</strong> too full
      </span>
    </p>
  );

  const goTo = (id: string) => {
    const at = read.ids.indexOf(id);
    const line = read.lines[at]?.from;
    if (line) editor.current?.goTo(line);
  };

  return (
    <DeckFrame place="Write" tools={tools} onOpen={goTo}>
      <div className="flex h-full flex-col">
        <div className="flex min-h-0 flex-1">
          <TextEditor
            ref={editor}
            first={first}
            readOnly={!canEdit}
            segments={read.lines}
            overLines={overLines}
            problems={read.problems}
            onType={type}
            onScroll={(place) => level.current?.place(place)}
            onLine={(line) => {
              const at = read.lines.findIndex(({ from, to }, nth) => line >= from && line < (read.lines[nth + 1]?.from ?? to + 2));
              const id = read.ids[at];
              if (id && selected.at(-1) !== id) select([id]);
            }}
            onDrop={drop}
          />
          <Level ref={level} ids={read.ids} onChoose={goTo} />
        </div>
        {read.problems.length > 0 && (
          <section aria-label="Notes on the text" className="hairline bg-base-200 max-h-28 overflow-auto border-t px-4 py-2 text-sm">
            <ul>
              {read.problems.slice(0, 50).map(({ line, message }, nth) => (
                <li key={nth}>
                  <button type="button" className="text-primary underline" onClick={() => editor.current?.goTo(line)}>
                    Line {line}
                  </button>{" "}
                  {message}
                </li>
              ))}
            </ul>
          </section>
        )}
      </div>
    </DeckFrame>
  );
}

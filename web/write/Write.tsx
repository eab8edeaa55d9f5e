import type { Choice } from "@unitext/core/diff";
import type { Review } from "@unitext/core/generate";
import { type BreakRule, countWords, type DeckMetadata, secondsOf } from "@unitext/core/model";
import type { Problem } from "@unitext/core/text";
import { DocumentText, Picture } from "@unitext/server/api";
import { ListChecks, Search } from "lucide-react";
import { useEffect, useMemo, useRef, useState } from "react";
import { post } from "../api/client";
import { useDeck } from "../deck/DeckContext";
import { useMeasures } from "../deck/scenes";
import { clock } from "../ui/time";
import { cancelJob, isOpen, isPlain, JobLine, jobProgress } from "../jobs";
import { useArrival } from "../deck/useArrival";
import { useCommands } from "../keys";
import { DeckFrame } from "../shell/DeckFrame";
import { core, type Cutting } from "../worker";
import { movedBreak, withBreak, withoutBreak } from "./breaks";
import { FindReplace } from "./FindReplace";
import { HandDialog } from "./HandDialog";
import { Level, type LevelHandle } from "./Level";
import { pickUpDocument } from "../deck/pending";
import { Points, type SlidePoints } from "./Points";
import { Rerun } from "./Rerun";
import { RuleLine } from "./RuleLine";
import { TextEditor, type TextEditorHandle } from "./TextEditor";
import { useManuscript } from "./useManuscript";

const DOCUMENT = /\.(docx|odt|html?|csv|tsv|opml|md|txt)$/i;

/** A newer document to be taken: what it would change, and how it was cut. */
interface Waiting {
  name: string;
  review: Review;
  problems: readonly Problem[];
  base: Cutting;
  next: Cutting;
}

export default function Write() {
  const { deck, text, session, metadata, select, selected, canEdit } = useDeck();
  const measureOf = useMeasures(deck, metadata);
  const { jobs, coming: job } = useArrival();
  const editor = useRef<TextEditorHandle>(null);
  const level = useRef<LevelHandle>(null);
  const { mapping, busy, shown, type, rule, setRule, cutting, rerun } = useManuscript(job !== undefined, editor);
  const [landing, setLanding] = useState<number>();
  const [finding, setFinding] = useState(false);
  const [points, setPoints] = useState<SlidePoints[]>();
  const [hand, setHand] = useState<string>();
  const [waiting, setWaiting] = useState<Waiting>();
  const [taking, setTaking] = useState(false);

  // biome-ignore lint/correctness/useExhaustiveDependencies: a file dropped on the Desk is picked up once, when this place opens.
  useEffect(() => {
    const file = pickUpDocument(deck.id);
    if (file && !deck.manuscript)
      session.notify(`This deck was typed, not made from a document. Drop ${file.name} into the text to add it there.`);
    else if (file) void drop([file]);
  }, []);

  /** Reads a newer edition of the document: what it would change is shown before anything is taken. */
  async function compare(file: File) {
    session.notify(`Reading ${file.name} …`);
    const found = await post(`/decks/${deck.id}/documents?name=${encodeURIComponent(file.name)}`, file, DocumentText);
    const next: DeckMetadata = { ...metadata, assets: { ...metadata.assets, ...found.assets } };
    const base = cutting(shown.current);
    const now = cutting(found.text, undefined, next);
    const { problems, ...review } = await core.review(session.snapshot().deck, base, now);
    setWaiting({ name: file.name, review, problems: [...found.problems, ...problems], base, next: now });
    session.dismiss();
  }

  async function takeReview(choices: Map<string, Choice>) {
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

  async function drop(files: readonly File[]) {
    for (const file of files) {
      try {
        if (DOCUMENT.test(file.name)) {
          if (deck.manuscript) await compare(file);
          else if (/\.(md|txt)$/i.test(file.name)) editor.current?.insert(await file.text());
          else {
            const found = await post(
              `/decks/${deck.id}/documents?name=${encodeURIComponent(file.name)}`,
              file,
              DocumentText,
            );
            for (const [name, asset] of Object.entries(found.assets))
              session.apply({ kind: "setAsset", name, asset }, { quiet: true });
            editor.current?.insert(found.text.replace(/^---\n[\s\S]*?\n---\n+/, ""));
          }
          continue;
        }
        // A picture that the text names and whose file was missing takes its place there.
        const named = deck.slides
          .flatMap(({ elements }) => elements)
          .find(
            (element) =>
              element.kind === "picture" &&
              !deck.assets[element.source] &&
              element.source.split("/").at(-1) === file.name,
          );
        const wanted = named?.kind === "picture" ? named.source : `pictures/${file.name.replace(/\s+/g, "-")}`;
        const { name, sha256, mediaType, width, height } = await post(
          `/decks/${deck.id}/pictures?name=${encodeURIComponent(wanted)}`,
          file,
          Picture,
        );
        session.apply({ kind: "setAsset", name, asset: { sha256, mediaType, width, height } });
        if (!named) editor.current?.insert(`\n![${file.name.replace(/\.[^.]*$/, "")}](${name})\n`);
      } catch (error) {
        session.notify(`${file.name}: ${(error as Error).message}`);
      }
    }
  }

  const seconds = deck.slides.reduce((sum, slide) => sum + secondsOf(slide, deck.rate), 0);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the text is in a ref; these values change with it.
  const words = useMemo(() => countWords(shown.current), [mapping, text]);
  const over = deck.slides.filter((slide) => (measureOf(slide)?.overflow ?? 0) > 0).length;
  const overLines = useMemo(() => {
    const marks: number[] = [];
    const slides = new Map(deck.slides.map((slide) => [slide.id, slide]));
    mapping.ids.forEach((id, nth) => {
      const slide = slides.get(id);
      const from = mapping.lines[nth]?.from;
      if (slide && from && (measureOf(slide)?.overflow ?? 0) > 0) marks.push(from);
    });
    return marks;
  }, [mapping, deck, measureOf]);
  const current = selected.at(-1) ?? "";
  const chosen = mapping.lines[mapping.ids.indexOf(current)];

  const goTo = (id: string) => {
    const line = mapping.lines[mapping.ids.indexOf(id)]?.from;
    select([id]);
    if (line) editor.current?.goTo(line);
  };
  const edit = (change: (now: string, line: number) => string) => {
    const { text: now, line } = editor.current?.now() ?? { text: "", line: 1 };
    const next = change(now, line);
    if (next !== now) editor.current?.edit(next);
    editor.current?.focus();
  };
  const asRule = (next: BreakRule) => void setRule(next);
  useCommands({ find: () => setFinding(true) });
  const readOnly = !canEdit || job !== undefined;

  const tools = (
    <div className="flex items-center gap-1">
      <button
        type="button"
        className="btn btn-ghost btn-sm"
        aria-pressed={finding}
        onClick={() => setFinding(!finding)}
      >
        <Search size={16} aria-hidden="true" /> Find
      </button>
    </div>
  );

  return (
    <DeckFrame place="Write" tools={tools} onOpen={goTo}>
      {waiting ? (
        <Rerun
          name={waiting.name}
          review={waiting.review}
          problems={waiting.problems}
          busy={taking}
          onTake={(choices) => void takeReview(choices)}
          onClose={() => setWaiting(undefined)}
        />
      ) : (
        <div className="flex h-full flex-col">
          <RuleLine rule={rule} disabled={readOnly || busy} onRule={asRule}>
            {rule.placement === "both" && (
              <button
                type="button"
                className="btn btn-xs"
                disabled={readOnly}
                onClick={() => void core.points(cutting(shown.current)).then(setPoints)}
              >
                <ListChecks size={14} aria-hidden="true" /> Points
              </button>
            )}
            <div className="ml-auto flex items-center gap-2.5 whitespace-nowrap" aria-live="off">
              <span>
                <strong>{deck.slides.length}</strong> slides
              </span>
              <span>
                <strong>{words}</strong> words
              </span>
              <span>
                <strong>{clock(seconds)}</strong> at{" "}
                <input
                  key={deck.rate}
                  type="number"
                  min={40}
                  max={400}
                  step={5}
                  className="input input-xs w-12 px-1 text-right"
                  aria-label="Speaking rate in words a minute"
                  title="Words per minute"
                  defaultValue={deck.rate}
                  disabled={!canEdit}
                  onBlur={({ target }) => {
                    const rate = Number(target.value);
                    if (rate >= 40 && rate <= 400 && rate !== deck.rate) session.apply({ kind: "setRate", rate });
                    else target.value = String(deck.rate);
                  }}
                />
              </span>
              <span className={over ? "text-error" : ""}>
                <strong>{over}</strong> too full
              </span>
            </div>
          </RuleLine>
          {job && (
            <div className="hairline flex items-center gap-3 border-b px-4 py-1.5 text-sm" data-reading>
              <p role="status">
                {job.name} is being read: {jobProgress(job)}. You can open any slide that is there; the text can be
                changed when all are.
              </p>
              <progress
                className="progress progress-primary w-40"
                aria-label="Pages read"
                value={job.pages ? job.page : undefined}
                max={job.pages || 1}
              />
              {isOpen(job) && (
                <button type="button" className="btn btn-xs" onClick={() => cancelJob(job)}>
                  Cancel
                </button>
              )}
            </div>
          )}
          {jobs
            .filter((found) => found !== job && !isPlain(found))
            .map((found) => (
              <div key={found.id} className="hairline border-b px-4 pt-2 text-sm">
                <JobLine job={found} here />
              </div>
            ))}
          {finding && (
            <FindReplace
              editor={editor}
              text={shown.current}
              readOnly={readOnly}
              onGoTo={goTo}
              onClose={() => setFinding(false)}
            />
          )}
          <div className="relative flex min-h-0 flex-1">
            <p
              role="status"
              className={
                landing === undefined
                  ? "sr-only"
                  : "bg-secondary text-secondary-content pointer-events-none absolute bottom-2 left-14 z-10 px-3 py-1 text-sm"
              }
            >
              {landing === undefined ? "" : `The slide starts at line ${landing}; Escape leaves it where it was.`}
            </p>
            <TextEditor
              key={readOnly ? "reading" : "writing"}
              ref={editor}
              first={shown.current}
              readOnly={readOnly}
              segments={mapping.lines}
              chosen={chosen}
              overLines={overLines}
              problems={mapping.problems}
              onType={type}
              onMoveBreak={(from, to) => edit((now) => movedBreak(now, from, to))}
              onLanding={setLanding}
              onPasteHtml={(html) => void core.fromHtml(html).then((pasted) => editor.current?.insert(pasted))}
              onKey={(command) => {
                if (command === "find") setFinding(true);
                else if (!readOnly)
                  edit((now, line) =>
                    command === "beginSlide"
                      ? withBreak(now, line)
                      : withoutBreak(now, mapping.lines.findLast(({ from }) => from <= line)?.from ?? line),
                  );
              }}
              onScroll={(place) => level.current?.place(place)}
              onLine={(line) => {
                const at = mapping.lines.findIndex(
                  ({ from, to }, nth) => line >= from && line < (mapping.lines[nth + 1]?.from ?? to + 2),
                );
                const id = mapping.ids[at];
                if (
                  id &&
                  current !== id &&
                  mapping.lines[mapping.ids.indexOf(current)]?.from !== mapping.lines[at]?.from
                )
                  select([id]);
              }}
              onDrop={(files) => void drop(files)}
            />
            <Level
              ref={level}
              ids={mapping.ids}
              reasons={mapping.reasons}
              hand={mapping.hand}
              onChoose={goTo}
              onHand={setHand}
            />
          </div>
          {mapping.problems.length > 0 && (
            <section
              aria-label="Notes on the text"
              className="hairline bg-base-200 max-h-28 overflow-auto border-t px-4 py-2 text-sm"
            >
              <ul>
                {mapping.problems.slice(0, 50).map(({ line, message }, nth) => (
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
      )}
      {points && (
        <Points
          slides={points}
          choices={rule.points ?? []}
          onClose={() => setPoints(undefined)}
          onTake={(choices) => {
            setPoints(undefined);
            const { manuscript } = metadata;
            if (!manuscript) return;
            const next: BreakRule = { ...manuscript.rule, points: choices };
            void rerun(
              cutting(shown.current),
              cutting(shown.current, next, { ...metadata, manuscript: { ...manuscript, rule: next } }),
              "Accepted the points",
            );
          }}
        />
      )}
      {hand && <HandDialog id={hand} cutting={cutting(shown.current)} onClose={() => setHand(undefined)} />}
    </DeckFrame>
  );
}

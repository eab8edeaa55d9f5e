import { DOCUMENTS } from "@unitext/core/formats/catalogue";
import type { Bound } from "@unitext/core/data";
import { type BreakRule, must } from "@unitext/core/model";
import { type Content, contentText } from "@unitext/core/text";
import { FileUp, ListChecks, Search, Sheet } from "lucide-react";
import { type RefObject, useEffect, useMemo, useRef, useState } from "react";
import { useDeck } from "../deck/DeckContext";
import { SlideStrip } from "../deck/SlideStrip";
import { pickUpDocument } from "../deck/pending";
import { useMeasures } from "../deck/scenes";
import { useArrival } from "../deck/useArrival";
import { isPlain, JobLine } from "../jobs";
import { Tool, useCommands } from "../keys";
import { DeckFrame } from "../shell/DeckFrame";
import { ChooseCells } from "../sources/ChooseCells";
import { core } from "../worker";
import { useFileChooser } from "../ui/useFileChooser";
import { movedBreak, withBreak, withoutBreak } from "./breaks";
import { DeckFigures } from "./DeckFigures";
import type { EditorCommand } from "./editorextensions";
import { FindReplace } from "./FindReplace";
import { HandDialog } from "./HandDialog";
import { Level, type LevelHandle } from "./Level";
import { Points } from "./Points";
import type { SlidePoints } from "./slidepoints";
import { ReadingLine } from "./ReadingLine";
import { Rerun } from "./Rerun";
import { RuleLine } from "./RuleLine";
import { TextEditor, type TextEditorHandle } from "./TextEditor";
import { TextProblems } from "./TextProblems";
import { useDroppedFiles } from "./useDroppedFiles";
import type { Mapping } from "./mapping";
import { useManuscript } from "./useManuscript";

/** The text of a deck beside its slides: each follows the other. */
export default function Write() {
  const { deck, metadata, select, canEdit } = useDeck();
  const { jobs, coming: job, arriving } = useArrival();
  const editor = useRef<TextEditorHandle>(null);
  const manuscript = useManuscript(arriving, editor);
  const { mapping, busy, shown, rule, setRule, cutting, rerun } = manuscript;
  const [finding, setFinding] = useState(false);
  const [choosing, setChoosing] = useState(false);
  const [points, setPoints] = useState<SlidePoints[]>();
  const [hand, setHand] = useState<string>();
  const dropped = useDroppedFiles(manuscript, editor);
  const newer = useFileChooser({
    label: "Newer version of the document",
    accept: DOCUMENTS.map((kind) => `.${kind}`).join(","),
    multiple: true,
    onFiles: (files) => void dropped.drop(files),
  });
  const { waiting } = dropped;
  useDocumentFromDesk(dropped.drop);
  useCommands({ find: () => setFinding(true) });
  const readOnly = !canEdit || arriving;

  const goTo = (id: string) => {
    const line = mapping.lines[mapping.ids.indexOf(id)]?.from;
    select([id]);
    if (line) editor.current?.goTo(line);
  };
  const takePoints = (choices: NonNullable<BreakRule["points"]>) => {
    setPoints(undefined);
    const { manuscript: own } = metadata;
    if (!own) return;
    const next: BreakRule = { ...own.rule, points: choices };
    const then = cutting(shown.current, next, { ...metadata, manuscript: { ...own, rule: next } });
    void rerun(cutting(shown.current), then, "Accepted the points");
  };
  const tools = (
    <>
      <button
        type="button"
        className="btn btn-ghost btn-sm gap-1 px-2 font-normal"
        disabled={readOnly}
        title="Inserts a value, a table or a chart of a workbook at the cursor"
        onClick={() => setChoosing(true)}
      >
        <Sheet size={16} aria-hidden="true" /> Cells
      </button>
      {deck.manuscript && (
        <>
          <button
            type="button"
            className="btn btn-ghost btn-sm gap-1 px-2 font-normal"
            disabled={readOnly}
            title="Takes a newer version of the document: what it would change is shown before anything is taken"
            onClick={newer.choose}
          >
            <FileUp size={16} aria-hidden="true" /> Newer version …
          </button>
          {newer.input}
        </>
      )}
      <Tool command="find" label="Find" icon={Search} pressed={finding} onPress={() => setFinding(!finding)} />
    </>
  );
  const insertCells = (bound: Bound) => {
    const content: Content =
      bound.kind === "element"
        ? bound.element
        : { kind: "text", text: [{ kind: "plain", level: 0, runs: [bound.run] }] };
    const text = contentText(content);
    editor.current?.insert(bound.kind === "element" ? `\n\n${text}\n\n` : text);
    editor.current?.focus();
  };

  return (
    <DeckFrame place="Write" tools={tools} onOpen={goTo}>
      {waiting ? (
        <Rerun
          name={waiting.name}
          review={waiting.review}
          problems={waiting.problems}
          busy={dropped.taking}
          onTake={(choices) => void dropped.takeReview(choices)}
          onClose={dropped.closeReview}
        />
      ) : (
        <div className="flex h-full flex-col">
          <RuleLine rule={rule} disabled={readOnly || busy} onRule={(next) => void setRule(next)}>
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
            <DeckFigures text={shown.current} />
          </RuleLine>
          {job && <ReadingLine job={job} />}
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
          <TextBesideSlides
            editor={editor}
            manuscript={manuscript}
            readOnly={readOnly}
            onFind={() => setFinding(true)}
            onDrop={(files) => void dropped.drop(files)}
            onGoTo={goTo}
            onHand={setHand}
          />
          <TextProblems problems={mapping.problems} onGoTo={(line) => editor.current?.goTo(line)} />
        </div>
      )}
      {points && (
        <Points
          slides={points}
          language={metadata.language}
          choices={rule.points ?? []}
          onClose={() => setPoints(undefined)}
          onTake={takePoints}
        />
      )}
      {choosing && (
        <ChooseCells
          title="Cells of a workbook"
          act="Insert at the cursor"
          onChosen={insertCells}
          onClose={() => setChoosing(false)}
        />
      )}
      {hand && <HandDialog id={hand} cutting={cutting(shown.current)} onClose={() => setHand(undefined)} />}
    </DeckFrame>
  );
}

/** Takes up a document that was dropped on the deck's line on the Desk, once, when this place opens. */
function useDocumentFromDesk(drop: (files: readonly File[]) => Promise<void>) {
  const { deck, session } = useDeck();
  // biome-ignore lint/correctness/useExhaustiveDependencies: runs once; the file is not there a second time.
  useEffect(() => {
    const file = pickUpDocument(deck.id);
    if (file && !deck.manuscript)
      session.notify(`This deck was typed, not made from a document. Drop ${file.name} into the text to add it there.`);
    else if (file) void drop([file]);
  }, []);
}

/** Returns the slide that a line of the text belongs to, as its position in the mapping, or -1. */
function slideAtLine({ lines }: Mapping, line: number): number {
  return lines.findIndex(({ from, to }, nth) => line >= from && line < (lines[nth + 1]?.from ?? to + 2));
}

/** The editor, and the slides at the height of their lines. */
function TextBesideSlides({
  editor,
  manuscript,
  readOnly,
  onFind,
  onDrop,
  onGoTo,
  onHand,
}: {
  editor: RefObject<TextEditorHandle | null>;
  manuscript: ReturnType<typeof useManuscript>;
  readOnly: boolean;
  onFind: () => void;
  onDrop: (files: readonly File[]) => void;
  onGoTo: (id: string) => void;
  onHand: (id: string) => void;
}) {
  const { mapping, shown, type } = manuscript;
  const { select, selected } = useDeck();
  const level = useRef<LevelHandle>(null);
  /** What a narrow window shows: one thing at a time. */
  const [shownPart, setShownPart] = useState<"text" | "slides">("text");
  const [landing, setLanding] = useState<number>();
  const overLines = useOverLines(mapping);
  const current = selected.at(-1) ?? "";
  const chosen = mapping.lines[mapping.ids.indexOf(current)];

  const edit = (change: (now: string, line: number) => string) => {
    const { text: now, line } = editor.current?.now() ?? { text: "", line: 1 };
    const next = change(now, line);
    if (next !== now) editor.current?.edit(next);
    editor.current?.focus();
  };
  const onCommand = (command: EditorCommand) => {
    if (command === "find") onFind();
    else if (readOnly) return;
    else if (command === "beginSlide") edit(withBreak);
    else edit((now, line) => withoutBreak(now, mapping.lines.findLast(({ from }) => from <= line)?.from ?? line));
  };
  const selectAtLine = (line: number) => {
    const at = slideAtLine(mapping, line);
    const id = mapping.ids[at];
    // Slides that continue each other begin at one line: the selected one of them stays selected.
    if (id && current !== id && chosen?.from !== mapping.lines[at]?.from) select([id]);
  };

  return (
    <div className="relative flex min-h-0 flex-1 max-md:flex-col" data-shown={shownPart}>
      <div role="tablist" aria-label="Text or slides" className="hairline hidden border-b max-md:flex">
        {(["text", "slides"] as const).map((part) => (
          <button
            key={part}
            type="button"
            role="tab"
            aria-selected={shownPart === part}
            className={`flex-1 border-b-2 py-1.5 ${shownPart === part ? "border-primary font-semibold" : "border-transparent"}`}
            onClick={() => setShownPart(part)}
          >
            {part === "text" ? "Text" : "Slides"}
          </button>
        ))}
      </div>
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
        onPasteHtml={(html) => void core.pastedText(html, "").then((pasted) => editor.current?.insert(pasted))}
        onKey={onCommand}
        onScroll={(place) => level.current?.place(place)}
        onLine={selectAtLine}
        onDrop={onDrop}
      />
      {shownPart === "slides" && (
        <div className="min-h-0 flex-1 md:hidden">
          <div className="flex h-full justify-center">
            <SlideStrip
              current={current}
              width={Math.min(window.innerWidth - 40, 560)}
              onOpen={(id) => {
                setShownPart("text");
                onGoTo(id);
              }}
            />
          </div>
        </div>
      )}
      <Level
        ref={level}
        ids={mapping.ids}
        reasons={mapping.reasons}
        hand={mapping.hand}
        onChoose={onGoTo}
        onHand={onHand}
      />
    </div>
  );
}

/** Returns the first lines of the slides that are too full. */
function useOverLines(mapping: Mapping): number[] {
  const { deck, metadata } = useDeck();
  const measureOf = useMeasures(deck, metadata);
  return useMemo(() => {
    const slides = new Map(deck.slides.map((slide) => [slide.id, slide]));
    return mapping.ids.flatMap((id, nth) => {
      const slide = slides.get(id);
      return slide && (measureOf(slide)?.overflow ?? 0) > 0 ? [must(mapping.lines[nth]).from] : [];
    });
  }, [mapping, deck, measureOf]);
}

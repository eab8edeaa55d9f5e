import { useVirtualizer } from "@tanstack/react-virtual";
import { countWords, type Deck, metadataOf, must, secondsOf, type Slide } from "@unitext/core/model";
import { contextsOf, isSpokenByCharacters, slideWithTarget, typedText } from "@unitext/core/translate";
import { DeckAt, type PairedSegment } from "@unitext/server/api";
import { BookOpen, Columns2, Tags } from "lucide-react";
import { useEffect, useMemo, useRef, useState } from "react";
import { Link, useLocation } from "react-router";
import useSWR from "swr";
import { get } from "../api/client";
import { useDeck } from "../deck/DeckContext";
import { SmallSlide } from "../deck/SmallSlide";
import { DeckFrame } from "../shell/DeckFrame";
import { clock } from "../ui/time";
import { Files } from "./Files";
import { Fit, useTooFull } from "./Fit";
import { languageName } from "../ui/languages";
import { NewTranslation } from "./NewTranslation";
import { MemoryDialog } from "./MemoryDialog";
import { Replace } from "./Replace";
import { SegmentRow, STATE_NAMES } from "./SegmentRow";
import { TermsDialog } from "./TermsDialog";
import { useSegments } from "./useSegments";

/** Which segments are listed. */
type Filter = "all" | "checks" | "full" | PairedSegment["state"];

const FILTERS: readonly Filter[] = [
  "all",
  "untranslated",
  "proposed",
  "draft",
  "outdated",
  "reviewed",
  "checks",
  "full",
];
const WIDER: Partial<Record<Filter, string>> = {
  all: "all",
  checks: "with findings",
  full: "on slides that are too full",
};
const filterName = (filter: Filter) => WIDER[filter] ?? STATE_NAMES[filter as PairedSegment["state"]];

const isWanted = (segment: PairedSegment, filter: Filter, words: string, full: ReadonlySet<string>) =>
  (filter === "all" ||
    (filter === "checks"
      ? segment.findings.length > 0
      : filter === "full"
        ? full.has(segment.slideId ?? "")
        : segment.state === filter)) &&
  (words === "" ||
    [segment.source, segment.target ?? []].some((pieces) =>
      typedText(pieces).toLowerCase().includes(words.toLowerCase()),
    ));

/** Translate: the texts of a deck beside those of its original, with the slide in both languages. */
export default function Translate() {
  const { deck } = useDeck();
  return deck.original?.language ? (
    <Segments />
  ) : (
    <DeckFrame place="Translate">
      <div className="h-full overflow-auto">
        <NewTranslation />
      </div>
    </DeckFrame>
  );
}

/** A translation as it is typed, before it is stored. */
interface Typed {
  id: string;
  target: PairedSegment["source"];
}

/** Returns a slide with what is being typed, as long as the slide does not have it. */
function shownWith(
  original: Deck,
  deck: Deck,
  slides: { slide: Slide; originalSlide: Slide },
  typed: Typed | undefined,
  segments: readonly PairedSegment[],
): Slide {
  const own = segments.filter(({ originalSlide }) => originalSlide === slides.originalSlide.id);
  if (!typed || !own.some(({ id }) => id === typed.id)) return slides.slide;
  const stored = own.flatMap(({ id, source, target, state }) => (target ? [{ id, source, target, state }] : []));
  return slideWithTarget(original, deck, slides, typed, stored);
}

const numberOf = (deck: Deck, { id }: Slide) => deck.slides.findIndex((slide) => slide.id === id) + 1;

/** The slide of a segment in both languages, one below the other. */
function SlidePair({
  segment,
  segments,
  original: data,
  typed,
  onChoose,
}: {
  segment: PairedSegment | undefined;
  segments: readonly PairedSegment[];
  original: Deck | undefined;
  typed: Typed | undefined;
  onChoose: (segment: string) => void;
}) {
  const { deck } = useDeck();
  const metadata = useMemo(() => metadataOf(deck), [deck]);
  const theirs = data?.slides.find(({ id }) => id === segment?.originalSlide);
  const stored = deck.slides.find(({ id }) => id === segment?.slideId);
  const own =
    useMemo(
      () =>
        data && theirs && stored && shownWith(data, deck, { originalSlide: theirs, slide: stored }, typed, segments),
      [data, deck, theirs, stored, typed, segments],
    ) ?? stored;
  if (!segment?.slide) return <p className="quiet text-sm">This text is of the deck, not of one slide.</p>;
  return (
    <>
      {data && theirs && (
        <figure>
          <figcaption className="quiet pb-1 text-sm">Original</figcaption>
          <SmallSlide
            slide={theirs}
            number={segment.slide}
            metadata={metadataOf(data)}
            deck={data.id}
            width={400}
            label="Original"
          />
        </figure>
      )}
      {own ? (
        <figure>
          <figcaption className="quiet pb-1 text-sm">Translation</figcaption>
          <SmallSlide
            slide={own}
            number={numberOf(deck, own)}
            metadata={metadata}
            deck={deck.id}
            width={400}
            label="Translation"
          />
        </figure>
      ) : (
        <p className="quiet text-sm">The translation has left this slide out.</p>
      )}
      {own && <Fit slide={own} number={numberOf(deck, own)} segments={segments} onChoose={onChoose} />}
      {own && (
        <Link className="text-primary text-sm underline" to={`/decks/${deck.id}/refine/${own.id}`}>
          Refine this slide
        </Link>
      )}
    </>
  );
}

/** Returns the original of a translated deck as the translation follows it; undefined while it loads. */
function useOriginal(original: { id: string; version: number } | undefined): Deck | undefined {
  const key = original && `/decks/${original.id}/at/${original.version}`;
  return useSWR(key ?? null, (path: string) => get(path, DeckAt), { revalidateOnFocus: false }).data?.deck;
}

const minutesOf = (deck: Deck) => clock(deck.slides.reduce((sum, slide) => sum + secondsOf(slide, deck.rate), 0));

/** The time that it takes to say the translation, beside that of the original. */
function SpeakingTime({ original }: { original: Deck }) {
  const { deck } = useDeck();
  const rate = isSpokenByCharacters(deck.language) ? `${deck.rate * 2} characters` : `${deck.rate} words`;
  return (
    <p className="quiet w-full text-sm" title={`At ${rate} a minute`}>
      {minutesOf(deck)} to say; the original takes {minutesOf(original)}.
    </p>
  );
}

const wordsOf = (segments: readonly PairedSegment[]) =>
  segments.reduce((sum, { source }) => sum + countWords(typedText(source)), 0);

/** Says how far a translation is, in texts and in words. */
function progressOf(segments: readonly PairedSegment[]): string {
  const reviewed = segments.filter(({ state }) => state === "reviewed");
  const share = Math.round((100 * wordsOf(reviewed)) / Math.max(1, wordsOf(segments)));
  return `${reviewed.length} of ${segments.length} reviewed, ${share} % of the words`;
}

function Segments() {
  const { deck, canEdit } = useDeck();
  const acts = useSegments();
  const { list, error, saving, isWaiting, save } = acts;
  const { state } = useLocation();
  const remark = (state as { remark?: string } | null)?.remark ?? "";
  const [filter, setFilter] = useState<Filter>("all");
  const [words, setWords] = useState("");
  const [current, setCurrent] = useState<string>();
  const [said, setSaid] = useState<string[]>(remark ? [remark] : []);
  const [open, setOpen] = useState<"memory" | "terms">();
  const scroller = useRef<HTMLDivElement>(null);
  const segments = list?.segments ?? [];
  const contexts = useMemo(() => contextsOf(list?.segments ?? []), [list]);
  const tooFull = useTooFull();
  const fullIds = new Set(tooFull.map(({ slide }) => slide.id));
  const original = useOriginal(list?.original);
  const [typed, setTyped] = useState<Typed>();
  // What is being worked on stays in the list until another one is chosen.
  const rows = segments.filter((one) => one.id === current || isWanted(one, filter, words.trim(), fullIds));
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => 76,
    overscan: 8,
    getItemKey: (nth) => rows[nth]?.id ?? nth,
  });
  const at = rows.findIndex(({ id }) => id === current);
  const next = () => {
    const following = rows[at + 1];
    if (!following) return;
    setCurrent(following.id);
    virtual.scrollToIndex(at + 1);
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: the first segment is chosen once the list is there.
  useEffect(() => {
    const first = segments.find(({ state: own }) => own !== "reviewed") ?? segments[0];
    if (current || !first) return;
    setCurrent(first.id);
    virtual.scrollToIndex(segments.indexOf(first), { align: "center" });
  }, [segments.length]);
  const counts = (own: PairedSegment["state"]) => segments.filter((one) => one.state === own).length;
  const countOf = (one: Filter) =>
    one === "all" || one === "checks" ? "" : ` (${one === "full" ? tooFull.length : counts(one)})`;
  const behind = list && list.original.newest > list.original.version;

  const proposed = segments.filter(({ state: own, target }) => own === "proposed" && target);
  const tools = (
    <div className="flex flex-wrap items-center gap-1">
      <span className="quiet px-2 text-sm" role="status">
        {isWaiting ? "Not saved yet; trying again" : saving ? "Saving …" : progressOf(segments)}
      </span>
      <Link className="btn btn-ghost btn-sm gap-1 px-2 font-normal" to={`/decks/${deck.id}/translate/slides`}>
        <Columns2 size={16} aria-hidden="true" /> Side by side
      </Link>
      <button
        type="button"
        title="Shows what was translated before, and takes it from files or writes it to one"
        className="btn btn-ghost btn-sm gap-1 px-2 font-normal"
        disabled={!list}
        onClick={() => setOpen("memory")}
      >
        <BookOpen size={16} aria-hidden="true" /> Memory
      </button>
      <button
        type="button"
        title="Lists words that are always translated in the same way"
        className="btn btn-ghost btn-sm gap-1 px-2 font-normal"
        disabled={!list}
        onClick={() => setOpen("terms")}
      >
        <Tags size={16} aria-hidden="true" /> Terms
      </button>
      <Files acts={acts} onSaid={setSaid} />
    </div>
  );
  return (
    <DeckFrame place="Translate" tools={tools}>
      <div className="grid h-full grid-cols-1 grid-rows-[minmax(0,1fr)_auto] lg:grid-cols-[minmax(0,1fr)_27rem] lg:grid-rows-1">
        <div className="flex min-h-0 min-w-0 flex-col">
          <div className="hairline flex flex-wrap items-center gap-3 border-b px-4 py-2 text-sm">
            <label className="flex items-center gap-2">
              Show
              <select
                className="select select-xs w-40"
                value={filter}
                onChange={(event) => setFilter(event.target.value as Filter)}
              >
                {FILTERS.map((one) => (
                  <option key={one} value={one}>
                    {filterName(one)}
                    {countOf(one)}
                  </option>
                ))}
              </select>
            </label>
            <label className="input input-xs w-48">
              <span className="sr-only">Find in source and translation</span>
              <input
                type="search"
                placeholder="Find words"
                value={words}
                onChange={(event) => setWords(event.target.value)}
              />
            </label>
            {words.trim() !== "" && (
              <Replace
                words={words.trim()}
                rows={rows}
                disabled={!canEdit || saving}
                onReplace={(sent) => void save(sent)}
              />
            )}
            <span className="quiet hidden text-xs xl:inline">
              Ctrl+Enter confirms · Alt+1 takes a proposal · Ctrl+. placeholder · Ctrl+; term · Ctrl+, source
            </span>
            {proposed.length > 0 && (
              <button
                type="button"
                className="btn btn-ghost btn-xs ml-auto"
                disabled={!canEdit || saving}
                onClick={() =>
                  void save(proposed.map(({ id, target }) => ({ id, target: target ?? [], state: "reviewed" })))
                }
              >
                Confirm all {proposed.length} proposals
              </button>
            )}
          </div>
          <div role="status" className="px-4">
            {said.map((line) => (
              <p key={line} className="border-secondary my-1 border-l-4 px-3 text-sm">
                {line}
              </p>
            ))}
            {behind && (
              <p className="border-warning my-1 border-l-4 px-3 text-sm">
                The original has changed.{" "}
                <Link className="text-primary underline" to={`/decks/${deck.id}/arrange/versions`}>
                  See what it brings
                </Link>
              </p>
            )}
            {error && <p className="text-error">{error.message}</p>}
          </div>
          {!list && !error && <p className="quiet p-4">Reading the texts …</p>}
          <div ref={scroller} className="min-h-0 flex-1 overflow-auto" data-segments>
            <div style={{ height: virtual.getTotalSize(), position: "relative" }}>
              {virtual.getVirtualItems().map(({ index, key, start }) => {
                const segment = must(rows[index]);
                return (
                  <div
                    key={key}
                    ref={virtual.measureElement}
                    data-index={index}
                    className="absolute inset-x-0"
                    style={{ transform: `translateY(${start}px)` }}
                  >
                    <SegmentRow
                      segment={segment}
                      context={contexts.get(segment.id)}
                      languages={{ from: list?.from ?? "", to: list?.to ?? "" }}
                      current={segment.id === current}
                      canEdit={canEdit}
                      onEnter={() => setCurrent(segment.id)}
                      onNext={next}
                      onType={(id, target) => setTyped({ id, target })}
                      onSave={(sent) => void save([sent])}
                    />
                  </div>
                );
              })}
            </div>
            {list && rows.length === 0 && <p className="quiet p-6">No text is {filterName(filter)}.</p>}
          </div>
        </div>
        <aside
          aria-label="The slide in both languages"
          className="hairline flex max-h-[36vh] min-h-0 min-w-0 flex-wrap content-start gap-3 overflow-auto border-t p-4 lg:max-h-none lg:flex-col lg:flex-nowrap lg:border-t-0 lg:border-l"
        >
          {list && (
            <p className="quiet w-full text-sm">
              From{" "}
              <Link className="underline-offset-4 hover:underline" to={`/decks/${list.original.id}/write`}>
                {list.original.title}
              </Link>{" "}
              ({languageName(list.from)}) to {languageName(list.to)}
            </p>
          )}
          {original && <SpeakingTime original={original} />}
          {tooFull.length > 0 && filter !== "full" && (
            <button type="button" className="text-primary text-sm underline" onClick={() => setFilter("full")}>
              {tooFull.length === 1 ? "1 slide is" : `${tooFull.length} slides are`} too full
            </button>
          )}
          {list && (
            <SlidePair
              segment={segments.find(({ id }) => id === current)}
              segments={segments}
              original={original}
              typed={typed}
              onChoose={setCurrent}
            />
          )}
          {open === "memory" && list && (
            <MemoryDialog from={list.from} to={list.to} onClose={() => setOpen(undefined)} />
          )}
          {open === "terms" && list && (
            <TermsDialog
              from={list.from}
              to={list.to}
              onClose={(changed) => {
                setOpen(undefined);
                if (changed) void acts.reload();
              }}
            />
          )}
          {!canEdit && <p className="quiet text-sm">You may look at this deck, not change it.</p>}
        </aside>
      </div>
    </DeckFrame>
  );
}

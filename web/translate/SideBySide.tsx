import { useVirtualizer } from "@tanstack/react-virtual";
import { type Deck, metadataOf, must, nameOf, type Slide } from "@unitext/core/model";
import { pairSlides } from "@unitext/core/translate";
import { DeckLanguages, DeckState } from "@unitext/server/api";
import { Languages } from "lucide-react";
import { useMemo, useRef, useState } from "react";
import { Link } from "react-router";
import useSWR from "swr";
import { get } from "../api/client";
import { useDeck } from "../deck/DeckContext";
import { SmallSlide } from "../deck/SmallSlide";
import { DeckFrame } from "../shell/DeckFrame";
import { languageName } from "../ui/languages";

type Listed = DeckLanguages["decks"][number];

/** Returns the deck in one of its languages: the open deck with its unsaved changes, any other from the server. */
function useDeckOf(id: string | undefined): Deck | undefined {
  const { deck } = useDeck();
  const isOther = id !== undefined && id !== deck.id;
  const { data } = useSWR(isOther ? `/decks/${id}` : null, (path: string) => get(path, DeckState), {
    revalidateOnFocus: false,
  });
  return isOther ? data?.deck : deck;
}

function LanguageSelect({
  label,
  decks,
  value,
  onChange,
}: {
  label: string;
  decks: readonly Listed[];
  value: string | undefined;
  onChange: (id: string) => void;
}) {
  return (
    <select
      aria-label={label}
      className="select select-sm"
      value={value}
      onChange={(event) => onChange(event.target.value)}
    >
      {decks.map(({ id, language, title }) => (
        <option key={id} value={id}>
          {languageName(language)}: {title}
        </option>
      ))}
    </select>
  );
}

/** A slide of one of the languages, with a link to it; or what it says where this language has none. */
function Side({ deck, slide }: { deck: Deck; slide: Slide | undefined }) {
  const metadata = useMemo(() => metadataOf(deck), [deck]);
  if (!slide) return <p className="quiet self-center text-sm">No such slide in {languageName(deck.language)}.</p>;
  const number = deck.slides.indexOf(slide) + 1;
  return (
    <div className="min-w-0">
      <Link to={`/decks/${deck.id}/refine/${slide.id}`} title="Refine this slide">
        <SmallSlide
          slide={slide}
          number={number}
          metadata={metadata}
          deck={deck.id}
          width={0}
          className="!w-full"
          label={`Slide ${number} in ${languageName(deck.language)}`}
        />
      </Link>
      <p lang={deck.language} dir="auto" className="quiet truncate pt-1 text-xs">
        {number} · {nameOf(slide) || "No title"}
      </p>
    </div>
  );
}

/** The same deck in two languages, slide beside slide. */
export default function SideBySide() {
  const { deck } = useDeck();
  const { data } = useSWR(`/decks/${deck.id}/languages`, (path: string) => get(path, DeckLanguages));
  const decks = data?.decks ?? [];
  const [chosen, setChosen] = useState<{ left?: string; right?: string }>({});
  const leftId = chosen.left ?? decks.find(({ id }) => id !== deck.id)?.id;
  const rightId = chosen.right ?? deck.id;
  const [left, right] = [useDeckOf(leftId), useDeckOf(rightId)];
  const rows = useMemo(() => (left && right ? pairSlides(left, right) : []), [left, right]);
  const scroller = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => 340,
    overscan: 3,
  });
  if (data && decks.length < 2)
    return (
      <DeckFrame place="Translate">
        <div className="mx-auto max-w-lg px-6 py-16 text-center">
          <Languages size={32} className="mx-auto mb-3" aria-hidden="true" />
          <p className="mb-4">This deck exists in {languageName(deck.language)} only.</p>
          <Link className="btn btn-primary" to={`/decks/${deck.id}/translate`}>
            In another language
          </Link>
        </div>
      </DeckFrame>
    );
  return (
    <DeckFrame
      place="Translate"
      tools={
        <Link className="btn btn-ghost btn-sm" to={`/decks/${deck.id}/translate`}>
          Back to the texts
        </Link>
      }
    >
      <div className="flex h-full flex-col">
        <div className="hairline grid grid-cols-2 gap-4 border-b px-4 py-2">
          {(["left", "right"] as const).map((side) => (
            <LanguageSelect
              key={side}
              label={side === "left" ? "Language on the left" : "Language on the right"}
              decks={decks}
              value={side === "left" ? leftId : rightId}
              onChange={(id) => setChosen((now) => ({ ...now, [side]: id }))}
            />
          ))}
        </div>
        <div ref={scroller} className="min-h-0 flex-1 overflow-auto" data-side-by-side>
          <div style={{ height: virtual.getTotalSize(), position: "relative" }}>
            {left &&
              right &&
              virtual.getVirtualItems().map(({ index, key, start }) => (
                <div
                  key={key}
                  ref={virtual.measureElement}
                  data-index={index}
                  className="absolute inset-x-0 grid grid-cols-2 gap-4 px-4 py-3"
                  style={{ transform: `translateY(${start}px)` }}
                >
                  <Side deck={left} slide={must(rows[index]).left} />
                  <Side deck={right} slide={must(rows[index]).right} />
                </div>
              ))}
          </div>
        </div>
      </div>
    </DeckFrame>
  );
}

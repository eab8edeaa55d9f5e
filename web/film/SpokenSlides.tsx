import { expectedSeconds, type Spoken, spokenBy } from "@unitext/core/film";
import { hasNotes, nameOf, type Slide, textHash, textOf } from "@unitext/core/model";
import { Mic, Trash2 } from "lucide-react";
import { memo, useState } from "react";
import { useNavigate } from "react-router";
import { useDeck } from "../deck/DeckContext";
import { SmallSlide } from "../deck/SmallSlide";
import { clock } from "../ui/time";
import { RecordDialog } from "./RecordDialog";

/** How each slide is spoken, in words; what asks for attention is marked. */
const SPOKEN: Record<Spoken, { label: string; attention: boolean }> = {
  recorded: { label: "Your recorded voice", attention: false },
  notes: { label: "Reads the notes", attention: false },
  thin: { label: "The notes say little about what is on it", attention: true },
  silent: { label: "No notes: shown in silence", attention: true },
};

const Row = memo(function Row({
  slide,
  number,
  onRecord,
}: {
  slide: Slide;
  number: number;
  onRecord: (id: string) => void;
}) {
  const { deck, metadata, session, canEdit } = useDeck();
  const navigate = useNavigate();
  const spoken = spokenBy(slide, deck.rate, deck.language);
  const { label, attention } = SPOKEN[spoken];
  const asset = deck.assets[slide.voice?.source ?? ""];
  const isOutdated = slide.voice !== undefined && slide.voice.notesHash !== textHash(textOf(slide.notes));
  return (
    <li className="hairline flex gap-4 border-b py-3" data-spoken={spoken}>
      <SmallSlide slide={slide} number={number} metadata={metadata} deck={deck.id} width={144} className="self-start" />
      <div className="min-w-0 flex-1">
        <p className="flex gap-2">
          <strong className="tabular-nums">{number}</strong>
          <span className="min-w-0 flex-1 truncate">{nameOf(slide) || "(empty)"}</span>
          <span className="quiet text-sm tabular-nums">{clock(expectedSeconds(slide, deck.rate, deck.language))}</span>
        </p>
        <p className={`text-sm ${attention || isOutdated ? "text-warning-content font-semibold" : "quiet"}`}>
          {label}
          {isOutdated && ", recorded before the notes were changed"}
        </p>
        <p className="mt-1 flex flex-wrap items-center gap-1">
          <button
            type="button"
            className="btn btn-xs"
            disabled={!canEdit}
            aria-label={`${slide.voice ? "Record again" : "Record"} your voice for slide ${number}`}
            onClick={() => onRecord(slide.id)}
          >
            <Mic size={14} aria-hidden="true" /> {slide.voice ? "Record again" : "Record"}
          </button>
          {slide.voice && asset && (
            <>
              {/* biome-ignore lint/a11y/useMediaCaption: it reads the notes of the slide. */}
              <audio
                controls
                preload="none"
                className="h-8 w-44"
                src={`/api/decks/${deck.id}/pictures/${asset.sha256}`}
                aria-label={`The recorded voice of slide ${number}`}
              />
              <button
                type="button"
                className="btn btn-ghost btn-xs"
                disabled={!canEdit}
                aria-label={`Remove the recorded voice of slide ${number}`}
                onClick={() =>
                  session.apply(
                    { kind: "setVoice", slide: slide.id, voice: null },
                    { words: `Removed the recorded voice of slide ${number}` },
                  )
                }
              >
                <Trash2 size={14} aria-hidden="true" /> Remove
              </button>
            </>
          )}
          {!slide.voice && (spoken === "silent" || spoken === "thin") && (
            <button
              type="button"
              className="btn btn-ghost btn-xs"
              aria-label={`${hasNotes(slide) ? "Write more notes" : "Write notes"} for slide ${number}`}
              onClick={() => navigate(`/decks/${deck.id}/refine/${slide.id}`)}
            >
              {hasNotes(slide) ? "Write more notes" : "Write notes"}
            </button>
          )}
        </p>
      </div>
    </li>
  );
});

/** The slides of a film with what speaks each, and a recorder for one's own voice. */
export function SpokenSlides() {
  const { deck } = useDeck();
  const [recording, setRecording] = useState<string>();
  const shown = deck.slides.flatMap((slide, nth) => (slide.hidden ? [] : [{ slide, number: nth + 1 }]));
  const at = shown.findIndex(({ slide }) => slide.id === recording);
  const [now, next] = [shown[at], at < 0 ? undefined : shown[at + 1]];
  return (
    <>
      <ol aria-label="Slides of the film">
        {shown.map(({ slide, number }) => (
          <Row key={slide.id} slide={slide} number={number} onRecord={setRecording} />
        ))}
      </ol>
      {now && (
        <RecordDialog
          slide={now.slide}
          number={now.number}
          onNext={next && (() => setRecording(next.slide.id))}
          onClose={() => setRecording(undefined)}
        />
      )}
    </>
  );
}

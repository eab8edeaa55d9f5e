import { batch } from "@unitext/core/edit";
import { hasNotes, nameOf, type Slide, textHash, textOf } from "@unitext/core/model";
import { Recording } from "@unitext/server/api";
import { Circle, RotateCcw, Square } from "lucide-react";
import { useState } from "react";
import { post } from "../api/client";
import { useDeck } from "../deck/DeckContext";
import { SmallSlide } from "../deck/SmallSlide";
import { NotesView } from "../richtext/NotesView";
import { Dialog } from "../ui/Dialog";
import { clock } from "../ui/time";
import { useRecorder } from "./useRecorder";

/** Records one's voice for a slide, beside its notes; `onNext` goes on with the next slide. */
export function RecordDialog({
  slide,
  number,
  onNext,
  onClose,
}: {
  slide: Slide;
  number: number;
  onNext: (() => void) | undefined;
  onClose: () => void;
}) {
  const { deck, metadata, session } = useDeck();
  const recorder = useRecorder();
  const [saving, setSaving] = useState(false);
  const [failed, setFailed] = useState<string>();
  const { state, recorded } = recorder;

  async function use(after: () => void) {
    if (!recorded) return;
    setSaving(true);
    setFailed(undefined);
    try {
      const { name, sha256, mediaType } = await post(`/decks/${deck.id}/recordings`, recorded.file, Recording);
      const seconds = Math.max(0.1, Math.round(recorded.seconds * 10) / 10);
      const voice = { source: name, seconds, notesHash: textHash(textOf(slide.notes)) };
      session.apply(
        batch([
          { kind: "setAsset", name, asset: { sha256, mediaType, width: 1, height: 1 } },
          { kind: "setVoice", slide: slide.id, voice },
        ]),
        { words: `Recorded a voice for slide ${number}` },
      );
      after();
    } catch (error) {
      setFailed(`${(error as Error).message} The recording is still here; try again.`);
    } finally {
      setSaving(false);
    }
  }
  return (
    <Dialog
      title={`Your voice for slide ${number}`}
      width="widest"
      onClose={onClose}
      // A recording that is not used yet is dropped by its buttons alone.
      onKeyDown={(event) => {
        if (event.key === "Escape" && (state === "recording" || state === "recorded")) event.preventDefault();
      }}
      actions={(close) => (
        <>
          <button type="button" className="btn btn-ghost" onClick={close}>
            Close
          </button>
          {state === "recorded" ? (
            <>
              <button type="button" className="btn" disabled={saving} onClick={recorder.clear}>
                <RotateCcw size={16} aria-hidden="true" /> Record again
              </button>
              {onNext && (
                <button
                  type="button"
                  className="btn"
                  disabled={saving}
                  onClick={() =>
                    void use(() => {
                      recorder.clear();
                      onNext();
                    })
                  }
                >
                  Use it, next slide
                </button>
              )}
              <button type="button" className="btn btn-primary" disabled={saving} onClick={() => void use(close)}>
                Use it
              </button>
            </>
          ) : state === "recording" ? (
            <button type="button" className="btn btn-primary" onClick={recorder.stop}>
              <Square size={16} aria-hidden="true" /> Stop
            </button>
          ) : (
            <button type="button" className="btn btn-primary" disabled={state === "asking"} onClick={recorder.start}>
              <Circle size={16} aria-hidden="true" /> Record
            </button>
          )}
        </>
      )}
    >
      <div className="flex gap-5 max-md:flex-col">
        <SmallSlide
          slide={slide}
          number={number}
          metadata={metadata}
          deck={deck.id}
          width={360}
          label={nameOf(slide)}
        />
        <div className="max-h-80 min-w-0 flex-1 overflow-auto font-serif text-lg leading-relaxed">
          {hasNotes(slide) ? <NotesView notes={slide.notes} /> : <p className="quiet">This slide has no notes.</p>}
        </div>
      </div>
      <div className="mt-4 flex min-h-14 items-center gap-4 text-sm" role="status">
        {state === "ready" && !recorder.refused && <p>Record when you are ready; the notes stay in sight.</p>}
        {state === "asking" && <p>The browser asks whether this page may use the microphone …</p>}
        {state === "recording" && (
          <>
            <span className="text-error font-semibold">Recording {clock(recorder.seconds)}</span>
            <meter className="w-48" min={0} max={1} value={recorder.loudness} aria-label="How loud it is" />
          </>
        )}
        {state === "recorded" && recorded && (
          // biome-ignore lint/a11y/useMediaCaption: it reads the notes beside it.
          <audio controls src={recorded.address} aria-label="The recording" />
        )}
        {(recorder.refused || failed) && (
          <p role="alert" className="text-error">
            {recorder.refused ?? failed}
          </p>
        )}
      </div>
    </Dialog>
  );
}

import { withoutOwnAppearance, type Slide, slidePropertiesOf } from "@unitext/core/model";
import { useDeck } from "../deck/DeckContext";
import { Fold } from "../ui/Fold";
import { Measure } from "../ui/Measure";
import { Add } from "./Add";
import { Arrangements } from "./Arrangements";
import { BackgroundPanel } from "./BackgroundPanel";
import { Motion } from "./Motion";
import type { Played } from "./play";
import type { Acts } from "./selection";

/** The appearance of the slide: what can be added, its arrangement, text, background and motion, in groups that fold. */
export function Appearance({
  slide,
  acts,
  onPictures,
  ...play
}: {
  slide: Slide;
  acts: Acts;
  onPictures: (files: readonly File[]) => void;
  playing: boolean;
  onPlay: (what: Played | undefined) => void;
  onChoose: (element: string) => void;
}) {
  const { deck, session, canEdit } = useDeck();
  const setFactor = (name: "textSize" | "spacing", percent: number, words: string) => {
    const { [name]: _, ...properties } = slidePropertiesOf(slide);
    const next = percent === 100 ? properties : { ...properties, [name]: percent / 100 };
    session.apply({ kind: "setSlideProperties", slide: slide.id, properties: next }, { words });
  };
  return (
    <>
      {canEdit && <Add acts={acts} slide={slide.id} onPictures={onPictures} />}
      {slide.master !== undefined && (
        <fieldset disabled={!canEdit} className="mb-5">
          <legend className="mb-1 font-semibold">From a file</legend>
          <p className="quiet mb-2">
            Uses the layout of its original file: {deck.masters?.[slide.master]?.name || "its master"}.
          </p>
          <button
            type="button"
            className="btn btn-sm w-full"
            onClick={() =>
              session.apply(
                { kind: "setSlide", slide: slide.id, as: withoutOwnAppearance(slide, deck.theme) },
                { words: "Gave the slide the theme of the deck" },
              )
            }
          >
            Give it the look of the deck
          </button>
        </fieldset>
      )}
      <Fold name="arrangement" title="Arrangement" open>
        <Arrangements slide={slide} />
      </Fold>
      <Fold name="text" title="Text" open>
        <fieldset disabled={!canEdit}>
          <legend className="sr-only">Text of the slide</legend>
          <Measure
            label="Text size of this slide"
            unit="%"
            least={50}
            most={200}
            step={5}
            value={(slide.textSize ?? 1) * 100}
            onSet={(percent) => setFactor("textSize", percent, `Text size ${Math.round(percent)} %`)}
          />
          <Measure
            label="Space between paragraphs"
            unit="%"
            least={0}
            most={500}
            step={10}
            value={(slide.spacing ?? 1) * 100}
            onSet={(percent) => setFactor("spacing", percent, `Space between paragraphs ${Math.round(percent)} %`)}
          />
        </fieldset>
      </Fold>
      <Fold name="background" title="Background" open>
        <BackgroundPanel slide={slide} />
      </Fold>
      <Fold name="motion" title="Motion" open>
        <Motion slide={slide} {...play} />
      </Fold>
    </>
  );
}

import { nameOf, type Slide } from "@unitext/core/model";
import { useDeck } from "../deck/DeckContext";
import { useScene } from "../deck/scenes";
import { SlideLinks } from "../deck/SlideLinks";
import { SlideView } from "../deck/SlideView";
import type { Ink } from "./hall";
import { InkLayer, type InkTool } from "./InkLayer";
import { PlayButtons } from "./Media";

interface Media {
  playing: string | undefined;
  onPlay: (element: string | undefined) => void;
}

/** A slide in the speaker's window: with links where `onOpen` follows them, and buttons that play its films and sounds. */
export function SpokenSlide({
  slide,
  label,
  step,
  onOpen,
  media,
  ink,
}: {
  slide: Slide;
  label: string;
  step?: number;
  onOpen?: (slide: string) => void;
  media?: Media;
  /** What is pointed at and drawn on it. */
  ink?: { ink: Ink; tool: InkTool; onInk: (ink: Ink) => void };
}) {
  const { deck, metadata } = useDeck();
  const number = deck.slides.indexOf(slide) + 1;
  const scene = useScene(slide, number, metadata);
  return (
    <div className="hairline relative border">
      {scene ? (
        <SlideView
          scene={scene}
          deck={deck.id}
          label={`${label}: ${number}. ${nameOf(slide)}`}
          {...(step === undefined ? {} : { step })}
        />
      ) : (
        <div style={{ aspectRatio: `${deck.page.width} / ${deck.page.height}` }} />
      )}
      {scene && onOpen && <SlideLinks scene={scene} onOpen={onOpen} />}
      {scene && ink && <InkLayer ratio={deck.page.height / deck.page.width} {...ink} />}
      {scene && media && <PlayButtons scene={scene} slide={slide} step={step ?? 0} {...media} />}
    </div>
  );
}

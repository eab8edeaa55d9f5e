import { MOTION_CSS } from "@unitext/core/draw";
import { useCallback, useEffect, useRef, useState } from "react";
import { useDeck } from "../deck/DeckContext";
import { useScene } from "../deck/scenes";
import { SlideView } from "../deck/SlideView";
import { styleNonce } from "../shell/nonce";
import { type Heard, HallLine, type Shown } from "./hall";
import { HallMedia } from "./Media";

/** What the hall shows: the slide after a number of presses, and the press after which its effects play. */
interface Scenery extends Shown {
  since: number | undefined;
}

/** Effects play on the way forward; a slide that is returned to is as it was left. */
const played = (before: Scenery | undefined, shown: Shown): Scenery => ({
  ...shown,
  since: before?.slide === shown.slide ? before.since : shown.step ? shown.step : before ? -1 : 0,
});

interface FullProps {
  step: number | undefined;
  since: number | undefined;
  playing: string | undefined;
  onHeard: (heard: Heard) => void;
}
function Full({ id, ...shown }: FullProps & { id: string }) {
  const { deck, metadata } = useDeck();
  const at = Math.max(
    0,
    deck.slides.findIndex((slide) => slide.id === id),
  );
  const slide = deck.slides[at];
  return slide ? <Drawn slide={slide} number={at + 1} metadata={metadata} {...shown} /> : null;
}
function Drawn({
  slide,
  number,
  metadata,
  step,
  since,
  playing,
  onHeard,
}: FullProps & {
  slide: ReturnType<typeof useDeck>["deck"]["slides"][number];
  number: number;
  metadata: ReturnType<typeof useDeck>["metadata"];
}) {
  const { deck } = useDeck();
  const scene = useScene(slide, number, metadata);
  const { width, height } = deck.page;
  const { transition } = slide;
  const coming = transition && since === -1 ? { "data-transition": transition.kind } : {};
  return (
    <div
      key={slide.id}
      {...coming}
      className="relative"
      style={{
        width: `min(100vw, calc(100vh * ${width / height}))`,
        ["--seconds" as string]: `${transition?.seconds ?? 0}s`,
      }}
      data-hall={slide.id}
    >
      {scene && (
        <SlideView
          scene={scene}
          deck={deck.id}
          label={`Slide ${number}`}
          {...(step === undefined ? {} : { step })}
          {...(since === undefined ? {} : { since })}
        />
      )}
      {scene && <HallMedia scene={scene} slide={slide} step={step} playing={playing} onHeard={onHeard} />}
    </div>
  );
}

/** The hall's window: the slide alone, as large as the window allows. It follows the speaker's window. */
export default function Hall() {
  const { deck } = useDeck();
  const [shown, setShown] = useState<Scenery>();
  const open = useRef<HallLine>(undefined);
  const heard = useCallback((what: Heard) => open.current?.tell(what), []);
  useEffect(() => {
    const line = new HallLine(deck.id);
    open.current = line;
    line.listen({ show: (next) => setShown((before) => played(before, next)) });
    line.ask();
    return () => line.close();
  }, [deck.id]);
  return (
    <main
      className="grid h-full cursor-none place-items-center overflow-hidden bg-black"
      onDoubleClick={() => void document.documentElement.requestFullscreen?.()}
    >
      <style nonce={styleNonce}>{MOTION_CSS}</style>
      <h1 className="sr-only">{deck.properties.title}</h1>
      {!shown?.dark && (
        <Full
          id={shown?.slide ?? deck.slides[0]?.id ?? ""}
          step={shown?.step}
          since={shown?.since}
          playing={shown?.playing}
          onHeard={heard}
        />
      )}
    </main>
  );
}

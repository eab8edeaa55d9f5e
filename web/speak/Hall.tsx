import { useEffect, useState } from "react";
import { useDeck } from "../deck/DeckContext";
import { useScene } from "../deck/scenes";
import { SlideView } from "../deck/SlideView";
import { HallLine, type Shown } from "./hall";

function Full({ id, step }: { id: string; step: number | undefined }) {
  const { deck, head } = useDeck();
  const at = Math.max(0, deck.slides.findIndex((slide) => slide.id === id));
  const slide = deck.slides[at];
  return slide ? <Drawn slide={slide} number={at + 1} head={head} step={step} /> : null;
}
function Drawn({ slide, number, head, step }: { step: number | undefined; slide: ReturnType<typeof useDeck>["deck"]["slides"][number]; number: number; head: ReturnType<typeof useDeck>["head"] }) {
  const { deck } = useDeck();
  const scene = useScene(slide, number, head);
  const { width, height } = deck.page;
  return (
    <div style={{ width: `min(100vw, calc(100vh * ${width / height}))` }} data-hall={slide.id}>
      {scene && <SlideView scene={scene} deck={deck.id} label={`Slide ${number}`} {...(step === undefined ? {} : { step })} />}
    </div>
  );
}

/** The hall's window: the slide alone, as large as the window allows. It follows the speaker's window. */
export default function Hall() {
  const { deck } = useDeck();
  const [shown, setShown] = useState<Shown>();
  useEffect(() => {
    const line = new HallLine(deck.id);
    line.listen({ show: setShown });
    line.ask();
    return () => line.close();
  }, [deck.id]);
  return (
    <main className="grid h-full cursor-none place-items-center overflow-hidden bg-black" onDoubleClick={() => void document.documentElement.requestFullscreen?.()}>
      <h1 className="sr-only">{deck.properties.title}</h1>
      {!shown?.dark && <Full id={shown?.slide ?? deck.slides[0]?.id ?? ""} step={shown?.step} />}
    </main>
  );
}

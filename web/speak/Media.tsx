import { type MediaPlace, mediaPlaces, type Scene } from "@unitext/core/layout";
import type { Slide } from "@unitext/core/model";
import { Play, Square } from "lucide-react";
import { useEffect, useRef } from "react";
import { useDeck } from "../deck/DeckContext";
import type { Heard } from "./hall";

/** Places a film or sound over the drawing of its slide. */
const over = ({ x, y, width, height, rotation }: MediaPlace, page: { width: number; height: number }) => ({
  left: `${(x / page.width) * 100}%`,
  top: `${(y / page.height) * 100}%`,
  width: `${(width / page.width) * 100}%`,
  height: `${(height / page.height) * 100}%`,
  ...(rotation ? { transform: `rotate(${rotation}deg)` } : {}),
});

export const calledMedia = ({ type, alt }: Pick<MediaPlace, "type" | "alt">) =>
  `${type === "video" ? "film" : "sound"}${alt ? ` “${alt}”` : ""}`;

function Player({ place, plays, onHeard }: { place: MediaPlace; plays: boolean; onHeard: (heard: Heard) => void }) {
  const { deck } = useDeck();
  const player = useRef<HTMLVideoElement>(null);
  const { element, type, alt, sha256, poster } = place;
  const address = (sum: string) => `/api/decks/${deck.id}/pictures/${sum}`;
  useEffect(() => {
    const media = player.current;
    if (!media) return;
    if (plays)
      media.play().then(
        () => onHeard({ element, state: "plays" }),
        () => onHeard({ element, state: "blocked" }),
      );
    else {
      media.pause();
      media.currentTime = 0;
    }
  }, [plays, element, onHeard]);
  const told = {
    ref: player,
    preload: "auto",
    src: address(sha256),
    "aria-label": alt || type,
    onEnded: () => onHeard({ element, state: "ended" }),
  } as const;
  if (type === "audio") return <audio {...told} />;
  // Until it plays, its poster in the drawing is visible.
  return (
    <video
      {...told}
      playsInline
      className={`absolute bg-black object-contain ${plays ? "" : "invisible"}`}
      style={over(place, deck.page)}
      {...(poster ? { poster: address(poster) } : {})}
    />
  );
}

/** The films and sounds of the slide in the hall; the one that the speaker plays is seen and heard. */
export function HallMedia({
  scene,
  slide,
  step,
  playing,
  onHeard,
}: {
  scene: Scene;
  slide: Slide;
  step: number | undefined;
  playing: string | undefined;
  onHeard: (heard: Heard) => void;
}) {
  const { metadata } = useDeck();
  return mediaPlaces(scene, slide, metadata.assets)
    .filter(({ press }) => step === undefined || press <= step)
    .map((place) => <Player key={place.element} place={place} plays={playing === place.element} onHeard={onHeard} />);
}

/** Buttons in the speaker's window over the films and sounds of the slide, which play them in the hall. */
export function PlayButtons({
  scene,
  slide,
  step,
  playing,
  onPlay,
}: {
  scene: Scene;
  slide: Slide;
  step: number;
  playing: string | undefined;
  onPlay: (element: string | undefined) => void;
}) {
  const { metadata } = useDeck();
  return mediaPlaces(scene, slide, metadata.assets)
    .filter(({ press }) => press <= step)
    .map((place) => {
      const on = playing === place.element;
      return (
        <div
          key={place.element}
          className="pointer-events-none absolute grid place-items-center"
          style={over(place, metadata.page)}
        >
          <button
            type="button"
            aria-pressed={on}
            aria-label={`${on ? "Stop" : "Play"} the ${calledMedia(place)} in the hall`}
            title={`${on ? "Stop" : "Play"} the ${calledMedia(place)} in the hall`}
            className="btn btn-primary btn-sm pointer-events-auto shrink-0"
            onClick={() => onPlay(on ? undefined : place.element)}
          >
            {on ? <Square size={16} aria-hidden /> : <Play size={16} aria-hidden />}
            {on ? "Stop" : "Play"}
          </button>
        </div>
      );
    });
}

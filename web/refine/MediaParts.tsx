import type { MediaElement } from "@unitext/core/model";
import { useDeck } from "../deck/DeckContext";
import type { Acts } from "./selection";

/** Plays a film or sound, and edits its description. */
export function MediaParts({ media, acts, disabled }: { media: MediaElement; acts: Acts; disabled: boolean }) {
  const { deck } = useDeck();
  const [asset, poster] = [
    deck.assets[media.source],
    media.poster === undefined ? undefined : deck.assets[media.poster],
  ];
  const address = (sha256: string) => `/api/decks/${deck.id}/pictures/${sha256}`;
  const told = {
    className: "w-full",
    controls: true,
    preload: "metadata",
    "aria-label": media.alt || (media.type === "video" ? "Film" : "Sound"),
  } as const;
  return (
    <fieldset disabled={disabled} className="mb-4 min-w-0">
      <legend className="mb-2 font-semibold">{media.type === "video" ? "Film" : "Sound"}</legend>
      {!asset && <p className="quiet">Its file is not in the deck: {media.source}</p>}
      {asset &&
        (media.type === "video" ? (
          <video
            key={asset.sha256}
            {...told}
            src={address(asset.sha256)}
            {...(poster ? { poster: address(poster.sha256) } : {})}
          />
        ) : (
          <audio key={asset.sha256} {...told} src={address(asset.sha256)} />
        ))}
      <label className="mt-2 block">
        What it shows, for those who do not see or hear it
        <textarea
          key={media.alt}
          className="textarea textarea-sm w-full"
          defaultValue={media.alt}
          rows={2}
          onBlur={({ target: { value } }) =>
            value !== media.alt &&
            acts.set(
              (element) => (element.kind === "media" ? { ...element, alt: value } : element),
              `Described a ${media.type === "video" ? "film" : "sound"}`,
            )
          }
        />
      </label>
    </fieldset>
  );
}

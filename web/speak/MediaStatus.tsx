import type { Heard } from "./hall";

/** The state of a film or sound to be played in the hall. */
export function MediaStatus({ heard, called }: { heard: Heard["state"] | "nothing" | undefined; called: string }) {
  if (heard === "nothing")
    return (
      <p role="alert" className="border-warning border-l-4 px-3 py-1 text-sm">
        No hall's window has answered, so the {called} is not to be heard. Open the hall's window, then play it again.
      </p>
    );
  if (heard === "blocked")
    return (
      <p role="alert" className="border-warning border-l-4 px-3 py-1 text-sm">
        The hall's window does not play the {called}: its browser wants a click in that window first, or cannot read the
        file. Click there once, then play it again.
      </p>
    );
  return (
    <p role="status" className="quiet text-sm">
      {heard === "plays" ? `The ${called} plays in the hall.` : `The ${called} is about to play in the hall.`}
    </p>
  );
}

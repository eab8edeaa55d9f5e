import type { Press } from "@unitext/server/api";

/** What the speaker's window tells the hall's: the slide to show, or a blank screen. */
export interface Shown {
  slide: string;
  /** The presses after which the slide is shown; everything on it when there is none. */
  step?: number;
  dark: boolean;
  /** The film or sound of the slide that plays. */
  playing?: string;
}

/**
 * The state of a film or sound in the hall: it plays, it ended, or the browser requires a click in the hall's window
 * first.
 */
export interface Heard {
  element: string;
  state: "plays" | "ended" | "blocked";
}

/** A place on the slide, as shares of its width and height. */
export type Spot = readonly [x: number, y: number];

/** What the speaker points at and draws on the slide; gone with the slide. */
export interface Ink {
  pointer?: Spot | undefined;
  strokes: readonly (readonly Spot[])[];
}
export const NO_INK: Ink = { strokes: [] };

type Message =
  | { kind: "show"; shown: Shown }
  | { kind: "ask" }
  | { kind: "heard"; heard: Heard }
  | { kind: "ink"; ink: Ink }
  | { kind: "press"; press: Press };

interface Listeners {
  show?: (shown: Shown) => void;
  ask?: () => void;
  heard?: (heard: Heard) => void;
  ink?: (ink: Ink) => void;
  press?: (press: Press) => void;
}

/** The connection between the windows of one talk, inside this browser. */
export class HallLine {
  private readonly channel: BroadcastChannel;
  constructor(deck: string) {
    this.channel = new BroadcastChannel(`unitext:speak:${deck}`);
  }
  private send(message: Message): void {
    this.channel.postMessage(message);
  }
  show(shown: Shown): void {
    this.send({ kind: "show", shown });
  }
  /** Asks the speaker's window what to show. */
  ask(): void {
    this.send({ kind: "ask" });
  }
  /** Tells the speaker's window the state of a film or sound. */
  tell(heard: Heard): void {
    this.send({ kind: "heard", heard });
  }
  /** Shows in the hall what is pointed at and drawn. */
  ink(ink: Ink): void {
    this.send({ kind: "ink", ink });
  }
  /** Tells the speaker's window what was pressed in the hall's. */
  press(press: Press): void {
    this.send({ kind: "press", press });
  }
  listen(on: Listeners): void {
    this.channel.onmessage = ({ data }: MessageEvent<Message>) => {
      if (data.kind === "show") on.show?.(data.shown);
      else if (data.kind === "heard") on.heard?.(data.heard);
      else if (data.kind === "ink") on.ink?.(data.ink);
      else if (data.kind === "press") on.press?.(data.press);
      else on.ask?.();
    };
  }
  close(): void {
    this.channel.close();
  }
}

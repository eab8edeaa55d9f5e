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

type Message = { kind: "show"; shown: Shown } | { kind: "ask" } | { kind: "heard"; heard: Heard };

/** The connection between the windows of one talk, inside this browser. */
export class HallLine {
  private readonly channel: BroadcastChannel;
  constructor(deck: string) {
    this.channel = new BroadcastChannel(`unitext:speak:${deck}`);
  }
  show(shown: Shown): void {
    this.channel.postMessage({ kind: "show", shown } satisfies Message);
  }
  /** Asks the speaker's window what to show. */
  ask(): void {
    this.channel.postMessage({ kind: "ask" } satisfies Message);
  }
  /** Tells the speaker's window the state of a film or sound. */
  tell(heard: Heard): void {
    this.channel.postMessage({ kind: "heard", heard } satisfies Message);
  }
  listen(on: { show?: (shown: Shown) => void; ask?: () => void; heard?: (heard: Heard) => void }): void {
    this.channel.onmessage = ({ data }: MessageEvent<Message>) => {
      if (data.kind === "show") on.show?.(data.shown);
      else if (data.kind === "heard") on.heard?.(data.heard);
      else on.ask?.();
    };
  }
  close(): void {
    this.channel.close();
  }
}

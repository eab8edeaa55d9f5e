/** What the speaker's window tells the hall's: the slide to show, or darkness. */
export interface Shown {
  slide: string;
  /** After how many presses the slide is shown; with all that is on it where it is not said. */
  step?: number;
  dark: boolean;
  /** The film or sound of the slide that plays. */
  playing?: string;
}

/** What became of a film or sound in the hall: it plays, it came to its end, or the browser wants a click in the hall's window before it plays. */
export interface Heard {
  element: string;
  state: "plays" | "ended" | "blocked";
}

type Message = { kind: "show"; shown: Shown } | { kind: "ask" } | { kind: "heard"; heard: Heard };

/** The line between the windows of one talk, inside this browser. */
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
  /** Tells the speaker's window what became of a film or sound. */
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

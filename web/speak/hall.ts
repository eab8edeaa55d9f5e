/** What the speaker's window tells the hall's: the slide to show, or darkness. */
export interface Shown {
  slide: string;
  /** After how many presses the slide is shown; with all that is on it where it is not said. */
  step?: number;
  dark: boolean;
}

type Message = { kind: "show"; shown: Shown } | { kind: "ask" };

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
  listen(on: { show?: (shown: Shown) => void; ask?: () => void }): void {
    this.channel.onmessage = ({ data }: MessageEvent<Message>) => {
      if (data.kind === "show") on.show?.(data.shown);
      else on.ask?.();
    };
  }
  close(): void {
    this.channel.close();
  }
}

import { apply, type Change, says, singles } from "@unitext/core/edit";
import { cutText, type Deck } from "@unitext/core/model";
import { ChangeReply, ChangesSince, DeckState, LoggedChange, type SentChange, Steps } from "@unitext/server/api";
import { nanoid } from "nanoid";
import { get, post, Refused, Unreachable } from "../api/client";

export type SaveStatus = "saved" | "saving" | "waiting" | "refused";

/** What was done last, for the line that offers to undo it. */
export interface Said {
  text: string;
  undo: boolean;
  serial: number;
}

export interface DeckView {
  deck: Deck;
  version: number;
  text: string | null;
  canEdit: boolean;
  status: SaveStatus;
  said: Said | undefined;
  canUndo: boolean;
  canRedo: boolean;
}

interface Step {
  /** The id of the act, by which the log knows what was taken back. */
  id: string;
  change: Change;
  says: string;
  /** The text that the deck was made from before. */
  text: string | null;
}

/** Changes that follow each other closely are sent together, after this many milliseconds; the outbox has them at once. */
const SOON = 100;

/** Lets the page draw and answer before it goes on. */
const aBreath = () => new Promise<void>((resolve) => setTimeout(resolve));

const outboxKey = (deck: string) => `unitext:outbox:${deck}`;

interface Outbox {
  base: number;
  changes: SentChange[];
}

/** Changes that were made here and are not known to be committed; they outlive the page. */
export function readOutbox(deck: string): Outbox | undefined {
  try {
    const kept = localStorage.getItem(outboxKey(deck));
    return kept ? (JSON.parse(kept) as Outbox) : undefined;
  } catch {
    return undefined;
  }
}

function writeOutbox(deck: string, outbox: Outbox): void {
  try {
    if (outbox.changes.length) localStorage.setItem(outboxKey(deck), JSON.stringify(outbox));
    else localStorage.removeItem(outboxKey(deck));
  } catch {
    // The browser's storage is full or closed: the changes are still sent, they only do not outlive the page.
  }
}

/**
 * A deck open in the page: applies changes at once, sends them in order, keeps them until the server has committed
 * them, takes in what others change, and holds the steps to undo and redo.
 */
export class DeckSession {
  private pending: SentChange[] = [];
  private sending: SentChange[] = [];
  private undos: Step[] = [];
  private redos: Step[] = [];
  private listeners = new Set<() => void>();
  private serial = 0;
  /** Whether earlier sessions left more steps than are known here. */
  private more = false;
  private retry = 0;
  private view: DeckView;
  private events: EventSource | undefined;
  private catching = false;
  /** The newest version that the server told of. */
  private announced = 0;

  private constructor(state: DeckState) {
    this.view = { deck: state.deck, version: state.version, text: state.text, canEdit: state.right === "edit" || state.right === "own", status: "saved", said: undefined, canUndo: false, canRedo: false };
  }

  /** Opens a deck: what is left in the outbox of an earlier page is sent first. Throws Refused or Unreachable. */
  static async open(id: string): Promise<DeckSession> {
    const left = readOutbox(id);
    let replay: SentChange[] = [];
    if (left?.changes.length) {
      try {
        await post(`/decks/${id}/changes`, left, ChangeReply);
        writeOutbox(id, { base: 0, changes: [] });
      } catch (error) {
        if (error instanceof Unreachable) throw error;
        if (error instanceof Refused && error.status === 409) replay = left.changes;
        writeOutbox(id, { base: 0, changes: [] });
      }
    }
    const session = new DeckSession(await get(`/decks/${id}`, DeckState));
    if (replay.length) session.replay(replay);
    session.listen();
    void session.remember();
    return session;
  }

  /** Takes up the steps of earlier sessions, so that they can be taken back too. */
  private async remember(): Promise<void> {
    if (!this.view.canEdit) return;
    const known = this.undos.length;
    try {
      const { undo, redo, more } = await get(`/decks/${this.view.deck.id}/steps?skip=${this.undos.length}`, Steps);
      // What a text made is taken back with its text, which the log does not hold.
      const made = ({ change }: { change: Change }) => singles(change).some((one) => one.kind === "setSource" || one.kind === "setManuscript" || (one.kind === "insertSlide" && one.slide.source) || (one.kind === "deleteSlide" && this.view.deck.manuscript));
      const end = this.view.deck.manuscript ? undo.findIndex(made) : -1;
      const steps = (end < 0 ? undo : undo.slice(0, end)).map((step): Step => ({ ...step, text: null }));
      this.more = more && end < 0;
      const here = new Set([...this.undos, ...this.redos].map(({ id }) => id));
      this.undos.unshift(...steps.filter(({ id }) => !here.has(id)).reverse());
      if (known === 0 && !this.redos.length && !(this.view.deck.manuscript && redo.some(made))) this.redos = redo.map((step): Step => ({ ...step, text: null })).reverse();
      this.set({});
    } catch {
      // Without them only this session's steps can be taken back.
    }
  }
  private listen(): void {
    this.events = new EventSource(`/api/decks/${this.view.deck.id}/events`);
    this.events.onmessage = ({ data }) => {
      this.announced = Math.max(this.announced, Number(data));
      if (this.announced > this.view.version) void this.catchUp();
    };
    window.addEventListener("online", this.send);
    window.addEventListener("pagehide", this.leave);
  }

  private closed = false;
  close(): void {
    this.closed = true;
    this.events?.close();
    window.removeEventListener("online", this.send);
    window.removeEventListener("pagehide", this.leave);
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  readonly snapshot = (): DeckView => this.view;

  private set(next: Partial<DeckView>): void {
    this.view = { ...this.view, ...next, canUndo: this.undos.length > 0, canRedo: this.redos.length > 0 };
    for (const listener of this.listeners) listener();
  }

  /** Says a line to the person; with `undo` it offers to take the last act back. */
  say(text: string, undo = false): void {
    this.serial += 1;
    this.set({ said: { text, undo, serial: this.serial } });
  }

  hush(): void {
    this.set({ said: undefined });
  }

  /** Applies a change and sends it. `text` is what Write shows for the deck after it; `quiet` says nothing. Returns whether it was taken. */
  apply(change: Change, { text, quiet = false, words }: { text?: string; quiet?: boolean; words?: string } = {}): boolean {
    if (!this.view.canEdit) {
      this.say("This deck was shared with you to look at; ask its owner for the right to change it.");
      return false;
    }
    const said = words ?? says(change);
    const before = this.view.text;
    const id = nanoid(16);
    const inverse = this.take(change, text, { id, says: cutText(said, 500) });
    if (!inverse) return false;
    this.undos.push({ id, change: inverse, says: said, text: before });
    this.redos = [];
    if (quiet) this.set({});
    else this.say(said, true);
    return true;
  }

  /** The text beside a deck: what came with the change; else that of its document stays, and a typed one is of an older deck. */
  private textAfter(deck: Deck, text: string | undefined): string | null {
    return text ?? (deck.manuscript ? this.view.text : null);
  }

  private take(change: Change, text: string | undefined, sent: Pick<SentChange, "id" | "says" | "undoes" | "redoes">): Change | undefined {
    try {
      const applied = apply(this.view.deck, change);
      this.pending.push({ ...sent, change, ...(text === undefined ? {} : { text }) });
      this.set({ deck: applied.deck, text: this.textAfter(applied.deck, text), status: "saving" });
      this.keep();
      this.soon ??= setTimeout(this.send, SOON);
      return applied.inverse;
    } catch (error) {
      this.say(error instanceof Error ? error.message : "This could not be done.");
      return undefined;
    }
  }

  undo(): void {
    const step = this.undos.pop();
    if (!step) return;
    const { text } = this.view;
    const back = this.take(step.change, step.text ?? undefined, { id: nanoid(16), says: `Undone: ${step.says}`.slice(0, 500), undoes: step.id });
    if (back) this.redos.push({ id: step.id, change: back, says: step.says, text });
    if (this.more && this.undos.length < 5) void this.remember();
    if (back) this.say(`Undone: ${step.says.toLowerCase()}`);
  }

  redo(): void {
    const step = this.redos.pop();
    if (!step) return;
    const { text } = this.view;
    const back = this.take(step.change, step.text ?? undefined, { id: nanoid(16), says: `Done again: ${step.says}`.slice(0, 500), redoes: step.id });
    if (back) this.undos.push({ id: step.id, change: back, says: step.says, text });
    if (back) this.say(`Done again: ${step.says.toLowerCase()}`);
  }

  private keep(): void {
    writeOutbox(this.view.deck.id, { base: this.view.version, changes: [...this.sending, ...this.pending] });
  }

  /** Whether everything done here is committed. */
  get settled(): boolean {
    return this.pending.length === 0 && this.sending.length === 0;
  }

  private soon: ReturnType<typeof setTimeout> | undefined;
  private readonly send = async (): Promise<void> => {
    clearTimeout(this.soon);
    this.soon = undefined;
    if (this.sending.length || !this.pending.length) return;
    this.sending = this.pending.splice(0, 200);
    try {
      const reply = await post(`/decks/${this.view.deck.id}/changes`, { base: this.view.version, changes: this.sending }, ChangeReply);
      this.sending = [];
      this.retry = 0;
      let { deck } = this.view;
      for (const { change } of reply.others) deck = apply(deck, change).deck;
      this.set({ deck, version: reply.version, status: this.pending.length ? "saving" : "saved" });
      this.keep();
      void this.send();
    } catch (error) {
      if (error instanceof Refused && error.status === 409 && error.body?.state) {
        const again = [...this.sending, ...this.pending];
        this.sending = [];
        this.pending = [];
        const { deck, version, text } = error.body.state;
        this.set({ deck, version, text });
        this.replay(again);
      } else if (error instanceof Refused && error.status < 500) {
        this.sending = [];
        this.pending = [];
        this.keep();
        this.set({ status: "refused" });
        await this.reload();
        this.say(`The change was not taken: ${error.message}`);
      } else {
        this.pending = [...this.sending, ...this.pending];
        this.sending = [];
        this.set({ status: "waiting" });
        this.retry = Math.min(this.retry + 1, 6);
        setTimeout(this.send, 250 * 2 ** this.retry);
      }
    }
  };

  /** Puts changes on the state that the server gave; those that no longer apply are left out, and that is said. */
  private replay(changes: readonly SentChange[]): void {
    let lost = 0;
    let { deck } = this.view;
    for (const item of changes) {
      try {
        deck = apply(deck, item.change).deck;
        this.pending.push(item);
      } catch {
        lost += 1;
      }
    }
    this.undos = [];
    this.redos = [];
    this.set({ deck, text: this.textAfter(deck, undefined), status: this.pending.length ? "saving" : "saved" });
    this.keep();
    this.say(lost ? `Somebody else changed the same thing: ${lost} of your changes could not be put on top of theirs.` : "Somebody else changed the same thing; your change is now on top of theirs.");
    void this.send();
  }

  private async reload(keepSteps = false): Promise<void> {
    const { deck, version, text } = await get(`/decks/${this.view.deck.id}`, DeckState);
    if (!this.settled) return;
    if (!keepSteps) {
      this.undos = [];
      this.redos = [];
    }
    this.set({ deck, version, text, status: "saved" });
  }

  /** Resolves when all that the server has by now is here, or the deck is closed. */
  async upToDate(): Promise<void> {
    while (!this.closed && !(await this.catchUp())) await new Promise((resolve) => setTimeout(resolve, 150));
  }

  /** Takes in what others changed, when nothing of ours is on its way. Returns whether it is all here. */
  private async catchUp(): Promise<boolean> {
    if (this.catching || !this.settled) return false;
    this.catching = true;
    let whole = false;
    try {
      const { version, changes } = await get(`/decks/${this.view.deck.id}/changes?since=${this.view.version}`, ChangesSince);
      for (const given of changes) {
        await aBreath();
        const { version: own, change } = LoggedChange.parse(given);
        await aBreath();
        if (!this.settled) return false;
        const { deck } = apply(this.view.deck, change);
        // Of a document the text may be another now; slides and pictures that are only added say nothing of it.
        const grown = change.kind === "batch" && change.changes.every(({ kind }) => kind === "insertSlide" || kind === "setAsset");
        if (deck.manuscript && !(grown && this.view.text !== null)) {
          await this.reload(true);
          break;
        }
        this.set({ deck, version: own, text: this.textAfter(deck, undefined) });
      }
      whole = this.view.version >= version;
    } catch {
      // What came does not fit what is here: the deck is asked for as it is. Without a server the next announcement tries again; of a deck that is gone nothing more comes.
      whole = await this.reload(true).then(() => this.settled, (error: unknown) => error instanceof Refused);
    } finally {
      this.catching = false;
    }
    // More came while this was taken in.
    if (this.announced > this.view.version && this.settled) setTimeout(() => void this.catchUp(), 150);
    return whole;
  }

  /** The page goes away: what is not acknowledged is sent once more, and stays in the outbox besides. */
  private readonly leave = (): void => {
    const changes = [...this.sending, ...this.pending];
    if (!changes.length) return;
    const body = JSON.stringify({ base: this.view.version, changes });
    if (body.length < 60000) void fetch(`/api/decks/${this.view.deck.id}/changes`, { method: "POST", keepalive: true, headers: { "content-type": "application/json" }, body });
  };
}

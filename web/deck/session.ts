import {
  type Change,
  integrate,
  rebaseOwn,
  openReplica,
  applyOwn,
  type Integrated,
  type LogEntry,
  type Replica,
  describeChange,
  keepingSourceList,
  inverseNow,
  isCommentChange,
  singles,
  textChanges,
} from "@unitext/core/edit";
import { cutText, type Deck, wellFormed } from "@unitext/core/model";
import { BIN_NEWS, DeckState, LoggedChange, RIGHTS_NEWS, type SentChange, ViewedDeck } from "@unitext/server/api";
import { nanoid } from "nanoid";
import { get, Refused, remove } from "../api/client";
import { changesSince, sendChanges, sendWhileLeaving, unlogged } from "./changelog";
import { conflictNotice, onlyAdds } from "./conflicts";
import { nextTask } from "../ui/time";
import { DeckPresence, speakerIn, type Whereabouts } from "./presence";
import { StepHistory } from "./steps";
import { type DeckView, type Step, ViewStore } from "./view";
import { PageOutbox, type SetAside, setAsideOf, writeAside } from "./outbox";

export type { DeckView, Notice, SaveStatus } from "./view";

/** Changes within this many milliseconds are sent together; the outbox has them at once. */
const SEND_DELAY = 100;

/** The most changes in one request. */
const BATCH = 200;

/** How often the server may refuse the same changes as outdated before they are sent one by one. */
const CONFLICTS = 3;

/**
 * A deck open in the page: applies changes at once, sends them in order, keeps them until the server has committed
 * them, takes in others' changes, and holds the steps to undo and redo.
 */
export class DeckSession extends ViewStore {
  private replica: Replica<SentChange>;
  /** The number of pending changes on their way. */
  private inFlight = 0;
  /** How often the first pending changes were refused in a row; with `isolate` they are sent one by one. */
  private refusals = 0;
  private isolate = false;
  /** The right to edit was withdrawn, or the deck was deleted: pending changes stay here and are not sent again. */
  private blocked = false;
  private readonly steps = new StepHistory();
  private retry = 0;
  private events: EventSource | undefined;
  private presence: DeckPresence | undefined;
  private catching = false;
  /** The newest version that the server announced. */
  private announced = 0;
  private readonly outbox: PageOutbox;
  /** The id of whoever has opened it. */
  readonly user: string | undefined;

  private constructor(state: DeckState) {
    super(state);
    this.user = state.user;
    this.outbox = new PageOutbox(state.deck.id, nanoid(8), state.user);
    this.replica = openReplica(state.deck, state.version);
  }

  /**
   * Opens a deck and sends what earlier pages could not send. Throws Refused or Unreachable, and leaves what waits
   * where it is.
   */
  static async open(id: string): Promise<DeckSession> {
    const session = new DeckSession(await get(`/decks/${id}`, DeckState));
    await session.adopt();
    session.listen();
    void session.remember();
    return session;
  }

  /** Takes over what closed pages have not sent. */
  private async adopt(): Promise<void> {
    const { outboxes, damaged, taken } = await this.outbox.adopt();
    this.setAside(damaged);
    const waiting = await unlogged(this.view.deck.id, this.replica.version, outboxes);
    if (waiting.length) this.take(rebaseOwn(this.replica, waiting, this.replica.committed));
    taken();
    if (waiting.length) void this.send();
  }

  /** Shows a replica, and what became of the page's own changes on it. */
  private take({ replica, inverses, adapted, refused }: Integrated<SentChange>, next: Partial<DeckView> = {}): void {
    const { deck } = replica;
    const changed = deck !== this.view.deck;
    this.replica = replica;
    this.steps.update(inverses, new Map(adapted.map(({ id, change }) => [id, change])));
    this.keep();
    this.set({
      deck,
      version: replica.version,
      ...(changed ? { text: this.textAfter(deck, undefined) } : {}),
      ...next,
    });
    this.setAside(refused.map(({ own, reason }) => setAsideOf(own, reason)));
    const lost = refused.map(({ own }) => own);
    // Texts that were put together are no news while two people write.
    const moved = adapted.filter(({ change }) => textChanges(change).length === 0);
    const notice = conflictNotice(lost, moved);
    if (notice) this.notify(notice);
  }

  /** Keeps changes that could not be saved, for the user to see and copy. */
  private setAside(list: readonly SetAside[]): void {
    if (!list.length) return;
    const known = new Set(this.view.aside.map(({ id }) => id));
    const all = [...this.view.aside, ...list.filter(({ id }) => !known.has(id))];
    writeAside(this.view.deck.id, all);
    this.steps.forget(list.map(({ id }) => id));
    this.set({ aside: all });
  }

  /** Forgets the changes that could not be saved. */
  forgetAside(): void {
    writeAside(this.view.deck.id, []);
    this.set({ aside: [] });
  }

  /** Loads the steps of earlier sessions, so that they can be undone too. */
  private async remember(): Promise<void> {
    if (!this.view.canEdit) return;
    try {
      await this.steps.load(this.view.deck);
      this.set({});
    } catch {
      // Without them, only this session's steps can be undone.
    }
  }

  /** Takes in what the server has changed for the user, so that it can be undone here. */
  async takeServerChange(): Promise<void> {
    await this.upToDate();
    try {
      await this.steps.reload(this.view.deck);
      this.set({});
    } catch {
      // Without them, only what is changed from now on can be undone.
    }
  }

  private listen(): void {
    this.events = new EventSource(`/api/decks/${this.view.deck.id}/events`);
    this.presence = new DeckPresence(this.view.deck.id, (others) => this.set({ others }));
    this.events.onmessage = ({ data }) => {
      if (this.presence?.take(String(data))) return;
      if (data === BIN_NEWS.binned || data === BIN_NEWS.restored) {
        this.set({ binned: data === BIN_NEWS.binned });
        return;
      }
      if (data === RIGHTS_NEWS) {
        void this.askRight();
        return;
      }
      this.announced = Math.max(this.announced, Number(data));
      if (this.announced > this.replica.version) void this.catchUp();
    };
    // A stream that does not come back was refused.
    this.events.onerror = () => {
      setTimeout(() => {
        if (!this.closed && this.events?.readyState === EventSource.CLOSED) void this.askRight();
      }, DeckSession.ASK_AFTER);
    };
    window.addEventListener("online", this.send);
    window.addEventListener("pagehide", this.leave);
  }

  /** How long the page waits after its stream ended before it asks why, in milliseconds. */
  private static readonly ASK_AFTER = 500;

  /** Asks what this page may do now. Without any right it says so, and keeps what it shows. */
  private async askRight(): Promise<void> {
    try {
      const { right, notes } = await get(`/decks/${this.view.deck.id}/look`, ViewedDeck);
      const canEdit = (right === "edit" || right === "own") && !this.blocked;
      if (right === this.view.right && notes && canEdit === this.view.canEdit) return;
      this.set({ right, canEdit, withheld: !notes });
      this.notify(canEdit ? "You may edit this deck now." : "What you may do in this deck has changed.");
    } catch (error) {
      if (!(error instanceof Refused)) return;
      this.blocked = true;
      this.set({ canEdit: false, withheld: true });
      this.notify("This deck is not shared with you any more. What you did and is not saved is kept in this browser.");
      this.setAside(this.replica.pending.map((own) => setAsideOf(own, error.message)));
    }
  }

  /** Takes the deck out of the bin. Says so where that is refused. */
  async restore(): Promise<void> {
    try {
      await remove(`/decks/${this.view.deck.id}/bin`);
      this.set({ binned: false });
    } catch (error) {
      this.notify((error as Error).message);
    }
  }

  /** Tells the others where this page is. */
  move(next: Partial<Whereabouts>): void {
    this.presence?.move(next);
  }

  private closed = false;
  close(): void {
    this.closed = true;
    this.presence?.close();
    this.events?.close();
    this.outbox.close();
    window.removeEventListener("online", this.send);
    window.removeEventListener("pagehide", this.leave);
  }

  protected override set(next: Partial<DeckView>): void {
    super.set({ ...next, canUndo: this.steps.canUndo, canRedo: this.steps.canRedo });
  }

  /**
   * Applies a change and sends it. `text` is what Write shows for the deck afterwards; `quiet` shows no notice. Returns
   * whether it was applied.
   */
  apply(
    change: Change,
    { text, quiet = false, words }: { text?: string; quiet?: boolean; words?: string } = {},
  ): boolean {
    const speaker = speakerIn(this.view.others);
    if (speaker) {
      this.notify(`${speaker.name} speaks from this deck, and asked that it stays as it is until then.`);
      return false;
    }
    if (!this.view.canEdit && !(this.canComment && singles(change).every(isCommentChange))) {
      this.notify("This deck was shared with you to look at; ask its owner for the right to change it.");
      return false;
    }
    const description = words ?? describeChange(change);
    const before = this.view.text;
    const id = nanoid(16);
    const whole = this.withSourceList(change);
    const inverse = this.add(whole, text, { id, description: cutText(description, 500) });
    if (!inverse) return false;
    this.steps.add({ id, sent: id, change: inverse, made: textChanges(whole), description, text: before });
    if (quiet) this.set({});
    else this.notify(description, true);
    return true;
  }

  /** Whether this person may comment, also without changing anything else. */
  get canComment(): boolean {
    return !this.blocked && ["comment", "edit", "own"].includes(this.view.right);
  }

  /** Returns a change with what keeps the deck's list of sources right; one that does not fit is returned as it is. */
  private withSourceList(change: Change): Change {
    try {
      return keepingSourceList(this.view.deck, change);
    } catch {
      return change;
    }
  }

  /**
   * Returns the text beside a deck: the one that came with the change; else that of its document stays, while a typed
   * one is outdated.
   */
  private textAfter(deck: Deck, text: string | undefined): string | null {
    return text ?? (deck.manuscript ? this.view.text : null);
  }

  /** Applies a change on top and queues it. Returns its inverse; undefined when it does not fit. */
  private add(
    given: Change,
    typed: string | undefined,
    sent: Pick<SentChange, "id" | "description" | "undoes" | "redoes">,
  ): Change | undefined {
    const [change, text] = [wellFormed(given), wellFormed(typed)];
    try {
      const { replica, inverse } = applyOwn(this.replica, { ...sent, change, ...(text === undefined ? {} : { text }) });
      this.replica = replica;
      this.set({
        deck: replica.deck,
        text: this.textAfter(replica.deck, text),
        status: this.blocked ? "refused" : "saving",
      });
      this.keep();
      this.soon ??= setTimeout(this.send, SEND_DELAY);
      return inverse;
    } catch (error) {
      this.notify(error instanceof Error ? error.message : "This could not be done.");
      return undefined;
    }
  }

  undo(): void {
    const step = this.steps.takeUndo();
    if (!step) return;
    const back = this.walk(step, "Undone", { undoes: step.id });
    if (back) this.steps.addRedo(back);
    if (this.steps.needsMore) void this.remember();
    if (back) this.notify(`Undone: ${step.description.toLowerCase()}`);
  }

  redo(): void {
    const step = this.steps.takeRedo();
    if (!step) return;
    const back = this.walk(step, "Done again", { redoes: step.id });
    if (back) this.steps.addUndo(back);
    if (back) this.notify(`Done again: ${step.description.toLowerCase()}`);
  }

  /** Applies a step and returns the step that takes it back; undefined when it does not fit. */
  private walk(step: Step, words: string, link: Pick<SentChange, "undoes" | "redoes">): Step | undefined {
    const { text, deck } = this.view;
    const sent = nanoid(16);
    let change: Change;
    try {
      change = inverseNow(step.change, step.made, deck);
    } catch (error) {
      this.notify(`${(error as Error).message} Nothing was changed.`);
      return undefined;
    }
    const back = this.add(change, change === step.change ? (step.text ?? undefined) : undefined, {
      id: sent,
      description: cutText(`${words}: ${step.description}`, 500),
      ...link,
    });
    return back && { id: step.id, sent, change: back, made: textChanges(change), description: step.description, text };
  }

  /** Keeps pending changes in the browser until the server has committed them. */
  private keep(): void {
    this.outbox.write({ base: this.replica.version, changes: [...this.replica.pending] });
  }

  /** Whether everything done here is committed. */
  get settled(): boolean {
    return this.replica.pending.length === 0;
  }

  private soon: ReturnType<typeof setTimeout> | undefined;
  private readonly send = async (): Promise<void> => {
    clearTimeout(this.soon);
    this.soon = undefined;
    const { pending, version } = this.replica;
    if (this.inFlight || !pending.length || this.blocked) return;
    const batch = pending.slice(0, this.isolate ? 1 : BATCH);
    this.inFlight = batch.length;
    try {
      const reply = await sendChanges(this.view.deck.id, { base: version, changes: batch });
      this.inFlight = 0;
      this.retry = 0;
      this.refusals = 0;
      this.isolate = false;
      const taken = integrate(this.replica, reply.changes as LogEntry[]);
      this.take(
        { ...taken, replica: { ...taken.replica, version: reply.version } },
        { status: taken.replica.pending.length ? "saving" : "saved" },
      );
      void this.send();
    } catch (error) {
      this.inFlight = 0;
      await this.refused(error, batch);
    }
  };

  /**
   * Handles a failed request: changes stay in the outbox until the server has taken them, or until it is certain that
   * it never will.
   */
  private async refused(error: unknown, batch: readonly SentChange[]): Promise<void> {
    if (!(error instanceof Refused) || error.status >= 500 || error.status === 429 || error.status === 408) {
      this.set({ status: "waiting" });
      // A full disk or a limit is reported once; a missing network shows in the status alone.
      if (error instanceof Refused && this.retry === 0) this.notify(error.message);
      this.retry = Math.min(this.retry + 1, 6);
      setTimeout(this.send, 250 * 2 ** this.retry);
      return;
    }
    // Signed out: what waits is sent after signing in again.
    if (error.status === 401) return this.set({ status: "waiting" });
    if (error.status === 403 || error.status === 404) {
      this.blocked = true;
      this.set({ status: "refused", canEdit: false });
      this.notify(`${error.message} What you did since is kept in this browser.`);
      this.setAside(this.replica.pending.map((own) => setAsideOf(own, error.message)));
      return;
    }
    this.refusals += 1;
    const stale = error.status === 409 && this.refusals <= CONFLICTS;
    if (stale && (await this.caughtUp(error))) return void this.send();
    if (batch.length > 1) this.isolate = true;
    else {
      // This change can never be taken: it is set aside, and later ones go on.
      const [own] = batch as [SentChange];
      this.setAside([setAsideOf(own, error.message)]);
      this.refusals = 0;
      const later = this.replica.pending.filter(({ id }) => id !== own.id);
      this.take(rebaseOwn(this.replica, later, this.replica.committed), { status: "saving" });
      if (this.settled) this.set({ status: "saved" });
      this.notify(`“${own.description ?? "A change"}” could not be saved: ${error.message}`);
    }
    void this.send();
  }

  /** Takes in what others committed, from a refusal or from the log. Returns whether it was available. */
  private async caughtUp(error: Refused): Promise<boolean> {
    try {
      const { changes } = await changesSince(this.view.deck.id, this.replica.version);
      if (changes.length) {
        const log = changes.map((entry) => LoggedChange.parse(entry));
        this.onTopOfTheirs(integrate(this.replica, log));
        return true;
      }
      const state = error.body?.state;
      if (!state) return false;
      this.onTopOfTheirs(
        rebaseOwn({ version: state.version, committed: state.deck }, this.replica.pending, this.replica.committed),
      );
      return true;
    } catch {
      this.set({ status: "waiting" });
      return false;
    }
  }

  private onTopOfTheirs(taken: Integrated<SentChange>): void {
    this.take(taken, { status: taken.replica.pending.length ? "saving" : "saved" });
    if (!taken.refused.length && !taken.adapted.length)
      this.notify("Somebody else changed the same thing; your change is now on top of theirs.");
    else if (!taken.refused.length && taken.adapted.every(({ change }) => textChanges(change).length > 0))
      this.notify("Somebody else wrote in the same text; both your words and theirs are in it.");
  }

  /** Loads the deck as it is, and applies pending changes on top. */
  private async reload(): Promise<void> {
    const { deck, version, text } = await get(`/decks/${this.view.deck.id}`, DeckState);
    if (this.inFlight) return;
    this.take(
      rebaseOwn({ version, committed: deck }, this.replica.pending, this.replica.committed),
      this.settled ? { text, status: "saved" } : {},
    );
  }

  /** Resolves when everything that the server has now is here, or the deck is closed. */
  async upToDate(): Promise<void> {
    while (!this.closed && !(await this.catchUp())) await nextTask(150);
  }

  /** Takes in others' changes when none of ours is on its way. Returns whether everything is here. */
  private async catchUp(): Promise<boolean> {
    if (this.catching || this.inFlight) return false;
    this.catching = true;
    let whole = false;
    try {
      const { version, changes } = await changesSince(this.view.deck.id, this.replica.version);
      for (const given of changes) {
        await nextTask();
        const entry = LoggedChange.parse(given);
        await nextTask();
        if (this.inFlight) return false;
        const taken = integrate(this.replica, [entry]);
        // The text of a document may have changed; slides and pictures that are only added say nothing of it.
        const grown = onlyAdds(entry.change);
        if (taken.replica.committed.manuscript && !(grown && this.view.text !== null)) {
          await this.reload();
          break;
        }
        this.take(taken);
      }
      whole = this.replica.version >= version;
    } catch {
      // The log does not continue what is here: the deck is loaded again. Without a server, the next announcement tries
      // again; of a deleted deck nothing more comes.
      whole = await this.reload().then(
        () => !this.inFlight,
        (error: unknown) => error instanceof Refused,
      );
    } finally {
      this.catching = false;
    }
    // More arrived meanwhile.
    if (this.announced > this.replica.version && !this.inFlight && !this.closed)
      setTimeout(() => void this.catchUp(), 150);
    return whole;
  }

  /** The page is closing: unacknowledged changes are sent once more, and stay in the outbox. */
  private readonly leave = (): void => {
    const { pending, version } = this.replica;
    this.presence?.close();
    if (pending.length && !this.blocked)
      sendWhileLeaving(this.view.deck.id, { base: version, changes: pending.slice(0, BATCH) });
  };
}

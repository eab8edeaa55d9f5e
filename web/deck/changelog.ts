import { ChangeReply, ChangesSince, type LoggedChange, type SentChange } from "@unitext/server/api";
import { get, post } from "../api/client";

/** Own changes in their order, and the version that they were made on. */
export interface Waiting {
  base: number;
  changes: readonly SentChange[];
}

/** The most bytes that a browser sends for a page that is closing. */
const KEEPALIVE = 60_000;

/** Returns what was committed after a version. Throws Refused or Unreachable. */
export const changesSince = (deck: string, version: number): Promise<ChangesSince> =>
  get(`/decks/${deck}/changes?since=${version}`, ChangesSince);

/** Sends changes; the answer has what others committed meanwhile. Throws Refused or Unreachable. */
export const sendChanges = (deck: string, waiting: Waiting): Promise<ChangeReply> =>
  post(`/decks/${deck}/changes`, waiting, ChangeReply);

/** Sends changes of a page that is closing, if they are few; nobody hears the answer. */
export function sendWhileLeaving(deck: string, waiting: Waiting): void {
  const body = JSON.stringify(waiting);
  if (body.length < KEEPALIVE)
    void fetch(`/api/decks/${deck}/changes`, {
      method: "POST",
      keepalive: true,
      headers: { "content-type": "application/json" },
      body,
    });
}

/** Returns the changes of earlier pages that the log does not have: an acknowledgement may have been lost. */
export async function unlogged(deck: string, version: number, outboxes: readonly Waiting[]): Promise<SentChange[]> {
  const waiting: SentChange[] = [];
  for (const { base, changes } of outboxes) {
    const { changes: log } = await changesSince(deck, Math.min(base, version));
    const known = new Set(log.map((entry) => (entry as Partial<LoggedChange>).id));
    waiting.push(...changes.filter((change) => !known.has(change.id)));
  }
  return waiting;
}

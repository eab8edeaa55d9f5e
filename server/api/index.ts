import { Change } from "@unitext/core/edit";
import { Asset, BreakRule, Deck, Id, Language } from "@unitext/core/model";
import { Report } from "@unitext/core/tally";
import { z } from "zod";

/** The bodies that client and server exchange; both sides check with these schemas. */

/** A row of the Desk. */
export const DeckRow = z.object({
  id: Id,
  title: z.string(),
  language: Language,
  slides: z.number().int(),
  seconds: z.number(),
  withoutNotes: z.number().int(),
  version: z.number().int(),
  changedAt: z.iso.datetime(),
  right: z.enum(["view", "comment", "edit", "own"]),
});
export type DeckRow = z.infer<typeof DeckRow>;
export const DeckList = z.object({ decks: z.array(DeckRow) });

/** A deck with its version; `text` is what was typed in Write, as long as it is what the deck says. */
export const DeckState = z.object({ version: z.number().int().nonnegative(), deck: Deck, text: z.string().nullable(), right: DeckRow.shape.right });
export type DeckState = z.infer<typeof DeckState>;

export const NewDeck = z.object({ title: z.string().trim().max(500), text: z.string().max(20_000_000).optional() });
export type NewDeck = z.infer<typeof NewDeck>;

/** A file brought in: the deck that it became or becomes, what could not be taken as it was, and the job that makes its slides where that takes a while. */
export const Brought = z.object({ id: Id, report: Report.nullable(), job: Id.nullable() });
export type Brought = z.infer<typeof Brought>;

/** A change with an id of its own, so that one sent twice is taken once, and the text that it came from, if any. */
export const SentChange = z.object({ id: Id, change: Change, text: z.string().max(20_000_000).optional() });
export type SentChange = z.infer<typeof SentChange>;
/** Changes made on a version, in order; taken together or not at all. */
export const ChangeRequest = z.object({ base: z.number().int().nonnegative(), changes: z.array(SentChange).min(1).max(500) });
export type ChangeRequest = z.infer<typeof ChangeRequest>;

/** A change as the log holds it. */
export const LoggedChange = z.object({ version: z.number().int(), id: Id, change: Change });
export type LoggedChange = z.infer<typeof LoggedChange>;
/** The changes are committed: the version now, and those of others that came between. */
export const ChangeReply = z.object({ version: z.number().int(), others: z.array(LoggedChange) });
export type ChangeReply = z.infer<typeof ChangeReply>;
export const ChangesSince = z.object({ version: z.number().int(), changes: z.array(LoggedChange) });

/** Long work: how far it is, and what became of it. */
export const Job = z.object({
  id: Id,
  deck: Id.nullable(),
  kind: z.enum(["read"]),
  name: z.string(),
  state: z.enum(["waiting", "running", "done", "cancelled", "failed"]),
  slides: z.number().int(),
  page: z.number().int(),
  pages: z.number().int(),
  message: z.string().nullable(),
  report: Report.pick({ adapted: true, left: true }).nullable(),
  createdAt: z.iso.datetime(),
});
export type Job = z.infer<typeof Job>;
export const JobList = z.object({ jobs: z.array(Job) });

/** A document read for a deck that was made from an earlier version of it, or for its text: in the text form, with its pictures. */
export const DocumentText = z.object({ name: z.string(), text: z.string(), typed: z.boolean(), rule: BreakRule, assets: z.record(z.string(), Asset), problems: z.array(z.object({ line: z.number().int(), message: z.string() })) });
export type DocumentText = z.infer<typeof DocumentText>;

export const Picture = z.object({ name: z.string(), sha256: z.string(), mediaType: z.enum(["image/png", "image/jpeg"]), width: z.number().int(), height: z.number().int() });
export type Picture = z.infer<typeof Picture>;

/** Every refusal: a code, where it went wrong and a sentence. A conflict brings the state to go on from. */
export const ErrorBody = z.object({ error: z.object({ code: z.string(), where: z.string(), message: z.string() }), state: DeckState.optional() });
export type ErrorBody = z.infer<typeof ErrorBody>;

export const Me = z.object({ id: Id, name: z.string() });
export type Me = z.infer<typeof Me>;

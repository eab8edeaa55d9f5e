import { SplitPlan } from "@unitext/core/divide";
import { Change, SingleChange } from "@unitext/core/edit";
import { WRITABLE } from "@unitext/core/formats/catalogue";
import type { Sheets } from "@unitext/core/layout";
import { Asset, BreakRule, Deck, Id, Language, MEDIA_TYPES, PRIVATE_PARTS, PrivatePart } from "@unitext/core/model";
import { Report } from "@unitext/core/tally";
import { z } from "zod";
import { RIGHTS } from "../access";

/** The bodies that client and server exchange; both check them with these schemas. */

/** A row of the Desk. */
export const DeckRow = z.object({
  id: Id,
  title: z.string(),
  /** The name of the file that it was imported from, where that is not its title. */
  file: z.string().nullable(),
  language: Language,
  slides: z.number().int(),
  seconds: z.number(),
  withoutNotes: z.number().int(),
  version: z.number().int(),
  changedAt: z.iso.datetime(),
  right: z.enum(RIGHTS),
  /** Whether its notes are shared too; without them it opens in its viewer only. */
  notes: z.boolean(),
  /** The name of its owner, where that is somebody else. */
  owner: z.string().nullable(),
  /** Whether its slides were generated from a document. */
  generated: z.boolean(),
  folder: Id.nullable(),
  binnedAt: z.iso.datetime().nullable(),
});
export type DeckRow = z.infer<typeof DeckRow>;
export const Folder = z.object({ id: Id, name: z.string().trim().min(1).max(200) });
export type Folder = z.infer<typeof Folder>;
/** The decks and folders of the Desk, and what is in its bin. */
export const DeckList = z.object({ decks: z.array(DeckRow), binned: z.array(DeckRow), folders: z.array(Folder) });
export type DeckList = z.infer<typeof DeckList>;

export const FolderName = Folder.pick({ name: true });
export const DeckTitle = z.object({ title: z.string().trim().max(500) });
export const DeckFolder = z.object({ folder: Id.nullable() });

/** Slides whose words were searched for, best first. In `words` the found ones are between \u0002 and \u0003. */
export const Found = z.object({
  slides: z.array(z.object({ deck: Id, title: z.string(), slide: Id, number: z.number().int(), words: z.string() })),
});
export type Found = z.infer<typeof Found>;

/** What the speaker's window shows, for a phone: times in seconds. */
export const TalkState = z.object({
  slide: Id,
  next: Id.nullable(),
  step: z.number().int().nonnegative(),
  dark: z.boolean(),
  elapsed: z.number().nonnegative(),
  planned: z.number().nonnegative(),
  /** Whether the time runs. */
  running: z.boolean(),
});
export type TalkState = z.infer<typeof TalkState>;
/** What is pressed in the hall's window or on a phone. */
export const Press = z.union([
  z.enum(["forward", "back", "first", "last", "dark"]),
  z.object({ goTo: z.number().int().positive() }),
]);
export type Press = z.infer<typeof Press>;
export const Pressed = z.object({ press: Press });
/** News of a talk that a phone follows. */
export const TalkNews = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("state"), state: TalkState }),
  z.object({ kind: z.literal("press"), press: Press }),
  z.object({ kind: z.literal("ended") }),
]);
export type TalkNews = z.infer<typeof TalkNews>;
/** A link for a phone: its token, when it ends, and the addresses of this machine on its network. */
export const Remote = z.object({ token: z.string(), expiresAt: z.iso.datetime(), addresses: z.array(z.url()) });
export type Remote = z.infer<typeof Remote>;

/** What the stream of a deck says when it is put into the bin, and when it is taken out; else it says its version. */
export const BIN_NEWS = { binned: "binned", restored: "restored" } as const;
/** Where somebody is in a deck: the slide, and the text or element that they work on. */
export const Presence = z.object({
  /** The page of the browser, since one person may have several. */
  page: Id,
  slide: Id.nullable(),
  element: Id.nullable(),
  /** Where the caret is in the text, as a position of the editor. */
  at: z.number().int().nonnegative().nullable(),
  /** Whether this page has just come, so that the others say where they are. */
  isNew: z.boolean(),
  /** Whether this page is closed. */
  gone: z.boolean(),
  /** Whether this person speaks from the deck, and asks that it stays as it is meanwhile. */
  speaking: z.boolean(),
});
export type Presence = z.infer<typeof Presence>;
/** The same with who it is, as the stream of the deck says it after this word, in base64url. */
export const PresenceNews = Presence.extend({ user: Id, name: z.string() });
export type PresenceNews = z.infer<typeof PresenceNews>;
export const PRESENCE_NEWS = "who:";

/** What the stream of a deck says when the rights on it have changed: whoever listens asks what it may do now. */
export const RIGHTS_NEWS = "rights";

/** A deck with its version; `text` is what was typed in Write, as long as the deck says the same. */
export const DeckState = z.object({
  version: z.number().int().nonnegative(),
  deck: Deck,
  text: z.string().nullable(),
  right: DeckRow.shape.right,
  /** Who asked. */
  user: z.string().optional(),
  /** Whether it is in the bin. */
  binned: z.boolean(),
});
export type DeckState = z.infer<typeof DeckState>;

/** The deck of a talk, as a phone shows it. */
export const Talk = z.object({ deck: Deck, state: TalkState.nullable() });
export type Talk = z.infer<typeof Talk>;

export const NewDeck = z.object({ title: z.string().trim().max(500), text: z.string().max(20_000_000).optional() });
export type NewDeck = z.infer<typeof NewDeck>;

/** An imported file: its deck, what was changed or left out, and the job that reads it where that takes a while. */
export const ImportResult = z.object({ id: Id, report: Report.nullable(), job: Id.nullable() });
export type ImportResult = z.infer<typeof ImportResult>;

/** A change with an id, so that one sent twice is taken once, and the text that it came from, if any. */
export const SentChange = z.object({
  id: Id,
  change: Change,
  text: z.string().max(20_000_000).optional(),
  description: z.string().max(500).optional(),
  undoes: Id.optional(),
  redoes: Id.optional(),
});
export type SentChange = z.infer<typeof SentChange>;

/** Changes made on a version, in order; all are taken or none. */
export const ChangeRequest = z.object({
  base: z
    .number()
    .int()
    .nonnegative()
    .max(2 ** 31 - 1),
  changes: z
    .array(SentChange)
    .min(1)
    .max(500)
    .refine((list) => new Set(list.map(({ id }) => id)).size === list.length, "two changes have the same id"),
});
export type ChangeRequest = z.infer<typeof ChangeRequest>;

/** A change in the log. */
export const LoggedChange = z.object({ version: z.number().int(), id: Id, change: Change });
export type LoggedChange = z.infer<typeof LoggedChange>;

/**
 * The changes are committed: the new version, and the log since the version that they were made on, in order. The sent
 * changes come without their content.
 */
export const ChangeReply = z.object({
  version: z.number().int(),
  changes: z.array(LoggedChange.partial({ change: true })),
});
export type ChangeReply = z.infer<typeof ChangeReply>;

/**
 * The changes since a version. Each is a LoggedChange and is checked as it is taken in, so that many do not block the
 * page.
 */
export const ChangesSince = z.object({ version: z.number().int(), changes: z.array(z.unknown()) });
export type ChangesSince = z.infer<typeof ChangesSince>;

/**
 * An entry of a deck's history: what was done, by whom and when, and the name of the resulting state, if it has one.
 */
export const HistoryEntry = z.object({
  version: z.number().int(),
  user: z.string(),
  at: z.iso.datetime(),
  description: z.string(),
  undone: z.boolean(),
  name: z.string().nullable(),
});
export type HistoryEntry = z.infer<typeof HistoryEntry>;

/** A page of the history, the last entry first; `first` when there are no earlier ones. */
export const History = z.object({ version: z.number().int(), entries: z.array(HistoryEntry), first: z.boolean() });
export type History = z.infer<typeof History>;
export const VersionName = z.object({
  version: z.number().int().nonnegative(),
  name: z.string().trim().min(1).max(200),
});

/** A deck as it was at a version. */
export const DeckAt = z.object({ version: z.number().int().nonnegative(), deck: Deck });
export type DeckAt = z.infer<typeof DeckAt>;

const LoggedStep = z.object({
  id: Id,
  /** What takes it back. */
  change: Change,
  /** The texts that it wrote, so that taking it back leaves what others have written in them since. */
  made: z.array(SingleChange),
  description: z.string(),
});
/** Steps of the signed-in user that can be undone, the last first, and those that can be redone. */
export const Steps = z.object({
  undo: z.array(LoggedStep),
  redo: z.array(LoggedStep),
  more: z.boolean(),
});
export type Steps = z.infer<typeof Steps>;

export const SplitRequest = z.object({ plan: SplitPlan, date: z.string().max(40) });
export type SplitRequest = z.infer<typeof SplitRequest>;

/** A job that was accepted. */
export const Begun = z.object({ job: Id });
export const NamedVersions = z.object({
  versions: z.array(z.object({ version: z.number().int(), name: z.string(), user: z.string(), at: z.iso.datetime() })),
});

/** How each slide of a deck relates to each of its versions, and the slides that only these have. */
export const Differs = z.object({
  decks: z.array(z.object({ id: Id, title: z.string() })),
  rows: z.array(
    z.object({ slide: Id, number: z.number().int(), states: z.array(z.enum(["followed", "changed", "left", "own"])) }),
  ),
  own: z.array(z.array(Id)),
});
export type Differs = z.infer<typeof Differs>;
export const MergeRequest = z.object({
  decks: z
    .array(z.object({ id: Id, version: z.number().int().nonnegative(), slides: z.array(Id).max(20_000).optional() }))
    .min(1)
    .max(500),
  title: z.string().trim().max(500),
  appearance: z.enum(["match", "keep"]),
  sections: z.boolean(),
  contents: z.boolean(),
  openingsOnce: z.boolean(),
  /** Slides to leave out as duplicates, as `deck/slide`. */
  drop: z.array(z.string().max(200)).max(20_000),
});
export type MergeRequest = z.infer<typeof MergeRequest>;

/** The sheets by name, so that a page need not load the layout to check a request. */
const PAGES_SHOW = [
  "slides",
  "notes",
  "handout-2",
  "handout-3",
  "handout-6",
  "handout-9",
] as const satisfies readonly Sheets[];

/** Decks to write in each of some formats, as files of one archive, and what is taken out of them before. */
export const WriteRequest = z.object({
  decks: z.array(Id).min(1).max(500),
  formats: z.array(z.enum(WRITABLE)).min(1).max(WRITABLE.length),
  sheets: z.enum(PAGES_SHOW).optional(),
  without: z.array(PrivatePart).max(PRIVATE_PARTS.length).optional(),
});
export type WriteRequest = z.infer<typeof WriteRequest>;
export const TailorRequest = z.object({ title: z.string().trim().min(1).max(500) });

/** The versions of a deck that the signed-in user may see. */
export const Followers = z.object({ decks: z.array(z.object({ id: Id, title: z.string() })) });

/** The original of a version as it was when the version last took from it, and as it is now. */
export const OriginalStates = z.object({ base: Deck, now: Deck, version: z.number().int() });
export type OriginalStates = z.infer<typeof OriginalStates>;

/** The result of a job: decks, what became of the input, and what was repaired. */
export const JobResult = z.object({
  decks: z.array(z.object({ id: Id, title: z.string(), slides: z.number().int(), seconds: z.number() })),
  sentence: z.string(),
  rows: z.array(
    z.object({
      kind: z.string(),
      before: z.number(),
      carried: z.number(),
      adapted: z.number(),
      left: z.number(),
      open: z.number(),
      again: z.number(),
    }),
  ),
  remarks: z.array(z.string()),
  /** The file to download. */
  file: z.object({ name: z.string(), size: z.number().int() }).optional(),
});
export type JobResult = z.infer<typeof JobResult>;

/** The kinds of jobs. */
export const JOB_KINDS = ["read", "split", "merge", "write", "refresh", "archive", "restore", "film"] as const;

/** A job: its progress and its result. */
export const Job = z.object({
  id: Id,
  deck: Id.nullable(),
  kind: z.enum(JOB_KINDS),
  name: z.string(),
  state: z.enum(["waiting", "running", "done", "cancelled", "failed"]),
  slides: z.number().int(),
  page: z.number().int(),
  pages: z.number().int(),
  message: z.string().nullable(),
  report: Report.pick({ adapted: true, left: true }).nullable(),
  result: JobResult.nullable(),
  createdAt: z.iso.datetime(),
});
export type Job = z.infer<typeof Job>;
export const JobList = z.object({ jobs: z.array(Job) });
export type JobList = z.infer<typeof JobList>;

/**
 * A document read for a deck that was made from an earlier edition, or for its text: in the text form, with its
 * pictures.
 */
export const DocumentText = z.object({
  name: z.string(),
  text: z.string(),
  typed: z.boolean(),
  rule: BreakRule,
  assets: z.record(z.string(), Asset),
  problems: z.array(z.object({ line: z.number().int(), message: z.string() })),
});
export type DocumentText = z.infer<typeof DocumentText>;

export const Picture = z.object({
  name: z.string(),
  sha256: z.string(),
  mediaType: z.enum(MEDIA_TYPES),
  width: z.number().int(),
  height: z.number().int(),
});
export type Picture = z.infer<typeof Picture>;

/** A refusal: a code, the place and a sentence. A conflict includes the present state. */
export const ErrorBody = z.object({
  error: z.object({ code: z.string(), where: z.string(), message: z.string() }),
  state: DeckState.optional(),
});
export type ErrorBody = z.infer<typeof ErrorBody>;

export * from "./accounts";
export * from "./collections";
export * from "./data";
export * from "./films";
export * from "./pages";
export * from "./points";
export * from "./sharing";
export * from "./themes";
export * from "./translate";

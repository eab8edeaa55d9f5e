import { DOCUMENTS } from "@unitext/core/formats/catalogue";
import { Id } from "@unitext/core/model";
import { Tally } from "@unitext/core/tally";
import { z } from "zod";

/** A part of the names of what is handed in, such as “Class” or “Number”; the parts are joined by hyphens. */
export const NamePart = z.object({
  label: z.string().trim().min(1).max(40),
  /** What a part may be: digits alone, or letters, digits and spaces. */
  kind: z.enum(["number", "text"]),
});
export type NamePart = z.infer<typeof NamePart>;

/** The endings of files that can be handed in. */
export const HAND_IN_FORMATS = ["pptx", "odp", ...DOCUMENTS] as const;
export const HandInFormat = z.enum(HAND_IN_FORMATS);
const Terms = z.object({
  title: z.string().trim().min(1).max(200),
  parts: z.array(NamePart).min(1).max(6),
  formats: z.array(HandInFormat).min(1),
  dueAt: z.iso.datetime().nullable(),
  /** The names that are expected, of which the missing ones are listed. */
  expected: z.array(z.string().trim().min(1).max(200)).max(1000),
});
export const CollectionAsked = Terms;
export type CollectionAsked = z.infer<typeof CollectionAsked>;
export const CollectionChange = z.union([Terms, z.object({ closed: z.boolean() })]);

/** Something that was handed in. */
export const HandIn = z.object({
  id: Id,
  name: z.string(),
  file: z.string(),
  at: z.iso.datetime(),
  late: z.boolean(),
  /** Which one of this name it is, from 1; the newest one counts. */
  nth: z.number().int(),
  newest: z.boolean(),
  /** The deck that it became; null while it is not there, or was deleted. */
  deck: Id.nullable(),
  state: z.enum(["waiting", "read", "failed"]),
  /** Why it could not be read. */
  message: z.string().nullable(),
  slides: z.number().int(),
  version: z.number().int(),
});
export type HandIn = z.infer<typeof HandIn>;

export const Collection = Terms.extend({
  id: Id,
  /** The path of its page with the token; null where this house cannot tell it any more. */
  path: z.string().nullable(),
  closed: z.boolean(),
  folder: Id.nullable(),
  handIns: z.array(HandIn),
  /** The expected names under which nothing was handed in. */
  missing: z.array(z.string()),
});
export type Collection = z.infer<typeof Collection>;
export const CollectionList = z.object({
  collections: z.array(
    z.object({
      id: Id,
      title: z.string(),
      dueAt: z.iso.datetime().nullable(),
      closed: z.boolean(),
      names: z.number().int(),
      expected: z.number().int(),
    }),
  ),
});
export type CollectionList = z.infer<typeof CollectionList>;

/** What the page of a collection says to whoever hands in. */
export const CollectionFace = Terms.pick({ title: true, parts: true, formats: true, dueAt: true }).extend({
  closed: z.boolean(),
  by: z.string(),
});
export type CollectionFace = z.infer<typeof CollectionFace>;

/** What is handed in: the parts of the name, and a deck of the house or a file, which is the body then. */
export const HandInAsked = z.object({ parts: z.array(z.string().max(80)).max(6), deck: Id });

/** The receipt of whoever handed in: kept by its code, which is a secret. */
export const Receipt = z.object({
  code: z.string(),
  collection: z.string(),
  name: z.string(),
  file: z.string(),
  at: z.iso.datetime(),
  late: z.boolean(),
  nth: z.number().int(),
  /** The SHA-256 of the file, so that everybody can prove which one it was. */
  sha256: z.string(),
  size: z.number().int(),
  state: HandIn.shape.state,
  message: z.string().nullable(),
  /** What it carries, once it is read. */
  tally: Tally.nullable(),
});
export type Receipt = z.infer<typeof Receipt>;

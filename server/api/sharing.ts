import { Comment, Id } from "@unitext/core/model";
import { z } from "zod";
import { RIGHTS, SHARED_RIGHTS } from "../access";

export const SharedRight = z.enum(SHARED_RIGHTS);
export type SharedRight = z.infer<typeof SharedRight>;

/** What is shared: a deck, a deck with its translations, or the decks of a folder. */
export const Scope = z.enum(["deck", "translations", "folder"]);
export type Scope = z.infer<typeof Scope>;

export const Share = z.object({
  user: Id,
  name: z.string(),
  scope: Scope,
  right: SharedRight,
  notes: z.boolean(),
});
export type Share = z.infer<typeof Share>;

export const Link = z.object({
  id: Id,
  scope: Scope,
  right: SharedRight,
  notes: z.boolean(),
  hasPhrase: z.boolean(),
  expiresAt: z.iso.datetime().nullable(),
  expired: z.boolean(),
  createdAt: z.iso.datetime(),
  /** The path of its page with the token; null where this house cannot tell it any more, so that it has to be renewed. */
  path: z.string().nullable(),
  uses: z.array(z.object({ name: z.string(), guest: z.boolean(), lastAt: z.iso.datetime(), times: z.number().int() })),
});
export type Link = z.infer<typeof Link>;

/** Who sees what of a deck or a folder. */
export const Sharing = z.object({
  owner: z.object({ id: Id, name: z.string() }),
  /** The folder of the deck, whose shares hold for it too. */
  folder: z.object({ id: Id, name: z.string() }).nullable(),
  /** How many translations the deck has. */
  translations: z.number().int(),
  shares: z.array(Share),
  links: z.array(Link),
});
export type Sharing = z.infer<typeof Sharing>;

/** A right for a person; null takes it away. */
export const ShareAsked = z.object({
  user: Id,
  scope: Scope,
  right: SharedRight.nullable(),
  notes: z.boolean(),
});
export type ShareAsked = z.infer<typeof ShareAsked>;

/** A phrase of any characters; an empty one takes it away, and without one it stays as it is. */
const Phrase = z.string().max(200);
export const LinkAsked = z.object({
  scope: Scope,
  right: SharedRight,
  notes: z.boolean(),
  expiresAt: z.iso.datetime().nullable(),
  phrase: Phrase.optional(),
});
export type LinkAsked = z.infer<typeof LinkAsked>;

/** What a link says before it is opened. */
export const LinkFace = z.object({
  right: SharedRight,
  needsPhrase: z.boolean(),
  /** Whether whoever opens it has to say a name. */
  needsName: z.boolean(),
});
export type LinkFace = z.infer<typeof LinkFace>;
export const LinkOpening = z.object({ phrase: Phrase.optional(), name: z.string().trim().max(100).optional() });
export type LinkOpening = z.infer<typeof LinkOpening>;
/** What a link leads to. */
export const Opened = z.object({
  title: z.string(),
  right: SharedRight,
  decks: z.array(z.object({ id: Id, title: z.string(), language: z.string(), slides: z.number().int() })),
});
export type Opened = z.infer<typeof Opened>;

/** A deck as an audience sees it; hidden slides are not in it. */
export const ViewedDeck = z.object({
  id: Id,
  version: z.number().int(),
  title: z.string(),
  language: z.string(),
  right: z.enum(RIGHTS),
  notes: z.boolean(),
  page: z.object({ width: z.number(), height: z.number() }),
  slides: z.array(z.object({ id: Id, name: z.string(), parent: Id.nullable() })),
});
export type ViewedDeck = z.infer<typeof ViewedDeck>;

const Place = z.object({ x: z.number(), y: z.number(), width: z.number(), height: z.number() });
/** What a page shows beside the drawing of a slide: words and notes as HTML, links, films and sounds. */
export const ViewedSlide = z.object({
  words: z.string(),
  notes: z.string().nullable(),
  /** The comments; null for whoever may not comment. */
  comments: z.array(Comment).nullable(),
  /** The texts of the elements, to comment on. */
  texts: z.array(z.object({ id: Id, text: z.string() })),
  links: z.array(Place.extend({ to: z.string(), words: z.string() })),
  media: z.array(
    Place.extend({
      type: z.enum(["video", "audio"]),
      alt: z.string(),
      sha256: z.string(),
      poster: z.string().nullable(),
    }),
  ),
});
export type ViewedSlide = z.infer<typeof ViewedSlide>;

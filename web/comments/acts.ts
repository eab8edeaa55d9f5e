import type { Comment, Reply, Slide } from "@unitext/core/model";
import type { People } from "@unitext/server/api";

/** What a comment is on, and what its author proposes. */
export type Subject = Pick<Comment, "element" | "quote" | "proposal">;

/** What the person may do with comments. Each act is a change of the deck that can be undone. */
export interface CommentActs {
  /** Whether the person may comment at all. */
  mayComment: boolean;
  mayEdit: boolean;
  people: People["people"];
  isOwn: (said: Reply) => boolean;
  add: (slide: Slide, text: string, subject: Subject) => void;
  rewrite: (slide: Slide, comment: Comment, text: string) => void;
  remove: (slide: Slide, comment: Comment) => void;
  reply: (slide: Slide, comment: Comment, text: string) => void;
  removeReply: (slide: Slide, comment: Comment, reply: Reply) => void;
  setDone: (slide: Slide, comment: Comment, done: boolean) => void;
  /** Puts the proposed words in the place of the quoted ones. */
  take: (slide: Slide, comment: Comment) => void;
}

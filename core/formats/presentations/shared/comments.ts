import type { Comment, Reply, Slide } from "@unitext/core/model";

const sameWords = (one: Reply, other: Reply) => one.author === other.author && one.text === other.text;

/** Returns an id of the form “c7” that no comment has. */
function freeId(taken: ReadonlySet<string>): string {
  for (let nth = 1; ; nth++) if (!taken.has(`c${nth}`)) return `c${nth}`;
}

/**
 * Returns the comments of a file with what its format has no place for, which the tags hold: ids, elements, words,
 * whether they are done, and replies, which OpenDocument has as comments of their own. Comments that another program
 * added or removed are those of the file.
 */
export function withTaggedComments(read: readonly Comment[], tagged: readonly Comment[]): Comment[] {
  if (!tagged.length) return [...read];
  const left = [...read];
  const take = (like: Reply): Comment | undefined => {
    const at = left.findIndex((one) => sameWords(one, like));
    return at < 0 ? undefined : left.splice(at, 1)[0];
  };
  const known = tagged.flatMap((comment): Comment[] => {
    const found = take(comment);
    if (!found) return [];
    const inFile = found.replies ?? [];
    const { replies: said = [], ...bare } = comment;
    const kept = said.filter((reply) => inFile.some((one) => sameWords(one, reply)) || take(reply) !== undefined);
    const added = inFile.filter((reply) => !said.some((one) => sameWords(one, reply)));
    const replies = [...kept, ...added];
    return [replies.length ? { ...bare, replies } : bare];
  });
  const taken = new Set(known.map(({ id }) => id));
  for (const comment of left) {
    const id = taken.has(comment.id) ? freeId(taken) : comment.id;
    taken.add(id);
    known.push({ ...comment, id });
  }
  return known;
}

/** Returns where a file shows a comment: where it did before, else at the element that it is on. */
export function placeOfComment({ at, element }: Comment, { elements }: Slide): { x: number; y: number } | undefined {
  const frame = elements.find(({ id }) => id === element)?.frame;
  return at ?? (frame && { x: frame.x, y: frame.y });
}

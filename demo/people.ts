import { type Comment, type Deck, elementWords, quoteOf, type Slide, titleOf } from "@unitext/core/model";
import { and, eq, ne } from "drizzle-orm";
import { nanoid } from "nanoid";
import {
  applyChanges,
  createCollection,
  createLink,
  createPage,
  type Database,
  DEMO_USER,
  ensureUser,
  linkOf,
  loadDeck,
  noteHandIn,
  noteLinkUse,
  ownCollection,
  schema,
  share,
  type TokenMaker,
} from "../server/store";

/** The roles of the station beside the course team. They have no passwords: a link of the house's owner sets one. */
const ROLES = {
  observer: { id: "tide-observer", name: "Tide observer" },
  surveyor: { id: "dune-surveyor", name: "Dune surveyor" },
  head: { id: "head-of-station", name: "Head of station" },
} as const;
type Role = (typeof ROLES)[keyof typeof ROLES];

/** A comment to be made: by whom, on which slide, and on which words. */
interface Said {
  by: Role | typeof DEMO_USER;
  slide: string;
  words?: string;
  proposal?: string;
  text: string;
  done?: boolean;
  replies?: { by: Role | typeof DEMO_USER; text: string }[];
}

const COURSE: Said[] = [
  {
    by: ROLES.observer,
    slide: "Two bulges, one turning earth",
    words: "50 minutes later",
    text: "That is the mean. At springs it is nearer to 40.",
    replies: [{ by: DEMO_USER, text: "Good. I say so, the slide keeps the mean." }],
  },
  {
    by: ROLES.surveyor,
    slide: "How a dune begins",
    words: "Something slows the wind",
    proposal: "An obstacle slows the wind",
    text: "Students ask what “something” is. @Course team",
  },
  {
    by: ROLES.head,
    slide: "What to take away",
    text: "One line less, and the field day on the last slide.",
    done: true,
    replies: [{ by: DEMO_USER, text: "Done." }],
  },
];

const slideTitled = (deck: Deck, title: string): Slide | undefined =>
  deck.slides.find((slide) => titleOf(slide) === title);

/** Returns a comment on the words of a slide; on the slide alone where it has no such words. */
function commentOf(slide: Slide, { by, words, proposal, text, done, replies }: Said, at: Date): Comment {
  const element = words && slide.elements.find((one) => elementWords(one).includes(words));
  const all = element ? elementWords(element) : "";
  const start = words ? all.indexOf(words) : -1;
  const date = at.toISOString();
  return {
    id: nanoid(10),
    author: by.name,
    user: by.id,
    text,
    date,
    ...(text.includes(`@${DEMO_USER.name}`) ? { mentions: [DEMO_USER.id] } : {}),
    ...(element ? { element: element.id } : {}),
    ...(words && start >= 0 ? { quote: quoteOf(all, start, start + words.length) } : {}),
    ...(proposal && start >= 0 ? { proposal } : {}),
    ...(done ? { done } : {}),
    ...(replies
      ? {
          replies: replies.map((one) => ({
            id: nanoid(10),
            author: one.by.name,
            user: one.by.id,
            text: one.text,
            date,
          })),
        }
      : {}),
  };
}

/** Adds the roles of the station, and shares the course with them: with rights, comments, and a link for the class. */
export async function shareCourse(db: Database, token: TokenMaker): Promise<void> {
  for (const role of Object.values(ROLES)) await ensureUser(db, role);
  const course = "tides-dunes-storms";
  const by = DEMO_USER.id;
  await share(db, { deck: course, user: ROLES.observer.id, right: "comment", by });
  await share(db, { deck: course, user: ROLES.surveyor.id, right: "edit", by });
  await share(db, { deck: course, user: ROLES.head.id, right: "comment", notes: false, by });
  const terms = { right: "view", notes: false, translations: true, expiresAt: null } as const;
  const link = await createLink(db, { deck: course }, terms, by, token);
  await noteLinkUse(db, await linkOf(db, { deck: course }, link), ROLES.head.id);
  const { deck, version } = await loadDeck(db, course);
  const changes = COURSE.flatMap((said) => {
    const slide = slideTitled(deck, said.slide);
    if (!slide) return [];
    const comment = commentOf(slide, said, new Date(Date.now() - 3_600_000));
    return [{ user: said.by.id, slide: slide.id, comment }];
  });
  for (const [nth, { user, slide, comment }] of changes.entries())
    await applyChanges(db, course, user, {
      base: version + nth,
      changes: [{ id: nanoid(16), change: { kind: "putComment", slide, comment }, description: "Commented" }],
    });
}

/** Publishes the open day as a page that plays by itself, for the screen in the hall. */
export const publishOpenDay = (db: Database): Promise<string> =>
  createPage(
    db,
    "open-day",
    { version: null, notes: false, turning: { seconds: 12, loop: true }, origins: [] },
    DEMO_USER.id,
  );

const DAY = 24 * 3_600_000;

/** How many of those who are expected have handed in. */
const THERE = 7;

/** A collection of the field week that was due yesterday: about half of a class has handed in, one of them late. */
export async function collectFieldWeek(db: Database, names: readonly string[], token: TokenMaker): Promise<void> {
  const expected = names.slice(0, 2 * THERE);
  const id = await createCollection(
    db,
    DEMO_USER.id,
    {
      title: "Field week, class TB2",
      parts: [
        { label: "Class", kind: "text" },
        { label: "Number", kind: "number" },
        { label: "Surname", kind: "text" },
      ],
      formats: ["pptx", "odp", "md"],
      dueAt: new Date(Date.now() - DAY).toISOString(),
      expected: [...expected],
    },
    token,
  );
  const collection = await ownCollection(db, DEMO_USER.id, id);
  for (const name of expected.slice(0, THERE)) {
    const file = { file: `${name}.md`, sha256: "", size: 0, deck: name.toLowerCase(), job: null };
    await noteHandIn(db, collection, { name, ...file });
  }
  // All but the last handed in the day before it was due.
  const { handIns } = schema;
  await db
    .update(handIns)
    .set({ late: false, at: new Date(Date.now() - 2 * DAY) })
    .where(and(eq(handIns.collection, id), ne(handIns.name, expected[THERE - 1] ?? "")));
}

import { plainText, type Deck } from "@unitext/core/model";
import { ffmpegVersion, hasLocalVoice, yieldToOthers } from "@unitext/node";
import type { FilmRequest } from "../server/api";
import { runFilm } from "../server/jobs";
import { type Database, DEMO_USER, filmsOf, rightOn } from "../server/store";
import { inlineWork } from "../server/work";

/** The deck of which the demo has a film: it has entrances, transitions, charts and pictures. */
export const FILMED = "quay-in-autumn";

/** What is said in the film, slide by slide; slides without an entry keep the notes of their file. */
const SAID: Readonly<Record<number, string>> = {
  1: "Welcome to the quay in autumn. In the next two minutes I show what the gauges and the dunes have told us since September, and what we make of it.",
  2: "The number first: on the twelfth of October the water stood at four metres and thirty-one. That is the highest since the staff was set, and it came two hours after the wind had turned.\nAt the same time line four lost its foot again.",
  3: "These are the levels as they were read at the staff. The mean moves slowly, from month to month. The highest is what the harbour asks for, and it jumps.",
  4: "Four charts, one after the other. First the sand at the four lines of the foredune: there is less of it towards the north.\nWhat covers line three is mostly grass.\nVisitors on the path are as many as in summer, and most come without a guide.\nAnd the last one puts wind and water together: when it blows, the water follows.",
  5: "The pictures are from the survey. On the profile of line four the foot is enlarged, where the sand is gone. Beside it are fourteen days of tides.",
  6: "How does a reading travel? Somebody reads the staff.\nThe reading is written in the book.\nIn the evening the book goes to the office, where a second person checks it.\nAnd at the end of the month it is in the report.",
  8: "And this is how the mean is reckoned: we read the levels, add them up, and divide by how many there are. With these three readings it is two metres and sixty-five.",
};

/** Returns the deck with what is said in its film as its notes. */
export const spokenDeck = (deck: Deck): Deck => ({
  ...deck,
  slides: deck.slides.map((slide, nth) => {
    const said = SAID[nth + 1];
    return said ? { ...slide, notes: plainText(said) } : slide;
  }),
});

/** Makes the film of the demo, unless it is there or the programs for it are missing. It takes its time: others come first. */
export async function makeFilm(db: Database, fonts: string): Promise<void> {
  if ((await ffmpegVersion()) === undefined || !(await hasLocalVoice())) return;
  const right = await rightOn(db, FILMED, DEMO_USER.id);
  if (right === undefined || (await filmsOf(db, FILMED)).length > 0) return;
  yieldToOthers(process.pid);
  const request: FilmRequest = { format: "mp4", width: 1280, voice: "local", captions: [FILMED] };
  const context = {
    ...{ db, fonts, owner: DEMO_USER.id, work: inlineWork, voiceService: undefined },
    ...{ signal: new AbortController().signal, progress: async () => true },
  };
  await runFilm(context, FILMED, request);
}

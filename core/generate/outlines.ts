/** An outline for a common occasion, in the text form: headings to fill in, with notes on what belongs under them. */
export interface Outline {
  label: string;
  text: string;
}

const notes = (text: string) => `\n\n:::notes\n${text}\n:::\n`;

/** The outlines that come with the program. */
export const OUTLINES = {
  lecture: {
    label: "Lecture",
    text: `# Topic of the lecture\n\nCourse, week\n\n## Where we are${notes("What the last session ended with, in one sentence.")}\n## The question of today\n\n- The question in plain words\n- Why somebody would ask it\n\n# First part\n\n## The idea\n\n- One sentence\n- An example from the listeners' own world${notes("Begin with the example, then name the idea.")}\n## Try it\n\n- A task for two minutes, in pairs\n\n# Second part\n\n## The idea\n\n- One sentence\n- An example\n\n## What often goes wrong\n\n- A common mistake, and how to see it\n\n## What to take home\n\n- Three sentences at most\n\n## References\n\n- Where to read on\n`,
  },
  review: {
    label: "Chapter review",
    text: `# Review of the chapter\n\nBook, chapter, pages\n\n## What the chapter asks\n\n- Its question\n- Its answer in one sentence\n\n## Terms\n\n| Term | In own words | Page |\n| --- | --- | --: |\n| | | |\n\n## The argument, step by step\n\n- First\n- Then\n- Therefore\n\n## An example that is not in the book\n\n- From our own work\n\n## What stays open\n\n- A question for the group\n\n## References\n\n- The chapter itself\n`,
  },
  report: {
    label: "Monthly report",
    text: `# Report of the month\n\nUnit, month\n\n## The month in one sentence${notes("What to remember if nothing else is remembered.")}\n## The number of the month\n\n:::slot{name=number}\n0\n:::\n\nwhat it counts, against the month before\n\n## Figures\n\n| | This month | Last month | Change |\n| --- | --: | --: | --: |\n| First figure | | | |\n\n## What happened\n\n- Event, and what followed from it\n\n## What is late, and why\n\n- Task, reason, new date\n\n## Next month\n\n- Who does what by when\n\n## Decisions that are needed\n\n- Decision, by whom, until when\n`,
  },
  proposal: {
    label: "Project proposal",
    text: `# Name of the project\n\nWho proposes it, to whom\n\n## The problem\n\n- Who has it, how often, what it costs\n\n## What we propose\n\n- One sentence\n\n## How it would work\n\n:::diagram{kind=steps}\n- First step\n- Second step\n- Third step\n:::\n\n## What it needs\n\n| | Amount | When |\n| --- | --: | --- |\n| People | | |\n| Money | | |\n\n## What could go wrong\n\n- Risk, and what we would do then\n\n## How we would know that it works\n\n- A measure, and its value today\n\n## What we ask of you\n\n- The decision\n`,
  },
} as const satisfies Record<string, Outline>;

/**
 * What the thirty groups of class TB2 handed in after their field week: a name each, where they were, and what they
 * found. All of it is made up.
 */
const BIRDS = [
  "Avocet",
  "Bittern",
  "Curlew",
  "Dunlin",
  "Eider",
  "Fulmar",
  "Gannet",
  "Godwit",
  "Greenshank",
  "Guillemot",
  "Heron",
  "Kittiwake",
  "Knot",
  "Lapwing",
  "Merganser",
  "Oystercatcher",
  "Petrel",
  "Pintail",
  "Plover",
  "Razorbill",
  "Redshank",
  "Ruff",
  "Sanderling",
  "Shelduck",
  "Skua",
  "Snipe",
  "Teal",
  "Tern",
  "Turnstone",
  "Wigeon",
] as const;
const SITES = [
  "the quay",
  "line 3",
  "line 4",
  "the bar",
  "the slack behind the second dune",
  "the mouth of the creek",
] as const;
const FINDINGS = [
  [
    "The water came {n} minutes later than the table says",
    "The wind had turned at noon",
    "Two of us read the staff, both wrote {n}",
  ],
  [
    "The foot of the dune is {n} centimetres lower than in the spring",
    "The fence on the left is buried",
    "The marram stands well",
  ],
  ["We counted {n} shells on a square metre", "Most of them near the drift line", "None of them alive"],
  [
    "The sand is coarser at the foot: {n} grains on a hand's width",
    "The finest lies behind the crest",
    "The sieve was wet, so this may be wrong",
  ],
] as const;
const CLOSINGS = [
  "We would come again in winter.",
  "Next time we take the string with us.",
  "The staff should be painted anew.",
] as const;

/** The designs that the groups chose. */
const DESIGNS_CHOSEN = ["saltmarsh", "tidepool", "contour", "logbook", "chalk", "foreshore", "regatta"] as const;

/** The decks as texts by the names under which they were handed in: class, number, group. */
export function handedIn(): { name: string; text: string }[] {
  return BIRDS.map((bird, nth) => {
    const name = `TB2-${String(nth + 1).padStart(2, "0")}-${bird}`;
    const site = SITES[nth % SITES.length] as string;
    const finding = FINDINGS[nth % FINDINGS.length] as readonly string[];
    const number = 7 + ((nth * 13) % 41);
    const slides = [
      `---\ntitle: ${name}\nauthor: Group ${bird}\nlanguage: en\ntheme: ${DESIGNS_CHOSEN[nth % DESIGNS_CHOSEN.length]}\n---\n\n# Field week of class TB2\n\nMarram Bay Field Station`,
      `## Group ${bird} at ${site}\n\n- Monday to Thursday, at low water\n- Four people, one level, one book\n- More about it in [what we found](#found)\n\n:::notes\nSay who held the pole and who wrote. The weather was fair until Wednesday.\n:::`,
      `::slide{#found}\n\n## What we found\n\n${finding.map((line) => `- ${line.replace("{n}", String(number))}`).join("\n")}\n\n:::notes\nThe number is from the book, page ${nth + 3}. Both readings are there.\n:::`,
      ...(nth % 3 === 0
        ? [
            `## In figures\n\n| Day | Reading |\n| --- | ---: |\n| Monday | ${number} |\n| Tuesday | ${number + 2} |\n| Wednesday | ${number - 1} |\n\n:::notes\nOn Wednesday the wind was strong; we read it twice.\n:::`,
          ]
        : []),
      ...(nth % 4 === 1
        ? [
            "## Rules for the bar\n\n- Out only with the table and a watch\n- The last one carries the flag\n\n:::notes\nEverybody says them once.\n:::",
          ]
        : []),
      `::slide{arrangement=statement}\n\n${CLOSINGS[nth % CLOSINGS.length]}\n\n:::notes\nThanks to the station.\n:::`,
    ];
    return { name, text: slides.join("\n\n---\n\n") };
  });
}

/** The engines that make points: taking them out of their sentences, or asking a service outside. */
export const POINT_ENGINES = ["extract", "service"] as const;
export type PointEngineName = (typeof POINT_ENGINES)[number];

/** What is wrong with a point that was not taken out of its sentence, and the sentence that people read. */
export const POINT_FAULTS = {
  number: "it has a number that is not in the sentence",
  "lost-number": "a number of the sentence is missing",
  name: "it has a name that is not in the sentence",
  negation: "it says “not” where the sentence does not, or the other way round",
  hedge: "“about”, “at most” or another limit is missing",
  long: "it is longer than a point",
  clause: "it is no whole clause",
} as const;
export type PointFault = keyof typeof POINT_FAULTS;

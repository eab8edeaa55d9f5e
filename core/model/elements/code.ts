import { z } from "zod";
import { type ElementDescriptor, placed } from "./base";

/** Program code, as typed. */
export const CodeElement = z.object({
  kind: z.literal("code"),
  ...placed,
  language: z.string().max(40),
  text: z.string(),
});
export type CodeElement = z.infer<typeof CodeElement>;

export const codeKind: ElementDescriptor<CodeElement> = {
  label: "code",
  count: "code",
  texts: () => [],
  words: ({ text }) => text,
  lines: ({ text }) => text.split("\n"),
};

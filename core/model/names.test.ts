import { valueHash, withCurrentNames, withFormerNames } from "./index";

/** A slide as version 2 of the stored data has it. */
const FORMER = {
  id: "a",
  arrangement: "points",
  moves: ["a spin"],
  kept: { file: "kept/1.zip", part: "s1", sum: "1", notes: "2", background: "3", transition: "4", shapes: ["3"] },
  elements: [
    {
      kind: "text",
      id: "t",
      kept: { shape: "3", sum: "", place: "p", text: "t", looks: "l", more: ["a glow"] },
      text: [{ kind: "bullet", level: 0, look: { bullet: { sign: "▪" } }, runs: [{ text: "x", look: { size: 9 } }] }],
    },
    {
      kind: "chart",
      id: "c",
      form: "combined",
      series: [{ name: "North", values: [1], form: "line", by: "second" }],
      yAxis: { least: 0, most: 9 },
      secondAxis: { most: 5 },
    },
    { kind: "shape", id: "s", stroke: { head: { form: "oval" } }, fill: { kind: "gradient", form: "linear" } },
  ],
};
const CURRENT = {
  id: "a",
  arrangement: "points",
  unsupportedMotion: ["a spin"],
  sourcePart: {
    file: "kept/1.zip",
    part: "s1",
    hash: "1",
    notesHash: "2",
    backgroundHash: "3",
    transitionHash: "4",
    shapes: ["3"],
  },
  elements: [
    {
      kind: "text",
      id: "t",
      sourceShape: {
        shape: "3",
        hash: "",
        frameHash: "p",
        textHash: "t",
        appearanceHash: "l",
        unsupported: ["a glow"],
      },
      text: [
        {
          kind: "bullet",
          level: 0,
          properties: { bullet: { character: "▪" } },
          runs: [{ text: "x", properties: { size: 9 } }],
        },
      ],
    },
    {
      kind: "chart",
      id: "c",
      type: "combined",
      series: [{ name: "North", values: [1], type: "line", axis: "secondary" }],
      yAxis: { min: 0, max: 9 },
      secondaryAxis: { max: 5 },
    },
    // The ends of lines and gradients keep their names.
    { kind: "shape", id: "s", stroke: { head: { form: "oval" } }, fill: { kind: "gradient", form: "linear" } },
  ],
};

describe("names of fields from version 2 to version 3", () => {
  it("are those of version 3 in a slide that was stored before", () => {
    expect(withCurrentNames(FORMER)).toEqual(CURRENT);
  });

  it("are left alone where they are of version 3 already, and nothing is copied", () => {
    expect(withCurrentNames(CURRENT)).toBe(CURRENT);
  });

  it("are those of version 3 in changes and rules", () => {
    expect(withCurrentNames({ kind: "setLook", slide: "a", look: { delay: 2 } })).toEqual({
      kind: "setSlideProperties",
      slide: "a",
      properties: { delay: 2 },
    });
    expect(
      withCurrentNames({ document: "d", rule: { cuts: [], body: "both", rest: "keep", cards: "middle" } }),
    ).toEqual({ document: "d", rule: { cuts: [], placement: "both", overflow: "leave", names: "middle" } });
  });

  it("leave the hashes of what elements show as they were", () => {
    const shown = ({ elements }: { elements: object[] }) =>
      elements.map((element) => {
        const { kept: _, sourceShape: __, ...rest } = element as Record<string, unknown>;
        return rest;
      });
    expect(valueHash(withFormerNames(shown(CURRENT)))).toBe(valueHash(shown(FORMER)));
  });
});

import { type Deck, type Element, emptyDeck, plainText, type Slide, textOf, must } from "@unitext/core/model";
import { idSource, unresolved } from "@unitext/core/testing";
import { filesBench, sha256 } from "@unitext/core/testing/files";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { readXml } from "./shared/xml";
import { readDeck, WRITERS, writeReport } from "./index";

const bench = filesBench();
const { context } = bench;
function read(bytes: Uint8Array, name: string): Deck {
  const found = bench.read(bytes, name);
  return found.deck;
}
const on = (deck: Deck, name: string) => must(deck.slides[0]?.elements.find((element) => element.name === name));
const changed = (deck: Deck, name: string, change: (element: Element) => Element): Deck => ({
  ...deck,
  slides: deck.slides.map((slide) => ({
    ...slide,
    elements: slide.elements.map((element) => (element.name === name ? change(element) : element)),
  })) as Slide[],
});
const movedBy = (element: Element): Element => ({
  ...element,
  frame: { ...must(element.frame), x: (element.frame?.x ?? 0) + 36 },
  rotation: 30,
});
const saying =
  (words: string) =>
  (element: Element): Element =>
    ({ ...element, text: plainText(words) }) as Element;

describe("what Unitext does not model of a shape of a .pptx stays", () => {
  const GLOW = '<a:effectLst><a:glow rad="63500"><a:srgbClr val="FFCC00"/></a:glow></a:effectLst>';
  const sp = (id: number, name: string, more: string, body: string, ph = "") =>
    `<p:sp><p:nvSpPr><p:cNvPr id="${id}" name="${name}"><a:extLst><a:ext uri="{made-up}"><x:mark xmlns:x="urn:example:x"/></a:ext></a:extLst></p:cNvPr><p:cNvSpPr/><p:nvPr>${ph}</p:nvPr></p:nvSpPr><p:spPr>${more}</p:spPr><p:txBody><a:bodyPr><a:prstTxWarp prst="textWave1"/></a:bodyPr><a:lstStyle/>${body}</p:txBody></p:sp>`;
  const at = (x: number, y: number) => `<a:xfrm><a:off x="${x}" y="${y}"/><a:ext cx="1828800" cy="914400"/></a:xfrm>`;
  const filled = '<a:prstGeom prst="star5"><a:avLst/></a:prstGeom><a:solidFill><a:srgbClr val="0F5C63"/></a:solidFill>';
  const words = (text: string) => `<a:p><a:r><a:rPr lang="en" sz="2000"/><a:t>${text}</a:t></a:r></a:p>`;
  const group = `<p:grpSp><p:nvGrpSpPr><p:cNvPr id="20" name="Pair"/><p:cNvGrpSpPr/><p:nvPr/></p:nvGrpSpPr><p:grpSpPr><a:xfrm><a:off x="914400" y="3657600"/><a:ext cx="3657600" cy="914400"/><a:chOff x="0" y="0"/><a:chExt cx="3657600" cy="914400"/></a:xfrm></p:grpSpPr>${sp(21, "Left", at(0, 0) + filled + GLOW, words("left"))}${sp(22, "Right", at(1828800, 0) + filled + GLOW, words("right"))}</p:grpSp>`;
  const bytes = (() => {
    const chart: Element = {
      kind: "chart",
      id: "c",
      slot: null,
      name: "Levels",
      frame: { x: 500, y: 300, width: 300, height: 160 },
      type: "column",
      categories: ["Jan", "Feb"],
      series: [{ name: "Level", values: [1, 2] }],
    } as Element;
    const parts = unzipSync(
      WRITERS.pptx.write(
        {
          ...emptyDeck("d", "D"),
          slides: [
            {
              id: "s",
              parent: null,
              arrangement: "title",
              notes: [],
              hidden: false,
              elements: [{ kind: "text", id: "t", slot: "title", text: plainText("Title") }, chart],
            },
          ],
        },
        context,
      ) as Uint8Array,
    );
    for (const name of Object.keys(parts)) if (name.includes("/tags/")) delete parts[name];
    const slide = strFromU8(must(parts["ppt/slides/slide1.xml"])).replace(
      /<p:custDataLst>[\s\S]*?<\/p:custDataLst>/g,
      "",
    );
    // The title has its place from its layout; a chart has a look that Unitext does not know.
    const bare = slide.replace(/(<p:ph type="title"[\s\S]*?<p:spPr>)<a:xfrm>[\s\S]*?<\/a:xfrm>/, "$1");
    parts["ppt/slides/slide1.xml"] = strToU8(
      bare.replace(
        "</p:spTree>",
        `${sp(11, "Star", at(914400, 914400) + filled + GLOW, words("here"))}${group}</p:spTree>`,
      ),
    );
    const chartPart = must(Object.keys(parts).find((path) => /charts\/chart[^/]*\.xml$/.test(path)));
    parts[chartPart] = strToU8(
      strFromU8(must(parts[chartPart])).replace("<c:plotArea>", '<c:view3D><c:rotX val="15"/></c:view3D><c:plotArea>'),
    );
    return zipSync(parts);
  })();
  const deck = read(bytes, "other.pptx");
  const write = (next: Deck) => unzipSync(WRITERS.pptx.write(next, context) as Uint8Array);
  const slideOf = (parts: Record<string, Uint8Array>) => strFromU8(must(parts["ppt/slides/slide1.xml"]));
  const again = (parts: Record<string, Uint8Array>) => read(zipSync(parts), "again.pptx");
  const shapeIn = (text: string, name: string) =>
    new RegExp(`<p:sp[ >](?:(?!</p:sp>)[\\s\\S])*name="${name}"[\\s\\S]*?</p:sp>`).exec(text)?.[0] ?? "";

  it("when it is moved and turned", () => {
    const parts = write(changed(deck, "Star", movedBy));
    const star = shapeIn(slideOf(parts), "Star");
    expect(star).toContain(GLOW);
    expect(star).toContain("urn:example:x");
    // 72 + 36 points from the left, 30 degrees.
    expect(star).toContain('<a:xfrm rot="1800000"><a:off x="1371600" y="914400"/>');
    expect(on(again(parts), "Star")).toMatchObject({
      frame: on(deck, "Star").frame && { ...on(deck, "Star").frame, x: 108 },
      rotation: 30,
      fill: on(deck, "Star").fill,
    });
  });

  it("when its words are changed", () => {
    const parts = write(changed(deck, "Star", saying("there & back")));
    const star = shapeIn(slideOf(parts), "Star");
    expect(star).toContain(GLOW);
    expect(star).toContain('<a:bodyPr><a:prstTxWarp prst="textWave1"/></a:bodyPr><a:lstStyle/>');
    const { text, ...rest } = on(again(parts), "Star") as Extract<Element, { kind: "shape" }>;
    expect(textOf(text)).toBe("there & back");
    const { text: _, ...before } = on(deck, "Star") as Extract<Element, { kind: "shape" }>;
    expect({ ...rest, sourceShape: undefined }).toEqual({ ...before, sourceShape: undefined });
  });

  it("when one in a group is given other words: it stays in its group, and the other is as it was", () => {
    const parts = write(changed(deck, "Left", saying("other")));
    const text = slideOf(parts);
    expect(/<p:grpSp>[\s\S]*other[\s\S]*right[\s\S]*<\/p:grpSp>/.test(text)).toBe(true);
    expect(shapeIn(text, "Right")).toBe(shapeIn(strFromU8(must(unzipSync(bytes)["ppt/slides/slide1.xml"])), "Right"));
    const back = again(parts);
    expect(on(back, "Left").groups).toEqual(on(back, "Right").groups);
    expect(on(back, "Left")).toMatchObject({ id: on(deck, "Left").id, frame: on(deck, "Left").frame });
  });

  it("when one leaves its group by being moved: it stands where it was put", () => {
    const back = again(write(changed(deck, "Left", movedBy)));
    expect(on(back, "Left")).toMatchObject({
      frame: { ...on(deck, "Left").frame, x: (on(deck, "Left").frame?.x ?? 0) + 36 },
      rotation: 30,
    });
    expect(on(back, "Right").frame).toEqual(on(deck, "Right").frame);
  });

  it("of a chart that is moved, its part and its workbook byte for byte", () => {
    const parts = write(changed(deck, "Levels", movedBy));
    const before = unzipSync(bytes);
    const paths = Object.keys(before).filter((path) => /charts|embeddings/.test(path));
    expect(paths.length).toBeGreaterThan(1);
    for (const path of paths) expect(Buffer.from(parts[path] ?? []).equals(Buffer.from(must(before[path])))).toBe(true);
    expect(on(again(parts), "Levels").frame?.x).toBe(536);
  });

  it("of a title that has its place from its layout and is given one of its own", () => {
    const title = must(deck.slides[0]?.elements.find(({ slot }) => slot === "title"));
    const next = {
      ...deck,
      slides: deck.slides.map((slide) => ({
        ...slide,
        elements: slide.elements.map((element) =>
          element === title ? { ...element, frame: { x: 90, y: 30, width: 600, height: 60 } } : element,
        ),
      })) as Slide[],
    };
    const parts = write(next);
    expect(slideOf(parts)).toContain('<p:ph type="title"');
    expect(again(parts).slides[0]?.elements.find(({ slot }) => slot === "title")?.frame).toEqual({
      x: 90,
      y: 30,
      width: 600,
      height: 60,
    });
  });

  it("and is told: when it is read, and before it is written where it goes", () => {
    const { adapted } = readDeck(bytes, "other.pptx", { newId: idSource("q"), sha256 });
    expect(adapted.filter(({ what }) => what.includes("Star"))).toEqual([
      {
        slide: 1,
        what: "the glow and the bent letters of “Star”",
        how: "not drawn; a .pptx keeps it as long as the shape is not reformatted here",
      },
    ]);
    const told = (next: Deck, format: "pptx" | "odp" | "pdf") => {
      const report = writeReport(next, format);
      return [
        ...report.adapted.map(({ what, how }) => `${what}: ${how}`),
        ...report.left.map(({ what, why }) => `${what}: ${why}`),
      ].filter((line) => line.startsWith("the glow and the bent letters of “Star”"));
    };
    expect(told(deck, "pptx")).toEqual([]);
    expect(told(changed(deck, "Star", movedBy), "pptx")).toEqual([]);
    const painted = changed(deck, "Star", (element) => ({ ...element, fill: { kind: "solid", colour: "#000000" } }));
    expect(told(painted, "pptx")).toEqual([
      "the glow and the bent letters of “Star”: kept on shapes whose formatting is as it was read; lost on those reformatted here",
    ]);
    expect(shapeIn(slideOf(write(painted)), "Star")).not.toContain(GLOW);
    for (const format of ["odp", "pdf"] as const)
      expect(told(deck, format)).toEqual([
        "the glow and the bent letters of “Star”: Unitext does not draw it, and only the file that it came from can hold it",
      ]);
  });

  it("and the part is well-formed, with ids that stand once", () => {
    const parts = write(changed(changed(changed(deck, "Star", saying("a")), "Left", movedBy), "Right", saying("b")));
    readXml(slideOf(parts), "slide1.xml");
    const ids = [...slideOf(parts).matchAll(/<p:cNvPr id="(\d+)"/g)].map(([, id]) => id);
    expect(new Set(ids).size).toBe(ids.length);
  });
});

describe("what Unitext does not model of a shape of an .odp stays", () => {
  const custom = (name: string, words: string, place: string) =>
    `<draw:custom-shape draw:name="${name}" draw:layer="layout" draw:style-name="gr9" x:glow="3pt" ${place}><office:event-listeners/><text:p>${words}</text:p><draw:enhanced-geometry svg:viewBox="0 0 100 100" x:extrusion="true" draw:enhanced-path="M 0 0 L 100 0 100 100 0 100 Z N"/></draw:custom-shape>`;
  const AT = 'svg:x="72pt" svg:y="72pt" svg:width="144pt" svg:height="72pt"';
  const TURNED =
    'svg:width="144pt" svg:height="72pt" draw:transform="rotate (-0.5235987755983) translate (300pt 200pt)"';
  const bytes = (() => {
    const parts = unzipSync(
      WRITERS.odp.write(
        {
          ...emptyDeck("d", "D"),
          slides: [
            {
              id: "s",
              parent: null,
              arrangement: "title",
              notes: [],
              hidden: false,
              elements: [{ kind: "text", id: "t", slot: "title", text: plainText("Title") }],
            },
          ],
        },
        context,
      ) as Uint8Array,
    );
    parts["meta.xml"] = strToU8(
      strFromU8(must(parts["meta.xml"])).replace(/<meta:user-defined[\s\S]*<\/meta:user-defined>/, ""),
    );
    const box =
      '<draw:frame draw:name="Box" draw:layer="layout" draw:style-name="gr9" x:mark="kept" svg:x="400pt" svg:y="300pt" svg:width="200pt" svg:height="80pt"><draw:text-box x:wave="1"><text:p><text:span text:style-name="out">in a box</text:span></text:p></draw:text-box></draw:frame>';
    parts["content.xml"] = strToU8(
      strFromU8(must(parts["content.xml"]))
        .replace("<office:document-content ", '<office:document-content xmlns:x="urn:example:x" ')
        .replace(
          "<office:automatic-styles>",
          '<office:automatic-styles><style:style style:name="out" style:family="text"><style:text-properties style:text-outline="true"/></style:style><style:style style:name="gr9" style:family="graphic"><style:graphic-properties draw:fill="solid" draw:fill-color="#0f5c63"/></style:style>',
        )
        .replace(
          "<presentation:notes>",
          `${custom("Star", "here", AT)}${custom("Turned", "askew", TURNED)}${box}<draw:g>${custom("Left", "left", 'svg:x="100pt" svg:y="400pt" svg:width="100pt" svg:height="50pt"')}${custom("Right", "right", 'svg:x="220pt" svg:y="400pt" svg:width="100pt" svg:height="50pt"')}</draw:g><presentation:notes>`,
        ),
    );
    return zipSync(parts);
  })();
  const deck = read(bytes, "other.odp");
  const write = (next: Deck) => unzipSync(WRITERS.odp.write(next, context) as Uint8Array);
  const content = (parts: Record<string, Uint8Array>) => strFromU8(must(parts["content.xml"]));
  const again = (parts: Record<string, Uint8Array>) => read(zipSync(parts), "again.odp");
  const shapeIn = (text: string, name: string) =>
    new RegExp(`<draw:(custom-shape|frame) (?:(?!</draw:\\1>)[\\s\\S])*draw:name="${name}"[\\s\\S]*?</draw:\\1>`).exec(
      text,
    )?.[0] ?? "";

  it.each(["Star", "Turned", "Box"])("of “%s”, when it is moved and turned", (name) => {
    const parts = write(changed(deck, name, movedBy));
    expect(shapeIn(content(parts), name)).toMatch(/x:(glow|mark)=/);
    const now = on(again(parts), name);
    const was = on(deck, name);
    expect(now.rotation).toBeCloseTo(30, 3);
    for (const side of ["x", "y", "width", "height"] as const)
      expect(now.frame?.[side]).toBeCloseTo((was.frame?.[side] ?? 0) + (side === "x" ? 36 : 0), 1);
    expect(now).toMatchObject({ id: was.id, fill: was.fill });
    expect(unresolved(parts)).toEqual([]);
  });

  it.each(["Star", "Turned", "Box", "Left"])("of “%s”, when its words are changed", (name) => {
    const parts = write(changed(deck, name, saying("there & back")));
    expect(shapeIn(content(parts), name)).toMatch(/x:(glow|mark)=/);
    expect(shapeIn(content(parts), name)).toMatch(/x:(extrusion|wave)=/);
    const now = on(again(parts), name) as Extract<Element, { kind: "shape" }>;
    expect(textOf(now.text)).toBe("there & back");
    expect(now).toMatchObject({ id: on(deck, name).id, frame: on(deck, name).frame, fill: on(deck, name).fill });
    expect(unresolved(parts)).toEqual([]);
  });

  it("and is told when it is read", () => {
    const { adapted } = readDeck(bytes, "other.odp", { newId: idSource("q"), sha256 });
    expect(adapted.map(({ what }) => what)).toContain("the outline of letters of “Box”");
  });

  it("keeps a group together, and the ids of what is in it", () => {
    const back = again(write(changed(deck, "Left", saying("other"))));
    expect(on(back, "Left").groups).toEqual(on(back, "Right").groups);
    expect([on(back, "Left").id, on(back, "Right").id]).toEqual([on(deck, "Left").id, on(deck, "Right").id]);
  });
});

describe("a place that leads somewhere and shows nothing", () => {
  const link = "https://example.org/map";
  const place = {
    kind: "shape" as const,
    id: "p",
    name: "Place",
    slot: null,
    frame: { x: 72, y: 72, width: 100, height: 50 },
    geometry: { preset: "rect" },
    text: [],
    link,
  };

  it.each(["pptx", "odp"] as const)("is read from a .%s, moved and written again", (format) => {
    const deck: Deck = {
      ...emptyDeck("d", "D"),
      slides: [{ id: "s", parent: null, arrangement: "blank", notes: [], hidden: false, elements: [place] }],
    };
    const parts = unzipSync(WRITERS[format].write(deck, context) as Uint8Array);
    for (const name of Object.keys(parts)) if (name.includes("/tags/")) delete parts[name];
    if (parts["meta.xml"])
      parts["meta.xml"] = strToU8(
        strFromU8(parts["meta.xml"]).replace(/<meta:user-defined[\s\S]*<\/meta:user-defined>/, ""),
      );
    const bare = read(zipSync(parts), `bare.${format}`);
    expect(bare.slides[0]?.elements).toMatchObject([{ kind: "shape", link, frame: place.frame }]);
    const moved = changed(bare, bare.slides[0]?.elements[0]?.name ?? "", movedBy);
    expect(
      read(WRITERS[format].write(moved, context) as Uint8Array, `moved.${format}`).slides[0]?.elements,
    ).toMatchObject([{ kind: "shape", link, rotation: expect.closeTo(30, 2) as unknown }]);
  });
});

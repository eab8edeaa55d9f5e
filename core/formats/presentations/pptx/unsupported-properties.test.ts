import { type Slide, must } from "@unitext/core/model";
import { sha256 } from "@unitext/core/testing/files";
import { propertiesOf } from "@unitext/core/testing/formatting";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { WRITERS } from "../../index";
import { photo, read, base, HEAD, sp, context } from "@unitext/core/testing/pptxproperties";

describe("what is no element, among shapes that are changed", () => {
  // Empty placeholders (ECMA-376-1, 19.7.10) are not drawn, and stay in the file.
  const place = (id: number) =>
    `<p:sp><p:nvSpPr><p:cNvPr id="${id}" name="Place ${id}"/><p:cNvSpPr/><p:nvPr><p:ph type="body" idx="${id}"/></p:nvPr></p:nvSpPr><p:spPr/><p:txBody><a:bodyPr/><a:p><a:endParaRPr/></a:p></p:txBody></p:sp>`;
  const shape = (id: number) =>
    sp({}).replace('id="2" name="One"', `id="${id}" name="Shape ${id}"`).replace("word", `word ${id}`);
  const file = zipSync({
    ...base,
    "ppt/slides/slide1.xml": strToU8(
      `${HEAD}${place(10)}${shape(11)}${place(12)}${place(13)}${shape(14)}${shape(15)}${place(16)}</p:spTree></p:cSld></p:sld>`,
    ),
  });
  const names = (elements: (given: Slide["elements"]) => Slide["elements"]): string[] => {
    const deck = read(file);
    const [slide] = deck.slides as [Slide];
    const text = strFromU8(
      must(
        unzipSync(
          WRITERS.pptx.write(
            { ...deck, slides: [{ ...slide, elements: elements(slide.elements) }] },
            context,
          ) as Uint8Array,
        )["ppt/slides/slide1.xml"],
      ),
    );
    return [...text.matchAll(/<p:cNvPr id="\d+" name="([^"]+)"/g)].map(([, name = ""]) => name);
  };
  const moved = <E extends Slide["elements"][number]>(element: E): E => ({
    ...element,
    frame: { x: 0, y: 0, width: 50, height: 50 },
  });
  it("stays behind what it stood behind when shapes are moved", () => {
    expect(names((given) => given.map(moved))).toEqual([
      "Place 10",
      "Shape 11",
      "Place 12",
      "Place 13",
      "Shape 14",
      "Shape 15",
      "Place 16",
    ]);
  });
  it("goes along when shapes change their order, and stays when they go", () => {
    expect(names(([one, two, three]) => [three, one, two].flatMap((element) => element ?? []))).toEqual([
      "Place 10",
      "Shape 15",
      "Shape 11",
      "Place 12",
      "Place 13",
      "Shape 14",
      "Place 16",
    ]);
    expect(names(([one]) => [one].flatMap((element) => element ?? []))).toEqual([
      "Place 10",
      "Shape 11",
      "Place 12",
      "Place 13",
      "Place 16",
    ]);
    expect(names(() => [])).toEqual(["Place 10", "Place 12", "Place 13", "Place 16"]);
  });
});

describe("list styles of a master", () => {
  // ECMA-376-1, 21.1.2.4.2 (buBlip): the relationship id belongs to the part that holds the bullet.
  it("put the picture of their own part before items of every slide", () => {
    const master = must(Object.keys(base).find((path) => /slideMasters\/[^/]*\.xml$/.test(path)));
    const links = master.replace(/([^/]*)$/, "_rels/$1.rels");
    const media = must(Object.keys(base).find((path) => /ppt\/media\//.test(path)));
    const parts = {
      ...base,
      [master]: strToU8(
        strFromU8(must(base[master])).replace(
          /(<p:otherStyle>[\s\S]*?<a:lvl1pPr\b[^>]*>)[\s\S]*?(<a:defRPr)|<p:otherStyle\/>/,
          (whole, open?: string, rest?: string) =>
            open ? `${open}<a:buBlip><a:blip r:embed="rIdSign"/></a:buBlip>${rest}` : whole,
        ),
      ),
      [links]: strToU8(
        strFromU8(must(base[links])).replace(
          "</Relationships>",
          `<Relationship Id="rIdSign" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/image" Target="../media/${media.split("/").at(-1)}"/></Relationships>`,
        ),
      ),
      "ppt/slides/slide1.xml": strToU8(
        `${HEAD}${sp({ text: "<a:p><a:r><a:t>item</a:t></a:r></a:p>" })}</p:spTree></p:cSld></p:sld>`,
      ),
    };
    expect(strFromU8(must(parts[master]))).toContain("rIdSign");
    const found = propertiesOf(read(zipSync(parts)));
    expect(found.text).toMatchObject([
      { kind: "bullet", properties: { bullet: { picture: `sign-${sha256(photo).slice(0, 24)}.png` } } },
    ]);
  });
});

import { Failure } from "@unitext/core/model";
import fc from "fast-check";
import { SaxesParser } from "saxes";
import { scanXml, scanXmlPieces } from ".";

/** What saxes, a parser that is held against the conformance tests of XML, tells of a text: its events in order, or that it is not well-formed. */
function bySaxes(text: string): unknown[] | "refused" {
  const events: unknown[] = [];
  let characters = "";
  let refused = false;
  const said = () => {
    if (characters) events.push(characters);
    characters = "";
  };
  const parser = new SaxesParser({ xmlns: false, position: true, defaultXMLVersion: "1.0", forceXMLVersion: true });
  parser.on("error", () => (refused = true));
  parser.on("doctype", () => (refused = true));
  parser.on("opentag", ({ name, attributes }) => {
    said();
    events.push(["open", name, { ...(attributes as Record<string, string>) }, parser.position]);
  });
  parser.on("closetag", ({ name }) => {
    said();
    events.push(["close", name, parser.position]);
  });
  // Of text outside of its element saxes tells the spaces too.
  let begun = false;
  parser.on("opentagstart", () => void (begun = true));
  parser.on("text", (value) => void (characters += begun ? value : ""));
  parser.on("cdata", (value) => void (characters += value));
  parser.write(text).close();
  return refused ? "refused" : events;
}

/** The events of a text that is read piece by piece, without positions. */
function inPieces(text: string, length: number): unknown[] | "refused" {
  const events: unknown[] = [];
  const names: string[] = [];
  let characters = "";
  const said = () => {
    if (characters) events.push(characters);
    characters = "";
  };
  const letters = [...text];
  const pieces = Array.from({ length: Math.ceil(letters.length / length) }, (_, nth) =>
    letters.slice(nth * length, (nth + 1) * length).join(""),
  );
  try {
    scanXmlPieces(pieces, "part", {
      open(name, attributes) {
        said();
        names.push(name);
        events.push(["open", name, attributes]);
      },
      close() {
        said();
        events.push(["close", names.pop()]);
      },
      text: (value) => void (characters += value),
    });
  } catch {
    return "refused";
  }
  return events;
}

const withoutPositions = (events: unknown[] | "refused") =>
  events === "refused"
    ? events
    : events.map((one) => (Array.isArray(one) ? one.slice(0, one[0] === "open" ? 3 : 2) : one));

function byUs(text: string): unknown[] | "refused" {
  const events: unknown[] = [];
  const names: string[] = [];
  let characters = "";
  const said = () => {
    if (characters) events.push(characters);
    characters = "";
  };
  try {
    scanXml(text, "part", {
      open(name, attributes, from, to) {
        said();
        expect(text[from]).toBe("<");
        names.push(name);
        events.push(["open", name, attributes, to]);
      },
      close(_, to) {
        said();
        events.push(["close", names.pop(), to]);
      },
      text: (value) => void (characters += value),
    });
  } catch (error) {
    expect(error).toBeInstanceOf(Failure);
    return "refused";
  }
  return events;
}

describe("a part as it is read", () => {
  const pieces = [
    "<a>",
    "<a",
    "<b:c ",
    "</a>",
    "</b:c>",
    "</a ",
    ">",
    "/>",
    "/",
    " x='1'",
    ' y="',
    '\' z = "2"',
    '"',
    "'",
    "=",
    "&amp;",
    "&lt;",
    "&#65;",
    "&#x1F600;",
    "&#0;",
    "&x;",
    "&",
    "<!--",
    "-->",
    "--",
    "<![CDATA[",
    "]]>",
    "]]",
    "<?p ",
    "?>",
    "<?xml version='1.0'?>",
    "<!DOCTYPE a>",
    "<!",
    " ",
    "\n",
    "\r\n",
    "\r",
    "\t",
    "word",
    "é",
    "名",
    "😀",
    "\u0001",
    "\uFFFE",
    "-",
    ".",
    "1",
    "_",
    ":",
    "\uFEFF",
  ];

  it("is what saxes tells of it, or both refuse it, whatever pieces of markup follow each other", () => {
    let taken = 0;
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...pieces), { maxLength: 14 }), fc.boolean(), (parts, wrapped) => {
        const text = wrapped ? `<r>${parts.join("")}</r>` : parts.join("");
        const ours = byUs(text);
        if (ours !== "refused") taken++;
        expect(ours).toEqual(bySaxes(text));
      }),
      { numRuns: 20_000 },
    );
    expect(taken).toBeGreaterThan(500);
  });

  it("is the same whole and piece by piece, wherever the pieces are cut", () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(...pieces), { maxLength: 14 }),
        fc.boolean(),
        fc.integer({ min: 1, max: 9 }),
        (parts, wrapped, length) => {
          const text = wrapped ? `<r>${parts.join("")}</r>` : parts.join("");
          if (text) expect(inPieces(text, length)).toEqual(withoutPositions(byUs(text)));
        },
      ),
      { numRuns: 20_000, examples: [[["<!", "-->", "<a>", "-->"], true, 1]] },
    );
  });

  const name = fc.stringMatching(/^[A-Za-z_à-ö][A-Za-z0-9.·-]{0,4}(:[a-z]{1,3})?$/);
  const words = fc.string({
    unit: fc.constantFrom(
      "a",
      "ß",
      " ",
      "\t",
      "\n",
      "\r",
      "\r\n",
      "&gt;",
      "&quot;",
      "&#xA;",
      "&#9;",
      "𝄞",
      "]",
      ">",
      "'",
    ),
    maxLength: 8,
  });
  const element: fc.Arbitrary<string> = fc.letrec((tie) => ({
    element: fc
      .tuple(
        name,
        fc.uniqueArray(fc.tuple(name, words), { selector: ([key]) => key, maxLength: 3 }),
        fc.array(
          fc.oneof(
            { depthSize: "small" },
            words,
            tie("element"),
            fc.constantFrom("<!-- - -->", "<?go on?>", "<![CDATA[<&]>]]>"),
          ),
          { maxLength: 4 },
        ),
        fc.boolean(),
      )
      .map(([tag, attributes, inside, spaced]) => {
        const [gap, inner] = [
          spaced ? "\n " : "",
          inside.join("").replaceAll("]]>", "]] >").replaceAll("<&]>]] >", "<&]>]]>"),
        ];
        const said = attributes.map(([key, value]) => ` ${key}${gap}=${gap}"${value}"`).join("");
        return inner || spaced ? `<${tag}${said}${gap}>${inner}</${tag}${gap}>` : `<${tag}${said}/>`;
      }),
  })).element;

  it("is taken as saxes takes it where it is well-formed", () => {
    fc.assert(
      fc.property(
        element,
        fc.constantFrom(
          "",
          '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\r\n',
          "\uFEFF<?xml version='1.0'?>",
          "<!-- before -->\n",
        ),
        (text, head) => {
          const ours = byUs(head + text);
          expect(ours).not.toBe("refused");
          expect(ours).toEqual(bySaxes(head + text));
        },
      ),
      { numRuns: 2000 },
    );
  });

  it("is told alike, or refused by both, when a letter is changed in what was well-formed", () => {
    fc.assert(
      fc.property(
        element,
        fc.nat(),
        fc.constantFrom("<", ">", "&", '"', "/", "=", "\u0000", " ", "-", "]", "a"),
        (text, place, letter) => {
          const letters = [...text];
          letters[place % letters.length] = letter;
          const changed = letters.join("");
          expect(byUs(changed)).toEqual(bySaxes(changed));
        },
      ),
      { numRuns: 5000 },
    );
  });

  it("says what is wrong in words", () => {
    const why = (text: string) => {
      try {
        scanXml(text, "slide1.xml", { open() {}, close() {} });
      } catch (error) {
        return (error as Failure).message.replace("The part slide1.xml is not well-formed XML: ", "");
      }
      return "taken";
    };
    expect([
      why("<a><b></a>"),
      why("<a x=1/>"),
      why("<a x='1' x='2'/>"),
      why("<a>&nbsp;</a>"),
      why("<a>"),
      why(""),
      why("<a/><b/>"),
      why("<a>]]></a>"),
      why('<a b="1"c="2"/>'),
    ]).toEqual([
      "the end tag “</a>” closes no element that is open.",
      "the value of the attribute x is not in quotes.",
      "the attribute x appears twice in one tag.",
      "the entity &nbsp; is not known.",
      "the element <a> is not closed.",
      "it holds no element.",
      "it has more than one element at its root.",
      "text holds “]]>”.",
      "the tag <a> has attributes without a space between.",
    ]);
    expect(why("<!DOCTYPE a><a/>")).toContain("document type declaration");
  });
});

import { spawnSync } from "node:child_process";
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Report, Tally } from "@unitext/core/tally";
import { PNG } from "pngjs";

const root = join(import.meta.dirname, "..");
const folder = mkdtempSync(join(tmpdir(), "unitext-cli-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const at = (name: string) => join(folder, name);
const unitext = (...args: string[]) => {
  const { status, stdout, stderr } = spawnSync(process.execPath, [join(root, "cli/unitext.mjs"), ...args], {
    encoding: "utf8",
    cwd: folder,
  });
  return { status, stdout, stderr };
};

const SOURCE = join(root, "demo/content/tides-dunes-storms.md");

describe("the command", () => {
  beforeAll(() => expect(unitext("make", SOURCE, "-o", at("course.pptx")).status).toBe(0));

  it("shows what is on each slide, as its contract says", () => {
    const { status, stdout } = unitext("show", at("course.pptx"), "--json");
    expect(status).toBe(0);
    const shown = JSON.parse(stdout);
    expect(Object.keys(shown)).toEqual(["title", "language", "page", "slides"]);
    expect(Object.keys(shown.slides[0])).toEqual([
      "number",
      "id",
      "level",
      "section",
      "hidden",
      "arrangement",
      "title",
      "text",
      "notes",
      "links",
      "tables",
      "charts",
      "pictures",
      "bindings",
      "overflow",
      "seconds",
    ]);
    expect(shown.slides[1]).toMatchObject({
      number: 2,
      id: "menu",
      arrangement: "points",
      title: "Today in three topics",
      links: [{ text: "Tides", to: "slide:3" }, { text: "Dunes" }, { text: "Storms" }],
    });
    expect(shown.slides[4]).toMatchObject({ level: 1, section: "Tides", overflow: false });
    expect(shown.slides.some(({ hidden }: { hidden: boolean }) => hidden)).toBe(true);
    expect(shown.slides[6].pictures).toEqual([
      { alt: expect.stringContaining("fourteen days"), mediaType: "image/png" },
    ]);
  });

  it("counts, converts with a report, and loses nothing on the way through .pptx", () => {
    const before = Tally.parse(JSON.parse(unitext("tally", SOURCE, "--json").stdout));
    expect(unitext("convert", at("course.pptx"), at("again.md"), "--report", at("report.json")).status).toBe(0);
    expect(Tally.parse(JSON.parse(unitext("tally", at("course.pptx"), "--json").stdout))).toEqual(before);
    const report = Report.parse(JSON.parse(readFileSync(at("report.json"), "utf8")));
    expect(report.from).toEqual(before);
    expect(report.left).toEqual([]);
    const { slides: first } = JSON.parse(unitext("show", at("course.pptx"), "--json").stdout);
    const { slides: second } = JSON.parse(unitext("show", at("again.md"), "--json").stdout);
    expect(second.map(({ id, notes }: { id: string; notes: string }) => [id, notes])).toEqual(
      first.map(({ id, notes }: { id: string; notes: string }) => [id, notes]),
    );
  });

  it("draws chosen slides as pictures of a width, and as a PDF", () => {
    expect(unitext("draw", at("course.pptx"), "-o", at("pictures"), "--slides", "1,3-4", "--width", "320").status).toBe(
      0,
    );
    expect(readdirSync(at("pictures")).sort()).toEqual(["01.png", "03.png", "04.png"]);
    const { width, height } = PNG.sync.read(readFileSync(at("pictures/03.png")));
    expect([width, height]).toEqual([320, 180]);
    expect(unitext("draw", at("course.pptx"), "-o", at("course.pdf"), "--slides", "2").status).toBe(0);
    expect(readFileSync(at("course.pdf")).subarray(0, 5).toString()).toBe("%PDF-");
  });

  it.each([
    ["a file that is not there", ["show", "none.pptx"], 1, /^unitext: none\.pptx: .+: There is no such file\.\n$/],
    ["a file that is not what it says", ["show", "fake.pptx"], 1, /^unitext: fake\.pptx: .*not a zip/],
    ["an unknown command", ["fly"], 2, /no command “fly”/],
    ["an unknown option", ["show", "x.md", "--fast"], 2, /^unitext: /],
    ["a format that it does not write", ["convert", "x.md", "x.gif"], 2, /cannot tell how to write/],
    ["a translation without a language", ["segments", "x.pptx", "-o", "d"], 2, /needs one DECK, --to TAG/],
    [
      "a workbook that is none",
      ["bind", "small.md", "-o", "d.md", "--workbook", "fake.xlsx", "--range", "A1"],
      1,
      /not a zip/,
    ],
    ["slides that are not there", ["draw", "small.md", "-o", "d", "--slides", "9"], 2, /the last is 1/],
  ])("refuses %s in its own words", (_, args, status, words) => {
    writeFileSync(at("fake.pptx"), "hello");
    writeFileSync(at("fake.xlsx"), "hello");
    writeFileSync(at("small.md"), "## One\n");
    const result = unitext(...args);
    expect(result.status).toBe(status);
    expect(result.stderr).toMatch(words);
    expect(result.stderr).not.toMatch(/\n\s+at /);
    expect(result.stdout).toBe("");
  });

  it.each(["pptx", "odp", "json"])("binds cells of a workbook and takes new values in a .%s", (format) => {
    const [deck, bound] = [at(`bound.${format}`), at(`bound-2.${format}`)];
    writeFileSync(at("small.md"), "## Levels\n\n- The bay was calm\n");
    writeFileSync(at("gauges.csv"), "Station,January,March\nQuay,4.1,4.6\nBar,3.2,3.1\n");
    writeFileSync(at("next.csv"), "Station,January,March\nQuay,4.1,5.0\nBar,3.2,3.1\n");
    const workbook = `gauges.csv=${at("gauges.csv")}`;
    expect(
      unitext("bind", at("small.md"), "-o", deck, "--workbook", workbook, "--range", "A1:C3", "--as", "table").status,
    ).toBe(0);
    expect(
      unitext("bind", deck, "-o", bound, "--workbook", workbook, "--range", "C2", "--slide", "1", "--as", "number")
        .status,
    ).toBe(0);
    const shown = JSON.parse(unitext("show", bound, "--json").stdout).slides;
    expect(shown[0].text).toEqual(["The bay was calm", "Quay, March: 4.6"]);
    expect(shown[1].tables[0][1]).toEqual(["Quay", "4.1", "4.6"]);
    expect(shown[1].bindings).toEqual([
      { source: "gauges.csv", range: "gauges!A1:C3", mode: "latest", state: "current" },
    ]);
    expect(JSON.parse(unitext("bindings", bound, "--json").stdout)).toMatchObject([
      { slide: 1, place: "text", range: "gauges!C2", state: "current", shown: "4.6" },
      { slide: 2, place: "table", range: "gauges!A1:C3", state: "current" },
    ]);
    const next = `gauges.csv=${at("next.csv")}`;
    const check = unitext("refresh", bound, "--check", "--json", "--workbook", next);
    expect([check.status, JSON.parse(check.stdout).length]).toEqual([1, 2]);
    const taken = unitext("refresh", bound, "-o", deck, "--json", "--workbook", next);
    expect([taken.status, JSON.parse(taken.stdout)[0]]).toEqual([
      0,
      { slide: 1, source: "gauges.csv", range: "gauges!C2", from: "4.6", to: "5", state: "stale" },
    ]);
    expect(JSON.parse(unitext("show", deck, "--json").stdout).slides[0].text).toEqual([
      "The bay was calm",
      "Quay, March: 5",
    ]);
    expect(unitext("refresh", deck, "--check", "--workbook", next).status).toBe(0);
  });

  it.each(["1.2", "2.1"])("writes XLIFF %s to translate, and makes the deck in the other language of it", (version) => {
    writeFileSync(
      at("tides.md"),
      "# Tides\n\n## The quay\n\n- It rose to **4.6** m, see [the map](https://example.org/map)\n\n:::notes\nAsk Dr. Tern. Then go on.\n:::\n",
    );
    const [xliff, made] = [at("tides.xlf"), at("tides-de.pptx")];
    expect(unitext("segments", at("tides.md"), "--to", "de", "-o", xliff, "--xliff", version).status).toBe(0);
    const translated = readFileSync(xliff, "utf8").replace(
      /(<source[^>]*>)([\s\S]*?)(<\/source>)/g,
      (all, _, content: string) =>
        `${all}<target>${content.replace("rose to", "stieg auf").replace("4.6", "4,6")}</target>`,
    );
    writeFileSync(xliff, translated);
    const result = unitext("translate", at("tides.md"), "--to", "de", "-o", made, "--segments", xliff);
    expect([result.status, result.stderr]).toEqual([0, expect.stringContaining("6 segments: 6 from the file")]);
    const { language, slides } = JSON.parse(unitext("show", made, "--json").stdout);
    expect([language, slides[1].text]).toEqual(["de", ["It stieg auf 4,6 m, see the map"]]);
    expect(slides[1].links).toEqual([{ text: "the map", to: "https://example.org/map" }]);
    expect(slides[1].notes).toBe("Ask Dr. Tern. Then go on.");
  });

  it("translates by a memory and the pseudo engine, checks terms, and refuses files for another language", () => {
    writeFileSync(at("quay.md"), "## The quay\n\n- It is wet\n");
    writeFileSync(
      at("quay.tmx"),
      '<tmx version="1.4"><header srclang="en"/><body><tu><tuv xml:lang="en-GB"><seg>It is wet</seg></tuv><tuv xml:lang="de"><seg>Es ist nass</seg></tuv></tu></body></tmx>',
    );
    writeFileSync(at("quay.csv"), "term,translation\nwet,feucht\n");
    const given = ["--memory", at("quay.tmx"), "--terms", at("quay.csv"), "--engine", "pseudo"];
    const made = unitext("translate", at("quay.md"), "--to", "de", "-o", at("quay.json"), ...given);
    expect([made.status, made.stderr]).toEqual([
      0,
      expect.stringContaining("1 from the memory, 2 from the engine, 0 untranslated"),
    ]);
    expect(JSON.parse(unitext("show", at("quay.json"), "--json").stdout).slides[0].text).toEqual(["Es ist nass"]);
    expect(unitext("segments", at("quay.md"), "--to", "fr", "-o", at("fr.xlf")).status).toBe(0);
    const other = unitext("translate", at("quay.md"), "--to", "de", "-o", at("x.md"), "--segments", at("fr.xlf"));
    expect([other.status, other.stderr]).toEqual([
      1,
      expect.stringContaining("The file is in “fr”, and “de” was asked for."),
    ]);
    expect(unitext("translate", at("quay.md"), "--to", "not a tag", "-o", at("x.md")).status).toBe(2);
  });

  it("splits by a plan into files, all or none, and merges them again, everything accounted for", () => {
    const course: { title: string }[] = JSON.parse(unitext("show", at("course.pptx"), "--json").stdout).slides;
    const last = course.length;
    writeFileSync(
      at("plan.json"),
      JSON.stringify({
        opening: "1",
        closing: String(last),
        parts: [
          { name: "Tides: day one", slides: "2-8" },
          { name: "Day two", slides: `9-${last - 1}` },
        ],
      }),
    );
    const before = Tally.parse(JSON.parse(unitext("tally", at("course.pptx"), "--json").stdout));
    const cut = unitext("split", at("course.pptx"), "--plan", at("plan.json"), "-o", at("parts"));
    expect([cut.status, cut.stderr.includes("which is another file; its words stay")]).toEqual([0, true]);
    expect(readdirSync(at("parts"))).toEqual(["1 Tides day one.pptx", "2 Day two.pptx"]);
    expect(cut.stdout).toContain(`${before.slides} slides`);
    const shown = JSON.parse(unitext("show", at("parts/2 Day two.pptx"), "--json").stdout);
    expect(shown.slides.map(({ title }: { title: string }) => title)).toEqual(
      course.filter((_, nth) => nth === 0 || nth >= 8).map(({ title }) => title),
    );
    const joined = unitext(
      "merge",
      at("parts/1 Tides day one.pptx"),
      at("parts/2 Day two.pptx"),
      "-o",
      at("whole.pptx"),
      "--look",
      "keep",
    );
    expect(joined.status).toBe(0);
    const after = Tally.parse(JSON.parse(unitext("tally", at("whole.pptx"), "--json").stdout));
    // Opening and closing stand twice.
    expect(after.slides).toBe(before.slides + 2);
    expect(after.bindings).toBe(before.bindings);
    expect(
      unitext("merge", at("course.pptx"), at("parts/2 Day two.pptx"), "-o", at("placed.json"), "--at", "1").status,
    ).toBe(0);
    expect(JSON.parse(readFileSync(at("placed.json"), "utf8")).deck.slides[1].origin).toBeDefined();
  });

  it("splits by minutes from a plan of one line", () => {
    writeFileSync(at("minutes.json"), JSON.stringify({ opening: "1", by: { minutes: 3 }, names: "{title} {number}" }));
    expect(
      unitext("split", at("course.pptx"), "--plan", at("minutes.json"), "-o", at("days"), "--format", "json").status,
    ).toBe(0);
    const files = readdirSync(at("days"));
    expect(files.length).toBeGreaterThan(1);
    for (const file of files)
      expect(JSON.parse(unitext("show", at(`days/${file}`), "--json").stdout).slides.length).toBeGreaterThan(1);
  });

  it.each([
    [
      ["split", "course.pptx", "--plan", "bad.json", "-o", "never"],
      1,
      "unitext: ",
      "parts[0] (A): “900” names slide 900",
    ],
    [["split", "course.pptx", "--plan", "none.json", "-o", "never"], 1, "unitext: ", "no such file"],
    [["split", "course.pptx", "-o", "never"], 2, "", "--plan FILE"],
    [["merge", "course.pptx", "-o", "never.pptx", "--look", "blue"], 2, "", "match or keep"],
    [["merge", "course.pptx", "-o", "never.pptx", "--at", "900"], 2, "", "from 0 to"],
  ])("refuses %j and writes nothing", (args, status, start, words) => {
    writeFileSync(at("bad.json"), JSON.stringify({ parts: [{ name: "A", slides: "900" }] }));
    const done = unitext(...args.map((word) => (/\.(pptx|json)$/.test(word) || word === "never" ? at(word) : word)));
    expect(done.status).toBe(status);
    expect(done.stderr.startsWith(start)).toBe(true);
    expect(done.stderr).toContain(words);
    expect(existsSync(at("never"))).toBe(false);
    expect(existsSync(at("never.pptx"))).toBe(false);
  });

  it("leaves no output behind when it refuses", () => {
    writeFileSync(at("broken.pptx"), readFileSync(at("course.pptx")).subarray(0, 2000));
    expect(unitext("convert", at("broken.pptx"), at("never.pdf")).status).toBe(1);
    expect(existsSync(at("never.pdf"))).toBe(false);
    expect(readdirSync(folder).some((name) => name.endsWith(".part"))).toBe(false);
  });
});

import { droppedFiles, readable, unreadableSentence } from "./droppedfiles";

const file = (name: string) => new File(["Tides"], name);
/** A file whose bytes may not be read, as the File API has it: its blobs reject with a NotReadableError. */
function closedFile(name: string): File {
  const closed = file(name);
  const refuse = () => Promise.reject(new DOMException("not readable", "NotReadableError"));
  return Object.assign(closed, { slice: () => ({ arrayBuffer: refuse }) as unknown as Blob });
}
const entry = (given: File | undefined, path: string) => ({
  isFile: true,
  isDirectory: false,
  fullPath: `/${path}`,
  file: (take: (file: File) => void, fail: (error: Error) => void) =>
    given ? take(given) : fail(new DOMException("gone", "NotFoundError")),
});
/** A folder that is read in parts; without entries it cannot be opened. */
const folder = (path: string, parts: unknown[][] | undefined) => ({
  isFile: false,
  isDirectory: true,
  fullPath: `/${path}`,
  createReader: () => {
    const left = parts ? [...parts, []] : [];
    return {
      readEntries: (take: (part: unknown[]) => void, fail: (error: Error) => void) =>
        parts ? take(left.shift() ?? []) : fail(new DOMException("closed", "NotReadableError")),
    };
  },
});
const drop = (...entries: unknown[]) =>
  ({
    items: entries.map((one) => ({ kind: "file", webkitGetAsEntry: () => one })),
    files: [],
  }) as never as DataTransfer;

describe("dropped files", () => {
  it("are those of a folder and its folders, read in parts, without hidden ones", async () => {
    const inner = folder("course/day 1", [[entry(file("tides.docx"), "course/day 1/tides.docx")]]);
    const { files, unreadable } = await droppedFiles(
      drop(folder("course", [[entry(file("plan.md"), "course/plan.md")], [inner, entry(file(".DS_Store"), "x")]])),
    );
    expect(files.map(({ name }) => name)).toEqual(["plan.md", "tides.docx"]);
    expect(unreadable).toEqual([]);
  });

  it("are taken where others of the folder are closed or gone, and those are named", async () => {
    const given = folder("course", [
      [
        entry(file("plan.md"), "course/plan.md"),
        entry(closedFile("marks.xlsx"), "course/marks.xlsx"),
        entry(undefined, "course/moved.docx"),
        folder("course/private", undefined),
      ],
    ]);
    const { files, unreadable } = await droppedFiles(drop(given));
    expect(files.map(({ name }) => name)).toEqual(["plan.md"]);
    expect(unreadable.sort()).toEqual(["course/moved.docx", "course/private", "marks.xlsx"]);
  });

  it("are read one by one where no folder is among them", async () => {
    const { files, unreadable } = await readable([file("a.md"), closedFile("b.md")]);
    expect([files.map(({ name }) => name), unreadable]).toEqual([["a.md"], ["b.md"]]);
  });

  it("are named in a sentence that says what to do, but not all of a hundred", () => {
    expect(unreadableSentence([])).toBeUndefined();
    expect(unreadableSentence(["b.md"])).toBe(
      "b.md could not be read. It was left out; all others were taken. Check that you may open it.",
    );
    expect(unreadableSentence(Array.from({ length: 100 }, (_, nth) => `${nth}.md`))).toContain("and 95 more");
  });
});

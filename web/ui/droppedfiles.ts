/** Files that were dropped or chosen, and the names of those that the browser may not read. */
export interface GivenFiles {
  files: File[];
  unreadable: string[];
}

/** Returns the files of a folder and of the folders in it; what cannot be opened is listed with its path. */
async function filesIn(entry: FileSystemEntry): Promise<GivenFiles> {
  const unreadable = { files: [], unreadable: [entry.fullPath.replace(/^\//, "")] };
  if (entry.isFile)
    return new Promise((resolve) =>
      (entry as FileSystemFileEntry).file(
        (file) => resolve({ files: [file], unreadable: [] }),
        () => resolve(unreadable),
      ),
    );
  const reader = (entry as FileSystemDirectoryEntry).createReader();
  const found: GivenFiles = { files: [], unreadable: [] };
  // A folder is read in parts, until a part is empty.
  for (;;) {
    let part: FileSystemEntry[];
    try {
      part = await new Promise((resolve, reject) => reader.readEntries(resolve, reject));
    } catch {
      return { ...found, unreadable: [...found.unreadable, ...unreadable.unreadable] };
    }
    if (!part.length) return found;
    for (const inner of part) {
      const { files, unreadable: names } = await filesIn(inner);
      found.files.push(...files);
      found.unreadable.push(...names);
    }
  }
}

const isHidden = ({ name }: File) => name.startsWith(".") || name === "Thumbs.db";

/** Returns the files that can be read: one that its owner has closed to this person fails at its first byte. */
export async function readable(given: readonly File[]): Promise<GivenFiles> {
  const opened = await Promise.all(
    given.map((file) =>
      file
        .slice(0, 1)
        .arrayBuffer()
        .then(
          () => true,
          () => false,
        ),
    ),
  );
  return {
    files: given.filter((_, nth) => opened[nth]),
    unreadable: given.filter((_, nth) => !opened[nth]).map(({ name }) => name),
  };
}

/**
 * Returns the files that are dropped, with those inside of folders; hidden files are left out. It must be called while the
 * drop is handled: the browser forgets it afterwards.
 */
export async function droppedFiles(data: DataTransfer): Promise<GivenFiles> {
  const entries = [...data.items].flatMap((item) => {
    const entry = item.kind === "file" ? item.webkitGetAsEntry?.() : null;
    return entry ? [entry] : [];
  });
  if (!entries.some(({ isDirectory }) => isDirectory)) return readable([...data.files]);
  const found: GivenFiles = { files: [], unreadable: [] };
  for (const entry of entries) {
    const { files, unreadable } = await filesIn(entry);
    const opened = await readable(files.filter((file) => !isHidden(file)));
    found.files.push(...opened.files);
    found.unreadable.push(...unreadable, ...opened.unreadable);
  }
  return found;
}

/** How many names a sentence lists. */
const NAMED = 5;

/** Says which files could not be read; undefined where all could. */
export function unreadableSentence(names: readonly string[]): string | undefined {
  if (!names.length) return undefined;
  const more = names.length > NAMED ? ` and ${names.length - NAMED} more` : "";
  const rest = names.length === 1 ? "It was left out" : "They were left out";
  return `${names.slice(0, NAMED).join(", ")}${more} could not be read. ${rest}; all others were taken. Check that you may open ${names.length === 1 ? "it" : "them"}.`;
}

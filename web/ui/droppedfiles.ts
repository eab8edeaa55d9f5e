/** Returns the files of a folder and of the folders in it. */
async function filesIn(entry: FileSystemEntry): Promise<File[]> {
  if (entry.isFile)
    return [await new Promise<File>((resolve, reject) => (entry as FileSystemFileEntry).file(resolve, reject))];
  const reader = (entry as FileSystemDirectoryEntry).createReader();
  const files: File[] = [];
  // A folder is read in parts, until a part is empty.
  for (;;) {
    const part = await new Promise<FileSystemEntry[]>((resolve, reject) => reader.readEntries(resolve, reject));
    if (!part.length) return files;
    for (const inner of part) files.push(...(await filesIn(inner)));
  }
}

const isHidden = ({ name }: File) => name.startsWith(".") || name === "Thumbs.db";

/**
 * Returns the files that are dropped, with those inside of folders; hidden files are left out. It must be called while the
 * drop is handled: the browser forgets it afterwards.
 */
export async function droppedFiles(data: DataTransfer): Promise<File[]> {
  const entries = [...data.items].flatMap((item) => {
    const entry = item.kind === "file" ? item.webkitGetAsEntry?.() : null;
    return entry ? [entry] : [];
  });
  if (!entries.some(({ isDirectory }) => isDirectory)) return [...data.files];
  const files: File[] = [];
  for (const entry of entries) files.push(...(await filesIn(entry)));
  return files.filter((file) => !isHidden(file));
}

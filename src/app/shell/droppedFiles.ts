/** How many files of a dropped folder are looked at. */
const MOST_FILES = 5000;

/** All files of a drop, those within folders included. */
export async function filesIn(dropped: DataTransfer): Promise<File[]> {
  // The list of a drop is emptied once its event is over: everything is asked for at once.
  const plain = [...dropped.files];
  const entries = [...dropped.items].flatMap((item) => item.webkitGetAsEntry?.() ?? []);
  if (!entries.some((e) => e.isDirectory)) return plain;
  const files: File[] = [];
  const visit = async (entry: FileSystemEntry): Promise<void> => {
    if (files.length >= MOST_FILES) return;
    if (entry.isFile)
      files.push(await new Promise<File>((resolve, reject) => (entry as FileSystemFileEntry).file(resolve, reject)));
    else for (const inner of await entriesOf(entry as FileSystemDirectoryEntry)) await visit(inner);
  };
  for (const entry of entries) await visit(entry);
  return files;
}

/** A folder gives its entries in portions, an empty one last. */
async function entriesOf(folder: FileSystemDirectoryEntry): Promise<FileSystemEntry[]> {
  const reader = folder.createReader();
  const all: FileSystemEntry[] = [];
  for (;;) {
    const portion = await new Promise<FileSystemEntry[]>((resolve, reject) => reader.readEntries(resolve, reject));
    if (portion.length === 0) return all;
    all.push(...portion);
  }
}

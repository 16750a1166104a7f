/** All files that were dropped, those of folders too. The list of a drop is gone with its event, so it is read before anything waits. */
export async function droppedFiles(data: DataTransfer | null): Promise<File[]> {
  const entries = [...(data?.items ?? [])].map((item) => item.webkitGetAsEntry?.() ?? null);
  const plain = [...(data?.files ?? [])];
  if (!entries.some((e) => e?.isDirectory)) return plain;
  const found = await Promise.all(entries.map((e) => (e === null ? [] : filesOf(e))));
  return found.flat();
}

async function filesOf(entry: FileSystemEntry): Promise<File[]> {
  if (entry.isFile) return [await new Promise<File>((done, fail) => (entry as FileSystemFileEntry).file(done, fail))];
  const reader = (entry as FileSystemDirectoryEntry).createReader();
  const all: FileSystemEntry[] = [];
  // A browser gives a folder in portions of a hundred; an empty one ends it.
  for (;;) {
    const portion = await new Promise<FileSystemEntry[]>((done, fail) => reader.readEntries(done, fail));
    if (portion.length === 0) break;
    all.push(...portion);
  }
  return (await Promise.all(all.map(filesOf))).flat();
}

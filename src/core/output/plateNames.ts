/** A file name for each ink: its own name, made safe, and never the same twice. */
export function plateFileNames(inks: readonly string[]): string[] {
  const taken = new Set<string>();
  return inks.map((ink) => {
    const safe =
      ink
        .replace(/[\\/:*?"<>|\u0000-\u001f]/g, '_')
        .replace(/^\.+/, '_')
        .trim() || 'ink';
    let file = `${safe}.png`;
    for (let n = 2; taken.has(file.toLowerCase()); n++) file = `${safe} ${n}.png`;
    taken.add(file.toLowerCase());
    return file;
  });
}

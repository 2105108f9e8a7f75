/** Each row lifts a document from its version to the next. Version 1 is the first. */
const MIGRATIONS: Readonly<Record<number, (d: Record<string, unknown>) => Record<string, unknown>>> = {};
const CURRENT_VERSION = 1;

export function migrate(design: Record<string, unknown>, version: number): Record<string, unknown> | 'newer' {
  if (version > CURRENT_VERSION) return 'newer';
  let at = design;
  for (let v = version; v < CURRENT_VERSION; v++) {
    const step = MIGRATIONS[v];
    if (!step) throw new Error(`no migration from version ${v}`);
    at = step(at);
  }
  return at;
}

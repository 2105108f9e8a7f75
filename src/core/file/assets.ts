/** Files that belong to a design: bytes by the name that the design knows them by. */
export type Assets = ReadonlyMap<string, Uint8Array>;

/** A file's name from its content: same bytes, same name (SHA-256). */
export async function assetName(bytes: Uint8Array, ending: string): Promise<string> {
  const digest = new Uint8Array(await crypto.subtle.digest('SHA-256', bytes as BufferSource));
  return `sha256-${[...digest].map((b) => b.toString(16).padStart(2, '0')).join('')}.${ending}`;
}

/** Is this the name of a file that a person brought, not of one that is shipped? */
export const isOwnAsset = (name: string): boolean => /^sha256-[0-9a-f]{64}\.[a-z]+$/.test(name);

/** The names of the assets whose bytes are not what their name says: they were changed or damaged on the way. */
export async function damagedAssets(assets: Assets): Promise<string[]> {
  const bad: string[] = [];
  for (const [name, bytes] of assets) if ((await assetName(bytes, name.split('.').pop()!)) !== name) bad.push(name);
  return bad;
}

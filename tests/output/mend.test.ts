import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { packDesign, unpackDesign } from '@/core/file/archive';
import { mendFile } from '@/core/file/mend';
import { verifyDesign } from '@/core/model/verify';
import { making, sampleDesign } from '../support/sample';

type Loose = Record<string, never> & { nodes: Record<string, Record<string, unknown>>; [key: string]: unknown };
const SAMPLE = sampleDesign();
/** A file of the sample with something in it spoilt. */
function spoilt(spoil: (d: Loose) => void): Uint8Array {
  const files = unzipSync(packDesign(SAMPLE, Uint8Array.of(1, 2)));
  const d = JSON.parse(strFromU8(files['design.json'])) as Loose;
  spoil(d);
  return zipSync({ ...files, 'design.json': strToU8(JSON.stringify(d)) });
}

test('of a file with one damaged object, all others are opened, and it is named', () => {
  const gone = SAMPLE.pages[0].children.find((id) => !('children' in SAMPLE.nodes[id]))!;
  const bytes = spoilt((d) => {
    d.nodes[gone].name = 'Harbour wall';
    d.nodes[gone].transform = [1, 0, 0];
  });
  expect(unpackDesign(bytes)).toMatchObject({ ok: false, code: 'broken' });
  const mended = mendFile(bytes, making)!;
  expect(verifyDesign(mended.design).ok).toBe(true);
  expect(mended.design.nodes[gone]).toBeUndefined();
  const { [gone]: _, ...rest } = SAMPLE.nodes;
  expect(Object.keys(mended.design.nodes).sort()).toEqual(Object.keys(rest).sort());
  expect(mended.design.pages[0].children).toEqual(SAMPLE.pages[0].children.filter((id) => id !== gone));
  expect(mended.leftOut).toMatch(/^“Harbour wall”/);
});

test('whatever is spoilt, what comes of it is sound or nothing, and said', () => {
  const kinds: ((d: Loose) => void)[] = [
    (d) => void delete d.stories,
    (d) => void ((d as Record<string, unknown>).nodes = 7),
    (d) => void (d.nodes.extra = 5 as never),
    (d) => void ((d as Record<string, unknown>).swatches = 'none'),
    (d) => void ((d as Record<string, unknown>).pages = null),
    (d) => void ((d as Record<string, unknown>).setup = { width: -1 }),
  ];
  for (const spoil of kinds) {
    const bytes = spoilt(spoil);
    if (unpackDesign(bytes).ok) continue;
    const mended = mendFile(bytes, making);
    if (!mended) continue;
    expect(verifyDesign(mended.design).ok).toBe(true);
    expect(typeof mended.leftOut).toBe('string');
  }
  expect(
    mendFile(
      spoilt((d) => void (d.format = 'holvet/99' as never)),
      making,
    ),
  ).toBeNull();
  expect(mendFile(Uint8Array.of(1, 2, 3), making)).toBeNull();
  // Nested so deep that nothing can walk through it: refused, never thrown.
  const deep = `${'{"a":'.repeat(20_000)}1${'}'.repeat(20_000)}`;
  const text = JSON.stringify(SAMPLE).replace('"nodes":{', `"nodes":{"deep":${deep},`);
  expect(() => mendFile(zipSync({ 'design.json': strToU8(text) }), making)).not.toThrow();
});

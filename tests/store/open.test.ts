import { COMMANDS } from '@/bench/commands/commands';
import { HolvetDatabase } from '@/store/database';
import { DesignStore } from '@/store/designs';
import { seedDemo, storageProblem } from '@/store/open';
import { download } from '@/ui/download';
import { fileName } from '@/core/output/fileName';
import { demoDesigns } from '@/demo/demos';

test('the demo is put on a new shelf once; what was thrown away stays away', async () => {
  const db = new HolvetDatabase('seed');
  const store = new DesignStore(db);
  await seedDemo(store);
  expect((await store.list()).map((r) => r.name)).toEqual(demoDesigns().map((d) => d.design.name));
  for (const { design } of demoDesigns()) await store.remove(design.id);
  await seedDemo(store);
  expect(await store.list()).toEqual([]);
  await store.setSetting('demo-seeded', false);
  await seedDemo(store);
  expect(await store.has('lantern-walk-poster')).toBe(true);
  await db.delete();
});

test('a shelf from before the later demo designs gets those, and not the poster again', async () => {
  const db = new HolvetDatabase('seed-old');
  const store = new DesignStore(db);
  await store.setSetting('demo-seeded', true);
  await seedDemo(store);
  expect((await store.list()).map((r) => r.id)).toEqual([
    'walk-programme',
    'guild-letterhead',
    'supper-ticket',
    'guild-mark',
    'lantern-stickers',
    'route-markers',
    'workshop-certificate',
    'stall-card',
  ]);
  await db.delete();
});

test('the demo is the same bytes every time', () =>
  expect(JSON.stringify(demoDesigns())).toBe(JSON.stringify(demoDesigns())));

test('why nothing can be kept, in words that say what to do', () => {
  expect(storageProblem(Object.assign(new Error('x'), { name: 'QuotaExceededError' }))).toMatch(/full.*Remove designs/);
  expect(storageProblem(new Error('SecurityError'))).toMatch(/Allow storage for this site/);
  expect(storageProblem('odd')).toMatch(/Allow storage/);
});

test.each([
  ['Lantern Walk poster', 'Lantern Walk poster.pdf'],
  ['a/b\\c:d*e?', 'a b c d e.pdf'],
  ['  ..hidden.. ', 'hidden.pdf'],
  ['', 'design.pdf'],
  ['Lampionų ėjimas', 'Lampionų ėjimas.pdf'],
  ['x'.repeat(300), `${'x'.repeat(120)}.pdf`],
  ['a\nb\u0000c', 'a b c.pdf'],
  ['CON', 'CON!.pdf'],
  ['lpt1.final', 'lpt1!.final.pdf'],
  ['fair\u202egpj', 'fair gpj.pdf'],
])('the file of “%s”', (name, file) => expect(fileName(name, 'pdf')).toBe(file));

test('a long name ends between characters, within 200 bytes', () => {
  // A family and a flag are several code points each, seen as one character.
  for (const one of ['👩‍👩‍👧', '🇫🇮', 'é', '漢', 'x']) {
    const file = fileName(one.repeat(200), 'holvet');
    expect(new TextEncoder().encode(file).length).toBeLessThanOrEqual(200);
    const stem = file.slice(0, -'.holvet'.length);
    expect(stem.length % one.length).toBe(0);
    expect(stem).toBe(one.repeat(stem.length / one.length));
  }
});

test('a download is handed over under its name', () => {
  const clicked: { download: string; href: string }[] = [];
  const anchor = {
    href: '',
    download: '',
    click: () => clicked.push({ download: anchor.download, href: anchor.href }),
  };
  Object.assign(globalThis, { document: { createElement: () => anchor } });
  const real = { make: URL.createObjectURL, drop: URL.revokeObjectURL };
  URL.createObjectURL = () => 'blob:here';
  URL.revokeObjectURL = () => {};
  soonInsteadOfLater();
  download(Uint8Array.of(1), 'a.pdf', 'application/pdf');
  expect(clicked).toEqual([{ download: 'a.pdf', href: 'blob:here' }]);
  Object.assign(URL, { createObjectURL: real.make, revokeObjectURL: real.drop });
});

/** The address is given back after ten seconds; no test waits for that. */
function soonInsteadOfLater(): void {
  const real = globalThis.setTimeout;
  globalThis.setTimeout = ((f: () => void) => real(f, 0)) as typeof setTimeout;
  real(() => (globalThis.setTimeout = real), 0);
}

test('commands are found by what people call them', () => {
  const find = (word: string) =>
    Object.entries(COMMANDS)
      .filter(([, c]) => [c.label, ...c.keywords].some((w) => w.toLowerCase().includes(word)))
      .map(([id]) => id);
  expect(find('behind')).toContain('object.back');
  expect(find('separations')).toContain('view.plates');
  expect(find('knock out')).toContain('object.overprint');
  expect(find('together')).toContain('object.group');
});

// Work with a real pointer, each gesture in turns with what it is compared with.
import type { Browser } from '@playwright/test';
import path from 'node:path';
import { measured, median, quietTurns, readInTurns, type Row } from './measure';
import { BASE, counted, frames, opened, scriptOf, toFront, type Opened } from './places';

/** Each there and back again: the machine's pace changes from reading to reading, so that only many say the same. */
const TURNS = 11;
/** Of what takes longer. */
const FEWER = 7;
/** Moves in one reading, at a pointer's own rate: panels follow at theirs, and their share is counted in. */
const MOVES = 40;

const atRate = (o: Opened, move: (i: number) => Promise<void>, moves = MOVES) =>
  scriptOf(o, moves, async (i) => {
    await move(i);
    await o.page.waitForTimeout(14);
  });
const said = (o: Opened) => o.page.locator('#bench-top > [role=status]').textContent();
const middle = async (o: Opened) => {
  const box = (await o.page.locator('#bench-top').boundingBox())!;
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
};

/** A place on the page of an A3 design that is fitted whole, in millimetres. */
async function placer(o: Opened) {
  const box = (await o.page.locator('#bench-top').boundingBox())!;
  const scale = Math.min((box.width - 56) / (297 + 6), (box.height - 56) / (420 + 6));
  return (x: number, y: number) => ({
    x: box.x + box.width / 2 + (x - 297 / 2) * scale,
    y: box.y + box.height / 2 + (y - 210) * scale,
  });
}

/** Dragging, panning and zooming among 10,000 shapes and among 100. */
export async function gestures(browser: Browser, folder: string): Promise<Row[]> {
  const large = await opened(browser, path.join(folder, 'crowd-10000.holvet'));
  const small = await opened(browser, path.join(folder, 'crowd-100.holvet'));
  const pan = async (o: Opened) => {
    await toFront(o);
    return scriptOf(o, 32, async (i) => {
      await o.page.mouse.wheel(i % 2 ? 6 : -6, i % 2 ? 8 : -8);
      await frames(o.page);
    });
  };
  const zoom = async (o: Opened) => {
    await toFront(o);
    await o.page.keyboard.down('Control');
    const v = await scriptOf(o, 32, async (i) => {
      await o.page.mouse.wheel(0, i % 2 ? 60 : -60);
      await frames(o.page);
    });
    await o.page.keyboard.up('Control');
    return v;
  };
  const drag = async (o: Opened) => {
    const at = await shapeAt(o);
    await o.page.mouse.down();
    await o.page.mouse.move(at.x + 6, at.y);
    const v = await scriptOf(o, 20, async (i) => {
      await o.page.mouse.move(at.x + 10 + i * 3, at.y + Math.sin(i) * 20);
      await frames(o.page);
    });
    const words = await said(o);
    await o.page.keyboard.press('Escape');
    await o.page.mouse.up();
    if (!/^-?[\d.]+ mm, -?[\d.]+ mm/.test(words ?? '')) throw new Error(`nothing was dragged: “${words}”`);
    return v;
  };
  const press = async (o: Opened) => {
    const at = await shapeAt(o);
    await o.page.evaluate(armFirstMove);
    await o.page.mouse.down();
    await o.page.mouse.move(at.x + 2, at.y);
    await o.page.mouse.move(at.x + 12, at.y + 6);
    const v = await o.page.evaluate(() => (window as unknown as { first: Promise<number> }).first);
    await o.page.keyboard.press('Escape');
    await o.page.mouse.up();
    await o.page.waitForTimeout(400);
    return v;
  };
  const rows: Row[] = [];
  for (const [what, aim, read] of [
    ['drag frame of one object among 10,000 / among 100, script', 1.5, drag],
    ['press to first moved frame among 10,000 / among 100', 2, press],
    ['pan frame among 10,000 / among 100, script', 1.2, pan],
    ['zoom frame among 10,000 / among 100, script', 1.2, zoom],
  ] as const) {
    for (const o of [large, small]) {
      const mid = await middle(o);
      await o.page.mouse.move(mid.x, mid.y);
    }
    rows.push({
      what,
      aim,
      note: '',
      ...(await readInTurns(
        TURNS,
        1,
        () => read(large),
        () => read(small),
      )),
    });
  }
  await large.page.close();
  await small.page.close();
  return rows;
}

/** In the page: how long from the next press to the first frame in which something has moved. */
function armFirstMove(): void {
  (window as unknown as { first: Promise<number> }).first = new Promise((resolve) => {
    window.addEventListener(
      'pointerdown',
      (e) => {
        let moves = 0;
        const onMove = () => {
          // The second move is past the distance that tells a drag from a click.
          if (++moves < 2) return;
          window.removeEventListener('pointermove', onMove);
          requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - e.timeStamp), 0));
        };
        window.addEventListener('pointermove', onMove);
      },
      { once: true, capture: true },
    );
  });
}

/** Moves the pointer onto a shape near the middle. */
async function shapeAt(o: Opened): Promise<{ x: number; y: number }> {
  await toFront(o);
  const mid = await middle(o);
  for (const [dx, dy] of [
    [0, 0],
    [30, 0],
    [0, 40],
    [-40, 20],
    [50, 60],
    [-60, -50],
    [80, -70],
    [10, 110],
    [-90, 80],
  ]) {
    const at = { x: mid.x + dx, y: mid.y + dy };
    await o.page.mouse.move(at.x, at.y);
    if ((await o.page.locator('#bench-top').evaluate((el) => el.style.cursor)) === 'move') return at;
  }
  return mid;
}

/** A colour slider of the recipe, against one quick redraw with looks worked out anew. */
export async function sliders(browser: Browser, folder: string, drawer: Opened): Promise<Row[]> {
  const rows: Row[] = [];
  // A move among so many shapes waits for their redraw: a few say what many would.
  for (const [name, file, redraw, turns, moves] of [
    ['the poster', 'poster.holvet', `window.recolourBench('poster')`, 13, MOVES],
    ['10,000 shapes', 'crowd-10000.holvet', 'window.recolourBench(10000)', 5, 20],
  ] as const) {
    const o = await opened(browser, path.join(folder, file));
    await o.page
      .getByRole('button', { name: /^Edit (Wick|Black)$/ })
      .first()
      .click({ force: true });
    const track = (await o.page.getByRole('slider', { name: 'Magenta, slider' }).boundingBox())!;
    const y = track.y + track.height / 2;
    const run = () => atRate(o, (i) => o.page.mouse.move(track.x + 12 + ((i * 7) % 150), y), moves);
    const redrawn = async () => {
      await toFront(drawer);
      return median(((await drawer.page.evaluate(redraw)) as { script: number[] }).script);
    };
    const onto = async () => {
      await toFront(o);
      await o.page.mouse.move(track.x + 10, y);
    };
    const read = await quietTurns(turns, 1, async () => {
      const before = await redrawn();
      await onto();
      // The same moves with nothing held: what moving and measuring cost by themselves, at the pace of just now.
      const idle = await run();
      await onto();
      await o.page.mouse.down();
      const moved = (await run()) - idle;
      await o.page.mouse.up();
      // Saving, checking and the picture on the shelf belong to no reading.
      await o.page.waitForTimeout(2500);
      return { drawn: (before + (await redrawn())) / 2, moved };
    });
    rows.push({
      what: `move of a colour slider on ${name}, all but the redraw / one quick redraw, script a move at pointer rate`,
      aim: 1,
      note: `whole move ${median(read.map((r) => r.moved)).toFixed(1)} ms`,
      ...measured(
        read.map((r) => Math.max(0.01, r.moved - r.drawn)),
        read.map((r) => r.drawn),
      ),
    });
    await o.page.close();
  }
  return rows;
}

/** The middle bead of a gradient on a square, against the same square dragged plain. */
export async function beads(browser: Browser, folder: string): Promise<Row[]> {
  const o = await opened(browser, path.join(folder, 'beads.holvet'));
  const at = await placer(o);
  const drag = async (tool: string, x: number, right: RegExp) => {
    const from = at(x, 210);
    await o.page.getByRole('button', { name: 'Select', exact: true }).click();
    await o.page.mouse.click(from.x, from.y + 10);
    await o.page.getByRole('button', { name: tool, exact: true }).click();
    await o.page.waitForTimeout(1000);
    await o.page.mouse.move(from.x, from.y);
    await o.page.mouse.down();
    await o.page.mouse.move(from.x + 5, from.y);
    const v = await atRate(o, (i) => o.page.mouse.move(from.x + 6 + ((i * 7) % 40), from.y));
    const words = await said(o);
    await o.page.keyboard.press('Escape');
    await o.page.mouse.up();
    if (!right.test(words ?? '')) throw new Error(`nothing was dragged: “${words}”`);
    return v;
  };
  const row: Row = {
    what: 'drag of a gradient’s bead / drag of a plain shape of its size, script a move at pointer rate',
    aim: 1.2,
    note: '',
    ...(await readInTurns(
      FEWER,
      1,
      () => drag('Gradient', 210, /%$/),
      () => drag('Select', 90, /mm/),
    )),
  };
  await o.page.close();
  return [row];
}

/** The last node of a path of 2,000 pieces, and of one of 20. */
export async function nodeDrags(browser: Browser, folder: string): Promise<Row[]> {
  const o = await opened(browser, path.join(folder, 'paths.holvet'));
  const at = await placer(o);
  const drag = async (name: RegExp, y: number) => {
    await o.page.getByRole('option', { name }).click();
    await o.page.getByRole('button', { name: 'Nodes', exact: true }).click();
    await o.page.waitForTimeout(1000);
    const from = at(220, y);
    await o.page.mouse.move(from.x, from.y);
    await o.page.mouse.down();
    await o.page.mouse.move(from.x + 5, from.y);
    const v = await atRate(o, (i) => o.page.mouse.move(from.x + 6 + ((i * 7) % 60), from.y + (i % 11)));
    const words = await said(o);
    await o.page.keyboard.press('Escape');
    await o.page.mouse.up();
    if (!/mm/.test(words ?? '')) throw new Error(`no node was dragged: “${words}”`);
    return v;
  };
  const row: Row = {
    what: 'drag of a node of a path of 2,000 pieces / of 20, script a move at pointer rate',
    aim: 3,
    note: '',
    ...(await readInTurns(
      FEWER,
      1,
      () => drag(/^Long path/, 250),
      () => drag(/^Short path/, 120),
    )),
  };
  await o.page.close();
  return [row];
}

/** A page that draws for comparison, without the application. */
export async function drawerPage(browser: Browser, script: string): Promise<Opened> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${BASE}/nowhere`);
  await page.evaluate(script);
  return counted(page);
}

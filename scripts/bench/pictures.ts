// A hundred pictures of twelve megapixels on one sheet: a heavy job of a photographer's.
import { createCanvas } from '@napi-rs/canvas';
import { assetName } from '../../src/core/file/assets';
import { packDesign } from '../../src/core/file/archive';
import { openAsDesign } from '../../src/core/input/asDesign';
import type { Engines } from '../../src/core/engines';
import type { Design } from '../../src/core/model/schema';
import { setupOf } from '../../src/core/model/defaults';
import { mm } from '../../src/core/units/length';

const [WIDTH, HEIGHT] = [4000, 3000];

/** Sky, water and a few hundred lights: as hard to pack as a photograph, about a megabyte. */
function photograph(): Uint8Array {
  const canvas = createCanvas(WIDTH, HEIGHT);
  const ctx = canvas.getContext('2d');
  const sky = ctx.createLinearGradient(0, 0, 0, HEIGHT);
  for (const [at, colour] of [
    [0, '#10243e'],
    [0.55, '#c9785a'],
    [0.56, '#22384a'],
    [1, '#0a141c'],
  ] as const)
    sky.addColorStop(at, colour);
  ctx.fillStyle = sky;
  ctx.fillRect(0, 0, WIDTH, HEIGHT);
  let seed = 17;
  const next = () => (seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0) / 4294967296;
  for (let i = 0; i < 900; i++) {
    ctx.fillStyle = `hsla(${20 + next() * 40}, 80%, ${40 + next() * 50}%, ${0.1 + next() * 0.6})`;
    ctx.beginPath();
    ctx.arc(next() * WIDTH, next() * HEIGHT, 4 + next() * 90, 0, 7);
    ctx.fill();
  }
  return canvas.encodeSync('jpeg', 85);
}

/** The same picture with a word in it (a comment segment, ITU-T T.81 B.2.4.5): other bytes, so another picture. */
function withWord(jpeg: Uint8Array, word: number): Uint8Array {
  const comment = Uint8Array.of(0xff, 0xfe, 0, 4, word >> 8, word & 255);
  const out = new Uint8Array(jpeg.length + comment.length);
  out.set(jpeg.subarray(0, 2));
  out.set(comment, 2);
  out.set(jpeg.subarray(2), 2 + comment.length);
  return out;
}

/** The bytes of a `.holvet` file: so many pictures in rows of ten on an A3 sheet. */
export async function pictureDesign(engines: Engines, count: number): Promise<Uint8Array> {
  const jpeg = photograph();
  const opened = await openAsDesign(jpeg, 'lights.jpg', { ...engines.env, fonts: engines.fonts });
  if (!opened.ok) throw new Error(opened.why);
  const { design } = opened;
  const [node] = Object.values(design.nodes);
  const [picture] = design.pictures!;
  if (node.kind !== 'shape') throw new Error('a picture was to become a shape that holds it');
  const assets = new Map<string, Uint8Array>();
  const nodes: Record<string, Design['nodes'][string]> = {};
  const pictures: NonNullable<Design['pictures']>[number][] = [];
  const k = mm(26) / node.width;
  for (let i = 0; i < count; i++) {
    const bytes = withWord(jpeg, i);
    const file = await assetName(bytes, 'jpg');
    assets.set(file, bytes);
    pictures.push({ ...picture, id: `p${i}`, name: `lights ${i}.jpg`, file });
    const id = `n${i}`;
    nodes[id] = {
      ...node,
      id,
      name: `lights ${i}`,
      transform: [k, 0, 0, k, mm(10 + (i % 10) * 28), mm(20 + Math.floor(i / 10) * 36)],
      fills: node.fills.map((f) => (f.kind === 'picture' ? { ...f, picture: `p${i}` } : f)),
    };
  }
  const page = { ...design.pages[0], children: Object.keys(nodes) };
  return packDesign(
    { ...design, name: 'Hundred pictures', setup: setupOf(mm(297), mm(420)), pictures, nodes, pages: [page] },
    null,
    assets,
  );
}

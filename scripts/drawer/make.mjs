// Makes the pictures of the drawer: drawn by rule, never fetched. Run by hand when one is added; the results are kept.
//   node scripts/drawer/make.mjs
import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { createCanvas, ImageData } from '@napi-rs/canvas';
import { encode } from 'fast-png';

const out = path.resolve(import.meta.dirname, '../../public/pictures');
mkdirSync(out, { recursive: true });

/** A number 0…1 for every place of a lattice, the same each time. */
const hash = (x, y, seed) => {
  let h = Math.imul(x, 374761393) ^ Math.imul(y, 668265263) ^ Math.imul(seed, 2147483647);
  h = Math.imul(h ^ (h >>> 13), 1274126177);
  return ((h ^ (h >>> 16)) >>> 0) / 4294967295;
};
const fade = (t) => t * t * (3 - 2 * t);
/** Smooth noise that closes after `px` and `py` lattice steps. */
const noise = (x, y, seed, px, py) => {
  const [i, j] = [Math.floor(x), Math.floor(y)];
  const [u, v] = [fade(x - i), fade(y - j)];
  const at = (a, b) => hash(((a % px) + px) % px, ((b % py) + py) % py, seed);
  const [a, b, c, d] = [at(i, j), at(i + 1, j), at(i, j + 1), at(i + 1, j + 1)];
  return a + u * (b - a) + v * (c - a) + u * v * (a - b - c + d);
};
/** Several octaves of it over a picture, 0…1. */
const cloud = (u, v, fx, fy, octaves, seed) => {
  let sum = 0;
  let weight = 0;
  for (let o = 0, k = 1, w = 1; o < octaves; o++, k *= 2, w *= 0.5) {
    sum += w * noise(u * fx * k, v * fy * k, seed + o, fx * k, fy * k);
    weight += w;
  }
  return sum / weight;
};
const mix = (a, b, t) => a.map((v, i) => v + (b[i] - v) * Math.min(1, Math.max(0, t)));
const clamp = (v) => Math.min(255, Math.max(0, v));

/** Pixels by a function of u, v (0…1): red, green, blue and, where there is a fourth, how far they cover. */
const paint = (w, h, at) => {
  const data = new Uint8ClampedArray(w * h * 4);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const c = at((x + 0.5) / w, (y + 0.5) / h, x, y);
      const i = 4 * (y * w + x);
      data[i] = clamp(c[0]);
      data[i + 1] = clamp(c[1]);
      data[i + 2] = clamp(c[2]);
      data[i + 3] = c[3] === undefined ? 255 : clamp(c[3]);
    }
  return { w, h, data };
};
const canvasOf = ({ w, h, data }) => {
  const canvas = createCanvas(w, h);
  canvas.getContext('2d').putImageData(new ImageData(data, w, h), 0, 0);
  return canvas;
};
const jpeg = (name, picture, quality = 82, draw) => {
  const canvas = canvasOf(picture);
  draw?.(canvas.getContext('2d'), picture.w, picture.h);
  writeFileSync(path.join(out, name), canvas.toBuffer('image/jpeg', quality));
};
const grey = (name, { w, h, data }) => {
  const one = new Uint8Array(w * h);
  for (let i = 0; i < one.length; i++) one[i] = data[4 * i];
  writeFileSync(path.join(out, name), encode({ width: w, height: h, data: one, channels: 1, depth: 8 }));
};

const NIGHT = [18, 26, 54];
const GLOW = [255, 226, 160];
const EMBER = [238, 120, 48];

jpeg(
  'harbour-water.jpg',
  paint(4000, 1400, (u, v) => {
    // Ripples grow towards the viewer; lights lie on them as broken columns.
    const wave = cloud(u + 0.02 * cloud(u, v, 3, 5, 2, 5), v ** 0.7, 9, 54, 2, 11);
    const light = [0.16, 0.37, 0.52, 0.71, 0.88].reduce(
      (s, x, i) =>
        s + Math.max(0, 1 - Math.abs(u - x + (wave - 0.5) * 0.12) / (0.02 + 0.05 * v)) * (0.55 + 0.45 * hash(i, 3, 1)),
      0,
    );
    const base = mix(mix([40, 62, 92], NIGHT, v), [86, 112, 138], (wave - 0.45) * 2.2);
    return mix(base, GLOW, light * Math.min(1, Math.max(0.06, (wave - 0.44) * 7)) * 0.8 * (1 - v * 0.4));
  }),
  76,
);

jpeg(
  'harbour-dusk.jpg',
  paint(1800, 1200, (u, v) => {
    const sky = mix(mix([30, 34, 74], [232, 132, 84], v * 1.7), [250, 206, 140], (v - 0.45) * 2.4);
    const cloudy = cloud(u, v * 0.5, 3, 6, 5, 3);
    const lit = mix(sky, [255, 214, 170], Math.max(0, cloudy - 0.52) * 1.6);
    const hill = 0.56 - 0.1 * cloud(u, 0.5, 4, 1, 4, 21);
    if (v < hill) return lit;
    if (v < 0.62) return mix([52, 44, 74], [34, 30, 56], (v - hill) * 12);
    const wave = cloud(u, (v - 0.6) * 2.4, 10, 44, 3, 8);
    return mix(mix([96, 72, 92], [32, 34, 62], (v - 0.62) * 2.4), [246, 170, 120], (wave - 0.5) * 1.5 * (1.2 - v));
  }),
  84,
  (ctx, w, h) => {
    ctx.fillStyle = '#1d1a33';
    for (let i = 0; i < 26; i++) {
      const x = (i / 26) * w + hash(i, 1, 9) * 40;
      const tall = 40 + hash(i, 2, 9) * 90;
      ctx.fillRect(x, h * 0.62 - tall, 58, tall);
      ctx.beginPath();
      ctx.moveTo(x - 6, h * 0.62 - tall);
      ctx.lineTo(x + 29, h * 0.62 - tall - 34);
      ctx.lineTo(x + 64, h * 0.62 - tall);
      ctx.fill();
    }
    ctx.fillStyle = '#ffdf9c';
    for (let i = 0; i < 60; i++) ctx.fillRect(hash(i, 4, 9) * w, h * 0.62 - 14 - hash(i, 5, 9) * 80, 7, 9);
  },
);

jpeg(
  'lantern-glow.jpg',
  paint(1400, 1400, (u, v) => {
    const [x, y] = [u - 0.5, (v - 0.52) * 0.9];
    const r = Math.hypot(x, y);
    const ribs = 0.5 + 0.5 * Math.cos(v * 70);
    const paper = cloud(u, v, 60, 60, 3, 31);
    const body =
      r < 0.36 ? mix(mix([255, 236, 176], EMBER, r * 2.6), [150, 58, 24], Math.max(0, r - 0.27) * 8) : [0, 0, 0];
    const halo = mix([24, 18, 34], [150, 70, 40], Math.max(0, 1 - (r - 0.3) * 2.6) * 0.8);
    return r < 0.36
      ? mix(body, [90, 34, 20], (1 - ribs) * 0.18 + (paper - 0.5) * 0.2)
      : mix(halo, [14, 12, 26], r * 0.9);
  }),
  84,
);

jpeg(
  'fog-over-the-quay.jpg',
  paint(1500, 1000, (u, v) => {
    const mist = cloud(u, v, 3, 4, 6, 41);
    const post = [0.14, 0.31, 0.55, 0.83].some((x) => Math.abs(u - x) < 0.008 && v > 0.3) ? 1 : 0;
    return mix(mix([206, 210, 212], [150, 158, 166], v + (mist - 0.5)), [70, 74, 84], post * (0.15 + 0.7 * v));
  }),
  82,
);

jpeg(
  'wet-slate.jpg',
  paint(1400, 1000, (u, v) => {
    const stone = cloud(u, v, 5, 9, 6, 51);
    const seam =
      Math.min(
        Math.abs((v * 6 + 0.25 * cloud(u, v, 3, 3, 3, 52)) % 1),
        Math.abs((u * 4 + Math.floor(v * 6) * 0.5) % 1),
      ) < 0.02
        ? 1
        : 0;
    return mix(mix([58, 66, 76], [112, 122, 132], (stone - 0.35) * 1.8), [22, 26, 32], seam * 0.8);
  }),
  82,
);

jpeg(
  'quay-planks.jpg',
  paint(1200, 1200, (u, v) => {
    const plank = Math.floor(u * 8);
    const grain = cloud(u * 4, (v + hash(plank, 1, 61)) * 0.5, 32, 4, 4, 61 + plank);
    const edge = (u * 8) % 1 < 0.03 ? 1 : 0;
    return mix(mix([138, 104, 70], [84, 60, 40], grain + 0.25 * hash(plank, 2, 61)), [30, 20, 14], edge * 0.85);
  }),
  82,
);

grey(
  'paper-grain.png',
  paint(512, 512, (u, v) => {
    const g = 232 + 26 * (cloud(u, v, 48, 48, 3, 71) - 0.5) + 18 * (cloud(u, v, 6, 90, 2, 72) - 0.5);
    return [g, g, g];
  }),
);

grey(
  'sailcloth.png',
  paint(256, 256, (u, v, x, y) => {
    const over = (Math.floor(x / 8) + Math.floor(y / 8)) % 2 === 0;
    const t = (over ? y % 8 : x % 8) / 8;
    const g = 150 + 70 * Math.sin(Math.PI * t) + 20 * (cloud(u, v, 32, 32, 2, 81) - 0.5);
    return [g, g, g];
  }),
);

grey(
  'net.png',
  paint(240, 240, (u, v) => {
    const a = Math.min(Math.abs((((u + v) * 4) % 1) - 0.5), Math.abs((((u - v + 4) * 4) % 1) - 0.5));
    const g = a > 0.42 ? 60 : 244;
    return [g, g, g];
  }),
);

{
  // A moon with a soft edge that lets the night through.
  const { w, h, data } = paint(1000, 1000, (u, v) => {
    const r = Math.hypot(u - 0.5, v - 0.5);
    const crater = cloud(u, v, 7, 7, 5, 91);
    const shade = mix([250, 240, 206], [196, 178, 140], (crater - 0.42) * 2.4);
    return [...mix(shade, [150, 130, 110], Math.max(0, r - 0.3) * 2), 255 * Math.min(1, Math.max(0, (0.46 - r) * 40))];
  });
  writeFileSync(path.join(out, 'paper-moon.png'), encode({ width: w, height: h, data, channels: 4, depth: 8 }));
}

{
  // The guild's mark as people send marks: on a white ground, edges smoothed.
  const canvas = createCanvas(1200, 1200);
  const ctx = canvas.getContext('2d');
  ctx.fillStyle = '#ffffff';
  ctx.fillRect(0, 0, 1200, 1200);
  ctx.fillStyle = '#12203f';
  ctx.beginPath();
  ctx.moveTo(430, 300);
  ctx.bezierCurveTo(230, 470, 230, 770, 430, 940);
  ctx.lineTo(770, 940);
  ctx.bezierCurveTo(970, 770, 970, 470, 770, 300);
  ctx.fill();
  ctx.fillRect(470, 236, 260, 44);
  ctx.fillRect(470, 960, 260, 44);
  ctx.lineWidth = 26;
  ctx.strokeStyle = '#12203f';
  ctx.beginPath();
  ctx.arc(600, 200, 60, Math.PI, 0);
  ctx.stroke();
  ctx.fillStyle = '#ffffff';
  for (const [x, w] of [
    [372, 120],
    [540, 120],
    [708, 120],
  ]) {
    ctx.beginPath();
    ctx.roundRect(x, 380, w, 480, 34);
    ctx.fill();
  }
  ctx.fillStyle = '#ee7830';
  ctx.beginPath();
  ctx.moveTo(600, 470);
  ctx.bezierCurveTo(680, 590, 660, 700, 600, 790);
  ctx.bezierCurveTo(540, 700, 520, 590, 600, 470);
  ctx.fill();
  writeFileSync(path.join(out, 'guild-mark-on-white.png'), canvas.toBuffer('image/png'));
}

writeFileSync(
  path.join(out, 'boats.svg'),
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 240 120" width="80mm" height="40mm">
  <title>Three boats</title>
  <defs>
    <g id="hull"><path d="M-40 0 H40 C34 20 22 24 0 24 S-34 20 -40 0 Z"/><path class="mast" d="M0 0 V-64"/></g>
    <linearGradient id="sea" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="#2f6f86"/><stop offset="1" stop-color="#12203f"/></linearGradient>
  </defs>
  <style>.mast { stroke: #3a2a1c; stroke-width: 3; fill: none } .sail { fill: #f6ead0; stroke: #8a6a48; stroke-width: 1.5; stroke-linejoin: round }</style>
  <rect y="88" width="240" height="32" fill="url(#sea)"/>
  <g id="near" transform="translate(66 78)"><use href="#hull" fill="#8c2f24"/><path class="sail" d="M3 -62 Q36 -34 30 -6 L3 -6 Z"/><path class="sail" d="M-3 -56 Q-28 -30 -26 -6 L-3 -6 Z"/></g>
  <g id="middle" transform="translate(148 82) scale(.8)"><use href="#hull" fill="#2c4a3a"/><path class="sail" d="M3 -62 Q40 -30 32 -6 L3 -6 Z"/></g>
  <g id="far" transform="translate(206 84) scale(.5)"><use href="#hull" fill="#6a5a2a"/><path class="sail" d="M3 -60 L30 -8 H3 Z"/></g>
</svg>
`,
);

writeFileSync(
  path.join(out, 'gulls.svg'),
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 120 60" width="60mm" height="30mm">
  <title>Gulls</title>
  <g fill="none" stroke="#1d1a33" stroke-width="3" stroke-linecap="round">
    <path d="M8 34 q12 -16 22 0 q12 -16 24 -2"/>
    <path d="M62 20 q8 -11 16 0 q8 -11 17 -1"/>
    <path d="M76 48 q6 -8 12 0 q6 -8 12 -1"/>
  </g>
</svg>
`,
);

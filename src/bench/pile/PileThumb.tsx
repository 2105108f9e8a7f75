'use client';
import { useEffect, useEffectEvent, useRef } from 'react';
import { areaOf } from '@/core/derive/area';
import { isText } from '@/core/derive/layout';
import { pathBounds, transformPath } from '@/core/geometry/path';
import { pageMatrix, pageOf, withDescendants } from '@/core/model/tree';
import { unionAll } from '@/core/geometry/rect';
import { partsOf } from '@/core/scene/walk';
import { tracePath } from '../view/ink';
import { useBench, useSession } from '../session/context';
import { painterOf } from '../session/painter';
import { later } from '../session/later';

const SIZE = 20;
/** What is pale is shown on the dark ground, all else on the light one. */
const LIGHT = '#f6f6f6';
const DARK = '#5a5a5a';

/** A picture of one object in its real colours, from the same scene as the sheet. */
export function PileThumb({ id }: { id: string }) {
  const session = useSession();
  const canvas = useRef<HTMLCanvasElement>(null);
  // Not the preview: a picture this small need not follow a drag.
  const node = useBench((s) => s.design.nodes[id]);
  const swatches = useBench((s) => s.design.swatches);
  const epoch = useBench((s) => s.fontsEpoch + s.picturesEpoch);
  const draw = useEffectEvent(() => {
    const c = canvas.current;
    const ctx = c?.getContext('2d');
    const { design } = session.state;
    if (!c || !ctx || !design.nodes[id]) return;
    const parts = partsOf(session.restingScene(design), new Set(withDescendants(design, id)));
    ctx.setTransform(1, 0, 0, 1, 0, 0);
    ctx.clearRect(0, 0, c.width, c.height);
    if (!parts.length) {
      drawArea(ctx, c, session, id);
      return;
    }
    const box = unionAll(parts.map((p) => p.paintBounds));
    const [w, h] = [box.x1 - box.x0, box.y1 - box.y0];
    // Of a long line of words the beginning is shown, as high as there is room.
    const long = isText(design.nodes[id]) && w > 2.5 * h;
    const scale = long ? (c.height - 8) / Math.max(h, 0.01) : (c.width - 2) / Math.max(w, h, 0.01);
    const view = {
      scale,
      x: long ? 2 - box.x0 * scale : c.width / 2 - ((box.x0 + box.x1) / 2) * scale,
      y: c.height / 2 - ((box.y0 + box.y1) / 2) * scale,
    };
    painterOf(session).paint(ctx, parts, session.palette, view, box);
    makeSeen(ctx, c);
  });
  useEffect(() => later(draw), [session, id, node, swatches, epoch]);
  return (
    <canvas
      ref={canvas}
      aria-hidden
      width={SIZE * 2}
      height={SIZE * 2}
      className="shrink-0 rounded-sm"
      style={{ width: SIZE, height: SIZE, background: LIGHT }}
    />
  );
}

/**
 * Makes sure that what was drawn is seen: hairs and lines of words are drawn stronger, and it stands on what it differs
 * from.
 */
function makeSeen(ctx: CanvasRenderingContext2D, c: HTMLCanvasElement): void {
  const image = ctx.getImageData(0, 0, c.width, c.height);
  const { data } = image;
  let [cover, light] = [0, 0];
  for (let i = 0; i < data.length; i += 4) {
    cover += data[i + 3];
    light += data[i + 3] * (0.2126 * data[i] + 0.7152 * data[i + 1] + 0.0722 * data[i + 2]);
  }
  c.style.background = cover && light / cover > 150 ? DARK : LIGHT;
  if (cover > 255 * c.width * c.height * 0.12) return;
  for (let i = 3; i < data.length; i += 4) data[i] = Math.min(255, data[i] * 6);
  ctx.putImageData(image, 0, 0);
  for (const [dx, dy] of [
    [0, 1],
    [1, 0],
    [0, -1],
  ] as const)
    ctx.drawImage(c, dx, dy);
}

/** What is seen only as part of a combination: its area, in the colour of lines. */
function drawArea(
  ctx: CanvasRenderingContext2D,
  c: HTMLCanvasElement,
  session: ReturnType<typeof useSession>,
  id: string,
): void {
  const { design } = session.state;
  const page = pageOf(design, id);
  if (!page) return;
  const path = transformPath(areaOf(design, id, session.engines.fonts).region.path, pageMatrix(design, page, id));
  const box = pathBounds(path);
  if (!(box.x1 >= box.x0)) return;
  const scale = (c.width - 8) / Math.max(box.x1 - box.x0, box.y1 - box.y0, 0.01);
  tracePath(ctx, path, [
    scale,
    0,
    0,
    scale,
    c.width / 2 - ((box.x0 + box.x1) / 2) * scale,
    c.height / 2 - ((box.y0 + box.y1) / 2) * scale,
  ]);
  ctx.strokeStyle = getComputedStyle(c).getPropertyValue('--text');
  ctx.lineWidth = 2;
  ctx.stroke();
}

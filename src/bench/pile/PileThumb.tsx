'use client';
import { useEffect, useRef } from 'react';
import { areaOf } from '@/core/edit/area';
import { pathBounds, transformPath } from '@/core/geometry/path';
import { pageMatrix, pageOf, withDescendants } from '@/core/model/tree';
import { unionAll } from '@/core/geometry/rect';
import { tracePath } from '../canvas/ink';
import { useBench, useSession } from '../session/context';
import { painterOf } from '../session/painter';

const SIZE = 20;
/** One half for what is dark, one for what is pale: whatever it is, it is seen on one of them. */
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
  useEffect(() => {
    const c = canvas.current;
    const ctx = c?.getContext('2d');
    const { design } = session.state;
    if (!c || !ctx || !design.nodes[id]) return;
    const ids = new Set(withDescendants(design, id));
    const items = session.restingScene(design).items.filter((i) => ids.has(i.node));
    ctx.setTransform(1, 0, 0, 1, 0, 0);
    ctx.clearRect(0, 0, c.width, c.height);
    if (!items.length) {
      drawArea(ctx, c, session, id);
      return;
    }
    const box = unionAll(items.map((i) => i.bounds));
    const scale = (c.width - 2) / Math.max(box.x1 - box.x0, box.y1 - box.y0, 0.01);
    // A line or a word drawn so small is a hair: it is drawn no thinner than can be seen.
    const view = { scale, x: c.width / 2 - ((box.x0 + box.x1) / 2) * scale, y: c.height / 2 - ((box.y0 + box.y1) / 2) * scale };
    painterOf(session).paint(ctx, items, session.palette, view, box);
    thicken(ctx, c);
  }, [session, id, node, swatches, epoch]);
  return <canvas ref={canvas} aria-hidden width={SIZE * 2} height={SIZE * 2}  className="shrink-0 rounded-sm" style={{ width: SIZE, height: SIZE, background: `linear-gradient(135deg, ${LIGHT} 50%, ${DARK} 50%)` }} />;
}

/** What covers hardly anything (a hairline, a line of words) is laid over itself a pixel aside, until it can be seen. */
function thicken(ctx: CanvasRenderingContext2D, c: HTMLCanvasElement): void {
  const { data } = ctx.getImageData(0, 0, c.width, c.height);
  let cover = 0;
  for (let i = 3; i < data.length; i += 4) cover += data[i];
  if (cover > 255 * c.width * c.height * 0.06) return;
  for (const [dx, dy] of [[1, 0], [0, 1], [-1, 0], [0, -1], [0, 1]] as const) ctx.drawImage(c, dx, dy);
}

/** What is seen only as part of a combination: its area, in the colour of lines. */
function drawArea(ctx: CanvasRenderingContext2D, c: HTMLCanvasElement, session: ReturnType<typeof useSession>, id: string): void {
  const { design } = session.state;
  const page = pageOf(design, id);
  if (!page) return;
  const path = transformPath(areaOf(design, id, session.shop.fonts).region.path, pageMatrix(design, page, id));
  const box = pathBounds(path);
  if (!(box.x1 >= box.x0)) return;
  const scale = (c.width - 8) / Math.max(box.x1 - box.x0, box.y1 - box.y0, 0.01);
  tracePath(ctx, path, [scale, 0, 0, scale, c.width / 2 - ((box.x0 + box.x1) / 2) * scale, c.height / 2 - ((box.y0 + box.y1) / 2) * scale]);
  ctx.strokeStyle = getComputedStyle(c).getPropertyValue('--text');
  ctx.lineWidth = 2;
  ctx.stroke();
}

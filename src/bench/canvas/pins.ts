import type { Finding } from '@/core/check/types';
import type { Point } from '@/core/geometry/matrix';
import type { Design } from '@/core/model/schema';
import type { Session } from '../session/session';

export interface Pin {
  /** The first finding's number in the Checks slip. */
  readonly number: number;
  /** How many more stand in the same place. */
  readonly more: number;
  readonly stop: boolean;
  readonly at: Point;
}

/** Pins nearer than this (pixels) are one. */
const NEAR = 20;
/** More pins than this tell no more than the slip does. */
const MOST = 60;

/**
 * Findings as numbered pins where they are: the same numbers as in the Checks slip; many in one place are one, with a
 * count.
 */
export function drawPins(ctx: CanvasRenderingContext2D, s: Session): void {
  const { camera } = s.state;
  for (const pin of pinsAt(placesOf(s), camera.scale)) {
    const at = { x: pin.at.x + camera.x, y: pin.at.y + camera.y };
    const text = pin.more ? `${pin.number} +${pin.more}` : String(pin.number);
    ctx.font = '600 11px Archivo, sans-serif';
    const half = Math.max(9, ctx.measureText(text).width / 2 + 6);
    ctx.beginPath();
    ctx.roundRect(at.x - half, at.y - 9, 2 * half, 18, 9);
    ctx.fillStyle = pin.stop ? '#b3261e' : '#8a5a00';
    ctx.fill();
    ctx.strokeStyle = '#ffffff';
    ctx.lineWidth = 1.5;
    ctx.stroke();
    ctx.fillStyle = '#ffffff';
    ctx.textAlign = 'center';
    ctx.fillText(text, at.x, at.y + 4);
    ctx.textAlign = 'left';
  }
}

const pinned = new WeakMap<readonly Place[], { readonly scale: number; readonly pins: readonly Pin[] }>();
/** The pins of places at a scale, in its pixels from the page's corner: a pan draws the same ones elsewhere. */
function pinsAt(places: readonly Place[], scale: number): readonly Pin[] {
  let known = pinned.get(places);
  if (known?.scale !== scale) {
    const pins = gathered(places, (p) => ({ x: p.x * scale, y: p.y * scale })).slice(0, MOST);
    pinned.set(places, (known = { scale, pins }));
  }
  return known.pins;
}

export interface Place {
  readonly number: number;
  readonly stop: boolean;
  readonly at: Point;
}

/** Places on the screen, those that would lie on each other taken together. */
export function gathered(places: readonly Place[], toScreen: (p: Point) => Point): Pin[] {
  const cells = new Map<string, { number: number; more: number; stop: boolean; at: Point }>();
  for (const { number, stop, at } of places) {
    const p = toScreen(at);
    const [i, j] = [Math.floor(p.x / NEAR), Math.floor(p.y / NEAR)];
    // A neighbour just over the edge of its cell is near too.
    const near = [0, -1, 1]
      .flatMap((dx) => [0, -1, 1].map((dy) => cells.get(`${i + dx} ${j + dy}`)))
      .find((c) => c && Math.hypot(c.at.x - p.x, c.at.y - p.y) < NEAR);
    if (near) {
      near.more++;
      near.stop ||= stop;
    } else cells.set(`${i} ${j}`, { number, more: 0, stop, at: p });
  }
  return [...cells.values()];
}

/** Where the findings of a design stand: found once, not at every frame of a pan. */
const known = new WeakMap<
  Design,
  { readonly findings: readonly Finding[]; readonly page: string; readonly list: readonly Place[] }
>();

function placesOf(s: Session): readonly Place[] {
  const { design, page } = s;
  const kept = s.state.design;
  const { findings } = s.state;
  const remembered = (d: Design) => {
    const last = known.get(d);
    return last && last.findings === findings && last.page === page.id ? last.list : null;
  };
  const last = remembered(design);
  if (last) return last;
  // While a few things move, what is found elsewhere stays where it was.
  const resting = design === kept ? null : remembered(kept);
  if (resting && s.moving && !s.moving.some((id) => nodesOf(findings).has(id))) return resting;
  const pageNumber = design.pages.findIndex((p) => p.id === page.id) + 1;
  const list = findings.flatMap((finding, i): Place[] => {
    const at = finding.page === pageNumber ? placeOf(s, finding) : null;
    return at ? [{ number: i + 1, stop: finding.severity === 'stop', at }] : [];
  });
  known.set(design, { findings, page: page.id, list });
  return list;
}

const named = new WeakMap<readonly Finding[], ReadonlySet<string>>();
/** The objects that findings name. */
function nodesOf(findings: readonly Finding[]): ReadonlySet<string> {
  let ids = named.get(findings);
  if (!ids) named.set(findings, (ids = new Set(findings.flatMap((f) => f.node ?? []))));
  return ids;
}

/**
 * Where on its page a finding is: the corner of its object, or the place that it names; null for the page as a whole.
 */
export function placeOf(s: Session, finding: Finding): Point | null {
  if ('x' in finding.facts) return { x: finding.facts.x, y: finding.facts.y };
  const box = finding.node && s.design.nodes[finding.node] ? s.boxOf([finding.node]) : null;
  return box && box.x1 >= box.x0 ? { x: Math.max(box.x0, 0), y: Math.max(box.y0, 0) } : null;
}

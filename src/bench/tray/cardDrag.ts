import { insertStop } from '@/core/edit/gradient';
import type { Recipe } from '@/core/edit/history';
import { type Aim } from '@/core/edit/aims';
import { setPaint, stopsOf } from '@/core/edit/paint';
import { moveSwatch } from '@/core/edit/swatches';
import { isText } from '@/core/derive/layout';
import type { Colour, Paint } from '@/core/model/schema';
import { isLocked } from '@/core/model/tree';
import { hitAll, nearEdge } from '@/core/scene/hit';
import { BENCH_TOP } from '../session/focus';
import { toPage } from '../view/camera';
import { AIM_WORDS } from '../session/naming';
import type { Session } from '../session/session';
import { withBeadColour } from '../tools/beadColour';
import { beadAt } from '../tools/gradient';
import { aimedGradient, aimedPools, midpointAt, withStops } from '../tools/gradientTarget';
import { poolAt } from '../tools/pools';

export interface Dropped {
  readonly node: string;
  readonly aim: Aim;
  /** The stop, pool or place on the ramp that lies under the pointer, while the Gradient tool shows them. */
  readonly bead?:
    { readonly kind: 'stop' | 'pool'; readonly index: number } | { readonly kind: 'between'; readonly t: number };
}

/**
 * What a card let go at a place would paint: the inside is the fill, the edge the outline; of a text, letters or frame.
 */
export function dropTarget(s: Session, clientX: number, clientY: number): Dropped | null {
  const el = document.getElementById(BENCH_TOP);
  if (!el) return null;
  const r = el.getBoundingClientRect();
  if (clientX < r.left || clientX > r.right || clientY < r.top || clientY > r.bottom) return null;
  const { camera } = s.state;
  const screen = { x: clientX - r.left, y: clientY - r.top };
  const bead = s.state.tool === 'gradient' ? beadUnder(s, screen) : null;
  if (bead) return bead;
  const p = toPage(camera, screen);
  const slack = 7 / camera.scale;
  const scene = s.scene();
  for (const hit of hitAll(scene, p, slack, true)) {
    if (isLocked(s.design, s.page, hit.node)) continue;
    const node = s.design.nodes[hit.node];
    const edge = hit.part !== 'letters' && nearEdge(scene, hit.node, p, slack);
    if (isText(node))
      return {
        node: hit.node,
        aim:
          hit.part === 'letters'
            ? 'letters'
            : hit.part === 'outline' && node.kind === 'displayText'
              ? 'outline2'
              : edge && node.kind === 'textFrame' && node.window
                ? 'frameOutline'
                : 'frame',
      };
    return { node: hit.node, aim: edge ? 'outline' : 'fill' };
  }
  return null;
}

function beadUnder(s: Session, screen: { x: number; y: number }): Dropped | null {
  const { aim } = s.state;
  const target = aimedGradient(s);
  if (target) {
    const found = beadAt(s, target, screen);
    if (found.kind === 'stop') return { node: target.node, aim, bead: { kind: 'stop', index: found.index } };
    // The ends of the line are where the first and the last stop usually lie.
    if (found.kind === 'end' || found.kind === 'focus')
      return {
        node: target.node,
        aim,
        bead: {
          kind: 'stop',
          index: found.kind === 'end' && found.end === 'to' ? stopsOf(s.design, target.paint).length - 1 : 0,
        },
      };
    if (found.kind === 'line') return { node: target.node, aim, bead: { kind: 'between', t: found.t } };
    if (found.kind === 'mid')
      return {
        node: target.node,
        aim,
        bead: { kind: 'between', t: midpointAt(stopsOf(s.design, target.paint), found.index) },
      };
    return null;
  }
  const pools = aimedPools(s);
  const pool = pools && poolAt(s, pools, screen);
  return pools && pool ? { node: pools.node, aim, bead: { kind: 'pool', index: pool.index } } : null;
}

/** What letting a colour go on a bead, or between beads, does. */
function onBead(s: Session, bead: NonNullable<Dropped['bead']>, colour: Colour): Recipe | null {
  if (bead.kind !== 'between') return withBeadColour(s, bead.index, colour)?.recipe ?? null;
  const target = aimedGradient(s);
  return target && withStops(s, target, insertStop(stopsOf(s.design, target.paint), bead.t, colour).stops);
}

const BEAD_WORDS = { stop: 'the stop', pool: 'the pool', between: 'the ramp, as a new stop' } as const;

/** The other card under a place of the tray. */
function cardAt(x: number, y: number, but: string): string | null {
  const id = document.elementFromPoint(x, y)?.closest<HTMLElement>('[data-swatch]')?.dataset.swatch ?? null;
  return id === but ? null : id;
}

/**
 * Drags a card over the sheet: what it would paint is shown, and a label at the pointer says which part before it is
 * let go; over another card it goes to the place before that one. Answers whether it was a drag; a press without a move
 * stays a click.
 */
export function startCardDrag(
  s: Session,
  e: { clientX: number; clientY: number; pointerId: number },
  card: { readonly id: string; readonly name: string; readonly kind: 'colour' | 'ramp' },
  chip: string,
  paint: (old: Paint, node: string) => Paint,
): void {
  const { name } = card;
  const from = { x: e.clientX, y: e.clientY };
  let before: string | null = null;
  let label: HTMLDivElement | null = null;
  let target: Dropped | null = null;
  // Made from what is kept, before anything is shown.
  let recipe: Recipe = () => {};
  const apply = (t: Dropped): Recipe => {
    const onto = t.bead && card.kind === 'colour' ? onBead(s, t.bead, { swatch: card.id, tint: 1 }) : null;
    return onto ?? ((d) => setPaint(d, [t.node], t.aim, (old) => paint(old, t.node)));
  };
  const words = (t: Dropped): string =>
    t.bead && card.kind === 'colour' ? BEAD_WORDS[t.bead.kind] : `the ${AIM_WORDS[t.aim].toLowerCase()}`;

  const move = (m: PointerEvent) => {
    if (!label) {
      if (Math.hypot(m.clientX - from.x, m.clientY - from.y) < 5) return;
      label = document.createElement('div');
      label.className =
        'pointer-events-none fixed top-0 left-0 z-50 flex items-center gap-2 rounded-sm bg-[#1a1a1a] px-2 py-1 text-white';
      const colour = document.createElement('span');
      colour.style.cssText = `width:16px;height:16px;border-radius:3px;background:${chip}`;
      label.append(colour, document.createElement('span'));
      document.body.append(label);
    }
    // The preview must not decide what lies under the pointer.
    s.preview(null);
    target = dropTarget(s, m.clientX, m.clientY);
    before = target ? null : cardAt(m.clientX, m.clientY, card.id);
    const beforeName = before && s.design.swatches.find((w) => w.id === before)?.name;
    label.style.transform = `translate(${m.clientX + 14}px, ${m.clientY + 14}px)`;
    label.lastElementChild!.textContent = target
      ? `${name} on ${words(target)}`
      : beforeName
        ? `${name} before ${beforeName}`
        : name;
    if (!target) return;
    recipe = apply(target);
    s.preview(recipe);
  };
  const finish = (drop: boolean) => {
    window.removeEventListener('pointermove', move);
    window.removeEventListener('pointerup', up);
    window.removeEventListener('pointercancel', cancel);
    window.removeEventListener('keydown', esc, true);
    if (!label) return;
    label.remove();
    // The click that follows a drag is not meant for the card.
    window.addEventListener('click', (c) => c.stopPropagation(), { capture: true, once: true });
    if (drop && target) {
      const onto = target.bead && card.kind === 'colour';
      s.commit(onto ? `${name} on ${words(target)}` : `${AIM_WORDS[target.aim]}: ${name}`, recipe);
      if (!onto) s.select([target.node], { aim: target.aim, stop: null });
      s.say(onto ? `${name} is on ${words(target)}.` : `${AIM_WORDS[target.aim]}: ${name}.`);
    } else if (drop && before) {
      const to = before;
      s.preview(null);
      s.commit('Move swatch', (d) => moveSwatch(d, card.id, to));
    } else s.preview(null);
  };
  const up = () => finish(true);
  const cancel = () => finish(false);
  const esc = (k: KeyboardEvent) => {
    if (k.key !== 'Escape') return;
    k.stopPropagation();
    finish(false);
  };
  window.addEventListener('pointermove', move);
  window.addEventListener('pointerup', up);
  window.addEventListener('pointercancel', cancel);
  window.addEventListener('keydown', esc, true);
}

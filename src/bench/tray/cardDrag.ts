import { setPaint, type Aim } from '@/core/edit/paint';
import { moveSwatch } from '@/core/edit/swatches';
import { isText } from '@/core/edit/box';
import type { Paint } from '@/core/model/schema';
import { isLocked } from '@/core/model/tree';
import { hitAll, nearEdge } from '@/core/scene/hit';
import { BENCH_TOP } from '../canvas/BenchTop';
import { toPage } from '../canvas/camera';
import { AIM_WORDS } from '../session/commands';
import type { Session } from '../session/session';

export interface Dropped {
  readonly node: string;
  readonly aim: Aim;
}

/** What a card let go at a place would paint: the inside is the fill, the edge the outline; of a text, letters or frame. */
export function dropTarget(s: Session, clientX: number, clientY: number): Dropped | null {
  const el = document.getElementById(BENCH_TOP);
  if (!el) return null;
  const r = el.getBoundingClientRect();
  if (clientX < r.left || clientX > r.right || clientY < r.top || clientY > r.bottom) return null;
  const { camera } = s.state;
  const p = toPage(camera, { x: clientX - r.left, y: clientY - r.top });
  const slack = 7 / camera.scale;
  const scene = s.scene();
  for (const hit of hitAll(scene, p, slack, true)) {
    if (isLocked(s.design, s.page, hit.node)) continue;
    const node = s.design.nodes[hit.node];
    if (isText(node)) return { node: hit.node, aim: hit.part === 'letters' ? 'letters' : 'frame' };
    const edge = nearEdge(scene, hit.node, p, slack);
    return { node: hit.node, aim: edge ? 'outline' : 'fill' };
  }
  return null;
}

/** The other card under a place of the tray. */
function cardAt(x: number, y: number, but: string): string | null {
  const id = document.elementFromPoint(x, y)?.closest<HTMLElement>('[data-swatch]')?.dataset.swatch ?? null;
  return id === but ? null : id;
}

/**
 * Drags a card over the sheet: what it would paint is shown, and a label at the pointer says which part before it is let
 * go; over another card it goes to the place before that one. Answers whether it was a drag; a press without a move stays a click.
 */
export function startCardDrag(s: Session, e: { clientX: number; clientY: number; pointerId: number }, card: { readonly id: string; readonly name: string }, chip: string, paint: (old: Paint, node: string) => Paint): void {
  const { name } = card;
  const from = { x: e.clientX, y: e.clientY };
  let before: string | null = null;
  let label: HTMLDivElement | null = null;
  let target: Dropped | null = null;
  const apply = (t: Dropped) => (d: Parameters<typeof setPaint>[0]) => setPaint(d, [t.node], t.aim, (old) => paint(old, t.node));

  const move = (m: PointerEvent) => {
    if (!label) {
      if (Math.hypot(m.clientX - from.x, m.clientY - from.y) < 5) return;
      label = document.createElement('div');
      label.className = 'pointer-events-none fixed top-0 left-0 z-50 flex items-center gap-2 rounded-sm bg-[#1a1a1a] px-2 py-1 text-white';
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
    label.lastElementChild!.textContent = target ? `${name} on the ${AIM_WORDS[target.aim].toLowerCase()}` : beforeName ? `${name} before ${beforeName}` : name;
    if (target) s.preview(apply(target));
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
      s.commit(`${AIM_WORDS[target.aim]}: ${name}`, apply(target));
      s.set({ selection: [target.node], aim: target.aim, stop: null });
      s.say(`${AIM_WORDS[target.aim]}: ${name}.`);
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

import { isText } from '@/core/derive/layout';
import { addNode } from '@/core/edit/pile';
import { centre } from '@/core/geometry/rect';
import { isHolder, parentOf } from '@/core/model/tree';
import { mm } from '@/core/units/length';
import { canHoldText } from '@/core/edit/window';
import { backToLetters, LETTERS } from '../session/focus';
import { beginEditing, endEditing, writeInShape } from '../tools/editing';
import { noteShape } from '../session/settings';
import { finishPen } from '../tools/pen';
import { beginCrop, endCrop } from '../tools/cropping';
import { enterHolder } from '../tools/select';
import { clickSize, newShape } from '../tools/shape';
import { shapeById } from '@/core/shapes/catalogue';
import { textTool } from '../tools/text';
import { COMMAND_IDS, COMMAND_TABLE, runCommand, type CommandId } from './commands';
import { turnOver } from './looking';
import type { Session } from '../session/session';
import { noExtras } from '../view/extras';

const isMac = (): boolean => typeof navigator !== 'undefined' && /Mac|iPhone|iPad/.test(navigator.platform);

/** A pressed key in the words of the table: `Mod+Shift+Z`. */
export function comboOf(
  e: Pick<KeyboardEvent, 'key' | 'code' | 'ctrlKey' | 'metaKey' | 'shiftKey' | 'altKey'> &
    Partial<Pick<KeyboardEvent, 'getModifierState'>>,
): string {
  // The key for third characters comes as Ctrl and Alt together on some machines.
  const third = e.getModifierState?.('AltGraph') ?? false;
  const mod = !third && (isMac() ? e.metaKey : e.ctrlKey);
  // Letters and digits by the key itself where Shift or Alt change the character.
  const key = /^Key[A-Z]$/.test(e.code) ? e.code.slice(3) : /^Digit\d$/.test(e.code) ? e.code.slice(5) : e.key;
  return [mod ? 'Mod' : '', e.altKey && !third ? 'Alt' : '', e.shiftKey ? 'Shift' : '', key].filter(Boolean).join('+');
}

const BY_KEY = new Map<string, CommandId>(
  COMMAND_IDS.flatMap((id) => COMMAND_TABLE[id].keys.map((k) => [k, id] as const)),
);

export function keyText(combo: string): string {
  const mac = isMac();
  const words: Record<string, string> = {
    Mod: mac ? '⌘' : 'Ctrl',
    ArrowUp: '↑',
    ArrowDown: '↓',
    ArrowLeft: '←',
    ArrowRight: '→',
    Delete: 'Del',
  };
  return combo
    .split('+')
    .map((k) => words[k] ?? k)
    .join(mac ? '' : '+');
}

/** The finder opens from everywhere, fields and slips included; listened for on the way down. */
export function finderKey(find: () => void): (e: KeyboardEvent) => void {
  return (e) => {
    if (comboOf(e) !== 'Mod+K') return;
    e.preventDefault();
    e.stopPropagation();
    find();
  };
}

/** Keys of the whole bench. Fields keep theirs; a button keeps Space and Enter. */
export function keyHandler(s: Session, open: { keys: () => void }): (e: KeyboardEvent) => void {
  return (e) => {
    if (e.defaultPrevented || !(e.target instanceof HTMLElement)) return;
    const combo = comboOf(e);
    // What is done to letters while they are written goes on from their field.
    const forLetters = e.target.id === LETTERS && /^Mod\+Alt\+\d$/.test(combo);
    if (!forLetters && e.target.closest('input, textarea, select, [role=dialog], [contenteditable=true]')) return;
    // While a text is written in, keys belong to its letters, wherever the focus went.
    if (s.state.editing && !combo.includes('Mod')) {
      if (e.key === 'Escape') endEditing(s);
      else if (e.key !== 'Tab' && e.key !== 'Enter' && e.key !== ' ') backToLetters();
      else return;
      e.preventDefault();
      return;
    }
    if (e.key === '?') {
      open.keys();
      return;
    }
    if (e.key === 'Escape') {
      stepOut(s);
      return;
    }
    const onControl = e.target.closest('button, a, [role=radio], [role=option], [role=slider]') !== null;
    if (e.key === 'Enter' && !onControl && combo === 'Enter') {
      e.preventDefault();
      enter(s);
      return;
    }
    // Arrow keys belong to a list or a slider that has the focus.
    if (onControl && /Arrow|Page/.test(combo) && !combo.includes('Mod')) {
      if (e.target.closest('[data-keys=arrows]')) return;
    }
    // Nothing is moved in clean view: there arrows turn over.
    if (s.state.view === 'clean' && (combo === 'ArrowLeft' || combo === 'ArrowRight')) {
      e.preventDefault();
      turnOver(s, combo === 'ArrowLeft' ? -1 : 1);
      return;
    }
    const id = BY_KEY.get(combo);
    if (!id) return;
    e.preventDefault();
    runCommand(s, id);
  };
}

/** Esc: one step out of whatever one is in. */
function stepOut(s: Session): void {
  const { entered, selection, stop, tool } = s.state;
  if (s.state.crop) endCrop(s);
  else if (s.state.pen) finishPen(s);
  else if (stop !== null) s.set({ stop: null });
  else if (tool === 'nodes' && s.state.nodes.length) s.set({ nodes: [] });
  else if (entered) {
    s.isolate(false);
    s.leave(parentOf(s.design, s.page, entered));
    s.select([entered]);
  } else if (selection.length) s.select([]);
  else if (tool !== 'select') s.set({ tool: 'select' });
}

/** Enter: write in a chosen text; with a drawing tool, put its thing in the middle of the page. */
function enter(s: Session): void {
  const { tool, shape, selection } = s.state;
  if (s.state.crop) {
    endCrop(s);
    return;
  }
  if (s.state.pen) {
    finishPen(s);
    return;
  }
  const { width, height } = s.setup;
  const mid = centre({ x0: 0, y0: 0, x1: width, y1: height });
  if (tool === 'shape') {
    const [w, h] = clickSize(shape, Math.min(mm(40), width / 3, height / 3));
    const node = newShape(s, shape, mid.x - w / 2, mid.y - h / 2, w, h);
    if (s.commit(`Draw ${node.name.toLowerCase()}`, (d) => addNode(d, s.page.id, node), { select: [node.id] })) {
      s.set({ tool: 'select', aim: shapeById(shape)?.open ? 'outline' : 'fill' });
      noteShape(s, shape);
      s.say(`Put a ${node.name.toLowerCase()} in the middle of the page.`);
    }
  } else if (tool === 'text') {
    const at = { page: mid, screen: mid, shift: false, alt: false, mod: false };
    const gesture = textTool.press(at, { session: s, extras: noExtras(), refresh: () => {}, readout: () => {} });
    gesture?.release(at);
  } else if (selection.length === 1 && s.design.nodes[selection[0]]) {
    const node = s.design.nodes[selection[0]];
    if (isText(node)) beginEditing(s, selection[0], null);
    else if (isHolder(node)) enterHolder(s, selection[0], null);
    else if (tool === 'select' && beginCrop(s, selection[0])) return;
    else if (canHoldText(node) && tool === 'select') writeInShape(s, selection[0]);
  }
}

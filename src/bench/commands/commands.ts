import { runsIn } from '@/core/model/textLooks';
import { AIM_WORDS } from '../session/naming';
import { aimedNodes, isLineAim, lineAt, type Aim } from '@/core/edit/aims';
import { setOverprint, setPaint } from '@/core/edit/paint';
import { turnNodes } from '@/core/edit/place';
import { deleteNodes } from '@/core/edit/remove';
import { groupNodes, orderNodes, setNodeFlags, ungroupNodes, type OrderMove } from '@/core/edit/pile';
import { regionsToShapes } from '@/core/edit/regions';
import { setWhole } from '@/core/edit/whole';
import { isText } from '@/core/derive/layout';
import { rotation } from '@/core/geometry/matrix';
import { centre, isEmpty } from '@/core/geometry/rect';
import { isHolder } from '@/core/model/tree';
import { chosen, chosenLetters, count, free, freeSelection, type CommandDef } from '../session/commandDef';
import { ARRANGE_COMMANDS } from './arranging';
import { SELECT_COMMANDS } from './selecting';
import { COMBINE_COMMANDS } from './combining';
import { COPY_COMMANDS } from './copying';
import { copySelection, duplicate, pasteFrom, readClip } from './copyPaste';
import { allNodes, deleteChosenNodes, NODE_COMMANDS, onNodes } from './nodes';
import { choose } from '../tools/pick';
import { SWATCH_COMMANDS } from './tidy';
import { NUDGE_COMMANDS } from './nudging';
import { PAGE_COMMANDS } from './pages';
import { PLACE_COMMANDS } from './places';
import { DEPTH_COMMANDS } from './depth';
import { HANDING_COMMANDS } from './handingOver';
import { REGION_COMMANDS } from './regions';
import { KNOB_COMMANDS } from './knobs';
import { TRACE_COMMANDS } from './trace';
import { addFurtherOutline, canAddOutline, OUTLINE_COMMANDS } from './outlines';
import { FIELD_COMMANDS } from './fields';
import { LOOKING_COMMANDS } from './looking';
import { LOOK_COMMANDS } from './looks';
import { READY_COMMANDS } from './ready';
import { MASTER_COMMANDS } from './masters';
import { giveShadow } from './shadows';
import { WORD_COMMANDS } from './words';
import type { Session } from '../session/session';

const order = (label: string, move: OrderMove, keys: string[], keywords: string[]): CommandDef => ({
  label,
  keywords,
  keys,
  applies: free,
  run: (s) => {
    const ids = freeSelection(s);
    if (s.commit(label, (d) => orderNodes(d, s.page, ids, move))) s.say(`${label}: ${count(ids.length, 'object')}.`);
  },
});

export const COMMANDS = {
  'edit.undo': {
    label: 'Undo',
    keywords: ['take back', 'earlier'],
    keys: ['Mod+Z'],
    applies: (s) => s.state.cursor > 0,
    run: (s) => s.undo(),
  },
  'edit.redo': {
    label: 'Redo',
    keywords: ['do again'],
    keys: ['Mod+Shift+Z', 'Mod+Y'],
    applies: (s) => s.state.cursor < s.state.entries.length,
    run: (s) => s.redo(),
  },
  'edit.duplicate': {
    label: 'Duplicate',
    keywords: ['copy', 'twin', 'again'],
    keys: ['Mod+D'],
    applies: chosen,
    run: duplicate,
  },
  'edit.copy': {
    label: 'Copy',
    keywords: ['clipboard'],
    keys: [],
    applies: chosen,
    harmless: true,
    run: (s) => void copySelection(s),
  },
  'edit.cut': {
    label: 'Cut',
    keywords: ['clipboard', 'take out'],
    keys: [],
    applies: free,
    run: (s) => {
      if (copySelection(s)) COMMANDS['object.delete'].run(s);
    },
  },
  'edit.paste': { label: 'Paste', keywords: ['clipboard', 'put in'], keys: [], run: (s) => pasteFrom(s, readClip()) },
  'edit.pasteInPlace': {
    label: 'Paste in place',
    keywords: ['clipboard', 'same spot', 'other page'],
    keys: ['Mod+Shift+V'],
    run: (s) => pasteFrom(s, readClip(), 0),
  },
  'edit.selectAll': {
    label: 'Select all',
    keywords: ['everything'],
    keys: ['Mod+A'],
    harmless: true,
    run: (s) => {
      const entered = s.state.entered ? s.design.nodes[s.state.entered] : null;
      // All there is where one works: nodes of a path, objects of a group, of the page.
      if (s.state.tool === 'nodes' && s.state.selection.length) s.set({ nodes: allNodes(s) });
      else
        choose(
          s,
          (entered && isHolder(entered) ? entered.children : s.page.children).filter(
            (id) => !s.design.nodes[id].locked && !s.design.nodes[id].hidden,
          ),
        );
    },
  },
  'edit.selectNone': {
    label: 'Select nothing',
    keywords: ['deselect', 'none'],
    keys: [],
    harmless: true,
    applies: chosen,
    run: (s) => {
      s.leave();
      s.select([], { stop: null });
    },
  },
  'object.delete': {
    label: 'Delete',
    keywords: ['remove', 'delete', 'throw away', 'erase'],
    keys: ['Delete', 'Backspace'],
    applies: free,
    run: (s) => {
      if (onNodes(s)) {
        deleteChosenNodes(s);
        return;
      }
      const ids = freeSelection(s);
      if (s.commit('Delete', (d) => deleteNodes(d, s.page, ids), { select: [] }))
        s.say(`Deleted ${count(ids.length, 'object')}.`);
    },
  },
  'object.group': {
    label: 'Group',
    keywords: ['together', 'join'],
    keys: ['Mod+G'],
    applies: free,
    run: (s) => {
      const ids = freeSelection(s);
      let group: string | null = null;
      s.commit('Group', (d) => {
        group = groupNodes(d, s.page, ids, s.newId);
      });
      if (group) s.select([group]);
      s.say(`Grouped ${count(ids.length, 'object')}.`);
    },
  },
  'object.shadow': {
    label: 'Give a shadow',
    keywords: ['drop shadow', 'cast', 'depth', 'soft', 'lift off', '3d'],
    keys: [],
    applies: (s) => freeSelection(s).length > 0,
    run: giveShadow,
  },
  'object.cutByFront': {
    label: 'Cut by the front one',
    keywords: ['clip', 'clipping mask', 'mask', 'crop', 'window', 'inside'],
    keys: [],
    applies: (s) => freeSelection(s).length > 1,
    run: (s) => {
      let group: string | null = null;
      s.commit('Cut by the front one', (d) => {
        group = groupNodes(d, s.page, freeSelection(s), s.newId, 'Cut out');
        const made = group ? d.nodes[group] : null;
        if (made?.kind === 'group') setWhole(d, made.children.slice(-1), { maskMode: 'outline' });
      });
      if (!group) return;
      s.select([group]);
      s.say('The front object cuts the others. Double-click to move what is inside; ungroup to free it.');
    },
  },
  'object.ungroup': {
    label: 'Ungroup',
    keywords: ['apart', 'dissolve', 'take apart', 'release'],
    keys: ['Mod+Shift+G'],
    applies: (s) => freeSelection(s).some((id) => isHolder(s.design.nodes[id])),
    run: (s) => {
      let freed: string[] = [];
      s.commit('Ungroup', (d) => {
        // Coloured areas go on as shapes of their own.
        for (const id of freeSelection(s)) regionsToShapes(d, id, s.newId, s.engines.fonts);
        freed = ungroupNodes(d, s.page, freeSelection(s));
      });
      s.select(freed);
      s.say(`Ungrouped: ${count(freed.length, 'object')} are free; nothing moved.`);
    },
  },
  ...COMBINE_COMMANDS,
  ...OUTLINE_COMMANDS,
  ...KNOB_COMMANDS,
  ...TRACE_COMMANDS,
  ...DEPTH_COMMANDS,
  ...REGION_COMMANDS,
  ...HANDING_COMMANDS,
  ...COPY_COMMANDS,
  ...NODE_COMMANDS,
  ...ARRANGE_COMMANDS,
  ...SELECT_COMMANDS,
  ...LOOK_COMMANDS,
  ...FIELD_COMMANDS,
  ...READY_COMMANDS,
  ...LOOKING_COMMANDS,
  ...MASTER_COMMANDS,
  ...WORD_COMMANDS,
  'object.front': order('Bring to front', 'front', ['Mod+Shift+ArrowUp'], ['top', 'above', 'order']),
  'object.forward': order('One step forward', 'forward', ['Mod+ArrowUp'], ['up', 'order']),
  'object.backward': order('One step back', 'backward', ['Mod+ArrowDown'], ['down', 'order']),
  'object.back': order('Send to back', 'back', ['Mod+Shift+ArrowDown'], ['bottom', 'below', 'behind', 'order']),
  'object.hide': {
    label: 'Hide',
    keywords: ['invisible', 'show'],
    keys: ['Mod+Shift+H'],
    applies: chosen,
    run: (s) => {
      const ids = s.state.selection;
      const hidden = !ids.every((id) => s.design.nodes[id].hidden);
      s.commit(hidden ? 'Hide' : 'Show', (d) => setNodeFlags(d, ids, { hidden }));
    },
  },
  'object.lock': {
    label: 'Lock',
    keywords: ['fix', 'protect', 'unlock'],
    keys: ['Mod+Shift+L'],
    applies: chosen,
    run: (s) => {
      const ids = s.state.selection;
      const locked = !ids.every((id) => s.design.nodes[id].locked);
      s.commit(locked ? 'Lock' : 'Unlock', (d) => setNodeFlags(d, ids, { locked }));
      s.say(locked ? 'Locked: it stays where it is until unlocked in the pile.' : 'Unlocked.');
    },
  },
  'object.turnRight': {
    label: 'Turn a quarter right',
    keywords: ['rotate', '90'],
    keys: ['Mod+Shift+ArrowRight'],
    applies: free,
    run: (s) => turnSelection(s, 90),
  },
  'object.turnLeft': {
    label: 'Turn a quarter left',
    keywords: ['rotate', '90'],
    keys: ['Mod+Shift+ArrowLeft'],
    applies: free,
    run: (s) => turnSelection(s, -90),
  },
  'object.overprint': {
    label: 'Overprint on or off',
    keywords: ['overprint', 'knock out', 'multiply', 'spot'],
    keys: [],
    applies: free,
    run: (s) => {
      const aim = s.state.aim;
      const ids = freeSelection(s);
      const on = !paintsOverprint(s, ids, aim);
      s.commit(on ? 'Overprint' : 'Knock out', (d) => setOverprint(d, ids, aim, on, chosenLetters(s)));
      s.say(on ? 'It prints over what lies below.' : 'It cuts out what lies below.');
    },
  },
  'outline.add': {
    label: 'One more outline',
    keywords: ['halo', 'ring', 'contour', 'border', 'second line', 'round letters', 'behind', 'sticker edge'],
    keys: [],
    applies: canAddOutline,
    run: addFurtherOutline,
  },
  'paint.none': {
    label: 'No paint on the aim',
    keywords: ['empty', 'transparent', 'remove fill', 'remove outline'],
    keys: [],
    applies: free,
    run: (s) =>
      void s.commit(`No ${AIM_WORDS[s.state.aim].toLowerCase()}`, (d) =>
        setPaint(d, freeSelection(s), s.state.aim, () => ({ kind: 'none' }), chosenLetters(s)),
      ),
  },
  ...SWATCH_COMMANDS,
  ...NUDGE_COMMANDS,
  ...PAGE_COMMANDS,
  ...PLACE_COMMANDS,
} as const satisfies Record<string, CommandDef>;

export type CommandId = keyof typeof COMMANDS;
export const COMMAND_TABLE: Readonly<Record<CommandId, CommandDef>> = COMMANDS;
export const COMMAND_IDS = Object.keys(COMMANDS) as CommandId[];

function turnSelection(s: Session, degrees: number): void {
  const ids = freeSelection(s);
  const box = s.boxOf(ids);
  if (isEmpty(box)) return;
  const about = s.state.pivot ?? centre(box);
  if (s.commit(`Turn ${Math.abs(degrees)}°`, (d) => turnNodes(d, s.page, ids, degrees, about)))
    s.noteAgain({ kind: 'keep', map: rotation(degrees, about), copy: false });
}

function paintsOverprint(s: Session, ids: readonly string[], aim: Aim): boolean {
  return aimedNodes(s.design, ids, aim).some((id) => {
    const n = s.design.nodes[id];
    if (isText(n) && (aim === 'letters' || aim === 'letterOutline'))
      return runsIn(s.design, s.design.stories[n.story]).some((r) =>
        aim === 'letters'
          ? r.fill.kind !== 'none' && r.fill.overprint
          : r.outline && r.outline.paint.kind !== 'none' && r.outline.paint.overprint,
      );
    const paints = isLineAim(aim) ? [lineAt(n, aim)?.paint] : 'fills' in n ? n.fills : [];
    return paints.some((p) => p && p.kind !== 'none' && p.overprint);
  });
}

/** Runs a command if it applies. */
export function runCommand(s: Session, id: CommandId): boolean {
  const c = COMMAND_TABLE[id];
  if (c.applies && !c.applies(s)) return false;
  c.run(s);
  return true;
}

import { runsIn } from '@/core/model/textLooks';
import { AIM_WORDS } from '../session/naming';
import { addPage, deletePage, duplicatePage } from '@/core/edit/pages';
import { aimedNodes, isLineAim, lineAt, type Aim } from '@/core/edit/aims';
import { setOverprint, setPaint } from '@/core/edit/paint';
import { turnNodes } from '@/core/edit/place';
import { deleteNodes } from '@/core/edit/remove';
import { groupNodes, orderNodes, setNodeFlags, ungroupNodes, type OrderMove } from '@/core/edit/pile';
import { regionsToShapes } from '@/core/edit/regions';
import { setWhole } from '@/core/edit/whole';
import { VISIONS } from '@/core/colour/vision';
import { isText } from '@/core/derive/layout';
import { rotation, translation } from '@/core/geometry/matrix';
import { centre, isEmpty } from '@/core/geometry/rect';
import { isHolder, isMaster } from '@/core/model/tree';
import { usedChannels } from '@/core/scene/used';
import { mm } from '@/core/units/length';
import { chosen, chosenLetters, count, free, freeSelection, type CommandDef } from '../session/commandDef';
import { ARRANGE_COMMANDS } from './arranging';
import { SELECT_COMMANDS } from './selecting';
import { COMBINE_COMMANDS } from './combining';
import { COPY_COMMANDS } from './copying';
import { copySelection, duplicate, pasteFrom, readClip } from './copyPaste';
import { allNodes, deleteChosenNodes, NODE_COMMANDS, nudgeNodes, onNodes } from './nodes';
import { panPicture } from '../tools/crop';
import { choose } from '../tools/pick';
import { SORTS, mergeTray, sortTray, sweepTray } from './tidy';
import { DEPTH_COMMANDS } from './depth';
import { HANDING_COMMANDS } from './handingOver';
import { REGION_COMMANDS } from './regions';
import { KNOB_COMMANDS } from './knobs';
import { TRACE_COMMANDS } from './trace';
import { addFurtherOutline, canAddOutline, OUTLINE_COMMANDS } from './outlines';
import { FIELD_COMMANDS } from './fields';
import { LOOKING_COMMANDS, stepPage } from './looking';
import { LOOK_COMMANDS } from './looks';
import { READY_COMMANDS } from './ready';
import { MASTER_COMMANDS } from './masters';
import { giveShadow } from './shadows';
import { WORD_COMMANDS } from './words';
import type { Session } from '../session/session';
import type { ToolId, ViewId } from '../session/state';

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

const nudge = (label: string, key: string, dx: number, dy: number): CommandDef => ({
  label,
  keywords: ['move', 'arrow'],
  keys: [key],
  applies: free,
  run: (s) => {
    if (s.state.crop) {
      panPicture(s, dx, dy);
      return;
    }
    if (onNodes(s)) {
      nudgeNodes(s, label, dx, dy);
      return;
    }
    const ids = freeSelection(s);
    if (s.commitMoved(label, ids, translation(dx, dy)))
      s.noteAgain({ kind: 'keep', map: translation(dx, dy), copy: false });
  },
});

const view = (label: string, id: ViewId, keys: string[], keywords: string[]): CommandDef => ({
  label,
  keywords,
  keys,
  harmless: true,
  run: (s) => s.set({ view: id, editing: null }),
});
const tool = (label: string, id: ToolId, key: string, keywords: string[]): CommandDef => ({
  label,
  keywords,
  keys: [key],
  harmless: true,
  run: (s) => s.set({ tool: id, editing: null }),
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
  'swatches.sortName': {
    label: 'Sort swatches by name',
    keywords: ['colours', 'order', 'alphabet'],
    keys: [],
    run: (s) => sortTray(s, SORTS.name),
  },
  'swatches.sortHue': {
    label: 'Sort swatches by hue',
    keywords: ['colours', 'order', 'rainbow'],
    keys: [],
    run: (s) => sortTray(s, SORTS.hue),
  },
  'swatches.sortLight': {
    label: 'Sort swatches by lightness',
    keywords: ['colours', 'order', 'dark'],
    keys: [],
    run: (s) => sortTray(s, SORTS.lightness),
  },
  'swatches.merge': {
    label: 'Merge duplicate swatches',
    keywords: ['colours', 'equal', 'twice', 'clean up'],
    keys: [],
    run: mergeTray,
  },
  'swatches.sweep': {
    label: 'Remove unused swatches',
    keywords: ['colours', 'clean up', 'delete', 'sweep'],
    keys: [],
    run: sweepTray,
  },
  'nudge.left': nudge('Nudge left', 'ArrowLeft', -mm(1), 0),
  'nudge.right': nudge('Nudge right', 'ArrowRight', mm(1), 0),
  'nudge.up': nudge('Nudge up', 'ArrowUp', 0, -mm(1)),
  'nudge.down': nudge('Nudge down', 'ArrowDown', 0, mm(1)),
  'nudge.leftFar': nudge('Nudge left by 10 mm', 'Shift+ArrowLeft', -mm(10), 0),
  'nudge.rightFar': nudge('Nudge right by 10 mm', 'Shift+ArrowRight', mm(10), 0),
  'nudge.upFar': nudge('Nudge up by 10 mm', 'Shift+ArrowUp', 0, -mm(10)),
  'nudge.downFar': nudge('Nudge down by 10 mm', 'Shift+ArrowDown', 0, mm(10)),
  'nudge.leftFine': nudge('Nudge left by 0.1 mm', 'Alt+ArrowLeft', -mm(0.1), 0),
  'nudge.rightFine': nudge('Nudge right by 0.1 mm', 'Alt+ArrowRight', mm(0.1), 0),
  'nudge.upFine': nudge('Nudge up by 0.1 mm', 'Alt+ArrowUp', 0, -mm(0.1)),
  'nudge.downFine': nudge('Nudge down by 0.1 mm', 'Alt+ArrowDown', 0, mm(0.1)),
  'page.add': {
    label: 'Add a page',
    keywords: ['new page', 'sheet', 'back side', 'reverse side', 'second page'],
    keys: ['Mod+Enter'],
    run: (s) => {
      let id = '';
      s.commit('Add a page', (d) => {
        id = addPage(d, s.page.id, s.newId);
      });
      if (id) s.goToPage(id);
    },
  },
  'page.duplicate': {
    label: 'Duplicate this page',
    keywords: ['copy page'],
    keys: [],
    applies: (s) => !isMaster(s.design, s.page.id),
    run: (s) => {
      let id = '';
      s.commit('Duplicate page', (d) => {
        id = duplicatePage(d, s.page.id, s.newId);
      });
      if (id) s.goToPage(id);
    },
  },
  'page.delete': {
    label: 'Delete this page',
    keywords: ['remove page'],
    keys: [],
    applies: (s) => s.design.pages.length > 1 && !isMaster(s.design, s.page.id),
    run: (s) => {
      let next = '';
      s.commit('Delete page', (d) => {
        next = deletePage(d, s.page.id);
      });
      if (next) s.goToPage(next);
    },
  },
  'page.next': {
    label: 'Next page',
    keywords: ['go to'],
    keys: ['PageDown'],
    harmless: true,
    run: (s) => stepPage(s, 1),
  },
  'page.previous': {
    label: 'Page before',
    keywords: ['go to', 'previous'],
    keys: ['PageUp'],
    harmless: true,
    run: (s) => stepPage(s, -1),
  },
  'tool.select': tool('Select', 'select', 'S', ['arrow', 'move', 'pick']),
  'tool.nodes': tool('Nodes', 'nodes', 'N', ['points', 'edit path', 'anchor']),
  'tool.pen': tool('Pen', 'pen', 'P', ['draw', 'path', 'curve', 'line', 'straight line', 'polygon']),
  'tool.freehand': tool('Freehand', 'freehand', 'F', ['pencil', 'draw', 'sign', 'signature', 'brush', 'smooth']),
  'tool.shape': tool('Shape', 'shape', 'H', ['rectangle', 'circle', 'star', 'draw']),
  'tool.text': tool('Text', 'text', 'T', ['type', 'words', 'letters']),
  'tool.picture': {
    label: 'Picture',
    keywords: ['image', 'photo', 'place', 'insert', 'import', 'open file', 'drawer', 'svg'],
    keys: ['U'],
    run: (s) => s.set({ pictureChooser: true, editing: null }),
  },
  'tool.gradient': tool('Gradient', 'gradient', 'G', ['blend', 'fade', 'ramp']),
  'tool.sample': tool('Sample', 'sample', 'M', ['pick a colour', 'eyedropper', 'pipette', 'take colour']),
  'tool.regions': tool('Regions', 'regions', 'R', ['colour in', 'fill areas', 'colouring', 'enclosed', 'bucket']),
  'tool.hand': tool('Hand', 'hand', 'D', ['pan', 'scroll', 'move the page']),
  'view.seenBy': {
    label: 'Seen by: next eyes',
    keywords: ['colour blind', 'colour vision', 'grey', 'photocopy', 'accessibility'],
    keys: [],
    harmless: true,
    run: (s) => {
      const next = VISIONS[(VISIONS.findIndex((v) => v.id === s.state.vision) + 1) % VISIONS.length];
      s.set({ vision: next.id });
      s.say(`Seen by ${next.name.toLowerCase()}: ${next.says}.`);
    },
  },
  'view.work': view('Work view', 'work', ['1'], ['edit', 'guides']),
  'view.clean': view('Clean view', 'clean', ['2'], ['preview', 'no guides', 'cut at the trim']),
  'view.plates': {
    label: 'Plates view',
    keywords: ['separations', 'inks', 'single inks'],
    keys: ['3'],
    harmless: true,
    // It opens on a plate: the ink that this page has most of.
    run: (s) =>
      s.set({ view: 'plates', editing: null, ...(s.state.view !== 'plates' && { shownInks: firstPlate(s) }) }),
  },
  'go.details': {
    label: 'Go to Details',
    keywords: ['fields', 'properties', 'panel', 'inspector'],
    keys: ['E'],
    harmless: true,
    run: () => goTo('[data-region=details]'),
  },
  'go.tray': {
    label: 'Go to the ink tray',
    keywords: ['swatches', 'colours', 'palette'],
    keys: ['C'],
    harmless: true,
    run: () => goTo('[data-region=tray]'),
  },
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

/** Gives the keys to the first thing of a place that takes them. */
function goTo(selector: string): void {
  const region = globalThis.document?.querySelector?.<HTMLElement>(selector);
  (region?.querySelector<HTMLElement>('input, select, button:not([disabled])') ?? region)?.focus();
}

/** The plate to look at first: a process ink that the page uses, the darkest of them. */
function firstPlate(s: Session): ReadonlySet<string> | null {
  const { palette } = s;
  const used = palette.screen ? [] : usedChannels(s.restingScene(s.state.design), palette);
  const first = [3, 0, 1, 2].find((i) => used.includes(i)) ?? used[0];
  return first === undefined ? null : new Set([palette.channels[first]]);
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

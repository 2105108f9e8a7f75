// Where one works: the tools, the views, the places of the bench.
import { VISIONS } from '@/core/colour/vision';
import { usedChannels } from '@/core/scene/used';
import type { CommandDef } from '../session/commandDef';
import type { Session } from '../session/session';
import type { ToolId, ViewId } from '../session/state';

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

export const PLACE_COMMANDS = {
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

/**
 * Gives the keys to the first thing of a place that takes them; where the place itself is still on its way, as soon as
 * it is there, unless they went elsewhere meanwhile.
 */
function goTo(selector: string): void {
  const page = globalThis.document;
  const arrived = () => {
    const region = page?.querySelector?.<HTMLElement>(selector);
    (region?.querySelector<HTMLElement>('input, select, button:not([disabled])') ?? region)?.focus();
    return Boolean(region);
  };
  if (!page?.body || arrived()) return;
  const from = page.activeElement;
  const watch = new MutationObserver(() => {
    if (page.activeElement !== from || arrived()) watch.disconnect();
  });
  watch.observe(page.body, { childList: true, subtree: true });
}

/** The plate to look at first: a process ink that the page uses, the darkest of them. */
function firstPlate(s: Session): ReadonlySet<string> | null {
  const { palette } = s;
  const used = palette.screen ? [] : usedChannels(s.restingScene(s.state.design), palette);
  const first = [3, 0, 1, 2].find((i) => used.includes(i)) ?? used[0];
  return first === undefined ? null : new Set([palette.channels[first]]);
}

import { ALIKE_TOLERANCE } from '@/core/model/defaults';
import { mm } from '@/core/units/length';
import type { LoadedDesign } from '@/store/designs';
import { saving } from './saving';
import type { BenchState } from './state';

/** The bench as it is when a design has just been opened. */
export function freshState(loaded: LoadedDesign, readOnly: boolean, fontsEpoch: number): BenchState {
  return {
    design: loaded.design,
    preview: null,
    calm: null,
    entries: loaded.entries,
    cursor: loaded.cursor,
    save: { kind: 'saved' },
    readOnly,
    page: loaded.design.pages[0].id,
    selection: [],
    entered: null,
    isolated: false,
    pivot: null,
    snapping: { nodes: true, edges: true, spacing: true, guides: true, grid: false, step: mm(5) },
    alignTo: 'selection',
    keyObject: null,
    alikeTolerance: ALIKE_TOLERANCE,
    pileHere: null,
    pointedAt: null,
    nodes: [],
    pen: null,
    penMode: 'handles',
    freehand: { mode: 'draw', tolerance: 2, radius: 30 },
    aim: 'fill',
    groundOn: null,
    tool: 'select',
    shape: 'rectangle',
    recentShapes: [],
    recentFaces: [],
    likedFaces: [],
    ownFaces: [],
    view: 'work',
    shownInks: null,
    camera: { scale: 1, x: 0, y: 0 },
    editing: null,
    stop: null,
    stopSlip: null,
    message: loaded.warning
      ? {
          text: loaded.warning,
          tone: 'warn',
          ...(loaded.aside && {
            actions: [
              {
                label: 'Save what was kept of it',
                run: () => void saving.get().then((m) => m.downloadAside(loaded.aside!)),
              },
            ],
          }),
        }
      : null,
    totalInk: null,
    findings: [],
    notChecked: '',
    fontsEpoch,
    picturesEpoch: 0,
    crop: null,
    pictureChooser: false,
    findingWords: false,
    refitting: false,
    keepingStarter: false,
    walk: null,
    // Until it is measured: CSS pixels are 1/96 inch.
    realSize: 96 / 72,
    measuring: false,
    throughPage: false,
    shapeChooser: false,
    chooserPart: 'shapes',
    report: null,
    colourHere: null,
    unfolded: new Set(),
    handOver: null,
    folded: [],
    recent: [],
    libraries: [],
    sample: { take: 'look', give: 'aim' },
    vision: 'all',
  };
}

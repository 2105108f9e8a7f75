import type { Growing } from '@/core/edit/place';
import type { Limits } from '@/core/model/checksSchema';
import type { OwnFace } from '@/core/model/faceSchema';
import type { VisionId } from '@/core/colour/vision';
import type { Finding } from '@/core/check/types';
import type { HistoryEntry } from '@/core/edit/history';
import type { AlignTo } from '@/core/edit/align';
import type { Aim } from '@/core/edit/aims';
import type { Matrix, Point } from '@/core/geometry/matrix';
import type { Colour, Design } from '@/core/model/schema';
import type { LibraryRow } from '@/store/database';
import type { Aside } from '@/core/render/halftone';
import type { PdfPreset } from '@/core/output/pdf/presets';
import type { PressAnswer } from '@/press/answer';
import type { Signature } from '@/core/edit/signature';
import type { PlateLook } from '@/core/render/plateLooks';
import type { HandOverRequest, RenderRequest } from '@/workers/pressApi';
import type { Keeping } from '@/store/journal';

export type ToolId =
  'select' | 'nodes' | 'pen' | 'freehand' | 'shape' | 'text' | 'gradient' | 'sample' | 'regions' | 'hand';
export type ViewId = 'work' | 'clean' | 'plates';

/** Maps page points to pixels of the bench top: px = pt·scale + offset. */
export interface Camera {
  readonly scale: number;
  readonly x: number;
  readonly y: number;
}

/** A text being written in: offsets in its story's plain text; anchor = focus is a caret. */
export interface Editing {
  readonly node: string;
  readonly anchor: number;
  readonly focus: number;
}

export interface Message {
  readonly text: string;
  readonly tone: 'plain' | 'warn' | 'stop';
  readonly actions?: readonly MessageAction[];
}
export interface MessageAction {
  readonly label: string;
  readonly run: () => void;
}

/** The last thing done to the place of objects, for doing it again. `size`: widths change, not only places. */
export interface Again {
  readonly kind: 'keep' | 'size';
  /** In page space. */
  readonly map: Matrix;
  /** It made copies and moved those. */
  readonly copy: boolean;
}

/** What things snap to besides the page's own lines; the grid's step in points. */
export interface Snapping {
  readonly nodes: boolean;
  readonly edges: boolean;
  readonly spacing: boolean;
  readonly guides: boolean;
  readonly grid: boolean;
  readonly step: number;
}

/** A node of a path that is chosen. */
export interface ChosenNode {
  readonly object: string;
  readonly flat: number;
}

export interface BenchState {
  readonly design: Design;
  /** What a gesture shows before it is let go; null when nothing moves. */
  readonly preview: Design | null;
  /** The same a little later: what panels show. They follow at their own pace, and never slow a gesture down. */
  readonly calm: Design | null;
  readonly entries: readonly HistoryEntry[];
  readonly cursor: number;
  readonly save: Keeping;
  /** Another tab holds the design: looking only. */
  readonly readOnly: boolean;

  readonly page: string;
  readonly selection: readonly string[];
  /** The group whose inside is being worked on. */
  readonly entered: string | null;
  /** Nothing outside of what is entered can be chosen. */
  readonly isolated: boolean;
  /** What turns and flips go about, on the page; null: the middle of the selection. */
  readonly pivot: Point | null;
  readonly snapping: Snapping;
  /** What grows with an object that is sized. */
  readonly growing: Growing;
  /** What things line up with, and the one that stays where that is one of them. */
  readonly alignTo: AlignTo;
  readonly keyObject: string | null;
  /** Colours within this ΔE00 count as alike. */
  readonly alikeTolerance: number;
  /** What lies under a place of the bench top (pixels), shown as a list; and the one pointed at in it. */
  readonly pileHere: { readonly x: number; readonly y: number; readonly ids: readonly string[] } | null;
  readonly pointedAt: string | null;
  readonly nodes: readonly ChosenNode[];
  /** The open line that the pen goes on with, and at which of its ends. */
  readonly pen: {
    readonly object: string;
    readonly contour: number;
    readonly end: 'first' | 'last';
    /** Begun by the pen just now: closed, it becomes an area. */ readonly fresh: boolean;
    /** The handle drawn out of the last node (its place and the handle's), which no piece has yet. */ readonly handle?: {
      readonly of: Point;
      readonly at: Point;
    } | null;
  } | null;
  readonly penMode: 'handles' | 'through' | 'polygon';
  /** Drawing or smoothing by hand; tolerance and radius in pixels of the screen. */
  readonly freehand: { readonly mode: 'draw' | 'smooth'; readonly tolerance: number; readonly radius: number };
  readonly aim: Aim;
  /** The master whose ground is changed; null: the page's own. */
  readonly groundOn: string | null;
  readonly tool: ToolId;
  readonly shape: string;
  /** Shapes drawn last, newest first, in any design. */
  /** Inner measures of a dialled shape that can be given to others of its kind. */
  readonly copiedKnobs: { readonly shape: string; readonly knobs: Readonly<Record<string, number>> } | null;
  readonly recentShapes: readonly string[];
  /** Faces given last, and families that are kept first. */
  readonly recentFaces: readonly string[];
  readonly likedFaces: readonly string[];
  /** Faces that the person brought, for every design, latest first. */
  readonly ownFaces: readonly OwnFace[];
  readonly view: ViewId;
  /** Inks on the press in Plates; null for all. */
  readonly shownInks: ReadonlySet<string> | null;
  /** How plates are shown in the view of them. */
  readonly plateLook: PlateLook;
  /** Two plates that are held against each other; null: none are. */
  readonly pair: readonly [string, string] | null;
  /** What the state is called that the present one is held against. */
  readonly against: string | null;
  /** Inks under the pointer are read as their mean over a square of that side, points; 0: at the point. */
  readonly inkSquare: number;
  /** The loupe is out: the side of what it shows, points; and how far aside each plate lies in it, points. */
  readonly loupe: { readonly side: number; readonly aside: Readonly<Record<string, Aside>> } | null;
  readonly camera: Camera;
  readonly editing: Editing | null;
  /** The gradient stop or pool that colour goes to, of the selected object's aimed gradient. */
  readonly stop: number | null;
  /** Where the recipe of that stop is open on the bench top; null when it is not. */
  readonly stopSlip: { readonly x: number; readonly y: number } | null;
  readonly message: Message | null;
  readonly totalInk: { readonly total: number; readonly x: number; readonly y: number } | null;
  readonly findings: readonly Finding[];
  /** What they were found in: what has changed since may not be as they say. */
  readonly checked: Design | null;
  /** Those that are meant to be so. */
  readonly waived: readonly Finding[];
  /** Sets of limits that were kept under a name. */
  readonly limitSets: readonly Limits[];
  /** Why the last look for faults failed; empty before the first; null where it did not. */
  readonly notChecked: string | null;
  readonly fontsEpoch: number;
  /** Rises whenever a picture's look has come. */
  readonly picturesEpoch: number;
  /** The picture that is being cropped: moved and sized inside its frame. */
  /** What a drawing lost on its way in, to be read. */
  readonly report: { readonly title: string; readonly notes: readonly string[] } | null;
  /** Is the list of pictures to place open? */
  readonly pictureChooser: boolean;
  /** Are words being looked for? */
  readonly findingWords: boolean;
  /** Is this page being fitted to other formats? */
  readonly refitting: boolean;
  /** CSS pixels a point at which a millimetre is one on this screen. */
  readonly realSize: number;
  /** The sheet that measures the screen is open. */
  readonly measuring: boolean;
  /** The other side of the page is seen through it. */
  readonly throughPage: boolean;
  /**
   * How the page's references are shown at full strength: over the work, or beside it; and whether that comes and goes.
   */
  readonly compare: 'off' | 'over' | 'beside';
  readonly blinks: boolean;
  /** The step of the walk over the bench that is shown; null: none. */
  readonly walk: number | null;
  /** The sheet to sign on is open. */
  readonly signing: boolean;
  /** Signatures that were kept, latest first. */
  readonly signatures: readonly Signature[];
  /** The sheet that makes a starter of the design is open. */
  readonly keepingStarter: boolean;
  readonly shapeChooser: boolean;
  /** What it offers: dialled shapes, or prepared groups. */
  readonly chooserPart: 'shapes' | 'ready';
  readonly crop: { readonly node: string; readonly aim: Aim } | null;
  /**
   * A colour that is being made or changed by eye: of what is aimed at, or a new one; and where on the screen it was
   * asked for.
   */
  readonly colourHere: { readonly x: number; readonly y: number; readonly fresh: boolean } | null;
  /** Groups that are open in the pile. */
  readonly unfolded: ReadonlySet<string>;
  /** What a press said of the file that was sent to it last. */
  readonly pressAnswer: { readonly answer: PressAnswer; readonly of: Design } | null;
  /** The remark of that answer that is shown on its page. */
  readonly pressRemark: number | null;
  /** Options of PDFs that were kept under a name. */
  readonly pdfPresets: readonly PdfPreset[];
  /** What was handed over last. */
  readonly lastHandOver: readonly HandOverRequest[] | null;
  /** A file that is asked for from elsewhere: its slip opens with it. */
  readonly handOver: {
    readonly kind: Exclude<HandOverRequest['kind'], 'objects' | 'report' | 'plates'>;
    readonly transparent?: boolean;
  } | null;
  /** Sections of Details that are folded, by kind of object and title. */
  readonly folded: readonly string[];
  /** Colours given last, newest first. */
  readonly recent: readonly Colour[];
  /** Colours kept for every design. */
  readonly libraries: readonly LibraryRow[];
  /** What the Sample tool takes, and where it goes. */
  readonly sample: { readonly take: 'look' | 'exact'; readonly give: 'aim' | 'swatch' };
  /** Whose eyes the sheet is shown to. */
  readonly vision: VisionId;
}

export const shownDesign = (s: BenchState): Design => s.preview ?? s.design;

/** What panels show while something is tried out. */
export const calmDesign = (s: BenchState): Design => (s.preview ? (s.calm ?? s.design) : s.design);

/** The inks that are shown: all of them (null) but in the view of plates, where some may be chosen. */
export const inksShown = (s: BenchState): ReadonlySet<string> | null => (s.view === 'plates' ? s.shownInks : null);

/** What the press is asked to show, and how; a look of its own is for the view of plates alone. */
export const pressOrder = (s: BenchState): Pick<RenderRequest, 'shown' | 'look' | 'pair' | 'proof'> => {
  const inks = inksShown(s);
  return {
    shown: inks && [...inks],
    look: s.view === 'plates' ? s.plateLook : 'ink',
    pair: s.pair,
    proof: s.view === 'work',
  };
};
/** The same as one word: what was made for another is of the past. */
export const onPress = (s: BenchState): string =>
  [
    s.view === 'plates' ? s.plateLook : 'ink',
    [...(inksShown(s) ?? '*')].join('|'),
    s.pair?.join('|') ?? '',
    s.against ?? '',
  ].join(' ');

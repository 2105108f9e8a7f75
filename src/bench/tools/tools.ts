import {
  Blend,
  Hand,
  Image as ImageIcon,
  MousePointer2,
  Pencil,
  PenTool,
  Pipette,
  Puzzle,
  Shapes,
  Spline,
  Type,
  type LucideIcon,
} from 'lucide-react';
import type { ToolId } from '../session/state';
import { selectTool } from './select';
import { afterPaint } from '../session/afterPaint';
import { toolLater } from './toolLater';
import type { Tool } from './tool';

/** Drags the sheet about; also while Space is held. */
const handTool: Tool = {
  press(start, c) {
    const { session: s } = c;
    const from = s.state.camera;
    return {
      move: (p) =>
        s.set({
          camera: { ...from, x: from.x + p.screen.x - start.screen.x, y: from.y + p.screen.y - start.screen.y },
        }),
      release: () => {},
      cancel: () => s.set({ camera: from }),
    };
  },
  cursor: () => 'grab',
};

export const penScript = afterPaint(() => import('./pen'));

export interface RackRow {
  readonly id: ToolId;
  readonly word: string;
  /** The letter that is underlined in the word and picks the tool. */
  readonly letter: string;
  readonly icon: LucideIcon;
  readonly tool: Tool;
}

/**
 * The rack, in the order of the work. What is needed to choose and to move about comes first, the other tools after the
 * first paint.
 */
export const RACK: readonly RackRow[] = [
  { id: 'select', word: 'Select', letter: 'S', icon: MousePointer2, tool: selectTool },
  {
    id: 'nodes',
    word: 'Nodes',
    letter: 'N',
    icon: Spline,
    tool: toolLater(async () => (await import('./nodes')).nodesTool),
  },
  {
    id: 'shape',
    word: 'Shape',
    letter: 'h',
    icon: Shapes,
    tool: toolLater(async () => (await import('./shape')).shapeTool),
  },
  { id: 'pen', word: 'Pen', letter: 'P', icon: PenTool, tool: toolLater(async () => (await penScript.get()).penTool) },
  {
    id: 'freehand',
    word: 'Freehand',
    letter: 'F',
    icon: Pencil,
    tool: toolLater(async () => (await import('./freehand')).freehandTool),
  },
  { id: 'text', word: 'Text', letter: 'T', icon: Type, tool: toolLater(async () => (await import('./text')).textTool) },
  {
    id: 'gradient',
    word: 'Gradient',
    letter: 'G',
    icon: Blend,
    tool: toolLater(async () => (await import('./gradient')).gradientTool),
  },
  {
    id: 'sample',
    word: 'Sample',
    letter: 'm',
    icon: Pipette,
    tool: toolLater(async () => (await import('./sample')).sampleTool),
  },
  {
    id: 'regions',
    word: 'Regions',
    letter: 'R',
    icon: Puzzle,
    tool: toolLater(async () => (await import('./regions')).regionsTool),
  },
  { id: 'hand', word: 'Hand', letter: 'd', icon: Hand, tool: handTool },
];

/** What stands among the tools and opens the pictures that can be placed. */
export const PICTURE_ROW = { word: 'Picture', letter: 'u', icon: ImageIcon } as const;

export const toolById = (id: ToolId): Tool => RACK.find((r) => r.id === id)!.tool;

import type { Palette } from '../colour/palette';
import type { Limits } from '../model/checksSchema';
import type { Design, Page } from '../model/schema';
import type { Scene } from '../scene/scene';
import type { FontBook } from '../text/fonts';
import type { Unit } from '../units/length';

export type Severity = 'look' | 'stop';

/** Facts of each kind of finding; the words stand beside the rule. */
export interface FindingFacts {
  'bleed.missing': { readonly sides: readonly string[]; readonly bleed: number };
  'ink.tooMuch': { readonly total: number; readonly limit: number; readonly x: number; readonly y: number };
  'ink.profileMissing': { readonly profile: string };
  'text.missingFace': { readonly face: string };
  'text.overset': { readonly characters: number };
  'picture.soft': { readonly ppi: number };
  'picture.coarse': { readonly ppi: number };
  'picture.missing': { readonly picture: string };
  'object.unknown': { readonly kind: string };
  'combination.unsure': Record<string, never>;
  /** By how much it is wider and higher (points), than how many others. */
  'size.drift': { readonly others: number; readonly wider: number; readonly higher: number; readonly unit: Unit };
  /** Tones, and how wide each is (points). */
  /**
   * How far from which edges, how far is asked, and the way that would take it there (nothing: there is none); points.
   */
  'words.nearTrim': {
    readonly off: number;
    readonly safe: number;
    readonly dx: number;
    readonly dy: number;
    readonly sides: readonly string[];
    readonly unit: Unit;
  };
  'words.tiny': { readonly size: number; readonly least: number };
  'words.mixed': { readonly size: number; readonly least: number; readonly inks: number };
  'words.free': { readonly size: number; readonly least: number };
  'words.richBlack': { readonly size: number; readonly least: number };
  'words.faint': { readonly ratio: number };
  'words.placeholder': { readonly words: string };
  'line.thin': { readonly width: number; readonly least: number };
  'line.free': { readonly width: number; readonly least: number };
  'black.mixed': { readonly total: number };
  'black.knocksOut': Record<string, never>;
  'overprint.white': Record<string, never>;
  'overprint.lost': Record<string, never>;
  'overprint.unsure': Record<string, never>;
  'colour.rgb': { readonly swatch: string | null; readonly name: string };
  'spot.many': { readonly spots: number; readonly most: number; readonly limits: string };
  'ink.many': { readonly inks: number; readonly most: number; readonly limits: string };
  'spot.unused': { readonly ink: string; readonly name: string };
  'spot.twice': {
    readonly ink: string;
    readonly name: string;
    readonly other: string;
    readonly as: string;
    readonly distance: number;
  };
  'picture.fine': { readonly ppi: number; readonly most: number };
  'picture.stretched': { readonly by: number };
  /** Shown with so many pixels an inch, it has the detail of one with half of them. */
  'picture.blownUp': { readonly ppi: number };
  /** Made of so many pixels an inch, and what it would need. */
  'effect.coarse': { readonly ppi: number; readonly needed: number };
  'text.keptFace': { readonly face: string };
  /** As of words. */
  'place.nearTrim': FindingFacts['words.nearTrim'];
  'object.outside': Record<string, never>;
  'object.twice': { readonly other: string };
  'object.unseen': Record<string, never>;
  'frame.empty': Record<string, never>;
  'fill.open': Record<string, never>;
  'fill.sliver': { readonly width: number };
  'combination.gap': { readonly gap: number; readonly unit: Unit };
  'place.nearly': {
    readonly by: number;
    readonly edge: 'left' | 'right' | 'top' | 'foot';
    readonly others: number;
    readonly unit: Unit;
  };
  'layer.hidden': Record<string, never>;
  'page.empty': Record<string, never>;
  'page.count': { readonly pages: number };
  'paper.other': { readonly limits: string; readonly paper: string };
  'gradient.banding': { readonly steps: number; readonly step: number };
}
export type FindingCode = keyof FindingFacts;

export interface Found<C extends FindingCode> {
  readonly node: string | null;
  readonly facts: FindingFacts[C];
}

export interface Subject {
  readonly design: Design;
  readonly limits: Limits;
  readonly fonts: FontBook;
  /** Of any page, 0-based. */
  sceneOf(page: number): Scene;
  readonly page: Page;
  readonly scene: Scene;
  readonly palette: Palette;
}

export interface Rule<C extends FindingCode = FindingCode> {
  readonly code: C;
  readonly severity: Severity;
  /** Of the design as one: asked once, on its first page. */
  readonly whole?: true;
  find(s: Subject): Iterable<Found<C>>;
  /** What is wrong and where, in a sentence; then why it matters and what to do. */
  say(f: FindingFacts[C], name: string): { readonly message: string; readonly why: string };
}

export interface Finding {
  readonly code: FindingCode;
  readonly severity: Severity;
  /** 1-based. */
  readonly page: number;
  readonly node: string | null;
  readonly message: string;
  readonly why: string;
  readonly facts: FindingFacts[FindingCode];
  /** Why it is meant to be so. Absent: it is not. */
  readonly waived?: string;
}

import type { Palette } from '../colour/palette';
import type { Design, Page } from '../model/schema';
import type { Scene } from '../scene/scene';

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
  /** Tones, and how wide each is (points). */
  'gradient.banding': { readonly steps: number; readonly step: number };
}
export type FindingCode = keyof FindingFacts;

export interface Found<C extends FindingCode> {
  readonly node: string | null;
  readonly facts: FindingFacts[C];
}

export interface Subject {
  readonly design: Design;
  readonly page: Page;
  readonly scene: Scene;
  readonly palette: Palette;
}

export interface Rule<C extends FindingCode = FindingCode> {
  readonly code: C;
  readonly severity: Severity;
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
}

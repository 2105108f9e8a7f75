import type { Palette } from '../colour/palette';
import type { Design } from '../model/schema';
import type { SceneBuilder } from '../scene/build';
import type { Scene } from '../scene/scene';
import { bleedRule } from './rules/bleed';
import { totalInkRule } from './rules/ink';
import { missingFaceRule, oversetRule } from './rules/text';

export type Severity = 'look' | 'stop';

/** Facts of each kind of finding; the words stand beside the rule. */
export interface FindingFacts {
  'bleed.missing': { readonly sides: readonly string[]; readonly bleed: number };
  'ink.tooMuch': { readonly total: number; readonly limit: number; readonly x: number; readonly y: number };
  'text.missingFace': { readonly face: string };
  'text.overset': { readonly characters: number };
}
export type FindingCode = keyof FindingFacts;

export interface Found<C extends FindingCode> {
  readonly node: string | null;
  readonly facts: FindingFacts[C];
}

export interface Subject {
  readonly design: Design;
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

/** A new check is a file and a line here. */
const RULES = [bleedRule, totalInkRule, missingFaceRule, oversetRule] as unknown as readonly Rule[];

export function checkDesign(design: Design, builder: SceneBuilder, palette: Palette): Finding[] {
  const findings: Finding[] = [];
  design.pages.forEach((page, index) => {
    const subject = { design, scene: builder.build(design, page), palette };
    for (const rule of RULES)
      for (const found of rule.find(subject)) {
        const name = found.node ? design.nodes[found.node]?.name || 'An object' : `Page ${index + 1}`;
        findings.push({ code: rule.code, severity: rule.severity, page: index + 1, node: found.node, ...rule.say(found.facts, name), facts: found.facts });
      }
  });
  return findings;
}

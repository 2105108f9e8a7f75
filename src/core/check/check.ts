import type { Palette } from '../colour/palette';
import type { Design } from '../model/schema';
import type { SceneBuilder } from '../scene/build';
import { bleedRule } from './rules/bleed';
import { totalInkRule } from './rules/ink';
import { missingFaceRule, oversetRule } from './rules/text';
import type { Finding, Rule } from './types';

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

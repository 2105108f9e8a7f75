import type { Palette } from '../colour/palette';
import type { Design } from '../model/schema';
import type { SceneBuilder } from '../scene/build';
import { bleedRule } from './rules/bleed';
import { unsureRule } from './rules/combination';
import { bandingRule } from './rules/gradient';
import { missingProfileRule, totalInkRule } from './rules/ink';
import { coarsePictureRule, missingPictureRule, softPictureRule } from './rules/picture';
import { missingFaceRule, oversetRule } from './rules/text';
import { unknownRule } from './rules/unknown';
import type { Finding, FindingCode, Rule, Subject } from './types';

/** A new check is a file and a line here. */
const RULES = [run(bleedRule), run(totalInkRule), run(missingProfileRule), run(missingFaceRule), run(oversetRule), run(bandingRule), run(unsureRule), run(unknownRule), run(missingPictureRule), run(coarsePictureRule), run(softPictureRule)];

export function checkDesign(design: Design, builder: SceneBuilder, palette: Palette): Finding[] {
  const findings: Finding[] = [];
  design.pages.forEach((page, index) => {
    const subject = { design, page, scene: builder.build(design, page), palette };
    for (const rule of RULES) findings.push(...rule(subject, index + 1));
  });
  return findings;
}

/** One rule on one page (1-based), its facts put into words. */
function run<C extends FindingCode>(rule: Rule<C>) {
  return (subject: Subject, page: number): Finding[] =>
    Array.from(rule.find(subject), ({ node, facts }) => {
      const name = node ? subject.design.nodes[node]?.name || 'An object' : `Page ${page}`;
      return { code: rule.code, severity: rule.severity, page, node, ...rule.say(facts, name), facts };
    });
}

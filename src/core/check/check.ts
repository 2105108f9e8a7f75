import type { Palette } from '../colour/palette';
import type { Design } from '../model/schema';
import { pageById } from '../model/tree';
import type { SceneBuilder } from '../scene/build';
import { wordsOf } from '../derive/fields';
import { bleedRule } from './rules/bleed';
import { unsureRule } from './rules/combination';
import { bandingRule } from './rules/gradient';
import { missingProfileRule, totalInkRule } from './rules/ink';
import { coarsePictureRule, missingPictureRule, softPictureRule } from './rules/picture';
import { missingFaceRule, oversetRule } from './rules/text';
import { unknownRule } from './rules/unknown';
import type { Finding, FindingCode, Rule, Subject } from './types';

/** A new check is a file and a line here. */
const RULES = [
  run(bleedRule),
  run(totalInkRule),
  run(missingProfileRule),
  run(missingFaceRule),
  run(oversetRule),
  run(bandingRule),
  run(unsureRule),
  run(unknownRule),
  run(missingPictureRule),
  run(coarsePictureRule),
  run(softPictureRule),
];

/** All findings of all pages, in the order of the rules. The design must have been equipped. */
export function checkDesign(design: Design, builder: SceneBuilder, palette: Palette): Finding[] {
  const findings: Finding[] = [];
  design.pages.forEach((page, index) => {
    const subject = { design, page, scene: builder.build(design, page), palette };
    for (const rule of RULES) findings.push(...rule(subject, index + 1));
  });
  return findings;
}

/** What a finding means: of a shape with words in it the words, where they are what is wrong. */
function called(design: Design, id: string, code: FindingCode): string {
  const node = design.nodes[id];
  if (!node) return pageById(design, id) ? 'The ground' : 'An object';
  if (!code.startsWith('text.') || !('story' in node)) return node.name || 'An object';
  if (node.name && node.name !== 'Text frame' && node.name !== 'Display text')
    return node.kind === 'textFrame' && node.window ? `The text in ${node.name}` : node.name;
  const words = wordsOf(design, node).replace(/\s+/g, ' ').trim();
  return words ? `The text “${words.length > 30 ? `${words.slice(0, 28)} …` : words}”` : 'An empty text';
}

/** One rule on one page (1-based), its facts put into words. */
function run<C extends FindingCode>(rule: Rule<C>) {
  return (subject: Subject, page: number): Finding[] =>
    Array.from(rule.find(subject), ({ node, facts }) => {
      const name = node ? called(subject.design, node, rule.code) : `Page ${page}`;
      return { code: rule.code, severity: rule.severity, page, node, ...rule.say(facts, name), facts };
    });
}

import type { Palette } from '../colour/palette';
import type { Design, Page } from '../model/schema';
import { pageById, spreadOf, withDescendants } from '../model/tree';
import type { SceneBuilder } from '../scene/build';
import { wordsOf } from '../derive/fields';
import { bleedRule } from './rules/bleed';
import { unsureRule } from './rules/combination';
import { driftRule } from './rules/drift';
import { bandingRule } from './rules/gradient';
import { manyInksRule, manySpotsRule, mixedBlackRule, rgbRule, twinSpotRule, unusedSpotRule } from './rules/colour';
import { missingProfileRule, totalInkRule } from './rules/ink';
import { freeLineRule, thinLineRule } from './rules/line';
import { emptyFrameRule, gapRule, openFillRule, outsideRule, sliverRule, twiceRule, unseenRule } from './rules/object';
import { blackKnocksOutRule, lostOverprintRule, unsureOverprintRule, whiteOverprintsRule } from './rules/overprint';
import { emptyPageRule, hiddenLayerRule, otherPaperRule, pageCountRule } from './rules/page';
import { coarseEffectRule } from './rules/effect';
import {
  blownUpPictureRule,
  coarsePictureRule,
  finePictureRule,
  missingPictureRule,
  softPictureRule,
  stretchedPictureRule,
} from './rules/picture';
import { nearlyRule, smallNearTrimRule } from './rules/place';
import { keptFaceRule, missingFaceRule, oversetRule } from './rules/text';
import { unknownRule } from './rules/unknown';
import {
  faintWordsRule,
  freeWordsRule,
  mixedWordsRule,
  nearTrimRule,
  placeholderRule,
  richWordsRule,
  tinyWordsRule,
} from './rules/words';
import { limitsOf } from './limits';
import type { Finding, FindingCode, Rule, Subject } from './types';

/** A new check is an object in a file, and a line here: what stops a job first, then what is looked at. */
const RULES = [
  run(missingProfileRule),
  run(missingFaceRule),
  run(keptFaceRule),
  run(missingPictureRule),
  run(oversetRule),
  run(unsureRule),
  run(unknownRule),
  run(whiteOverprintsRule),
  run(coarsePictureRule),
  run(bleedRule),
  run(nearTrimRule),
  run(smallNearTrimRule),
  run(totalInkRule),
  run(placeholderRule),
  run(tinyWordsRule),
  run(mixedWordsRule),
  run(richWordsRule),
  run(freeWordsRule),
  run(faintWordsRule),
  run(thinLineRule),
  run(freeLineRule),
  run(sliverRule),
  run(blackKnocksOutRule),
  run(mixedBlackRule),
  run(lostOverprintRule),
  run(unsureOverprintRule),
  run(rgbRule),
  run(manySpotsRule),
  run(manyInksRule),
  run(twinSpotRule),
  run(unusedSpotRule),
  run(softPictureRule),
  run(finePictureRule),
  run(stretchedPictureRule),
  run(blownUpPictureRule),
  run(coarseEffectRule),
  run(bandingRule),
  run(gapRule),
  run(openFillRule),
  run(emptyFrameRule),
  run(unseenRule),
  run(twiceRule),
  run(outsideRule),
  run(driftRule),
  run(nearlyRule),
  run(hiddenLayerRule),
  run(emptyPageRule),
  run(pageCountRule),
  run(otherPaperRule),
];

const ORDER = new Map(RULES.map((rule, i) => [rule.code, i]));

/**
 * All findings of all pages, page by page, in the order of the rules; pages that did not change are not looked at
 * again. The design must have been equipped.
 */
export function checkDesign(design: Design, builder: SceneBuilder, palette: Palette): Finding[] {
  const findings: Finding[] = [];
  const limits = limitsOf(design);
  design.pages.forEach((page, index) => {
    const subject: Subject = {
      design,
      limits,
      fonts: builder.fonts,
      page,
      scene: builder.build(design, page),
      palette,
      sceneOf: (i) => builder.build(design, design.pages[i]),
    };
    if (!index) for (const rule of RULES) if (rule.whole) findings.push(...rule.on(subject, 1));
    findings.push(...onPage(subject, index + 1));
  });
  findings.sort((a, b) => a.page - b.page || ORDER.get(a.code)! - ORDER.get(b.code)!);
  const reasons = new Map((design.checks?.waivers ?? []).map((w) => [`${w.code} ${w.of}`, w.reason]));
  if (!reasons.size) return findings;
  return findings.map((f) => {
    const waived = reasons.get(`${f.code} ${subjectOf(design, f)}`);
    return waived === undefined ? f : { ...f, waived };
  });
}

/** What a finding is of: an object, or its page. */
export const subjectOf = (design: Pick<Design, 'pages'>, f: Pick<Finding, 'node' | 'page'>): string =>
  f.node ?? design.pages[f.page - 1].id;

/** Findings of words, not of the frame that they stand in. */
const OF_WORDS = /^(text\.|words\.|black\.knocksOut)/;

/** What a finding means: of a shape with words in it the words, where they are what is wrong. */
function called(design: Design, id: string, code: FindingCode): string {
  const node = design.nodes[id];
  if (!node) return pageById(design, id) ? 'The ground' : 'An object';
  if (!OF_WORDS.test(code) || !('story' in node)) return node.name || 'An object';
  if (node.name && node.name !== 'Text frame' && node.name !== 'Display text')
    return node.kind === 'textFrame' && node.window ? `The text in ${node.name}` : node.name;
  const words = wordsOf(design, node).replace(/\s+/g, ' ').trim();
  return words ? `The text “${words.length > 30 ? `${words.slice(0, 28)} …` : words}”` : 'An empty text';
}

interface Running {
  readonly code: FindingCode;
  readonly whole: boolean;
  readonly on: (subject: Subject, page: number) => Finding[];
}

/** One rule on one page (1-based), its facts put into words. */
function run<C extends FindingCode>(rule: Rule<C>): Running {
  const on = (subject: Subject, page: number): Finding[] =>
    Array.from(rule.find(subject), ({ node, facts }) => {
      const name = node ? called(subject.design, node, rule.code) : `Page ${page}`;
      return { code: rule.code, severity: rule.severity, page, node, ...rule.say(facts, name), facts };
    });
  return { code: rule.code, whole: rule.whole === true, on };
}

/** All that the findings of a page can depend on, in a row: as long as each is the very same, so are they. */
function groundsOf({ design, limits, fonts, page, scene, palette }: Subject, number: number): readonly unknown[] {
  const spread = spreadOf(design, page);
  const nodes = page.children.flatMap((id) => withDescendants(design, id)).map((id) => design.nodes[id]);
  return [
    number,
    scene,
    palette,
    limits,
    fonts.epoch,
    design.setup,
    design.profile,
    design.textLooks,
    design.faces,
    design.pages.length,
    spread?.side,
    spread?.other,
    ...nodes,
    ...nodes.map((n) => ('story' in n ? design.stories[n.story] : null)),
  ];
}

const known = new WeakMap<Page, { readonly grounds: readonly unknown[]; readonly findings: readonly Finding[] }>();

/** What is found on one page: looked for anew only where something of it has changed. */
function onPage(subject: Subject, number: number): readonly Finding[] {
  const grounds = groundsOf(subject, number);
  const last = known.get(subject.page);
  if (last && last.grounds.length === grounds.length && grounds.every((g, i) => g === last.grounds[i]))
    return last.findings;
  const findings = RULES.flatMap((rule) => (rule.whole ? [] : rule.on(subject, number)));
  known.set(subject.page, { grounds, findings });
  return findings;
}

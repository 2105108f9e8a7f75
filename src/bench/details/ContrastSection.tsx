'use client';
import { runsIn } from '@/core/model/textLooks';
import { CircleCheck, TriangleAlert } from 'lucide-react';
import { useEffect, useState } from 'react';
import { isText } from '@/core/derive/layout';
import type { DesignNode } from '@/core/model/schema';
import { nodesOf, withDescendants } from '@/core/model/tree';
import { contrastNeeded, type Contrast } from '@/core/render/contrast';
import { formatNumber } from '@/core/units/length';
import { Section } from '@/ui/Section';
import { useBench, useSession } from '../session/context';

/** Letters from 18 pt on need less contrast (WCAG 2.2, 1.4.3). */
const LARGE = 18;
/** Of more than so many together, one contrast says nothing; and measuring them keeps the press busy. */
const MOST = 200;

/** How what is chosen stands out against what lies under it, measured off the page as it looks. */
export function ContrastSection() {
  const session = useSession();
  const design = useBench((s) => s.design);
  const page = useBench((s) => s.page);
  const selection = useBench((s) => s.selection);
  const [measured, setMeasured] = useState<{ for: unknown; contrast: Contrast | null } | null>(null);

  useEffect(() => {
    let alive = true;
    const { length } = nodesOf(design, selection);
    if (length === 0 || length > MOST) return;
    // After the page itself has come to rest.
    const wait = setTimeout(() => {
      const nodes = selection.flatMap((id) => (design.nodes[id] ? withDescendants(design, id) : []));
      session.press.contrast(page, nodes).then(
        (contrast) => alive && setMeasured({ for: selection, contrast }),
        () => {
          // The press has said why it cannot work.
        },
      );
    }, 450);
    return () => {
      alive = false;
      clearTimeout(wait);
    };
  }, [session, design, page, selection]);

  const contrast = measured?.for === selection ? measured.contrast : null;
  if (!contrast) return null;
  const nodes = nodesOf(design, selection);
  const kind = kindOf(nodes, (story) => Math.min(...runsIn(design, design.stories[story]).map((r) => r.size)));
  const needed = contrastNeeded(kind);
  const enough = contrast.low >= needed;
  const ratio = (v: number) => `${formatNumber(Math.floor(v * 10) / 10, 1)} : 1`;
  return (
    <Section title="Contrast">
      <p className={`m-0 flex items-start gap-1.5 ${enough ? '' : 'text-warn'}`}>
        {enough ? (
          <CircleCheck size={15} aria-hidden className="mt-px shrink-0" />
        ) : (
          <TriangleAlert size={15} aria-hidden className="mt-px shrink-0" />
        )}
        <span>
          {ratio(contrast.low)} against what lies under it
          {contrast.typical - contrast.low > 0.5
            ? ` where it is weakest, ${ratio(contrast.typical)} in the middle`
            : ''}
          . {kind === 'shape' ? 'Shapes' : kind === 'text' ? 'Text of this size' : 'Large text'}{' '}
          {kind === 'shape' || kind === 'text' ? 'that must be seen' : ''} {kind === 'shape' ? 'need' : 'needs'}{' '}
          {needed} : 1 (WCAG).
        </span>
      </p>
    </Section>
  );
}

function kindOf(nodes: readonly DesignNode[], smallest: (story: string) => number): 'text' | 'largeText' | 'shape' {
  const texts = nodes.filter(isText);
  if (!texts.length) return 'shape';
  return texts.some((n) => 'story' in n && smallest(n.story) < LARGE) ? 'text' : 'largeText';
}

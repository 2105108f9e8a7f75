'use client';
import { useEffect, useEffectEvent, useRef, useState } from 'react';
import type { Page } from '@/core/model/schema';
import type { Scene } from '@/core/scene/scene';
import { useBench, useSession } from '../session/context';
import { inTurn, stir } from './thumbQueue';

/** Pixels of the longer side. */
const LARGEST = 192;
/** Pictures of pages by what is on them: what did not change is not drawn again. */
const drawn = new WeakMap<Scene, { readonly palette: object; readonly picture: ImageBitmap }>();

/** A picture of a page by the press, made when it comes into sight. */
export function PageThumb({ page, width, height }: { page: Page; width: number; height: number }) {
  const session = useSession();
  const design = useBench((s) => s.design);
  const epoch = useBench((s) => s.fontsEpoch + s.picturesEpoch);
  const canvas = useRef<HTMLCanvasElement>(null);
  const shown = useRef<{ design: object; page: Page; epoch: number } | null>(null);
  const [seen, setSeen] = useState(false);
  useEffect(() => {
    const watch = new IntersectionObserver((entries) => {
      stir();
      setSeen(entries[entries.length - 1].isIntersecting);
    });
    if (canvas.current) watch.observe(canvas.current);
    return () => watch.disconnect();
  }, []);
  const draw = useEffectEvent(async () => {
    const { palette } = session;
    const last = shown.current;
    if (last?.design === design && last.page === page && last.epoch === epoch) return;
    const scene = session.engines.builder.build(design, page);
    let known = drawn.get(scene);
    if (known?.palette !== palette) {
      const bytes = await session.press.thumbnail(LARGEST, page.id);
      const picture = await createImageBitmap(new Blob([bytes as BlobPart], { type: 'image/png' }));
      drawn.set(scene, (known = { palette, picture }));
    }
    const it = canvas.current;
    if (!it) return;
    [it.width, it.height] = [known.picture.width, known.picture.height];
    it.getContext('2d')?.drawImage(known.picture, 0, 0);
    shown.current = { design, page, epoch };
  });
  useEffect(() => {
    if (!seen) return;
    return inTurn(() => draw());
  }, [seen, design, page, epoch]);
  return (
    <canvas
      ref={canvas}
      aria-hidden
      width={1}
      height={1}
      style={{ width, height }}
      className="block border border-edge bg-white"
    />
  );
}

'use client';
import { useEffect, useRef } from 'react';
import type { PicturePaint } from '@/core/model/schema';
import { calmDesign } from '../session/state';
import { useBench, useSession } from '../session/context';

const WIDTH = 246;
const MOST_HEIGHT = 128;

/** The whole picture with its tone, on squares where it lets through. */
export function PicturePreview({ paint }: { paint: PicturePaint }) {
  const session = useSession();
  const canvas = useRef<HTMLCanvasElement>(null);
  const epoch = useBench((s) => s.picturesEpoch);
  const design = useBench(calmDesign);
  const picture = design.pictures?.find((p) => p.id === paint.picture);
  const ratio = picture ? picture.width / picture.height : 1;
  const height = Math.min(MOST_HEIGHT, WIDTH / ratio);
  const width = Math.min(WIDTH, height * ratio);
  useEffect(() => {
    const c = canvas.current;
    const ctx = c?.getContext('2d');
    if (!c || !ctx || !picture) return;
    const look = session.pictures.get(paint, session.palette);
    ctx.clearRect(0, 0, c.width, c.height);
    if (look) ctx.drawImage(look.image as CanvasImageSource, 0, 0, c.width, c.height);
  }, [session, paint, picture, epoch, design]);
  return (
    <canvas
      ref={canvas}
      role="img"
      aria-label={`${picture?.name ?? 'The picture'} with its tone`}
      width={Math.round(width * 2)}
      height={Math.round(height * 2)}
      style={{ width, height }}
      className="checker mx-auto block rounded-sm border border-line"
    />
  );
}

'use client';
import { useEffect, useState } from 'react';
import { faceIn, faceName } from '@/core/text/faces';
import { Slip } from '@/ui/Slip';
import { comesLater } from '../session/comesLater';
import { useBench, usePlacedDesign, useSession } from '../session/context';
import type { FaceChoice } from './FaceList';
import { cssFace, showFace } from '../view/shownFaces';

const FaceList = comesLater(() => import('./FaceList').then((m) => m.FaceList));

/**
 * The face of letters: a list by kind, each in its own letters, searched by name; those used last and liked stand
 * first.
 */
export function FaceChooser(props: FaceChoice) {
  const session = useSession();
  const design = usePlacedDesign();
  // A face that could not be had may be there now.
  useBench((s) => s.fontsEpoch);
  const [open, setOpen] = useState(false);
  const { value } = props;
  const missing = value !== null && session.engines.fonts.failures.has(value);
  const own = value === null || missing ? undefined : faceIn(design, value);
  useEffect(() => {
    if (own) void showFace(own);
  }, [own]);
  return (
    <Slip
      title="Faces"
      width={400}
      open={open}
      onOpenChange={(on) => {
        setOpen(on);
        if (!on) props.onPreview(null);
      }}
      trigger={
        <button
          type="button"
          aria-label="Face"
          aria-description={value === null ? 'several' : faceName(design, value)}
          className="flex h-8 w-full items-center justify-between rounded-sm border border-edge bg-field px-2 text-left hover:bg-raised"
        >
          <span className="truncate" style={own ? { fontFamily: cssFace(own.id) } : undefined}>
            {value === null ? 'mixed' : `${faceName(design, value)}${missing ? ' (missing)' : ''}`}
          </span>
          <span aria-hidden className="text-faint">
            ▾
          </span>
        </button>
      }
    >
      <FaceList {...props} missing={missing} close={() => setOpen(false)} />
    </Slip>
  );
}

'use client';
import { useEffect, useState } from 'react';

/** A design's picture on a bit of bench top; its outline until the picture is drawn. */
export function Thumbnail({
  bytes,
  name,
  width,
  height,
  round,
}: {
  bytes: Uint8Array | null;
  name: string;
  width: number;
  height: number;
  round: boolean;
}) {
  const [url, setUrl] = useState<string | null>(null);
  useEffect(() => {
    if (!bytes) return;
    const made = URL.createObjectURL(new Blob([bytes as BlobPart], { type: 'image/png' }));
    setUrl(made);
    return () => URL.revokeObjectURL(made);
  }, [bytes]);
  const k = 160 / Math.max(width, height);
  return (
    <div className="grid h-[190px] place-items-center rounded-t-sm bg-bench">
      {url && bytes ? (
        <img
          src={url}
          alt={`${name}, first page`}
          style={{ width: width * k, height: height * k }}
          className={`border border-edge ${round ? 'rounded-full' : ''}`}
        />
      ) : (
        <div className="border border-edge bg-white" style={{ width: width * k, height: height * k }} />
      )}
    </div>
  );
}

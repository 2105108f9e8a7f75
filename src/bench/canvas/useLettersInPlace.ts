import { useEffect, useState, type RefObject } from 'react';
import { useBench, useSession } from '../session/context';
import { later } from '../session/later';
import { showFace } from '../view/shownFaces';
import { lettersInPlace, type InPlace } from './lettersInPlace';

/** A longer text is not laid out twice for its spelling marks. */
const MOST = 10_000;

/**
 * Where the field lies over its letters; null for as long as the browser has not their face, or breaks their lines
 * elsewhere.
 */
export function useLettersInPlace(field: RefObject<HTMLTextAreaElement | null>, text: string): InPlace | null {
  const session = useSession();
  useBench((s) => s.fontsEpoch);
  const [shown, setShown] = useState<ReadonlySet<string>>(new Set());
  const [odd, setOdd] = useState('');
  const place = text.length <= MOST ? lettersInPlace(session) : null;
  const face = place?.face.id;
  const file = place?.face.file;
  const ready = face !== undefined && shown.has(face);
  useEffect(() => {
    if (!face || ready) return;
    let gone = false;
    void showFace({ id: face, file }).then((ok) => ok && !gone && setShown((old) => new Set(old).add(face)));
    return () => void (gone = true);
  }, [face, file, ready]);
  // Looked at in a pause: it has the browser lay the text out.
  const height = place?.height ?? 0;
  const step = place && `${place.style.font} ${place.style.width}`;
  useEffect(() => {
    if (!ready || !step) return;
    return later(() => {
      const it = field.current;
      if (!it) return;
      const was = it.style.height;
      it.style.height = '0px';
      const apart = Math.abs(it.scrollHeight - height);
      it.style.height = was;
      setOdd(apart > height * 0.02 + 2 ? text : '');
    });
  }, [ready, step, height, text, field]);
  return ready && (odd === '' || odd !== text) ? place : null;
}

'use client';
import { useRef } from 'react';
import { Button } from './Button';

/** A button that asks for one file. `label` names the field behind it, which tests and readers find. */
export function FileButton({
  word,
  label,
  accept,
  className,
  onFile,
}: {
  word: string;
  label: string;
  accept: string;
  className?: string;
  onFile: (f: File) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button {...(className ? { className } : {})} onClick={() => input.current?.click()}>
        {word}
      </Button>
      <input
        ref={input}
        type="file"
        tabIndex={-1}
        aria-label={label}
        className="sr-only"
        accept={accept}
        onChange={(e) => {
          const f = e.target.files?.[0];
          if (f) onFile(f);
          // The same file can be chosen again, once it is mended.
          e.target.value = '';
        }}
      />
    </>
  );
}

/** Files that may hold swatches. */
export const SWATCH_FILES = '.txt,.cxf,.xml,.json,.icc,.icm,.it8,.ti3,.cgats';

/** Why a file could not be read. */
export function FileProblem({ text }: { text: string | null }) {
  return (
    text && (
      <p role="alert" className="my-2 rounded-sm border border-stop p-2 text-[12px] text-stop">
        {text}
      </p>
    )
  );
}

import type { ButtonHTMLAttributes } from 'react';

type Kind = 'plain' | 'primary' | 'quiet';
const LOOK: Record<Kind, string> = {
  plain: 'border border-edge bg-field hover:bg-raised',
  primary: 'border border-accent bg-accent font-semibold text-on-accent hover:opacity-90',
  quiet: 'border border-transparent bg-transparent hover:bg-line',
};

export function Button({
  kind = 'plain',
  className = '',
  type = 'button',
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { kind?: Kind }) {
  return (
    <button
      type={type}
      className={`inline-flex min-h-7 items-center justify-center gap-1.5 rounded-sm px-2.5 py-0.5 leading-tight disabled:opacity-45 ${LOOK[kind]} ${className}`}
      {...rest}
    />
  );
}

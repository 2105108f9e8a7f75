'use client';
import { ChevronDown, ChevronRight } from 'lucide-react';
import { createContext, useContext, type ReactNode } from 'react';
import { explained } from './terms';

/**
 * Which sections of a panel were folded (or, of rare ones, opened), and how that is changed. Absent: sections do not
 * fold.
 */
export interface Folding {
  folded(title: string): boolean;
  fold(title: string, on: boolean): void;
}
export const FoldingContext = createContext<Folding | null>(null);

/**
 * A titled part of a panel. `name` is what it is remembered and found by, where its title says more than that; what is
 * `rare` is folded until it is opened.
 */
export function Section({
  title,
  name = title,
  rare = false,
  children,
  action,
}: {
  title: string;
  name?: string;
  rare?: boolean;
  children: ReactNode;
  action?: ReactNode;
}) {
  const folding = useContext(FoldingContext);
  const shut = folding ? folding.folded(name) !== rare : false;
  return (
    <section data-section={name} className="border-b border-line px-3 py-2.5 last:border-b-0">
      <div className={`flex items-center justify-between ${shut ? '' : 'mb-2'}`}>
        <h3 className="m-0 font-semibold text-faint">
          {folding ? (
            <button
              type="button"
              title={explained(name)}
              aria-expanded={!shut}
              aria-label={`${title}, fold or open`}
              className="flex cursor-pointer items-center gap-1 border-0 bg-transparent p-0 font-semibold text-faint hover:text-text"
              onClick={() => folding.fold(name, !shut !== rare)}
            >
              {shut ? <ChevronRight size={13} aria-hidden /> : <ChevronDown size={13} aria-hidden />}
              {title}
            </button>
          ) : (
            title
          )}
        </h3>
        {!shut && action}
      </div>
      {!shut && children}
    </section>
  );
}

import type { ReactNode } from 'react';

/** A whole screen that says one thing and what to do next. */
export function Notice({
  title,
  text,
  action,
  children,
}: {
  title: string;
  text: string;
  action?: { label: string; href: string };
  children?: ReactNode;
}) {
  return (
    <main className="grid min-h-dvh place-items-center bg-bench p-6">
      <div className="max-w-md rounded-sm border border-line bg-panel p-6" role="status">
        <h1 className="m-0 mb-2 text-lg font-semibold">{title}</h1>
        <p className="m-0 mb-4 text-faint">{text}</p>
        <div className="flex flex-wrap gap-2">
          {children}
          {action && (
            // A full load, not a client step: what failed here starts afresh.
            <a
              href={action.href}
              className="inline-block rounded-sm bg-accent px-3 py-1.5 font-semibold text-on-accent no-underline"
            >
              {action.label}
            </a>
          )}
        </div>
      </div>
    </main>
  );
}

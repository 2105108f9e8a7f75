import { lazy, Suspense, type ComponentType, type ReactNode } from 'react';
import { afterPaint, firstPaint } from './afterPaint';

/**
 * A part of the screen whose script comes after the first paint. `instead`: what holds its place till then, of the same
 * size, so that nothing jumps.
 */
export function comesLater<P extends object>(
  load: () => Promise<ComponentType<P>>,
  instead: (props: P) => ReactNode = () => null,
): ComponentType<P> {
  const later = afterPaint(load);
  const Part = lazy(async () => {
    await firstPaint;
    return { default: await later.get() };
  });
  return function Place(props: P) {
    return (
      <Suspense fallback={instead(props)}>
        <Part {...props} />
      </Suspense>
    );
  };
}

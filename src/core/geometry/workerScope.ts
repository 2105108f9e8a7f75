// What combines outlines looks for a page when it is loaded. Where it finds neither page nor worker, in Node, it sets
// up a make-believe page of a megabyte of code if it can, which nothing here needs: while it is loaded it is shown a
// worker.
const scope = globalThis as { self?: unknown };
const lent = scope.self === undefined;
if (lent) scope.self = { navigator: { userAgent: 'worker' } };

/** Takes the worker away again: others look for one too. */
export function takeBack(): void {
  if (lent) delete scope.self;
}

import { takeBack } from './workerScope';
import paper from 'paper/dist/paper-core.js';
import { combineArranged } from './boolean/arranged';
import { depthSides } from './depth';
import { facesOf } from './regions/faces';

takeBack();

/**
 * Geometry that is fetched together with the engines, when something is already seen: what combines rightly where the
 * fast engine does not, what lines enclose, sides of depth.
 */
export { paper, combineArranged, depthSides, facesOf };
export interface Fetched {
  readonly paper: typeof paper;
  readonly combineArranged: typeof combineArranged;
  readonly depthSides: typeof depthSides;
  readonly facesOf: typeof facesOf;
}

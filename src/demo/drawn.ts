import { readPathData } from '@/core/input/svg/pathData';
import { scaling } from '@/core/geometry/matrix';
import { transformPath } from '@/core/geometry/path';
import { mm } from '@/core/units/length';

/** A path written as path data, its numbers in millimetres. */
export const drawn = (data: string): number[] => [...transformPath(readPathData(data).path, scaling(mm(1), mm(1)))];

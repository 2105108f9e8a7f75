import type { DesignNode } from './schema';

/**
 * What an object has as a whole, whatever it is: how it is blended, what it throws, whether it cuts. What is absent
 * stays so.
 */
export function finishOf(
  n: DesignNode,
): Partial<Pick<DesignNode, 'opacity' | 'blend' | 'effects' | 'pushesWords' | 'maskMode'>> {
  const { opacity, blend, effects, pushesWords, maskMode } = n;
  return {
    ...(opacity !== undefined && { opacity }),
    ...(blend !== undefined && { blend }),
    ...(effects !== undefined && { effects }),
    ...(pushesWords !== undefined && { pushesWords }),
    ...(maskMode !== undefined && { maskMode }),
  };
}

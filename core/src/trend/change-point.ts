/** Where a series changes its level, and how likely so great a change is by chance. */
export interface ChangePoint {
  /** The first value of the new level. */
  index: number;
  /** About, 0 to 1; small means that it is no chance. */
  p: number;
}

/**
 * The most likely place at which the values change from one level to another, by their ranks: no value, however wild, weighs more than its
 * place in the order. Ties share their rank. Undefined for fewer than six values.
 * Valid range: finite numbers. Complexity: O(n log n). Source: Pettitt, Applied Statistics 28 (1979), with its approximation of p (from memory).
 */
export function changePoint(values: readonly number[]): ChangePoint | undefined {
  const n = values.length;
  if (n < 6) return undefined;
  const order = values.map((_, i) => i).sort((a, b) => (values[a] as number) - (values[b] as number));
  const rank = new Float64Array(n);
  for (let i = 0; i < n; ) {
    let k = i;
    while (k < n && values[order[k] as number] === values[order[i] as number]) k++;
    for (let m = i; m < k; m++) rank[order[m] as number] = (i + k + 1) / 2;
    i = k;
  }
  let sum = 0;
  let best = 0;
  let index = 1;
  for (let t = 1; t < n; t++) {
    sum += rank[t - 1] as number;
    const statistic = Math.abs(2 * sum - t * (n + 1));
    if (statistic > best) {
      best = statistic;
      index = t;
    }
  }
  return { index, p: Math.min(1, 2 * Math.exp((-6 * best ** 2) / (n ** 3 + n ** 2))) };
}

/**
 * Indexes of the longest part of a series that never falls, in order: what remains if as few values as possible are wrong. One
 * reading typed too high does not make all later ones wrong. Of several equally long parts, the one with the earliest values.
 * Complexity: O(n log n). Source: longest non-decreasing subsequence by patience sorting (textbook).
 */
export function longestRise(values: readonly number[]): number[] {
  const lengths = lengthsFrom(values);
  const rise: number[] = [];
  let missing = Math.max(0, ...lengths);
  let last = Number.NEGATIVE_INFINITY;
  values.forEach((value, i) => {
    if (lengths[i] !== missing || value < last) return;
    rise.push(i);
    last = value;
    missing--;
  });
  return rise;
}

/** Length of the longest rise that begins at each value. */
function lengthsFrom(values: readonly number[]): number[] {
  const lengths: number[] = new Array(values.length).fill(0);
  // begins[k]: the largest value at which a rise of length k + 1 begins.
  const begins: number[] = [];
  for (let i = values.length - 1; i >= 0; i--) {
    const value = values[i] as number;
    let [low, high] = [0, begins.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((begins[middle] as number) >= value) low = middle + 1;
      else high = middle;
    }
    begins[low] = value;
    lengths[i] = low + 1;
  }
  return lengths;
}

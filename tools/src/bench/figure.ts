export interface Figure {
  name: string;
  value: number;
  unit: string;
  baseline: number;
  ratio: number;
  aim?: string;
  holds?: boolean;
}

const round = (value: number) => Number(value.toPrecision(4));

export function atMost(name: string, value: number, unit: string, baseline: number, bound: number): Figure {
  const ratio = value / baseline;
  return {
    name,
    value: round(value),
    unit,
    baseline: round(baseline),
    ratio: round(ratio),
    aim: `ratio ≤ ${bound}`,
    holds: ratio <= bound,
  };
}

export function atLeast(name: string, value: number, unit: string, baseline: number, bound: number): Figure {
  const ratio = value / baseline;
  return {
    name,
    value: round(value),
    unit,
    baseline: round(baseline),
    ratio: round(ratio),
    aim: `ratio ≥ ${bound}`,
    holds: ratio >= bound,
  };
}

export function quantile(values: readonly number[], q: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.ceil(q * sorted.length) - 1)] ?? Number.NaN;
}

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

/** A figure without a target, for comparison between runs. */
export function plain(name: string, value: number, unit: string, baseline: number): Figure {
  return figure(name, value, unit, baseline);
}

/** A figure with an absolute upper limit. */
export function within(name: string, value: number, unit: string, baseline: number, bound: number): Figure {
  return { ...figure(name, value, unit, baseline), aim: `≤ ${bound} ${unit}`, holds: value <= bound };
}

function figure(name: string, value: number, unit: string, baseline: number): Figure {
  return { name, value: round(value), unit, baseline: round(baseline), ratio: round(value / baseline) };
}

/** A figure with an absolute lower limit. */
export function reaching(name: string, value: number, unit: string, baseline: number, bound: number): Figure {
  return { ...figure(name, value, unit, baseline), aim: `≥ ${bound} ${unit}`, holds: value >= bound };
}

export function atMost(name: string, value: number, unit: string, baseline: number, bound: number): Figure {
  return {
    ...figure(name, value, unit, baseline),
    aim: `ratio ≤ ${bound}`,
    holds: value / baseline <= bound,
  };
}

export function atLeast(name: string, value: number, unit: string, baseline: number, bound: number): Figure {
  return {
    ...figure(name, value, unit, baseline),
    aim: `ratio ≥ ${bound}`,
    holds: value / baseline >= bound,
  };
}

export function quantile(values: readonly number[], q: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.ceil(q * sorted.length) - 1)] ?? Number.NaN;
}

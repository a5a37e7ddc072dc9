import { QuantityError } from "../units/convert";
import { formatQuantity, type Quantity } from "../units/format";
import { type FindingGrade, type Judgement, type LimitRange, limitText, unjudged } from "./judgement";

export interface ReadingToJudge {
  id: string;
  subject: string;
  reading: Quantity;
  limit: LimitRange | undefined;
  /** What a reading outside the limit is worth. */
  outside: FindingGrade;
  caution?: string;
}

/**
 * Judges one reading against the lower and upper end of a limit, ends included.
 * Valid range: a finite reading in the limit's own unit; throws QuantityError otherwise. Without a limit the result is
 * "unjudged": no limit, no judgement. The margin is the distance to the nearer end, negative when outside.
 * Source: the limit's own (the aircraft's profile).
 */
export function judgeReading({ id, subject, reading, limit, outside, caution }: ReadingToJudge): Judgement {
  if (!Number.isFinite(reading.value)) throw new QuantityError(`${subject} is not a number.`);
  if (!limit || (limit.min === undefined && limit.max === undefined))
    return unjudged(
      id,
      subject,
      `${formatQuantity(reading)}: no limit on file for this aircraft. Look in its handbook.`,
      reading,
    );
  if (limit.unit !== reading.unit)
    throw new QuantityError(`${subject} is in ${reading.unit}, its limit in ${limit.unit}.`);
  const below = limit.min === undefined ? Number.POSITIVE_INFINITY : reading.value - limit.min;
  const above = limit.max === undefined ? Number.POSITIVE_INFINITY : limit.max - reading.value;
  const margin = Math.min(below, above);
  const side = below < 0 ? "below" : "above";
  const base = {
    id,
    subject,
    reading,
    limit: limitText(limit),
    margin: { value: margin, unit: reading.unit },
    source: limit.source,
  };
  if (margin >= 0)
    return { ...base, grade: "sound", sentence: `${formatQuantity(reading)} is inside ${limitText(limit)}.` };
  return {
    ...base,
    grade: outside,
    sentence: `${formatQuantity(reading)} is ${formatQuantity({ value: -margin, unit: reading.unit })} ${side} the limit of ${limitText(limit)}.`,
    ...(caution && { caution }),
  };
}

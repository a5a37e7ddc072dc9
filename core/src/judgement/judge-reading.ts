import type { Scope } from "../readings/reading-keys";
import { QuantityError, valueIn } from "../units/convert";
import { formatQuantity, type Quantity } from "../units/format";
import {
  type FindingGrade,
  type Judgement,
  type LimitRange,
  limitText,
  marginTo,
  notAssessed,
} from "./judgement";

export interface ReadingToJudge {
  id: string;
  subject: string;
  scope: Scope;
  reading: Quantity;
  limit: LimitRange | undefined;
  /** Grade of a reading outside the limit. */
  outside: FindingGrade;
  caution?: string;
}

/**
 * Judges one reading against a limit, inclusive; a reading in another unit of the same quantity is converted.
 * Valid range: a finite reading in a compatible unit; throws QuantityError otherwise. Without a limit the result is "unjudged".
 * The margin is the distance to the nearer end, in the limit's unit, negative when outside.
 * Source: the limit's own (the aircraft's profile).
 */
export function judgeReading({
  id,
  subject,
  scope,
  reading,
  limit,
  outside,
  caution,
}: ReadingToJudge): Judgement {
  if (!Number.isFinite(reading.value)) throw new QuantityError(`${subject} is not a number.`);
  if (!limit || (limit.min === undefined && limit.max === undefined))
    return notAssessed(
      id,
      subject,
      `${formatQuantity(reading)}: no limit on file for this aircraft. Check its handbook.`,
      reading,
    );
  const { unit } = limit;
  const value = valueIn(subject, reading, unit);
  const margin = marginTo(limit, value);
  const said =
    reading.unit === unit
      ? formatQuantity(reading)
      : `${formatQuantity(reading)}, ${formatQuantity({ value, unit })},`;
  const base = {
    id,
    subject,
    scope,
    reading,
    limit: limitText(limit),
    margin: { value: margin, unit },
    source: limit.source,
  };
  if (margin >= 0)
    return { ...base, grade: "within limits", sentence: `${said} is within limits (${limitText(limit)}).` };
  const side = limit.min !== undefined && value < limit.min ? "below" : "above";
  return {
    ...base,
    grade: outside,
    sentence: `${said} is ${formatQuantity({ value: -margin, unit })} ${side} the limit of ${limitText(limit)}.`,
    ...(caution && { caution }),
  };
}

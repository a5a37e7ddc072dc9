import type { CrewMember, LastReading } from "@cravix/contract/client";
import { formatNumber } from "@cravix/core/units/format";
import { formatDistanceToNowStrict } from "date-fns/formatDistanceToNowStrict";

/** "6.8 US qt, 3 days ago, Maren" */
export function lastReadingText(
  { value, unit, at, crewId }: LastReading,
  decimals: number,
  crew: readonly CrewMember[],
): string {
  const who = crew.find((member) => member.id === crewId)?.name.split(" ")[0];
  return `${formatNumber(value, decimals)} ${unit}, ${formatDistanceToNowStrict(new Date(at))} ago${who ? `, ${who}` : ""}`;
}

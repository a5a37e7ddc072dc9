import type { DiscrepancyDeferral } from "../../airworthiness/life/deferral";
import type { MeasureLimit } from "../../airworthiness/life/measure-trend";
import type { Photograph } from "../../airworthiness/life/photograph";
import type { FindingGrade } from "../../judgement/judgement";

/** A discrepancy open on this aircraft when the checklist is composed. */
export interface OpenDiscrepancy {
  id: string;
  stationId: string;
  text: string;
  grade: FindingGrade;
  openedAt: string;
  openedBy: string;
  /** Its cause, if it was judged. */
  cause?: string;
  /** Its last measure or count. */
  measure?: string;
  /** Deferral: expiry, kinds of flight, placard. */
  deferral?: DiscrepancyDeferral;
  /** Limit for its measure. */
  limit?: MeasureLimit;
  photographs?: Photograph[];
}

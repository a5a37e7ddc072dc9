import { moveProjection } from "./component-rows";
import { discrepancyProjection } from "./discrepancy-rows";
import { flightProjection, totalsProjection } from "./flight-rows";
import { personProjection } from "./person-rows";
import { planProjection } from "./plan-row";
import { fluidProjection, preflightProjection, readingProjection } from "./preflight-rows";
import type { Projection, ProjectionName } from "./projection";
import { meterProjection, withdrawnProjection, workProjection } from "./work-rows";

/** All tables that follow from the events, in the order in which they are written: sums after what they add up. */
export const PROJECTIONS: { [N in ProjectionName]: Projection } = {
  preflight: preflightProjection,
  reading: readingProjection,
  fluid_log: fluidProjection,
  flight_log: flightProjection,
  meter_change: meterProjection,
  meter_totals: totalsProjection,
  work_done: workProjection,
  release_withdrawn: withdrawnProjection,
  component_move: moveProjection,
  person_entry: personProjection,
  workshop_plan: planProjection,
  discrepancy: discrepancyProjection,
};

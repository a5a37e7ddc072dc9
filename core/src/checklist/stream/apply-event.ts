import type { EventHandler } from "./event-handler";
import type { EventType, PreflightEvent } from "./events";
import { assessmentWaived } from "./kinds/assessment-waived";
import { bladePulled } from "./kinds/blade-pulled";
import { briefingGiven } from "./kinds/briefing-given";
import { crewJoined } from "./kinds/crew-joined";
import { crewLeft } from "./kinds/crew-left";
import { discrepancyObserved } from "./kinds/discrepancy-observed";
import { discrepancyOpened } from "./kinds/discrepancy-opened";
import { fuelTold } from "./kinds/fuel-told";
import { fuelUplifted } from "./kinds/fuel-uplifted";
import { interrupted } from "./kinds/interrupted";
import { itemAnswered } from "./kinds/item-answered";
import { itemPostponed } from "./kinds/item-postponed";
import { itemVisited } from "./kinds/item-visited";
import { loadTold } from "./kinds/load-told";
import { oilAdded } from "./kinds/oil-added";
import { preflightStarted } from "./kinds/preflight-started";
import { readingTaken } from "./kinds/reading-taken";
import { resumed } from "./kinds/resumed";
import { runUpRead } from "./kinds/run-up-read";
import { sampleTaken } from "./kinds/sample-taken";
import { stationFlowed } from "./kinds/station-flowed";
import { verdictSigned } from "./kinds/verdict-signed";
import { weatherTold } from "./kinds/weather-told";
import { wingsRocked } from "./kinds/wings-rocked";
import type { PreflightDraft } from "./preflight-draft";
import type { StreamReading } from "./read-stream";

/** Events that leave the preflight state unchanged: they are read with the whole stream, or with the discrepancy. */
const elsewhere = () => undefined;

/** Handler of each event kind. A missing kind does not compile. */
const APPLY: { [T in EventType]: EventHandler<T> } = {
  "preflight.started": preflightStarted,
  "item.answered": itemAnswered,
  "item.postponed": itemPostponed,
  "item.visited": itemVisited,
  "item.undone": elsewhere,
  "station.flowed": stationFlowed,
  "crew.joined": crewJoined,
  "crew.left": crewLeft,
  "reading.taken": readingTaken,
  "sample.taken": sampleTaken,
  "wings.rocked": wingsRocked,
  "fuel.uplifted": fuelUplifted,
  "fuel.told": fuelTold,
  "load.told": loadTold,
  "weather.told": weatherTold,
  "briefing.given": briefingGiven,
  "oil.added": oilAdded,
  "run-up.read": runUpRead,
  "blade.pulled": bladePulled,
  "discrepancy.opened": discrepancyOpened,
  "discrepancy.observed": discrepancyObserved,
  "discrepancy.withdrawn": elsewhere,
  "discrepancy.closed": elsewhere,
  "discrepancy.deferred": elsewhere,
  "discrepancy.regraded": elsewhere,
  "discrepancy.asked": elsewhere,
  "discrepancy.merged": elsewhere,
  "discrepancy.limited": elsewhere,
  "discrepancy.photographed": elsewhere,
  "flight.logged": elsewhere,
  "flight.corrected": elsewhere,
  "work.released": elsewhere,
  "release.withdrawn": elsewhere,
  "meter.replaced": elsewhere,
  "component.removed": elsewhere,
  "component.fitted": elsewhere,
  "workshop.planned": elsewhere,
  "person.due-set": elsewhere,
  "person.due-dropped": elsewhere,
  "person.done": elsewhere,
  "daily.signed": elsewhere,
  "document.renewed": elsewhere,
  "assessment.waived": assessmentWaived,
  interrupted,
  resumed,
  "verdict.signed": verdictSigned,
};

/** Applies an event to the draft. */
export function applyEvent(preflight: PreflightDraft, event: PreflightEvent, reading: StreamReading): void {
  const before = preflight.now.lastAt;
  if (event.type !== "item.undone" && event.type !== "discrepancy.withdrawn")
    preflight.put({ lastAt: event.at });
  // The table pairs each kind with its handler; TypeScript cannot follow that through a union.
  const apply = APPLY[event.type] as EventHandler<EventType>;
  apply(preflight, event, reading, before);
}

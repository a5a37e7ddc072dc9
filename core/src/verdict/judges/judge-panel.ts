import { judgeWind } from "../../air/judge-wind";
import { foldLoads } from "../../checklist/fold-loads";
import { runwayInUse } from "../../checklist/list/runway-in-use";
import { judgeBattery } from "../../electrical/battery";
import { judgeHourMeter } from "../../engine/judge-hour-meter";
import { judgeAltimeter } from "../../instruments/judge-altimeter";
import { judgeAltimeterDrift } from "../../instruments/judge-altimeter-drift";
import {
  judgeHeading,
  judgeReceiverAge,
  judgeVorReceivers,
  judgeVsi,
  readDeviationCard,
} from "../../instruments/judge-instruments";
import { type Judgement, notAssessed } from "../../judgement/judgement";
import { READING } from "../../readings/reading-keys";
import { type Judge, type JudgedPreflight, ledBy } from "./judge";
import { windNow } from "./wind-now";

function hours(preflight: JudgedPreflight): Judgement[] {
  const now = preflight.value(READING.hours);
  if (now === undefined) return [];
  return ledBy(preflight.itemsOf([READING.hours]), "hours", "Hour meter", () =>
    judgeHourMeter(now, preflight.list.memory?.hours),
  );
}

function heading(preflight: JudgedPreflight): Judgement[] {
  const shown = preflight.value(READING.heading);
  const compass = preflight.value(READING.compass);
  if (shown === undefined || compass === undefined) return [];
  return ledBy(preflight.itemsOf([READING.heading, READING.compass]), "heading", "Heading indicator", () =>
    judgeHeading(shown, compass, readDeviationCard(preflight.list.facts?.["compass card"])),
  );
}

function climb(preflight: JudgedPreflight): Judgement[] {
  const shown = preflight.value(READING.climb);
  if (shown === undefined) return [];
  return ledBy(preflight.itemsOf([READING.climb]), "climb", "VSI", () => judgeVsi(shown));
}

const RECEIVERS = "VOR 1 and 2";

function receivers(preflight: JudgedPreflight): Judgement[] {
  const { list, state } = preflight;
  const one = preflight.value(READING.receiverOne);
  const two = preflight.value(READING.receiverTwo);
  const itemIds = preflight.itemsOf([READING.receiverOne, READING.receiverTwo]);
  if (one !== undefined || two !== undefined)
    return ledBy(itemIds, "receivers", RECEIVERS, () =>
      judgeVorReceivers({ ...(one !== undefined && { one }), ...(two !== undefined && { two }) }),
    );
  const now = state.lastAt;
  if (!list.conditions.includes("instrument") || itemIds.length === 0 || !now) return [];
  const lastAt = Object.values(list.memory?.checks ?? {})
    .sort()
    .at(-1);
  return ledBy(itemIds, "receivers", RECEIVERS, () => judgeReceiverAge(lastAt, now));
}

function altimeter(preflight: JudgedPreflight): Judgement[] {
  const { list, state } = preflight;
  const indicatedFt = preflight.value(READING.altimeter);
  if (indicatedFt === undefined) return [];
  const settingHpa = preflight.value(READING.altimeterSetting);
  const fieldElevationFt = list.airfield?.elevationFt;
  const at = state.readings[READING.altimeter]?.at;
  const errors =
    at && fieldElevationFt !== undefined
      ? [...(list.memory?.altimeter ?? []), { at, errorFt: indicatedFt - fieldElevationFt }]
      : [];
  return ledBy(preflight.itemsOf([READING.altimeter]), "altimeter", "Altimeter", () => [
    judgeAltimeter({
      indicatedFt,
      fieldElevationFt,
      ...(settingHpa !== undefined && { settingHpa }),
      tolerance: list.rules?.altimeter,
    }),
    ...[judgeAltimeterDrift(errors, list.rules?.altimeter?.feet) ?? []].flat(),
  ]);
}

/** The battery is judged only with a temperature, on which the starting demand depends. */
function battery({ list, state }: JudgedPreflight): Judgement[] {
  const { electrical } = list.type;
  const { celsius, lastAt } = state;
  if (!electrical || celsius === undefined || !lastAt) return [];
  const { spans } = foldLoads(list, state, Date.parse(lastAt));
  if (spans.length === 0) return [];
  const switches = list.items.filter((i) => i.loads?.on && state.answers[i.id]).map((i) => i.id);
  return ledBy(switches, "battery", "Battery for engine start", () =>
    judgeBattery(electrical, spans, celsius),
  );
}

function wind(preflight: JudgedPreflight): Judgement[] {
  const { list, state } = preflight;
  const inUse = runwayInUse(list, state);
  const fromDeg = preflight.value(READING.windFrom);
  const kt = preflight.value(READING.windSpeed);
  if (!inUse || fromDeg === undefined || kt === undefined) return [];
  const read = preflight.value(READING.windGust);
  // A gust below the mean wind is a slip, which the pilot must hear about.
  const gustKt = read !== undefined && read < kt ? read : windNow(preflight)?.gustKt;
  const itemIds = [
    ...preflight.itemsOf([READING.windFrom, READING.windSpeed, READING.windGust]),
    inUse.itemId,
  ];
  const { runway } = inUse;
  return ledBy(itemIds, "wind.cross", "Crosswind", () =>
    runway
      ? judgeWind({
          runwayDeg: runway.headingDeg,
          wind: { fromDeg, kt, ...(gustKt !== undefined && { gustKt }) },
          limits: list.type.crosswind ? [list.type.crosswind] : [],
        })
      : notAssessed("wind.cross", "Crosswind", `No direction on file for runway ${inUse.id}.`),
  );
}

/** Judges of meters, instruments, battery and wind. */
export const PANEL_JUDGES: readonly Judge[] = [
  { id: "hours", subject: "Hour meter", topic: "hours", needs: [], judge: hours },
  { id: "heading", subject: "Heading indicator", topic: "instruments", needs: [], judge: heading },
  { id: "climb", subject: "VSI", topic: "instruments", needs: [], judge: climb },
  { id: "receivers", subject: RECEIVERS, topic: "instruments", needs: [], judge: receivers },
  { id: "altimeter", subject: "Altimeter", topic: "instruments", needs: [], judge: altimeter },
  { id: "battery", subject: "Battery for engine start", topic: "electrical", needs: [], judge: battery },
  { id: "wind.cross", subject: "Crosswind", topic: "wind", needs: [], judge: wind },
];

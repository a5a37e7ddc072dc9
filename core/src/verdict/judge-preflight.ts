import { judgeWind } from "../air/judge-wind";
import type { ComposedList } from "../checklist/compose-list";
import type { PreflightState } from "../checklist/fold-preflight";
import { engineKey, ONLY_ENGINE, READING, RUNWAY_ITEM } from "../checklist/reading-keys";
import { judgeBattery } from "../electrical/battery";
import { foldLoads } from "../electrical/fold-loads";
import { judgeCarburettorHeat } from "../engine/judge-carburettor-heat";
import { judgeHourMeter } from "../engine/judge-hour-meter";
import { judgeMagnetos, type MagnetoResult } from "../engine/judge-magnetos";
import { type FuelResult, judgeFuel } from "../fuel/judge-fuel";
import { judgeAltimeter } from "../instruments/judge-altimeter";
import { judgeAltimeterDrift } from "../instruments/judge-altimeter-drift";
import {
  judgeClimbIndicator,
  judgeHeading,
  judgeReceiverAge,
  judgeReceivers,
  readDeviationCard,
} from "../instruments/judge-instruments";
import { judgeOil, type OilResult } from "../oil/judge-oil";
import { type HabitQuantity, judgeHabit } from "../run-up/habit";
import { convert, QuantityError } from "../units/convert";
import { capital, formatNumber } from "../units/format";
import { assertPlausible } from "../units/plausible";
import { FUEL_HANDLING, fuelInput, judgeClock, judgeOilAdded, judgeOilLog } from "./judge-fluids";
import { judgeReading } from "./judge-reading";
import { type Judgement, unjudged } from "./judgement";

export interface PreflightJudgements {
  judgements: Judgement[];
  fuel?: FuelResult;
  /** By engine; the only one is called "engine". */
  oil?: Record<string, OilResult>;
  magnetos?: MagnetoResult;
}

/**
 * Judges every reading of a preflight with the limits pinned in its own list. A reading that the instrument cannot show, and one
 * without a limit, are "unjudged" with the reason; nothing is guessed.
 */
export function judgePreflight(list: ComposedList, state: PreflightState): PreflightJudgements {
  const judgements: Judgement[] = [];
  const result: PreflightJudgements = { judgements };
  const usable = new Map<string, number>();
  for (const item of list.items) {
    const reading = item.reading && state.readings[item.reading.key];
    if (!item.reading || !reading) continue;
    const quantity = { value: reading.value, unit: reading.unit };
    const attempt = guarded(item.reading.key, item.title, () => {
      if (reading.unit !== item.reading?.unit)
        throw new QuantityError(`Read in ${reading.unit}, but this list wants ${item.reading?.unit}.`);
      assertPlausible(item.title, reading.value, reading.unit, item.reading.plausible);
      usable.set(item.reading.key, reading.value);
      if (!item.limit) return [];
      return [
        {
          ...judgeReading({
            id: item.reading.key,
            subject: item.title,
            reading: quantity,
            limit: item.limit,
            outside: item.miss,
            ...(item.caution && { caution: item.caution }),
          }),
          itemIds: [item.id],
        },
      ];
    });
    judgements.push(...attempt);
  }
  const reading = (key: string) => usable.get(key);
  const itemsFor = (...keys: string[]) =>
    list.items.filter((i) => i.reading && keys.includes(i.reading.key)).map((i) => i.id);
  const add = (itemIds: string[], made: Judgement[]) =>
    judgements.push(...made.map((j) => ({ ...j, itemIds: j.itemIds ?? itemIds })));

  const { oil, magnetos } = list.type;
  const hoursNow = reading(READING.hours);
  if (hoursNow !== undefined)
    add(
      itemsFor(READING.hours),
      guarded("hours", "Hour meter", () => judgeHourMeter(hoursNow, list.memory?.hours) ?? []),
    );
  judgements.push(...judgeClock(list, state));
  const input = fuelInput(list, state, reading);
  if (input && input.readings.length > 0)
    add(
      list.items.filter((i) => i.reading?.key.startsWith("fuel.")).map((i) => i.id),
      guarded("fuel.endurance", "Fuel for this flight", () => {
        result.fuel = judgeFuel(input);
        return result.fuel.judgements;
      }),
    );
  for (const judge of FUEL_HANDLING)
    judgements.push(...guarded("fuel.handling", "Fuel", () => judge(list, state, result.fuel)));
  // Each engine of a twin is judged by itself; with one, its readings carry no name.
  for (const engine of list.type.engines ?? [undefined])
    judgeEngine({ list, state, engine, reading, itemsFor, add, result, oil, magnetos });
  const levels = Object.fromEntries(
    Object.entries(result.oil ?? {}).map(([engine, judged]) => [engine, judged.levelQt]),
  );
  const addedQt: Record<string, number> = {};
  for (const { engine = ONLY_ENGINE, qt } of state.oilAdded) addedQt[engine] = (addedQt[engine] ?? 0) + qt;
  add(
    list.items.filter((i) => i.reading?.key.startsWith(READING.oilLevel)).map((i) => i.id),
    guarded("oil.use", "Oil consumption", () => [
      ...judgeOilLog(list, levels, hoursNow, addedQt),
      ...judgeOilAdded(list, state),
    ]),
  );
  add(itemsFor(READING.heading, READING.compass, READING.climb, READING.receiverOne, READING.receiverTwo), [
    ...judgeInstruments(list, state, reading),
  ]);
  const indicatedFt = reading(READING.altimeter);
  const setting = state.readings[READING.altimeterSetting];
  const settingHpa =
    setting && usable.has(READING.altimeterSetting) ? convert(setting.value, setting.unit, "hPa") : undefined;
  if (indicatedFt !== undefined)
    add(
      itemsFor(READING.altimeter),
      guarded("altimeter", "Altimeter", () => [
        judgeAltimeter({
          indicatedFt,
          fieldElevationFt: list.airfield?.elevationFt,
          ...(settingHpa !== undefined && { settingHpa }),
          tolerance: list.rules?.altimeter,
        }),
        ...altimeterDrift(list, state, indicatedFt),
      ]),
    );
  const { electrical } = list.type;
  const { celsius, lastAt } = state;
  // Without a temperature nothing is claimed: what the start takes depends on it.
  if (electrical && celsius !== undefined && lastAt) {
    const { spans } = foldLoads(list, state, Date.parse(lastAt));
    const switches = list.items.filter((i) => i.loads?.on && state.answers[i.id]).map((i) => i.id);
    if (spans.length > 0)
      add(
        switches,
        guarded("battery", "Battery for the start", () => [judgeBattery(electrical, spans, celsius)]),
      );
  }
  add(
    [...itemsFor(READING.windFrom, READING.windSpeed, READING.windGust), RUNWAY_ITEM],
    wind(list, state, reading),
  );
  return result;
}

interface EngineToJudge {
  list: ComposedList;
  state: PreflightState;
  engine: string | undefined;
  reading: (key: string) => number | undefined;
  itemsFor: (...keys: string[]) => string[];
  add: (itemIds: string[], made: Judgement[]) => void;
  result: PreflightJudgements;
  oil: ComposedList["type"]["oil"];
  magnetos: ComposedList["type"]["magnetos"];
}

function judgeEngine({ list, state, engine, reading, itemsFor, add, result, oil, magnetos }: EngineToJudge) {
  const key = (plain: string) => engineKey(plain, engine);
  const named = (made: Judgement[]) =>
    engine ? made.map((j) => ({ ...j, id: key(j.id), subject: `${j.subject}, ${engine} engine` })) : made;
  const levelQt = reading(key(READING.oilLevel));
  if (levelQt !== undefined)
    add(
      itemsFor(key(READING.oilLevel)),
      guarded(key(READING.oilLevel), "Oil", () => {
        const longFlight = list.conditions.includes("long range") || list.conditions.includes("instrument");
        const heat = state.readings[key(READING.oilLevel)]?.heat;
        const judged = judgeOil({ levelQt, profile: oil, longFlight, ...(heat && { heat }) });
        result.oil = { ...result.oil, [engine ?? ONLY_ENGINE]: judged };
        return named([judged.judgement]);
      }),
    );
  const baseRpm = reading(key(READING.magnetoBase));
  const side = (plain: string) => {
    const rpm = reading(key(plain));
    const feel = state.readings[key(plain)]?.feel;
    return rpm === undefined ? undefined : { rpm, ...(feel && { feel }) };
  };
  const right = side(READING.magnetoRight);
  const left = side(READING.magnetoLeft);
  const traced = state.runUps[engine ?? ONLY_ENGINE];
  if (baseRpm !== undefined && (right || left))
    add(
      itemsFor(key(READING.magnetoBase), key(READING.magnetoRight), key(READING.magnetoLeft)),
      magnetos
        ? guarded(key("magneto"), "Magnetos", () => {
            result.magnetos = judgeMagnetos({
              baseRpm,
              profile: magnetos,
              ...(right && { right }),
              ...(left && { left }),
              explained: traced?.found !== undefined,
            });
            return named(result.magnetos.judgements);
          })
        : [
            unjudged(
              key("magneto"),
              "Magnetos",
              "No magneto limits on file for this aircraft. Look in its handbook.",
            ),
          ],
    );
  const hotRpm = reading(key(READING.carburettorHot));
  if (baseRpm !== undefined && magnetos)
    for (const [quantity, rpm, of] of [
      ["rightDrop", right?.rpm, READING.magnetoRight],
      ["leftDrop", left?.rpm, READING.magnetoLeft],
      ["heatDrop", hotRpm, READING.carburettorHot],
    ] as const)
      if (rpm !== undefined)
        add(
          itemsFor(key(of)),
          guarded(key(`habit.${quantity}`), "Its own habit", () =>
            named(ownHabit(list, state, engine, quantity, baseRpm, rpm, magnetos.resolutionRpm)),
          ),
        );
  if (traced?.found) add([traced.itemId], named([tracedFault(traced.found)]));
  if (baseRpm !== undefined && hotRpm !== undefined)
    add(
      itemsFor(key(READING.carburettorHot), key(READING.carburettorColdAgain)),
      guarded(key("carburettor-heat"), "Carburettor heat", () =>
        named([judgeCarburettorHeat(baseRpm, hotRpm, reading(key(READING.carburettorColdAgain)))]),
      ),
    );
}

function ownHabit(
  { memory }: ComposedList,
  state: PreflightState,
  engine: string | undefined,
  quantity: HabitQuantity,
  baseRpm: number,
  rpm: number,
  resolutionRpm: number,
): Judgement[] {
  const past = (memory?.runUps ?? []).filter((run) => run.engine === engine);
  const high = state.readings[READING.densityAltitude]?.value;
  const today = { value: baseRpm - rpm, baseRpm, ...(high !== undefined && { densityAltitudeFt: high }) };
  const made = judgeHabit(quantity, today, past, resolutionRpm);
  return made ? [made] : [];
}

/** What the trace of the run-up amounted to, in the words of that moment. */
function tracedFault(found: NonNullable<PreflightState["runUps"][string]["found"]>): Judgement {
  const { fault, name, grade, probability, sentence, action, caution } = found;
  return {
    id: `engine.${fault}`,
    subject: capital(name),
    grade,
    sentence: `${formatNumber(probability * 100)} % likely. ${sentence}`,
    ...(action && { action }),
    ...(caution && { caution }),
  };
}

function altimeterDrift(list: ComposedList, state: PreflightState, indicatedFt: number): Judgement[] {
  const at = state.readings[READING.altimeter]?.at;
  const elevation = list.airfield?.elevationFt;
  if (!at || elevation === undefined) return [];
  const errors = [...(list.memory?.altimeter ?? []), { at, errorFt: indicatedFt - elevation }];
  return [judgeAltimeterDrift(errors, list.rules?.altimeter?.feet) ?? []].flat();
}

function judgeInstruments(
  list: ComposedList,
  state: PreflightState,
  reading: (key: string) => number | undefined,
): Judgement[] {
  const heading = reading(READING.heading);
  const compass = reading(READING.compass);
  const climb = reading(READING.climb);
  const one = reading(READING.receiverOne);
  const two = reading(READING.receiverTwo);
  const itemIds = (...keys: string[]) =>
    list.items.filter((i) => i.reading && keys.includes(i.reading.key)).map((i) => i.id);
  const made: Judgement[] = [];
  const put = (keys: string[], judged: Judgement[]) =>
    made.push(...judged.map((judgement) => ({ ...judgement, itemIds: itemIds(...keys) })));
  if (heading !== undefined && compass !== undefined)
    put(
      [READING.heading, READING.compass],
      guarded("heading", "Heading indicator", () =>
        judgeHeading(heading, compass, readDeviationCard(list.facts?.["compass card"])),
      ),
    );
  if (climb !== undefined)
    put(
      [READING.climb],
      guarded("climb", "Climb indicator", () => judgeClimbIndicator(climb)),
    );
  const receivers = [READING.receiverOne, READING.receiverTwo];
  if (one !== undefined || two !== undefined)
    put(
      receivers,
      guarded("receivers", "Navigation receivers", () =>
        judgeReceivers({ ...(one !== undefined && { one }), ...(two !== undefined && { two }) }),
      ),
    );
  else if (list.conditions.includes("instrument") && itemIds(...receivers).length > 0 && state.lastAt) {
    const lastAt = Object.values(list.memory?.checks ?? {})
      .sort()
      .at(-1);
    put(receivers, [judgeReceiverAge(lastAt, state.lastAt) ?? []].flat());
  }
  return made;
}

function wind(
  list: ComposedList,
  state: PreflightState,
  reading: (key: string) => number | undefined,
): Judgement[] {
  const runwayId = state.answers[RUNWAY_ITEM]?.value;
  const fromDeg = reading(READING.windFrom);
  const kt = reading(READING.windSpeed);
  if (!runwayId || fromDeg === undefined || kt === undefined) return [];
  const runway = list.airfield?.runways.find((r) => r.id === runwayId);
  if (!runway) return [unjudged("wind.cross", "Crosswind", `No direction on file for runway ${runwayId}.`)];
  const gustKt = reading(READING.windGust);
  return guarded("wind.cross", "Crosswind", () =>
    judgeWind({
      runwayDeg: runway.headingDeg,
      wind: { fromDeg, kt, ...(gustKt !== undefined && { gustKt }) },
      limits: list.type.crosswind ? [list.type.crosswind] : [],
    }),
  );
}

/** A number that cannot be used becomes "unjudged" with its reason; any other fault is a fault of the program. */
function guarded(id: string, subject: string, judge: () => Judgement | Judgement[]): Judgement[] {
  try {
    return [judge()].flat();
  } catch (error) {
    if (error instanceof QuantityError) return [unjudged(id, subject, error.message)];
    throw error;
  }
}

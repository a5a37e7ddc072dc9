import type { PreflightState } from "../../checklist/stream/preflight-state";
import { judgeCarburettorHeat } from "../../engine/judge-carburettor-heat";
import { judgeMagnetos, magnetoCause } from "../../engine/judge-magnetos";
import { type Judgement, notAssessed } from "../../judgement/judgement";
import { READING, type ReadingKind } from "../../readings/reading-keys";
import { type BaselineQuantity, judgeBaseline } from "../../run-up/record/baseline";
import { clearingText } from "../../run-up/run-up-profile";
import { capital } from "../../units/format";
import { probabilityText } from "../../units/probability-text";
import { enginesOf, type Judge, type JudgedPreflight, ledBy, ofEngine } from "./judge";
import { asSeenInFile } from "./seen-in-file";
import { guarded } from "./usable-readings";

/** One engine of a preflight, with its readings. */
interface Engine {
  name: string | undefined;
  key: string;
  value(kind: ReadingKind): number | undefined;
  items(...kinds: ReadingKind[]): string[];
}

/** Runs a judge per engine: an unusable number on one does not affect the other. */
const eachEngine =
  (id: string, subject: string, judge: (preflight: JudgedPreflight, engine: Engine) => Judgement[]) =>
  (preflight: JudgedPreflight): Judgement[] =>
    enginesOf(preflight).flatMap(({ name, key }) => {
      const engine: Engine = {
        name,
        key,
        value: (kind) => preflight.value(kind, name),
        items: (...kinds) => preflight.itemsOf(kinds, name),
      };
      return ofEngine(
        name,
        guarded(id, subject, () => judge(preflight, engine)),
      );
    });

function side(preflight: JudgedPreflight, engine: Engine, kind: ReadingKind) {
  const rpm = engine.value(kind);
  const feel = preflight.state.readings[engine.name ? `${kind}.${engine.name}` : kind]?.feel;
  return rpm === undefined ? undefined : { rpm, ...(feel && { feel }) };
}

function magnetos(preflight: JudgedPreflight, engine: Engine): Judgement[] {
  const baseRpm = engine.value(READING.magnetoBase);
  const right = side(preflight, engine, READING.magnetoRight);
  const left = side(preflight, engine, READING.magnetoLeft);
  if (baseRpm === undefined || (!right && !left)) return [];
  const itemIds = engine.items(READING.magnetoBase, READING.magnetoRight, READING.magnetoLeft);
  const { magnetos: profile, runUp } = preflight.list.type;
  return ledBy(itemIds, "magneto", "Magnetos", () => {
    if (!profile)
      return notAssessed(
        "magneto",
        "Magnetos",
        "No magneto limits on file for this aircraft. Check its handbook.",
      );
    const result = judgeMagnetos({
      baseRpm,
      profile,
      ...(right && { right }),
      ...(left && { left }),
      ...(runUp && { clearing: clearingText(runUp) }),
      explained: preflight.state.runUps[engine.key]?.found !== undefined,
    });
    preflight.given.magnetos = result;
    return result.judgements;
  });
}

const BASELINES: readonly [BaselineQuantity, ReadingKind, cause: string][] = [
  ["rightDrop", READING.magnetoRight, magnetoCause("right")],
  ["leftDrop", READING.magnetoLeft, magnetoCause("left")],
  ["heatDrop", READING.carburettorHot, "carburettor-heat"],
];

function baselines(preflight: JudgedPreflight, engine: Engine): Judgement[] {
  const baseRpm = engine.value(READING.magnetoBase);
  const { magnetos: profile } = preflight.list.type;
  if (baseRpm === undefined || !profile) return [];
  const past = (preflight.list.memory?.runUps ?? []).filter((run) => run.engine === engine.name);
  const high = densityAltitude(preflight);
  return BASELINES.flatMap(([quantity, kind, cause]) => {
    const rpm = engine.value(kind);
    if (rpm === undefined) return [];
    const today = { value: baseRpm - rpm, baseRpm, ...(high !== undefined && { densityAltitudeFt: high }) };
    const made = judgeBaseline(quantity, today, past, profile.resolutionRpm);
    return made
      ? ledBy(engine.items(kind), "baseline", "Comparison with usual values", () => ({ ...made, cause }))
      : [];
  });
}

/** Recorded with the run-up; it has no item. */
function densityAltitude({ state }: JudgedPreflight): number | undefined {
  const high = state.readings[READING.densityAltitude];
  return high?.unit === "ft" ? high.value : undefined;
}

function traced({ state }: JudgedPreflight, { key }: Engine): Judgement[] {
  const run = state.runUps[key];
  if (!run?.found) return [];
  const fault = tracedFault(run.found);
  return ledBy([run.itemId], "traced", "Run-up", () => (run.from === "file" ? asSeenInFile(fault) : fault));
}

/** Fault found in the run-up trace, as recorded; a magneto's fault has that magneto's cause. */
function tracedFault(found: NonNullable<PreflightState["runUps"][string]["found"]>): Judgement {
  const { fault, name, grade, probability, sentence, action, caution, side: of } = found;
  return {
    id: `engine.${fault}`,
    ...(of && { cause: magnetoCause(of) }),
    explains: true,
    scope: "aircraft",
    subject: capital(name),
    grade,
    sentence: `${capital(probabilityText(probability))}. ${sentence}`,
    ...(action && { action }),
    ...(caution && { caution }),
  };
}

function carburettorHeat(_walk: JudgedPreflight, engine: Engine): Judgement[] {
  const baseRpm = engine.value(READING.magnetoBase);
  const hotRpm = engine.value(READING.carburettorHot);
  if (baseRpm === undefined || hotRpm === undefined) return [];
  return ledBy(
    engine.items(READING.carburettorHot, READING.carburettorColdAgain),
    "carburettor-heat",
    "Carburettor heat",
    () => judgeCarburettorHeat(baseRpm, hotRpm, engine.value(READING.carburettorColdAgain)),
  );
}

/** Engine judges. */
export const ENGINE_JUDGES: readonly Judge[] = [
  {
    id: "magneto",
    subject: "Magnetos",
    topic: "engine",
    needs: [],
    judge: eachEngine("magneto", "Magnetos", magnetos),
  },
  {
    id: "baseline",
    subject: "Comparison with usual values",
    topic: "engine",
    needs: [],
    judge: eachEngine("baseline", "Comparison with usual values", baselines),
  },
  {
    id: "traced",
    subject: "Run-up",
    topic: "engine",
    needs: [],
    judge: eachEngine("traced", "Run-up", traced),
  },
  {
    id: "carburettor-heat",
    subject: "Carburettor heat",
    topic: "engine",
    needs: [],
    judge: eachEngine("carburettor-heat", "Carburettor heat", carburettorHeat),
  },
];

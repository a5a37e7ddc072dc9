import { itemsOf } from "@cravix/core/checklist/list/list-places";
import type { PreflightState } from "@cravix/core/checklist/stream/preflight-state";
import type { DiagnosisReport } from "@cravix/core/diagnosis";
import { READING, readingKey } from "@cravix/core/readings/reading-keys";
import {
  MAX_TRACE_POINTS,
  type RunUpRead,
  type RunUpSource,
  type Trace,
  type TraceSource,
} from "@cravix/core/run-up";
import { type RunUpEngine, sideNames, type TypedRead, tracedReadings } from "@cravix/core/run-up-entry";
import { thinForPlot } from "@cravix/core/trend/thin-for-plot";
import { judgePreflight } from "@cravix/core/verdict/judge-preflight";
import type { RunUpAnswer } from "../../../device/workers/run-up.worker";
import { type EventInput, recordAll } from "../../../store/preflight/record";
import { useAppDispatch } from "../../../store/state/hooks";
import type { LoadedPreflight } from "../../open-preflight";

type Written = RunUpRead & { itemId: string };

/** Common part of every run-up record. */
function atEngine(
  engine: RunUpEngine,
  from: RunUpSource,
  report: DiagnosisReport,
  remedied: boolean | undefined,
  unnamed = false,
): Pick<Written, "itemId" | "from" | "engine" | "densityAltitudeFt" | "found"> {
  const found = foundIn(report, remedied, unnamed);
  return {
    itemId: engine.baseItem.id,
    from,
    ...(engine.name && { engine: engine.name }),
    ...(engine.densityAltitudeFt !== undefined && { densityAltitudeFt: engine.densityAltitudeFt }),
    ...(found && { found }),
  };
}

/** Most likely fault for the record; undefined if none. */
function foundIn(
  { ranked: [best], telling }: DiagnosisReport,
  remedied: boolean | undefined,
  unnamed: boolean,
): RunUpRead["found"] {
  if (!best?.fault || !best.grade) return undefined;
  const sign = telling[0] ?? `${best.what}.`;
  return {
    fault: best.fault,
    name: best.name,
    grade: remedied ? "note" : best.grade,
    probability: best.probability,
    ...(best.side && !unnamed && { side: best.side }),
    ...(best.cylinder !== undefined && { cylinder: best.cylinder }),
    sentence: remedied ? `Gone after plug clearing: ${sign}` : sign,
    ...(best.action && !remedied && { action: best.action }),
    ...(best.caution && !remedied && { caution: best.caution }),
  };
}

/** Record of numbers entered by hand. */
export function typedForTheRecord(engine: RunUpEngine, { report, remedied }: TypedRead): Written {
  return { ...atEngine(engine, "typed", report, remedied), notes: [], rpm: [], steps: [] };
}

/** Record of a run-up: the event, and the items it answers. */
export function forTheRecord(
  preflight: LoadedPreflight,
  engine: RunUpEngine,
  answer: RunUpAnswer,
  trace: Trace,
  from: TraceSource,
) {
  const { reading, report } = answer;
  const { readings, answered } = tracedReadings(itemsOf(preflight.list, "run-up"), reading, engine.name);
  const words = sideNames(engine.profile);
  const named = (step: string) =>
    reading.unnamed && (step === "right" || step === "left") ? words[step] : step;
  const rpm = trace.channels.rpm;
  const points = rpm
    ? Array.from(trace.t, (t, i) => ({ x: t, y: rpm[i] as number })).filter(({ y }) => !Number.isNaN(y))
    : [];
  const read: Written = {
    ...atEngine(engine, from, report, answer.remedied, reading.unnamed),
    notes: [
      ...reading.notes.map((note) => note.sentence),
      ...reading.problems.map((problem) => problem.sentence),
    ].slice(0, 60),
    rpm: thinForPlot(points, Math.floor(MAX_TRACE_POINTS / 4) - 1).map(({ x, y }): [number, number] => [
      Number(x.toFixed(1)),
      Math.round(y),
    ]),
    steps: reading.steps.slice(0, 200).map(({ step, at, until }) => ({
      step: named(step),
      from: Number(at.toFixed(1)),
      to: Number(until.toFixed(1)),
    })),
  };
  return { read, readings, answered, from };
}

/** Judgements these numbers would give, before recording. */
export function previewJudgements(
  preflight: LoadedPreflight,
  engine: RunUpEngine,
  made: ReturnType<typeof forTheRecord>,
) {
  const at = preflight.state.lastAt ?? preflight.state.startedAt ?? "";
  const unsaid = { eventId: "", at, crewId: preflight.state.crewId ?? "" };
  const readings = { ...preflight.state.readings };
  for (const { item, value, unit, feel } of made.readings)
    if (item.reading)
      readings[item.reading.key] = {
        ...unsaid,
        itemId: item.id,
        value,
        unit,
        from: made.from,
        ...(feel && { feel }),
      };
  if (made.read.densityAltitudeFt !== undefined)
    readings[READING.densityAltitude] = {
      ...unsaid,
      itemId: made.read.itemId,
      value: made.read.densityAltitudeFt,
      unit: "ft",
    };
  const state: PreflightState = {
    ...preflight.state,
    readings,
    runUps: { ...preflight.state.runUps, [engine.name ?? "engine"]: { ...made.read, eventId: "", at } },
  };
  const ids = new Set(made.readings.map(({ item }) => item.id));
  // The diagnosis is shown above, with its probabilities.
  return judgePreflight(preflight.list, state).judgements.filter(
    (judgement) => judgement.itemIds?.some((id) => ids.has(id)) && !judgement.explains,
  );
}

/** Records a run-up: result, readings and answered items; then goes to the next open item. */
export function useRecordRunUp(preflight: LoadedPreflight) {
  const dispatch = useAppDispatch();
  return ({ read, readings, answered, from }: ReturnType<typeof forTheRecord>) => {
    const done = new Set([...readings.map(({ item }) => item.id), ...answered.map((item) => item.id)]);
    const open = itemsOf(preflight.list, "run-up").find(
      (item) => !done.has(item.id) && !preflight.state.answers[item.id],
    );
    const happenings: EventInput[] = [
      { type: "run-up.read", data: read },
      ...readings.flatMap(({ item, value, unit, feel }): EventInput[] =>
        item.reading
          ? [
              {
                type: "reading.taken",
                data: { itemId: item.id, key: item.reading.key, value, unit, from, ...(feel && { feel }) },
              },
            ]
          : [],
      ),
      ...answered.map(
        (item): EventInput => ({ type: "item.answered", data: { itemId: item.id, outcome: "checked" } }),
      ),
      ...(open ? [{ type: "item.visited", data: { itemId: open.id } } satisfies EventInput] : []),
    ];
    dispatch(recordAll(preflight.state.id, happenings));
  };
}

/** Numbers entered by hand or voice, as readings of their items. */
export function typedReadings(
  preflight: LoadedPreflight,
  engine: RunUpEngine,
  numbers: { base: number; right?: number; left?: number },
) {
  const items = itemsOf(preflight.list, "run-up");
  return (
    [
      [READING.magnetoBase, numbers.base],
      [READING.magnetoRight, numbers.right],
      [READING.magnetoLeft, numbers.left],
    ] as const
  ).flatMap(([key, value]) => {
    const named = readingKey(key, engine.name);
    const item = items.find((i) => i.reading?.key === named);
    return item && value !== undefined ? [{ item, key: named, value, unit: "rpm" as const }] : [];
  });
}

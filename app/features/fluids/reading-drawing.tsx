import type { Item } from "@cravix/core/aircraft/aircraft-type";
import { fuelByLog } from "@cravix/core/fuel/log/fuel-log";
import type { Tank } from "@cravix/core/fuel/tanks/tank";
import { isReadingOf, READING, readingKey, tankKey } from "@cravix/core/readings/reading-keys";
import { TouchArea } from "../../ui/input/touch-area";
import type { LoadedPreflight } from "../open-preflight";
import { GaugeDrawing, gaugeAtPoint } from "./drawings/gauge-drawing";
import { GlassDrawing, glassAtHeight } from "./drawings/glass-drawing";
import { dipstickScale, levelAtHeight, OilDipstick } from "./drawings/oil-dipstick";
import { dipAtHeight, TankDrawing } from "./drawings/tank-drawing";

/** The drawable instrument of a reading, if any. */
export function drawnReading(
  preflight: LoadedPreflight,
  item: Item,
): { kind: "dip" | "gauge" | "sight"; tank: Tank } | { kind: "oil" } | undefined {
  const { fuel, oil } = preflight.list.type;
  const key = item.reading?.key ?? "";
  if (isReadingOf(key, READING.oilLevel)) return oil ? { kind: "oil" } : undefined;
  for (const tank of fuel?.tanks ?? []) {
    if (key === tankKey("dip", tank.id) && tank.calibration) return { kind: "dip", tank };
    if (key === tankKey("gauge", tank.id) && tank.gauge) return { kind: "gauge", tank };
    if (key === tankKey("sight", tank.id) && tank.sight) return { kind: "sight", tank };
  }
  return undefined;
}

interface ReadingDrawingProps {
  preflight: LoadedPreflight;
  item: Item;
  value: number | undefined;
  lastValue: number | undefined;
  onSet: (value: number) => void;
  /** In its own column, on a wide screen. */
  large?: boolean;
}

const SIZE = {
  tall: ["h-[168px] w-[196px]", "h-[430px] w-[500px] max-w-full"],
  dial: ["h-[122px] w-[196px]", "h-[305px] w-[490px] max-w-full"],
} as const;

/** The dipstick, gauge or glass as a drawing; touching it sets the nearest mark. */
export function ReadingDrawing({
  preflight,
  item,
  value,
  lastValue,
  onSet,
  large = false,
}: ReadingDrawingProps) {
  const drawn = drawnReading(preflight, item);
  if (!drawn) return null;
  const step = (by: number, min: number, max: number) =>
    onSet(Number(Math.min(max, Math.max(min, (value ?? lastValue ?? min) + by)).toFixed(2)));
  const common = { value, testID: "drawn-reading", className: SIZE.tall[large ? 1 : 0] };
  if (drawn.kind === "oil") {
    const { oil } = preflight.list.type;
    const most = item.reading?.plausible?.max ?? 12;
    const scale = dipstickScale(oil, most);
    const longFlight = preflight.list.conditions.some((c) => c === "long range" || c === "instrument");
    return (
      <TouchArea
        {...common}
        label="Oil dipstick"
        min={scale.from}
        max={scale.to}
        step={scale.step}
        valueText={value === undefined ? undefined : `${value} US quarts`}
        onPoint={({ y }) => onSet(levelAtHeight(scale, y))}
        onStep={(by) => step(by, scale.from, scale.to)}
      >
        <OilDipstick
          profile={oil}
          scale={scale}
          value={value}
          lastQt={lastValue}
          longFlight={longFlight}
          other={otherEngine(preflight, item)}
        />
      </TouchArea>
    );
  }
  const { tank } = drawn;
  if (drawn.kind === "gauge" && tank.gauge) {
    const { gauge } = tank;
    const most = gauge.points.at(-1)?.at ?? 1;
    return (
      <TouchArea
        {...common}
        className={SIZE.dial[large ? 1 : 0]}
        label={`${tank.name}, gauge`}
        min={0}
        max={most}
        step={1}
        onPoint={({ x, y }) => onSet(gaugeAtPoint(gauge, x, y))}
        onStep={(by) => step(by, 0, most)}
      >
        <GaugeDrawing gauge={gauge} value={value} />
      </TouchArea>
    );
  }
  if (drawn.kind === "sight" && tank.sight)
    return (
      <TouchArea
        {...common}
        label={`${tank.name}, sight glass`}
        min={0}
        max={100}
        step={5}
        onPoint={({ y }) => onSet(glassAtHeight(y))}
        onStep={(by) => step(by, 0, 100)}
      >
        <GlassDrawing sight={tank.sight} value={value} />
      </TouchArea>
    );
  const most = tank.calibration?.points.at(-1)?.dipCm ?? 1;
  return (
    // The log's value is shown only beside a reading, so that it does not influence it.
    <TouchArea
      {...common}
      label={`${tank.name}, dipstick`}
      min={0}
      max={most}
      step={0.5}
      valueText={value === undefined ? undefined : `${value} centimetres`}
      onPoint={({ y }) => onSet(dipAtHeight(tank, y))}
      onStep={(by) => step(by, 0, most)}
    >
      <TankDrawing
        tank={tank}
        dipCm={value}
        byLogL={value === undefined ? undefined : byLog(preflight, tank.id)}
      />
    </TouchArea>
  );
}

/** Litres in one tank according to the log; undefined if unknown. */
export function byLog(preflight: LoadedPreflight, tankId: string): number | undefined {
  const { memory, type } = preflight.list;
  if (!memory?.fuel || !type.fuel || preflight.state.uplifts.length > 0) return undefined;
  try {
    const hours = preflight.state.readings[READING.hours]?.value;
    return fuelByLog(memory.fuel, hours, type.fuel.burnLPerH?.value, type.fuel.taxiL)?.tanks[tankId]?.value;
  } catch {
    // A meter that went back is reported at the meter.
    return undefined;
  }
}

/** Reading of a twin's other engine, shown beside this one. */
function otherEngine(
  preflight: LoadedPreflight,
  item: Item,
): { name: string; value: number | undefined } | undefined {
  const { engines } = preflight.list.type;
  const key = (engine: string) => readingKey(READING.oilLevel, engine);
  if (!engines?.some((engine) => item.reading?.key === key(engine))) return undefined;
  const other = engines.find((engine) => item.reading?.key !== key(engine));
  return other === undefined
    ? undefined
    : { name: other, value: preflight.state.readings[key(other)]?.value };
}

import { addDays, type LocalDate, spokenDate } from "@cravix/core/airworthiness/calendar/local-date";
import {
  DndContext,
  type DragEndEvent,
  type KeyboardCoordinateGetter,
  KeyboardSensor,
  MouseSensor,
  TouchSensor,
  useDraggable,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import { useState } from "react";
import { type LayoutChangeEvent, View } from "react-native";
import Svg, { Line, Rect, Text as SvgText } from "react-native-svg";
import { usePalette } from "../../ui/paint/use-palette";
import { HORIZON } from "./use-visits";

/** Touch target of a bead, larger than its drawing. */
const TARGET = 48;
const HEIGHT = 64;
const PAD = 14;
const MONTHS = ["Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"];
/** Below this width only every other month is labelled. */
const MONTH_PX = 32;

/** Workshop visits of one aircraft over a year, as beads moved by mouse, finger or arrow keys; closed days are hatched. */
export function VisitAxis({
  registration,
  today,
  days,
  late,
  open,
  chosen,
  onChoose,
  onMove,
}: {
  registration: string;
  today: LocalDate;
  days: readonly number[];
  /** Beads after the due day of some work. */
  late: ReadonlySet<number>;
  open: (day: number) => boolean;
  chosen: number | undefined;
  onChoose: (at: number) => void;
  onMove: (at: number, day: number) => void;
}) {
  const [width, setWidth] = useState(320);
  const measure = ({ nativeEvent }: LayoutChangeEvent) => setWidth(Math.floor(nativeEvent.layout.width));
  const perDay = (width - 2 * PAD) / HORIZON;
  const x = (day: number) => PAD + day * perDay;
  const within = (day: number) => Math.min(HORIZON - 1, Math.max(0, Math.round(day)));
  // One day per key press, a week with shift: on a phone's axis a day is one pixel.
  const byKey: KeyboardCoordinateGetter = (event, { currentCoordinates }) => {
    const step = perDay * (event.shiftKey ? 7 : 1);
    if (event.code === "ArrowRight") return { ...currentCoordinates, x: currentCoordinates.x + step };
    if (event.code === "ArrowLeft") return { ...currentCoordinates, x: currentCoordinates.x - step };
    return undefined;
  };
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 3 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 120, tolerance: 8 } }),
    useSensor(KeyboardSensor, { coordinateGetter: byKey }),
  );
  const drop = ({ active, delta }: DragEndEvent) => {
    const at = Number(active.id);
    const from = days[at];
    if (from === undefined) return;
    const day = within(from + delta.x / perDay);
    if (day !== from) onMove(at, day);
    onChoose(at);
  };
  return (
    <View onLayout={measure} style={{ height: HEIGHT }} testID={`axis-${registration}`}>
      <Year today={today} width={width} x={x} open={open} />
      <DndContext sensors={sensors} onDragEnd={drop}>
        {days.map((day, at) => (
          <Bead
            // Indices are stable while a bead moves.
            // biome-ignore lint/suspicious/noArrayIndexKey: beads have no other key
            key={at}
            at={at}
            left={x(day)}
            late={late.has(at)}
            chosen={chosen === at}
            label={`${registration}, visit on ${spokenDate(addDays(today, day))}`}
            onPress={() => onChoose(at)}
          />
        ))}
      </DndContext>
    </View>
  );
}

function Bead({
  at,
  left,
  late,
  chosen,
  label,
  onPress,
}: {
  at: number;
  left: number;
  late: boolean;
  chosen: boolean;
  label: string;
  onPress: () => void;
}) {
  const { ink, clay, chock } = usePalette();
  const { attributes, listeners, setNodeRef, transform } = useDraggable({ id: String(at) });
  return (
    <button
      ref={setNodeRef}
      type="button"
      {...attributes}
      {...listeners}
      aria-label={label}
      aria-pressed={chosen}
      data-testid={`bead-${at}`}
      onClick={onPress}
      style={{
        position: "absolute",
        top: 0,
        left: left - TARGET / 2,
        width: TARGET,
        height: TARGET,
        padding: 0,
        border: 0,
        background: "transparent",
        cursor: "grab",
        touchAction: "pan-y",
        transform: transform ? `translateX(${transform.x}px)` : undefined,
      }}
    >
      <svg width={TARGET} height={TARGET} aria-hidden="true">
        {chosen && <circle cx={TARGET / 2} cy={TARGET / 2} r={15} fill={chock} />}
        {late ? (
          <rect x={TARGET / 2 - 8} y={TARGET / 2 - 8} width={16} height={16} fill={clay} />
        ) : (
          <circle cx={TARGET / 2} cy={TARGET / 2} r={9} fill={ink} />
        )}
      </svg>
    </button>
  );
}

/** Months below the beads, and longer closed periods. */
function Year({
  today,
  width,
  x,
  open,
}: {
  today: LocalDate;
  width: number;
  x: (day: number) => number;
  open: (day: number) => boolean;
}) {
  const { stone, voice } = usePalette();
  const months: { day: number; name: string }[] = [];
  const spans: { from: number; to: number }[] = [];
  let shut = 0;
  for (let day = 0; day <= HORIZON; day++) {
    const date = addDays(today, day);
    if (date.endsWith("-01")) months.push({ day, name: MONTHS[Number(date.slice(5, 7)) - 1] ?? "" });
    if (!open(day)) shut++;
    if (open(day) || day === HORIZON) {
      if (shut > 2) spans.push({ from: day - shut, to: day });
      shut = 0;
    }
  }
  const middle = TARGET / 2;
  return (
    <Svg width={width} height={HEIGHT} style={{ position: "absolute" }} aria-hidden>
      {spans.map(({ from, to }) => (
        <Rect
          key={from}
          x={x(from)}
          y={middle - 14}
          width={Math.max(2, x(to) - x(from))}
          height={28}
          fill={stone}
        />
      ))}
      <Line x1={x(0)} x2={x(HORIZON)} y1={middle} y2={middle} stroke={voice} strokeWidth={2} />
      {months
        .filter((_, i) => i % 2 === 0 || x(31) - x(0) > MONTH_PX)
        .map(({ day, name }) => (
          <SvgText
            key={day}
            x={Math.max(12, x(day))}
            y={HEIGHT - 8}
            fontSize={12}
            fontFamily="AtkinsonNext"
            fill={voice}
            textAnchor="middle"
          >
            {name}
          </SvgText>
        ))}
      {months.map(({ day }) => (
        <Line
          key={day}
          x1={x(day)}
          x2={x(day)}
          y1={middle - 5}
          y2={middle + 5}
          stroke={voice}
          strokeWidth={1}
        />
      ))}
    </Svg>
  );
}

import type { Grade, Verdict } from "@cravix/core/judgement/judgement";
import Svg, { Circle, Path, Rect } from "react-native-svg";
import { usePalette } from "./paint/use-palette";

/** Words for grades; state is always shown by shape, word and colour. */
export const GRADE_WORD: Record<Grade, string> = {
  "within limits": "Within limits",
  note: "Note",
  watch: "Fly and monitor",
  unjudged: "Not assessed",
  ask: "Ask first",
  stop: "Stop",
};

export const VERDICT_GRADE: Record<Verdict, Grade> = {
  go: "within limits",
  "go with notes": "note",
  "ask first": "ask",
  stop: "stop",
};

/** Shapes for grades: full bead, bar, half bead, broken ring, open wedge, full wedge. */
export function GradeMark({ grade, size = 22 }: { grade: Grade; size?: number }) {
  const { ink, clay, chock, paper } = usePalette();
  return (
    // Keeps its size beside long text.
    <Svg width={size} height={size} viewBox="0 0 24 24" aria-hidden style={{ flexShrink: 0 }}>
      {grade === "within limits" && <Circle cx={12} cy={12} r={8} fill={ink} />}
      {grade === "note" && (
        <Rect x={3} y={8} width={18} height={8} rx={3} fill={paper} stroke={ink} strokeWidth={2.5} />
      )}
      {grade === "watch" && (
        <>
          <Circle cx={12} cy={12} r={8.5} fill={paper} stroke={ink} strokeWidth={2.5} />
          <Path d="M12 3.5 A8.5 8.5 0 0 1 12 20.5 Z" fill={ink} />
        </>
      )}
      {grade === "unjudged" && (
        <Circle cx={12} cy={12} r={8.5} fill="none" stroke={ink} strokeWidth={3} strokeDasharray="6 4.7" />
      )}
      {grade === "ask" && (
        <Path
          d="M2.5 5 H21.5 L12 21.5 Z"
          fill={chock}
          stroke={ink}
          strokeWidth={2.5}
          strokeLinejoin="round"
        />
      )}
      {grade === "stop" && (
        <Path d="M2 4 H22 L12 22 Z" fill={clay} stroke={clay} strokeWidth={2} strokeLinejoin="round" />
      )}
    </Svg>
  );
}

import type { ReactNode } from "react";
import { useRef, useState } from "react";
import { type GestureResponderEvent, View } from "react-native";

export interface TouchPoint {
  /** From left and top, 0 to 1. */
  x: number;
  y: number;
}

interface TouchAreaProps {
  children: ReactNode;
  /** For screen readers: what is set, and its value. */
  label: string;
  min: number;
  max: number;
  value: number | undefined;
  valueText?: string | undefined;
  step: number;
  onPoint: (point: TouchPoint) => void;
  onStep: (by: number) => void;
  className?: string;
  testID?: string;
}

/** A drawing set by touching or dragging, and by the arrow keys. */
export function TouchArea({
  children,
  label,
  min,
  max,
  value,
  valueText,
  step,
  onPoint,
  onStep,
  className = "",
  testID,
}: TouchAreaProps) {
  const [size, setSize] = useState({ width: 1, height: 1 });
  // Start of the touch, in the drawing and on the page; moves are relative to it.
  const from = useRef({ x: 0, y: 0 });
  const touch = (event: GestureResponderEvent, down: boolean) => {
    const { locationX, locationY, pageX, pageY } = event.nativeEvent;
    if (down) from.current = { x: locationX - pageX, y: locationY - pageY };
    const part = (at: number, whole: number) => Math.min(1, Math.max(0, at / whole));
    onPoint({
      x: part(pageX + from.current.x, size.width),
      y: part(pageY + from.current.y, size.height),
    });
  };
  const keys = {
    onKeyDown: (event: { key: string; preventDefault: () => void }) => {
      const by = { ArrowUp: step, ArrowRight: step, ArrowDown: -step, ArrowLeft: -step }[event.key];
      if (by === undefined) return;
      event.preventDefault();
      onStep(by);
    },
  };
  return (
    <View
      role="slider"
      aria-label={label}
      aria-valuemin={min}
      aria-valuemax={max}
      aria-valuenow={value ?? min}
      aria-valuetext={valueText}
      tabIndex={0}
      testID={testID}
      className={className}
      onLayout={({ nativeEvent: { layout } }) => setSize({ width: layout.width, height: layout.height })}
      onStartShouldSetResponder={() => true}
      onMoveShouldSetResponder={() => true}
      onResponderTerminationRequest={() => false}
      onResponderGrant={(event) => touch(event, true)}
      onResponderMove={(event) => touch(event, false)}
      {...(keys as object)}
    >
      <View pointerEvents="none" className="h-full w-full">
        {children}
      </View>
    </View>
  );
}

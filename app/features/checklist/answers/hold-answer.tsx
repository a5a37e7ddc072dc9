import { useEffect, useState } from "react";
import { View } from "react-native";
import { Button } from "../../../ui/input/button";
import { useShortcuts } from "../../../ui/input/use-shortcuts";
import { Text } from "../../../ui/text";

/** Countdown for an item that is held or watched. */
export function HoldAnswer({
  seconds,
  done,
  onDone,
  onFound,
}: {
  seconds: number;
  done: string;
  onDone: () => void;
  onFound: () => void;
}) {
  const [until, setUntil] = useState<number>();
  const [left, setLeft] = useState(seconds);
  useEffect(() => {
    if (until === undefined) return;
    const tick = () => setLeft(Math.max(0, Math.ceil((until - Date.now()) / 1000)));
    tick();
    const timer = setInterval(tick, 250);
    return () => clearInterval(timer);
  }, [until]);
  const running = until !== undefined && left > 0;
  const press = () => (until === undefined ? setUntil(Date.now() + seconds * 1000) : onDone());
  useShortcuts({ Enter: running ? undefined : press });
  return (
    <View className="flex-row gap-3">
      <Button tone="deck" className="min-h-28 flex-1" onPress={onFound}>
        Found something
      </Button>
      <Button
        tone="primary"
        className="min-h-28 flex-[1.7]"
        disabled={running}
        testID="primary"
        onPress={press}
      >
        <Text className="text-center font-strong text-2xl text-on-chock" aria-live="polite">
          {until === undefined ? `Start ${seconds} s timer` : running ? `${left} s` : done}
        </Text>
      </Button>
    </View>
  );
}

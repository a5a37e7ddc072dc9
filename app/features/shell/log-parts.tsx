import { View } from "react-native";
import { NavLink } from "../../ui/input/nav-link";
import { Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";

const PARTS = [
  ["/log", "Discrepancies"],
  ["/log/walks", "Preflights"],
  ["/log/workshop", "Workshop"],
] as const;

/** Tabs of the log, with the current one marked. */
export function LogParts({ here }: { here: (typeof PARTS)[number][0] }) {
  const wide = useWide();
  return (
    <View role="navigation" aria-label="Parts of the log" className="flex-row flex-wrap gap-2">
      {PARTS.map(([href, name]) => (
        <NavLink
          key={href}
          href={href}
          here={href === here}
          className={`min-h-14 items-center justify-center rounded-xl border-2 border-ink ${wide ? "px-4" : "px-2"} ${href === here ? "bg-ink" : ""}`}
        >
          <Text className={`font-strong ${href === here ? "text-paper" : ""}`}>{name}</Text>
        </NavLink>
      ))}
    </View>
  );
}

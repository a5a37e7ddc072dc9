import { usePathname } from "expo-router";
import Moon from "lucide-react-native/icons/moon";
import Sun from "lucide-react-native/icons/sun";
import type { ReactNode } from "react";
import { Pressable, View } from "react-native";
import { useAppDispatch, useAppSelector } from "../../store/state/hooks";
import { nightSet } from "../../store/state/session-slice";
import { NavLink } from "../../ui/input/nav-link";
import { usePalette } from "../../ui/paint/use-palette";
import { Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import { NewVersion } from "./new-version";
import { FIRST_PAGES, PLACES, type Place } from "./places";
import { SaveStatus } from "./save-status";

/** Navigation: a bar at the bottom on a phone, a rail at the side on a wide screen. */
export function Shell({ children }: { children: ReactNode }) {
  const wide = useWide();
  const path = usePathname();
  if (wide)
    return (
      <View className="h-full flex-row bg-paper">
        <Rail path={path} />
        <View className="min-w-0 flex-1">
          <NewVersion />
          <View className="min-h-0 flex-1">{children}</View>
        </View>
      </View>
    );
  return (
    <View className="h-full bg-paper">
      <NewVersion />
      <View className="min-h-0 flex-1">{children}</View>
      {FIRST_PAGES.includes(path) && <Bar path={path} />}
    </View>
  );
}

function Bar({ path }: { path: string }) {
  return (
    <View
      role="navigation"
      aria-label="Main navigation"
      className="flex-row border-t-2 border-ink bg-paper px-2 pb-1"
    >
      {PLACES.map((place) => (
        <PlaceLink key={place.href} place={place} here={place.has(path)} className="flex-1 py-1.5" />
      ))}
    </View>
  );
}

function Rail({ path }: { path: string }) {
  return (
    <View
      role="navigation"
      aria-label="Main navigation"
      className="w-[132px] items-stretch border-r-2 border-ink bg-paper py-3"
    >
      <Text className="mb-4 text-center font-strong text-xl">Cravix</Text>
      <View className="gap-1 px-2">
        {PLACES.map((place) => (
          <PlaceLink key={place.href} place={place} here={place.has(path)} className="py-3" />
        ))}
      </View>
      <View className="mt-auto gap-2 px-2">
        <NightSwitch />
        <View className="items-center">
          <SaveStatus />
        </View>
      </View>
    </View>
  );
}

function PlaceLink({ place, here, className }: { place: Place; here: boolean; className: string }) {
  const { ink, onChock } = usePalette();
  const { icon: Icon } = place;
  return (
    <NavLink
      href={place.href}
      here={here}
      className={`min-h-14 items-center justify-center rounded-xl ${here ? "bg-chock" : ""} ${className}`}
    >
      <Icon size={24} color={here ? onChock : ink} strokeWidth={here ? 2.5 : 2} />
      <Text className={`text-sm ${here ? "font-strong text-on-chock" : "font-mid"}`}>{place.name}</Text>
    </NavLink>
  );
}

/** Switches between day and night colours. */
export function NightSwitch({ short = false }: { short?: boolean }) {
  const dispatch = useAppDispatch();
  const night = useAppSelector((state) => state.session.night);
  const { ink } = usePalette();
  const Icon = night ? Sun : Moon;
  return (
    <Pressable
      role="button"
      aria-label={night ? "Day colours" : "Night colours"}
      aria-pressed={night}
      onPress={() => dispatch(nightSet(!night))}
      className="min-h-14 min-w-14 items-center justify-center rounded-xl active:opacity-70"
    >
      <Icon size={24} color={ink} />
      {!short && <Text className="text-sm">{night ? "Day" : "Night"}</Text>}
    </Pressable>
  );
}

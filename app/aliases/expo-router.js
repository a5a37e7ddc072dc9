// What Cravix uses of expo-router, each from its own file: its index brings every navigator along. Written out once more in expo-router.d.ts's own
// types, so whatever is missing here fails the build's check, not a page.

export { useLocalSearchParams, usePathname } from "expo-router/build/hooks";
export { router } from "expo-router/build/imperative-api";
export { Redirect } from "expo-router/build/link/Redirect";
export { useFocusEffect } from "expo-router/build/useFocusEffect";
export { Slot } from "expo-router/build/views/Navigator";

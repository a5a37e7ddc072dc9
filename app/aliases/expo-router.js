// Exports only what Cravix uses of expo-router, because its index loads every navigator. A missing export fails the build check,
// not a page.

export { useLocalSearchParams, usePathname } from "expo-router/build/hooks";
export { router } from "expo-router/build/imperative-api";
export { Redirect } from "expo-router/build/link/Redirect";
export { useFocusEffect } from "expo-router/build/useFocusEffect";
export { Slot } from "expo-router/build/views/Navigator";

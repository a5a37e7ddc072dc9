import type { LucideIcon } from "lucide-react-native";
import ClipboardList from "lucide-react-native/icons/clipboard-list";
import Compass from "lucide-react-native/icons/compass";
import Plane from "lucide-react-native/icons/plane";
import Users from "lucide-react-native/icons/users";

export interface Place {
  href: "/" | "/plan" | "/log" | "/people";
  name: string;
  icon: LucideIcon;
  /** True if an address belongs to this place. */
  has: (path: string) => boolean;
}

/** Places of the navigation bar, in the order of a day. At most five, for thumb reach. */
export const PLACES: readonly Place[] = [
  {
    href: "/",
    name: "Aircraft",
    icon: Plane,
    has: (path) => path === "/" || path.startsWith("/aircraft"),
  },
  { href: "/plan", name: "Plan", icon: Compass, has: (path) => path === "/plan" },
  { href: "/log", name: "Log", icon: ClipboardList, has: (path) => path.startsWith("/log") },
  {
    href: "/people",
    name: "People",
    icon: Users,
    has: (path) => path.startsWith("/people") || path.startsWith("/device"),
  },
];

/** Main pages, which show the bar; other pages use its space for their actions. */
export const FIRST_PAGES: readonly string[] = [
  "/",
  "/plan",
  "/log",
  "/log/walks",
  "/log/workshop",
  "/people",
];

import type { LucideIcon } from "lucide-react-native";
import ClipboardList from "lucide-react-native/icons/clipboard-list";
import Plane from "lucide-react-native/icons/plane";
import Users from "lucide-react-native/icons/users";

export interface Place {
  href: "/" | "/log" | "/people";
  name: string;
  icon: LucideIcon;
  /** Whether an address belongs to it. */
  has: (path: string) => boolean;
}

/** The places of the house, in the order of a day. What comes later (plan, train) goes between them; five is the most that a thumb finds. */
export const PLACES: readonly Place[] = [
  {
    href: "/",
    name: "Aircraft",
    icon: Plane,
    has: (path) => path === "/" || path.startsWith("/aircraft"),
  },
  { href: "/log", name: "Log", icon: ClipboardList, has: (path) => path.startsWith("/log") },
  {
    href: "/people",
    name: "People",
    icon: Users,
    has: (path) => path.startsWith("/people") || path.startsWith("/device"),
  },
];

/** The first pages of the places, where the bar is; behind them the page's own actions have its room. */
export const FIRST_PAGES: readonly string[] = ["/", "/log", "/log/walks", "/log/workshop", "/people"];

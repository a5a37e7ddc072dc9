import { visibilityText } from "../report";
import type { Draft, GroupRule, Meaning } from "./group-rule";

const METRES_PER_STATUTE_MILE = 1609.344;

function see(draft: Draft, metres: number, is?: "less" | "more"): string {
  draft.sky.visibilityM = metres;
  if (is) draft.sky.visibilityIs = is;
  const words = visibilityText(metres);
  return `visibility ${is === "less" ? "less than " : ""}${words}${is === "more" && metres < 10_000 ? " or more" : ""}`;
}

const forget = ({ sky }: Draft) => {
  delete sky.visibilityM;
  delete sky.visibilityIs;
};

const statuteMiles = (draft: Draft, miles: number, sign: string | undefined): Meaning => {
  const metres = Math.min(10_000, Math.round(miles * METRES_PER_STATUTE_MILE));
  // US stations report ten miles for ten or more.
  const open = sign === "P" || miles >= 10;
  return see(draft, metres, sign === "M" ? "less" : open || metres === 10_000 ? "more" : undefined);
};

/** Prevailing and least visibility. */
export const VISIBILITY_RULES: readonly GroupRule[] = [
  {
    name: "visibility",
    shape: /^(\d{4})(NDV)?$/,
    source: "FM 15, 15.6: VVVV; 9999 is 10 km or more, 0000 less than 50 m",
    read([, value], draft) {
      const metres = Number(value);
      if (metres === 9999) return see(draft, 10_000, "more");
      return metres === 0 ? see(draft, 50, "less") : see(draft, metres);
    },
    forget,
  },
  {
    name: "visibility",
    shape: /^([PM]?)(\d{1,2})SM$/,
    source: "US form (FMH-1): statute miles; P more than, M less than",
    read: ([, sign, miles], draft) => statuteMiles(draft, Number(miles), sign),
    forget,
  },
  {
    name: "visibility",
    shape: /^([PM]?)(?:(\d) )?(\d)\/(\d{1,2})SM$/,
    source: "US form (FMH-1): statute miles in fractions",
    read([, sign, whole = "0", over, under], draft) {
      const part = Number(over) / Number(under);
      if (!(part > 0 && part < 1)) return { doubt: "a fraction that is not below one" };
      return statuteMiles(draft, Number(whole) + part, sign);
    },
    forget,
  },
  {
    name: "visibility",
    shape: /^(\d{1,2})KM$/,
    source: "national form: kilometres",
    read: ([, km], draft) =>
      see(draft, Math.min(10_000, Number(km) * 1000), Number(km) >= 10 ? "more" : undefined),
    forget,
  },
  {
    name: "visibility not observed",
    shape: /^\/{4}(?:SM|NDV)?$/,
    source: "FM 15, 15.6: //// is not observed",
    read: () => ({ notObserved: "visibility not observed" }),
  },
  {
    name: "least visibility",
    shape: /^(\d{4})(NE|SE|SW|NW|N|E|S|W)$/,
    source: "FM 15, 15.6.2: VNVNVNVNDv, least visibility with its direction",
    read([, value, toward = ""], { sky }) {
      const metres = Number(value);
      // National forms give the directions of the prevailing visibility too: the first value is then all there is.
      if (sky.visibilityM === undefined) sky.visibilityM = metres;
      if (!sky.leastVisibility || metres < sky.leastVisibility.m) sky.leastVisibility = { m: metres, toward };
      return `${visibilityText(metres)} to the ${COMPASS[toward]}`;
    },
  },
  {
    name: "cavok",
    shape: /^CAVOK$/,
    source: "FM 15, 15.10: 10 km or more, no cloud below 5,000 ft or the minimum sector altitude, no weather",
    read(_, { sky }) {
      sky.visibilityM = 10_000;
      sky.visibilityIs = "more";
      sky.clear = "CAVOK";
      sky.noWeather = true;
      return "visibility 10 km or more, no cloud below 5,000 ft, no significant weather";
    },
  },
];

const COMPASS: Record<string, string> = {
  N: "north",
  NE: "north-east",
  E: "east",
  SE: "south-east",
  S: "south",
  SW: "south-west",
  W: "west",
  NW: "north-west",
};

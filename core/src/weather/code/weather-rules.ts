import { weatherText } from "../report";
import type { GroupRule } from "./group-rule";

const DESCRIPTORS = "MI|BC|PR|DR|BL|SH|TS|FZ";
const PRECIPITATION = "DZ|RA|SN|SG|IC|PL|GR|GS|UP";
const OTHER = "BR|FG|FU|VA|DU|SA|HZ|PO|SQ|FC|SS|DS";
const SHAPE = new RegExp(`^([+-]|VC)?(${DESCRIPTORS})?((?:${PRECIPITATION}|${OTHER}){0,3})$`);
const NEEDS_MORE = /^(MI|BC|PR|DR|BL|FZ)$/;

/** Present and recent weather. */
export const WEATHER_RULES: readonly GroupRule[] = [
  {
    name: "weather",
    shape: new RegExp(SHAPE.source.replace("^", "^(?=[+-]?[A-Z]{2})")),
    source: "FM 15, 15.8: w'w', code table 4678",
    read([text, strength, descriptor = "", phenomena = ""], { sky }) {
      if (descriptor === "" && phenomena === "") return { doubt: "no weather" };
      // A descriptor alone says nothing, except a thunderstorm, and showers nearby.
      if (phenomena === "" && (NEEDS_MORE.test(descriptor) || (descriptor === "SH" && strength !== "VC")))
        return { doubt: "incomplete weather" };
      sky.weather.push(text);
      return weatherText(text);
    },
  },
  {
    name: "weather not observed",
    shape: /^\/\/$/,
    source: "FM 15, 15.8: // where an automatic station cannot observe present weather",
    read(_, { sky }) {
      sky.weatherUnknown = true;
      return { notObserved: "present weather not observed" };
    },
  },
  {
    name: "no significant weather",
    shape: /^NSW$/,
    source: "FM 51, 51.5.2: end of significant weather",
    read(_, { sky }) {
      sky.noWeather = true;
      return "no significant weather";
    },
  },
  {
    name: "recent weather",
    shape: /^RE(\/\/|[A-Z]{2,8})$/,
    source: "FM 15, 15.13.2: REw'w'",
    read([, group = ""]) {
      if (group === "//") return { notObserved: "recent weather not observed" };
      const words = weatherText(group);
      return words === group ? { doubt: "unknown recent weather" } : `recently ${words}`;
    },
  },
];

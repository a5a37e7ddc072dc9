import { convert } from "../../units/convert";
import { formatQuantity } from "../../units/format";
import type { Draft, GroupRule, Meaning } from "./group-rule";

/** Temperatures and pressures ever measured at a station, with a margin; others are errors. */
const COLDEST_C = -60;
const HOTTEST_C = 60;
const LOWEST_HPA = 870;
const HIGHEST_HPA = 1085;

const celsiusOf = (text: string) => (text.startsWith("M") ? 0 - Number(text.slice(1)) : Number(text));
const isPossible = (celsius: number) => celsius >= COLDEST_C && celsius <= HOTTEST_C;
const degrees = (value: number) => formatQuantity({ value, unit: "°C" });

function set(draft: Draft, letter: "Q" | "A", hPa: number, words: string): Meaning {
  if (hPa < LOWEST_HPA || hPa > HIGHEST_HPA) return { doubt: "an impossible pressure" };
  draft.settings[letter] = Math.round(hPa * 10) / 10;
  return words;
}

/** Temperature, dew point and altimeter setting. */
export const AIR_RULES: readonly GroupRule[] = [
  {
    name: "temperature",
    shape: /^(M?\d\d|\/\/)\/(M?\d\d|\/\/)?$/,
    source: "FM 15, 15.11: T'T'/T'dT'd, M below zero; slashes for a half that was not observed",
    read([, warm = "", dew = "//"], draft) {
      const celsius = warm === "//" ? undefined : celsiusOf(warm);
      const dewPointC = dew === "//" ? undefined : celsiusOf(dew);
      if (celsius === undefined && dewPointC === undefined)
        return { notObserved: "temperature and dew point not observed" };
      if (![celsius ?? 0, dewPointC ?? 0].every(isPossible)) return { doubt: "an impossible temperature" };
      if (celsius !== undefined && dewPointC !== undefined && dewPointC > celsius)
        return { doubt: "a dew point above the temperature" };
      if (celsius !== undefined) draft.celsius = celsius;
      if (dewPointC !== undefined) draft.dewPointC = dewPointC;
      if (celsius === undefined)
        return { notObserved: `temperature not observed, dew point ${degrees(dewPointC as number)}` };
      if (dewPointC === undefined) return { notObserved: `${degrees(celsius)}, dew point not observed` };
      return `${degrees(celsius)}, dew point ${degrees(dewPointC)}`;
    },
    forget(draft) {
      delete draft.celsius;
      delete draft.dewPointC;
    },
  },
  {
    name: "pressure Q",
    shape: /^Q(\d{4})$/,
    source: "FM 15, 15.12: QPHPHPHPH in hectopascals",
    read: ([, hPa], draft) => set(draft, "Q", Number(hPa), `altimeter setting ${Number(hPa)} hPa`),
    forget({ settings }) {
      delete settings.Q;
    },
  },
  {
    name: "pressure A",
    shape: /^A(\d\d)(\d\d)$/,
    source: "FM 15, 15.12.1: APHPHPHPH in hundredths of an inch",
    read: ([, whole, part], draft) =>
      set(
        draft,
        "A",
        convert(Number(`${whole}.${part}`), "inHg", "hPa"),
        `altimeter setting ${whole}.${part} inHg`,
      ),
    forget({ settings }) {
      delete settings.A;
    },
  },
  {
    name: "forecast pressure",
    shape: /^QNH(\d\d)(\d\d)INS$/,
    source: "US military forecasts: lowest altimeter setting of the period",
    read: ([, whole, part]) => `lowest altimeter setting ${whole}.${part} inHg`,
  },
  {
    name: "pressure not observed",
    shape: /^[QA]\/{4}$/,
    source: "FM 15, 15.12: slashes for a pressure that was not observed",
    read: () => ({ notObserved: "altimeter setting not observed" }),
  },
  {
    name: "forecast temperature",
    shape: /^T([XN])(M?\d\d)\/(\d{4})Z$/,
    source: "FM 51, 51.9: TXTFTF/YFYFGFGFZ and TN…",
    read([, most, value = "", time = ""], draft) {
      const celsius = celsiusOf(value);
      if (!isPossible(celsius)) return { doubt: "an impossible temperature" };
      draft.extremes.push({ celsius, time });
      return `${most === "X" ? "highest" : "lowest"} temperature ${degrees(celsius)} on the ${time.slice(0, 2)} at ${time.slice(2)}:00`;
    },
  },
];

import { number, setLocale, string } from "yup";
import { isKey, isMoment, isName, isPlainText } from "./plain-text";

// Messages never repeat the input, which may be of any size and content.
setLocale({
  mixed: { notType: ({ path, type }) => `${path} must be of type ${type}` },
  object: {
    noUnknown: ({ path, unknown }) =>
      `${path} has an unknown field${/^[\w, .-]{1,60}$/.test(String(unknown)) ? `: ${String(unknown)}` : ""}`,
  },
});

const PLAIN = {
  name: "plain",
  message: ({ path }: { path: string }) => `${path} contains a character that cannot be stored`,
  test: (value: string | undefined) => value === undefined || isPlainText(value),
};
const NAME = {
  name: "name",
  message: ({ path }: { path: string }) =>
    `${path} must be a name without leading or trailing spaces and without control characters`,
  test: (value: string | undefined) => value === undefined || isName(value),
};
const KEY = {
  name: "key",
  message: ({ path }: { path: string }) =>
    `${path} must be a name without leading or trailing spaces and without control characters, and not a reserved word`,
  test: (value: string | undefined) => value === undefined || isKey(value),
};
const MOMENT = {
  name: "moment",
  message: ({ path }: { path: string }) =>
    `${path} must be a valid UTC time with milliseconds, such as 2026-05-01T09:30:00.000Z`,
  test: (value: string | undefined) => value === undefined || isMoment(value),
};
const FINITE = {
  name: "finite",
  message: ({ path }: { path: string }) => `${path} must be a finite number`,
  test: (value: number | undefined) => value === undefined || Number.isFinite(value),
};

/** Text up to a maximum length; line breaks allowed. */
export const text = (max: number) => string().max(max).test(PLAIN);
/** Required text. */
export const requiredText = (max: number) => text(max).required().min(1);
/** A name or id. */
export const name = (max = 120) => string().max(max).test(NAME);
export const key = (max = 120) => string().max(max).required().min(1).test(KEY);
export const utcTime = () => string().test(MOMENT);
/** A number in a range far wider than anything in practice. */
export const anyNumber = (min = -1_000_000, max = 1_000_000) => number().test(FINITE).min(min).max(max);
export const bounded = (min: number, max: number) => anyNumber(min, max).required();

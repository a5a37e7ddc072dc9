import { pressKey } from "./keypad";

const type = (keys: string[], decimals: number, negative = false) =>
  keys.reduce((text, key) => pressKey(text, key, { decimals, negative }), "");

test.each<[string[], number, string]>([
  [["6", ".", "8"], 1, "6.8"],
  [["6", ".", "8", "5"], 1, "6.8"],
  [["6", ".", ".", "8"], 1, "6.8"],
  [["1", ".", "8"], 0, "18"],
  [[".", "5"], 1, "0.5"],
  [["0", "0", "7"], 0, "7"],
  [["1", "2", "back"], 0, "1"],
  [["back"], 0, ""],
  [["1", "2", "3", "4", "5", "6", "7"], 0, "123456"],
])("%j with %d decimals is %s", (keys, decimals, text) => {
  expect(type(keys, decimals)).toBe(text);
});

test("the sign goes on and off, and only where a number may be below zero", () => {
  expect(type(["5", "2", "sign"], 0, true)).toBe("-52");
  expect(type(["sign", "5", "2", "sign"], 0, true)).toBe("52");
  expect(type(["sign", "0", "7"], 0, true)).toBe("-7");
  expect(type(["5", "sign"], 0)).toBe("5");
});

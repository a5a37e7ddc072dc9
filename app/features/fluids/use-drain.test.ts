import { act, renderHook } from "@testing-library/react-native";
import { TestPreflight } from "../../testing/preflight-of";
import { useDrain } from "./use-drain";

const DRAIN = "right-drain.1";

function atTheDrain(id = DRAIN) {
  const test = new TestPreflight();
  const item = test.item(id);
  const found: (string | undefined)[] = [];
  const { result, rerender } = renderHook(() =>
    useDrain(test.preflight, item, test.acts, (words) => found.push(words), true),
  );
  const does = (what: () => void) => {
    act(what);
    rerender({});
  };
  const samples = () => test.preflight.state.samples[id] ?? [];
  return { test, item, result, does, found, samples };
}

test("a clean sample is one touch, and answers the drain", () => {
  const { test, result, does, samples } = atTheDrain();
  expect(result.current.advice.step).toBe("take");
  does(() => result.current.primary?.());
  expect(samples().map((s) => s.look)).toEqual(["clean"]);
  expect(test.preflight.state.answers[DRAIN]?.outcome).toBe("checked");
});

test("water asks for another sample, which is timed, and the drain stays open until one is clean", () => {
  const clock = jest.spyOn(Date, "now").mockReturnValue(1_000_000);
  const { test, result, does, samples } = atTheDrain();
  does(() => result.current.look("water"));
  expect(test.preflight.state.answers[DRAIN]).toBeUndefined();
  expect(result.current.advice.step).toBe("again");
  does(() => result.current.primary?.());
  expect(result.current.draining).toBe(true);
  clock.mockReturnValue(1_012_000);
  does(() => result.current.primary?.());
  expect(samples()).toEqual([
    expect.objectContaining({ look: "water" }),
    expect.objectContaining({ look: "clean", seconds: 12 }),
  ]);
  expect(result.current.draining).toBe(false);
  clock.mockRestore();
});

test("another colour and none are asked about before the sample is on record; going back forgets the question", () => {
  const { result, does, samples } = atTheDrain();
  does(() => result.current.look("wrong colour"));
  expect(result.current.asking.more).toBe("colour");
  expect(result.current.primary).toBeUndefined();
  does(() => result.current.back());
  expect(result.current.asking.more).toBeUndefined();
  does(() => result.current.look("colourless"));
  does(() => result.current.give({ look: "colourless", colour: "colourless", paper: "greasy ring" }));
  expect(samples()).toEqual([expect.objectContaining({ look: "colourless", paper: "greasy ring" })]);
});

test("kerosene is no matter of draining: it is logged, in words that say why, and nothing is answered as checked", () => {
  const { test, item, result, does, found } = atTheDrain();
  does(() => result.current.look("kerosene smell"));
  expect(result.current.advice.step).toBe("maintenance");
  does(() => result.current.primary?.());
  expect(found).toEqual([`${item.title}: ${result.current.advice.why}`]);
  expect(test.preflight.state.answers[DRAIN]).toBeUndefined();
});

test("water that comes again is rocked for, and then every drain is taken again", () => {
  const { test, result, does } = atTheDrain();
  for (let cup = 0; cup < 12 && result.current.advice.step !== "rock"; cup++)
    does(() => result.current.look("water"));
  expect(result.current.advice.step).toBe("rock");
  does(() => result.current.primary?.());
  expect(test.preflight.state.rocked).toBeDefined();
  expect(result.current.advice.step).not.toBe("rock");
});

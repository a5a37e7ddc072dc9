import { routePath } from "./route-path";

const stations = [0, 1, 2, 3, 4].map((i) => ({ x: i * 30, y: (i % 2) * 40 }));
const numbers = (path: string) => path.match(/-?\d+(\.\d+)?/g)?.map(Number) ?? [];

test("done and ahead together are the whole thread, and meet at the station", () => {
  const whole = numbers(routePath(stations, 0).ahead);
  for (let walked = 1; walked < stations.length - 1; walked++) {
    const { done, ahead } = routePath(stations, walked);
    expect(numbers(done).slice(-2)).toEqual(numbers(ahead).slice(0, 2));
    expect([...numbers(done), ...numbers(ahead).slice(2)]).toEqual(whole);
  }
});

test("nothing walked has nothing done, all walked nothing ahead", () => {
  expect(routePath(stations, 0).done).toBe("");
  expect(routePath(stations, 4).ahead).toBe("");
  expect(routePath([], 0)).toEqual({ done: "", ahead: "" });
});

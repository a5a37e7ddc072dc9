import { roomCircles, roomGraph, roomOf } from "./room-circles";

test("a room is the folder right below the sources; tests belong to none", () => {
  expect(roomOf("core/src/airworthiness/due/judge-due.ts")).toBe("core/src/airworthiness");
  expect(roomOf("app/features/run-up/live/use-coach.ts")).toBe("app/features/run-up");
  expect(roomOf("server/src/app.ts")).toBeUndefined();
  expect(roomOf("core/src/fuel/fuel.test.ts")).toBeUndefined();
});

test("a circle through a folder inside a room is found, and named the shortest way", () => {
  const files = [
    { source: "core/src/a/x.ts", imports: ["core/src/b/inner/y.ts", "core/src/c/z.ts"] },
    { source: "core/src/b/other.ts", imports: ["core/src/a/w.ts"] },
    { source: "core/src/c/z.ts", imports: ["core/src/d/v.ts"] },
  ];
  expect(roomCircles(roomGraph(files))).toEqual([["core/src/a", "core/src/b"]]);
  expect(roomCircles(roomGraph(files.slice(2)))).toEqual([]);
});

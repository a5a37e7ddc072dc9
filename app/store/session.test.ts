import { crewPicked, nightSet, sessionRestored, sessionSlice } from "./session-slice";

const { reducer } = sessionSlice;
const kept = { deviceId: "d", crewId: null, night: false };

test("who picks himself before the disk has answered stays picked, and the night stays night", () => {
  const early = [crewPicked("ines"), nightSet(true)].reduce(reducer, undefined);
  expect(reducer(early, sessionRestored(kept))).toEqual({
    deviceId: "d",
    crewId: "ines",
    night: true,
    ready: true,
  });
});

test("without a pick it is who held the device last", () => {
  const start = reducer(undefined, { type: "start" });
  expect(reducer(start, sessionRestored({ ...kept, crewId: "kofi" }))).toMatchObject({
    crewId: "kofi",
    ready: true,
  });
});

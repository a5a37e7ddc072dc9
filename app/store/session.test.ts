import { crewPicked, nightSet, sessionRestored, sessionSlice } from "./state/session-slice";

const { reducer } = sessionSlice;
const kept = { deviceId: "d", crewId: null, night: false };

test("a person picked before the disk responds stays picked, and night colours stay", () => {
  const early = [crewPicked("ines"), nightSet(true)].reduce(reducer, undefined);
  expect(reducer(early, sessionRestored(kept))).toEqual({
    deviceId: "d",
    crewId: "ines",
    night: true,
    ready: true,
  });
});

test("without a choice, the last person using the device is selected", () => {
  const start = reducer(undefined, { type: "start" });
  expect(reducer(start, sessionRestored({ ...kept, crewId: "kofi" }))).toMatchObject({
    crewId: "kofi",
    ready: true,
  });
});

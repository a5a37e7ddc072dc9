import { NO_ITEM, type PersonItemDraft, personItemOf } from "./person-item-draft";
import { GIVEN_PRESETS, PRESETS, type Preset } from "./presets";
import { renewalFaults } from "./renew-person-item";

const TODAY = "2026-05-01";
const preset = (name: string) => [...PRESETS, ...GIVEN_PRESETS].find((one) => one.name === name) as Preset;
const faultsOf = (name: string, more: Partial<PersonItemDraft>) => {
  const entry = personItemOf({ ...NO_ITEM, ...more }, preset(name), TODAY);
  return "faults" in entry ? entry.faults.map(({ at }) => at) : [];
};
const BORN = { born: "1980-02-29", examined: "2026-04-01" };

describe("a due item of a person, as it is entered", () => {
  it.each<[string, Partial<PersonItemDraft>, string[]]>([
    ["Medical", {}, ["date"]],
    ["Medical", { date: "soon" }, ["date"]],
    ["Medical", { date: "2027-05-31" }, []],
    ["Medical by age", {}, ["born", "examined"]],
    ["Medical by age", { ...BORN, born: "2031-01-01" }, ["born", "examined"]],
    ["Medical by age", { ...BORN, examined: "2031-01-01" }, ["examined"]],
    ["Medical by age", { ...BORN, examined: "1970-01-01" }, ["examined"]],
    ["Medical by age", BORN, []],
    ["Licence or rating", { date: "2027-05-31", called: "  " }, ["called"]],
    ["Licence or rating", { date: "2027-05-31", called: "Night rating" }, []],
    ["Personal minimums", {}, ["root"]],
    [
      "Personal minimums",
      { typed: { crosswindKt: "a lot" } } as Partial<PersonItemDraft>,
      ["typed.crosswindKt"],
    ],
    ["Personal minimums", { noNight: true }, []],
  ])("%s with %j", (name, more, at) => expect(faultsOf(name, more)).toEqual(at));

  it("an authorisation names its aircraft", () => {
    const given = GIVEN_PRESETS.find((one) => one.aircraft) as Preset;
    const date = "2027-05-31";
    expect(faultsOf(given.name, { date })).toContain("aircraft");
    expect(faultsOf(given.name, { date, aircraft: ["QX-TAR"], noNight: true })).toEqual([]);
  });
});

describe("a renewal", () => {
  it.each([
    ["complete", { date: TODAY, until: "2027-05-31" }, true, []],
    ["no day", { date: "", until: "2027-05-31" }, true, ["date"]],
    ["in the future", { date: "2026-05-02", until: "2027-05-31" }, true, ["date"]],
    ["no printed date", { date: TODAY, until: "" }, true, ["until"]],
    ["printed before the renewal", { date: TODAY, until: "2026-04-30" }, true, ["until"]],
    ["nothing printed", { date: TODAY, until: "" }, false, []],
  ])("%s", (_, dates, printed, at) =>
    expect(renewalFaults({ ...dates, printed, today: TODAY }).map((fault) => fault.at)).toEqual(at));
});

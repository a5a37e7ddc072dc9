import type { EventData } from "@cravix/core/checklist/stream/events";
import { act, fireEvent, render, screen, waitFor } from "@testing-library/react-native";
import type { JSX, ReactNode } from "react";
import { Provider } from "react-redux";
import { dropNote, readNote, writeNote } from "../../device/log/notes";
import { createStore } from "../../store/store";
import { Button } from "../input/button";
import { Text } from "../text";
import { missing, trimmed } from "./form-faults";
import { FormNumber, FormRootFault, FormSteps, FormText } from "./form-fields";
import { loadFormLibrary } from "./form-library";
import { RestoredDraft } from "./restored-draft";
import { useDataForm, useEntryForm } from "./use-entry-form";

type Asked = EventData["discrepancy.asked"];
const ID = "01900000-0000-7000-8000-000000000001";
const FIRST = { whom: "", said: "", times: {} as Record<string, number> };

function AskForm({
  first = FIRST,
  ask,
  onEntered,
}: {
  first?: typeof FIRST;
  ask?: (data: Asked) => string[];
  onEntered: (data: Asked, despite: readonly string[]) => void;
}) {
  const form = useEntryForm<typeof FIRST, "discrepancy.asked">({
    type: "discrepancy.asked",
    first,
    keep: "test draft",
    read: ({ times: _, ...values }) => {
      const faults = missing(values, { whom: "Enter who was asked." });
      return faults.length > 0
        ? { faults }
        : { data: { discrepancyId: ID, by: "telephone", ...trimmed(values) } };
    },
    ...(ask && { ask }),
    onEntered,
  });
  return (
    <>
      <RestoredDraft restored={form.restored} startAgain={form.startAgain} />
      <FormText control={form.control} name="whom" label="Whom" maxLength={500} />
      <FormText control={form.control} name="said" label="Said" maxLength={500} />
      <FormSteps
        control={form.control}
        name="times"
        entry="a.b"
        label="Calls"
        step={1}
        unit="calls"
        max={2}
      />
      <FormRootFault control={form.control} />
      {form.questions.map((words) => (
        <Text key={words}>{words}</Text>
      ))}
      <Button onPress={form.submit}>Save</Button>
    </>
  );
}

const store = createStore();
const wrapper = ({ children }: { children: ReactNode }) => <Provider store={store}>{children}</Provider>;
const show = (form: JSX.Element) => render(form, { wrapper });

beforeAll(async () => {
  await loadFormLibrary();
});
afterEach(() => dropNote("test draft"));

const type = (label: string, text: string) => fireEvent.changeText(screen.getByLabelText(label), text);
const save = () => act(async () => fireEvent.press(screen.getByText("Save")));

describe("a form that records an event", () => {
  it("shows a fault at its field, in the form's words, and records nothing", async () => {
    const onEntered = jest.fn();
    show(<AskForm onEntered={onEntered} />);
    type("Whom", "   ");
    await save();
    expect(screen.getByText("Enter who was asked.")).toBeTruthy();
    expect(onEntered).not.toHaveBeenCalled();
  });

  it("applies the contract's schema: what the server would refuse is refused here, at the field", async () => {
    const onEntered = jest.fn();
    show(<AskForm onEntered={onEntered} />);
    type("Whom", "x".repeat(300));
    type("Said", "Fly.");
    await save();
    await waitFor(() => expect(screen.getByText(/^This must be at most 120 characters/)).toBeTruthy());
    type("Whom", "Kofi");
    type("Said", "");
    await save();
    expect(screen.getByText("Fill this in.")).toBeTruthy();
    expect(onEntered).not.toHaveBeenCalled();
  });

  it("records trimmed data, and begins empty again", async () => {
    const onEntered = jest.fn();
    show(<AskForm onEntered={onEntered} />);
    type("Whom", " Kofi ");
    type("Said", "Fly by day.");
    await save();
    await waitFor(() =>
      expect(onEntered).toHaveBeenCalledWith(
        { discrepancyId: ID, whom: "Kofi", by: "telephone", said: "Fly by day." },
        [],
      ),
    );
    expect(screen.getByLabelText("Whom").props.value).toBe("");
  });

  it("asks once about what is unusual; a change asks again, the same data confirms", async () => {
    const onEntered = jest.fn();
    const ask = ({ said }: Asked) => (said.length < 5 ? [`“${said}” is short.`] : []);
    show(<AskForm ask={ask} onEntered={onEntered} />);
    type("Whom", "Kofi");
    type("Said", "No");
    await save();
    await waitFor(() => expect(screen.getByText("“No” is short.")).toBeTruthy());
    type("Said", "Yes");
    expect(screen.queryByText("“No” is short.")).toBeNull();
    await save();
    await waitFor(() => expect(screen.getByText("“Yes” is short.")).toBeTruthy());
    expect(onEntered).not.toHaveBeenCalled();
    await save();
    await waitFor(() => expect(onEntered).toHaveBeenCalledTimes(1));
    expect(onEntered.mock.calls[0][1]).toEqual(["“Yes” is short."]);
  });

  it("steps within bounds, also for an entry whose id has a dot", () => {
    show(<AskForm onEntered={jest.fn()} />);
    for (let i = 0; i < 4; i++) fireEvent.press(screen.getByLabelText("+1 calls"));
    expect(screen.getByText("2")).toBeTruthy();
    for (let i = 0; i < 4; i++) fireEvent.press(screen.getByLabelText("−1 calls"));
    expect(screen.getByText("0")).toBeTruthy();
  });
});

function LiveForm() {
  const { control } = useDataForm<{ limits: Record<string, string> }, object>({
    first: { limits: {} },
    live: true,
    read: ({ limits }) =>
      Number(limits["wind.kt"]) > 60
        ? { faults: [{ at: "limits.wind.kt", words: "At most 60." }] }
        : { data: {} },
    onEntered: () => undefined,
  });
  return (
    <>
      <FormNumber control={control} name="limits" entry="wind.kt" label="Wind" unit="kt" maxLength={5} />
      <FormNumber control={control} name="limits" entry="gust" label="Gust" unit="kt" maxLength={5} />
    </>
  );
}

test("a live form shows the fault of one entry of a record while it is typed, and clears it", async () => {
  show(<LiveForm />);
  const typeLive = (label: string, text: string) => act(async () => type(label, text));
  await typeLive("Gust, kt", "90");
  await typeLive("Wind, kt", "90");
  expect(screen.getAllByText("At most 60.")).toHaveLength(1);
  await typeLive("Wind, kt", "40");
  expect(screen.queryByText("At most 60.")).toBeNull();
});

describe("a draft on the device", () => {
  it("comes back with what was typed, keeps fresh proposals, and starts again on request", async () => {
    const { unmount } = show(<AskForm onEntered={jest.fn()} />);
    type("Said", "Half a sent");
    await waitFor(async () => expect(await readNote("test draft")).toEqual({ said: "Half a sent" }));
    unmount();
    show(<AskForm first={{ ...FIRST, whom: "Maren" }} onEntered={jest.fn()} />);
    await waitFor(() => expect(screen.getByLabelText("Said").props.value).toBe("Half a sent"));
    expect(screen.getByLabelText("Whom").props.value).toBe("Maren");
    fireEvent.press(screen.getByText("Start again"));
    expect(screen.getByLabelText("Said").props.value).toBe("");
    await waitFor(async () => expect(await readNote("test draft")).toBeUndefined());
  });

  it("typing before it is read loses neither", async () => {
    await writeNote("test draft", { said: "stored", whom: "old" });
    show(<AskForm onEntered={jest.fn()} />);
    type("Whom", "typed early");
    await waitFor(() => expect(screen.getByLabelText("Said").props.value).toBe("stored"));
    expect(screen.getByLabelText("Whom").props.value).toBe("typed early");
  });

  it("a new proposal fills only what the person has not changed", () => {
    const { rerender } = show(<AskForm onEntered={jest.fn()} />);
    type("Said", "mine");
    rerender(<AskForm first={{ ...FIRST, whom: "Yuki", said: "theirs" }} onEntered={jest.fn()} />);
    expect(screen.getByLabelText("Whom").props.value).toBe("Yuki");
    expect(screen.getByLabelText("Said").props.value).toBe("mine");
  });

  it("is gone once the entry is recorded", async () => {
    const onEntered = jest.fn();
    show(<AskForm onEntered={onEntered} />);
    type("Whom", "Kofi");
    type("Said", "Fly by day.");
    await save();
    await waitFor(() => expect(onEntered).toHaveBeenCalled());
    await waitFor(async () => expect(await readNote("test draft")).toBeUndefined());
  });
});

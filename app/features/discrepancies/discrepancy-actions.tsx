import { can, type DiscrepancyDetail } from "@cravix/contract/client";
import { ASKED_BY, type AskedBy } from "@cravix/core/airworthiness/life/deferral";
import { FINDING_GRADES } from "@cravix/core/judgement/judgement";
import { useState } from "react";
import { View } from "react-native";
import { recordOfAircraft } from "../../store/preflight/record";
import { useBundle, useCrew } from "../../store/server/server-state";
import { useAppDispatch, useAppSelector } from "../../store/state/hooks";
import { trimmed } from "../../ui/form/form-faults";
import { FormChoice, FormRootFault, FormText } from "../../ui/form/form-fields";
import { useEntryForm } from "../../ui/form/use-entry-form";
import { useFilled } from "../../ui/form/use-filled";
import { withFormLibrary } from "../../ui/form/with-form-library";
import { GRADE_WORD } from "../../ui/grade-mark";
import { Button } from "../../ui/input/button";
import { Toggle } from "../../ui/input/toggle";
import { Heading, Text } from "../../ui/text";
import { withMeasure } from "../../ui/with-measure";
import { Defer } from "./defer";

type Doing = "asked" | "regrade" | "defer" | "merge" | undefined;

/** Actions on an open discrepancy besides repair: log advice, change the grade, defer, merge. */
export function DiscrepancyActions({
  discrepancy: d,
  others,
  onDone,
}: {
  discrepancy: DiscrepancyDetail;
  others: readonly DiscrepancyDetail[];
  onDone: () => void;
}) {
  const crew = useCrew();
  const crewId = useAppSelector((state) => state.session.crewId);
  const role = crew.find((member) => member.id === crewId)?.role;
  const known = useBundle(d.registration) !== undefined;
  const [doing, setDoing] = useState<Doing>();
  const done = () => {
    setDoing(undefined);
    onDone();
  };
  if (doing === "asked") return <Asked discrepancy={d} onDone={done} />;
  if (doing === "regrade")
    return <Regrade discrepancy={d} onDone={done} lower={can(role && { role }, "grade.lower")} />;
  if (doing === "defer") return <Defer discrepancy={d} others={others} role={role} onDone={done} />;
  if (doing === "merge") return <Merge discrepancy={d} others={others} onDone={done} />;
  const open = (what: Doing, words: string, testID: string) => (
    <Button
      className="self-start px-5"
      textClassName="text-base"
      testID={testID}
      onPress={() => setDoing(what)}
    >
      {words}
    </Button>
  );
  return (
    <View className="flex-row flex-wrap gap-2">
      {open("asked", "Record who was asked", "asked")}
      {can(role && { role }, "grade.raise") && open("regrade", "Change the grade", "regrade")}
      {others.length > 0 &&
        can(role && { role }, "discrepancy.merge") &&
        open("merge", "Merge with another", "merge")}
      {/* Rules load later than the rest: placed last, so that no button moves. */}
      {known &&
        can(role && { role }, "discrepancy.defer") &&
        open("defer", d.deferred ? "Defer again" : "Can it be deferred?", "defer")}
    </View>
  );
}

interface PartProps {
  discrepancy: DiscrepancyDetail;
  onDone: () => void;
}

const Asked = withFormLibrary(AskedLoaded);

function AskedLoaded({ discrepancy: d, onDone }: PartProps) {
  const dispatch = useAppDispatch();
  const { control, submit } = useEntryForm({
    type: "discrepancy.asked",
    first: { whom: "", by: "telephone" as AskedBy, said: "" },
    keep: `asked draft:${d.id}`,
    read: (values) => ({ data: { discrepancyId: d.id, ...trimmed(values) } }),
    onEntered: (data) => {
      dispatch(recordOfAircraft("discrepancy.asked", data));
      onDone();
    },
  });
  const filled = useFilled(control, ["whom", "said"]);
  return (
    <View className="max-w-xl gap-2">
      <FormText control={control} name="whom" label="Who was asked" maxLength={120} />
      <FormChoice control={control} name="by" title="How" options={ASKED_BY} />
      <FormText control={control} name="said" label="What was said" maxLength={2000} multiline />
      <FormRootFault control={control} />
      <Button tone="primary" disabled={!filled} onPress={submit} testID="save-advice">
        Save
      </Button>
    </View>
  );
}

const Regrade = withFormLibrary(RegradeLoaded);

function RegradeLoaded({ discrepancy: d, onDone, lower }: PartProps & { lower: boolean }) {
  const dispatch = useAppDispatch();
  const options = FINDING_GRADES.filter(
    (grade) =>
      grade !== d.grade && (lower || FINDING_GRADES.indexOf(grade) > FINDING_GRADES.indexOf(d.grade)),
  );
  const { control, submit } = useEntryForm({
    type: "discrepancy.regraded",
    first: { grade: options[0] ?? d.grade, why: "" },
    keep: `regrade draft:${d.id}`,
    read: (values) => ({ data: { discrepancyId: d.id, ...trimmed(values) } }),
    onEntered: (data) => {
      dispatch(recordOfAircraft("discrepancy.regraded", data));
      onDone();
    },
  });
  const filled = useFilled(control, ["why"]);
  if (options.length === 0)
    return (
      <Text className="text-voice">
        The grade is already Stop. Only an instructor or a mechanic can lower it.
      </Text>
    );
  return (
    <View className="max-w-xl gap-2">
      <FormChoice
        control={control}
        name="grade"
        title="New grade"
        options={options}
        words={(one) => GRADE_WORD[one]}
      />
      {!lower && (
        <Text className="text-sm text-voice">Only an instructor or a mechanic can lower a grade.</Text>
      )}
      <FormText control={control} name="why" label="Why" maxLength={2000} multiline />
      <FormRootFault control={control} />
      <Button tone="primary" disabled={!filled} onPress={submit}>
        Change the grade
      </Button>
    </View>
  );
}

/** Merges discrepancies with the same cause: the other becomes evidence. */
function Merge({ discrepancy: d, others, onDone }: PartProps & { others: readonly DiscrepancyDetail[] }) {
  const dispatch = useAppDispatch();
  const [into, setInto] = useState<string>();
  return (
    <View className="max-w-xl gap-2" testID="merging">
      <Heading className="text-lg">Merge with</Heading>
      <Text className="text-sm text-voice">Choose the discrepancy that has the same cause.</Text>
      {others.map((one) => (
        <Toggle
          key={one.id}
          on={one.id === into}
          className="items-start px-4"
          textClassName="text-base text-left"
          onPress={() => setInto(one.id)}
        >
          {withMeasure(one.text, one.measure)}
        </Toggle>
      ))}
      <Text className="text-sm text-voice">
        All entries and measurements of this one are kept. After merging, only the other one stays open.
      </Text>
      <Button
        tone="primary"
        disabled={into === undefined}
        testID="save-merged"
        onPress={() => {
          if (!into) return;
          dispatch(recordOfAircraft("discrepancy.merged", { discrepancyId: d.id, into }));
          onDone();
        }}
      >
        Merge
      </Button>
      <Button tone="bare" className="self-start px-0" textClassName="text-base" onPress={onDone}>
        Cancel
      </Button>
    </View>
  );
}

import { Screen } from "../../ui/frame/screen";
import { PageHead } from "../../ui/page-head";
import { Text } from "../../ui/text";

/** Explains that no airworthiness record is on file, and how to add one. */
export function NoAirworthinessRecord({ registration }: { registration: string }) {
  return (
    <Screen back={`/aircraft/${registration}`}>
      <PageHead title={`${registration} airworthiness record`}>No airworthiness record on file</PageHead>
      <Text className="mt-2">
        {`There is no airworthiness record for ${registration}: check the aircraft's documents. A mechanic or the owner can add the record as a file (cravix.airworthiness/1) on the Aircraft page, under “Add an aircraft from a file”.`}
      </Text>
    </Screen>
  );
}

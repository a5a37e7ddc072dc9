import { PageHead } from "../../ui/page-head";
import { Screen } from "../../ui/screen";
import { Text } from "../../ui/text";

/** No record of this aircraft's airworthiness is on file: said, with how one comes here. */
export function NoPapers({ registration }: { registration: string }) {
  return (
    <Screen back={`/aircraft/${registration}`}>
      <PageHead title={`${registration} papers`}>No airworthiness record on file</PageHead>
      <Text className="mt-2">
        {`Nothing is known of what is due on ${registration}: look it up in its papers. A mechanic or the owner adds its file (cravix.airworthiness/1) on the first page, under “Add a file”.`}
      </Text>
    </Screen>
  );
}

import { spokenDate } from "@cravix/core/airworthiness/calendar/local-date";
import type { Dispatch } from "react";
import { api } from "../../device/api";
import { saveBlob } from "../../device/platform/pick-file";
import { Alert } from "../../ui/alert";
import { Screen } from "../../ui/frame/screen";
import { Button } from "../../ui/input/button";
import { PageHead } from "../../ui/page-head";
import { Text } from "../../ui/text";
import type { ReleasePhase, ReleaseStep } from "./release-phase";

/** After the signature: what follows, and the PDF. */
export function ReleaseSigned({
  registration,
  phase: { name, id, date },
  step,
}: {
  registration: string;
  phase: Exclude<ReleasePhase, { name: "entering" }>;
  step: Dispatch<ReleaseStep>;
}) {
  const makePdf = () => {
    step({ type: "export" });
    api.releasePdf(id).then(
      (pdf) => {
        saveBlob(`${registration}-release.pdf`, pdf);
        step({ type: "exported" });
      },
      () => step({ type: "export failed" }),
    );
  };
  return (
    <Screen back={`/aircraft/${registration}`}>
      <PageHead title={`${registration} released`}>{`${registration} is released`}</PageHead>
      <Text role="status" className="mt-2 text-lg">
        {`Released on ${spokenDate(date)}. The next preflight will include the after-maintenance items.`}
      </Text>
      <Button
        className="mt-4 self-start px-5"
        textClassName="text-base"
        disabled={name === "making the PDF"}
        onPress={makePdf}
      >
        Export PDF
      </Button>
      {name === "no PDF" && (
        <Alert className="mt-2">The server makes the PDF. Try again when this release has been sent.</Alert>
      )}
    </Screen>
  );
}

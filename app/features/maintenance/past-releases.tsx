import { can } from "@cravix/contract/client";
import { spokenDate } from "@cravix/core/airworthiness/calendar/local-date";
import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { useMemo, useState } from "react";
import { View } from "react-native";
import { api } from "../../device/api";
import { saveBlob } from "../../device/platform/pick-file";
import { recordOfAircraft } from "../../store/preflight/record";
import { type SignedRelease as Signed, useReleasesQuery } from "../../store/server/records-api";
import { useAppDispatch } from "../../store/state/hooks";
import { Alert } from "../../ui/alert";
import { missing, trimmed } from "../../ui/form/form-faults";
import { FormRootFault, FormText } from "../../ui/form/form-fields";
import { useEntryForm } from "../../ui/form/use-entry-form";
import { withFormLibrary } from "../../ui/form/with-form-library";
import { Button } from "../../ui/input/button";
import { Heading, Text } from "../../ui/text";
import type { KnownAircraft } from "../aircraft-frame";
import { useLocalEvents } from "../due";

const SHOWN = 12;

/** Releases on record, newest first. One that was signed in error is struck out, and stays on record. */
export function PastReleases({ aircraft: { bundle, crew, crewId } }: { aircraft: KnownAircraft }) {
  const events = useLocalEvents(bundle);
  const { registration } = bundle.aircraft;
  const { data: items, isError } = useReleasesQuery(registration, { refetchOnMountOrArgChange: true });
  const shown = useMemo(() => withUnsent(items ?? [], events).slice(0, SHOWN), [items, events]);
  const me = crew.find(({ id }) => id === crewId);
  if (shown.length === 0 && !isError) return null;
  return (
    <View className="gap-2" testID="past-releases">
      <Heading className="mt-2 text-lg">Earlier releases</Heading>
      {shown.map((release) => (
        <PastRelease
          key={release.id}
          release={release}
          signedBy={crew.find(({ id }) => id === release.crewId)?.name ?? release.crewId}
          mayStrike={can(me, "release.withdraw", {
            released: release.preventive === true && release.crewId === crewId,
          })}
        />
      ))}
      {isError && <Text className="text-voice">The list of releases needs the server.</Text>}
    </View>
  );
}

/** Releases of the server with those that this device struck out and has not sent. */
function withUnsent(items: readonly Signed[], events: readonly PreflightEvent[]): Signed[] {
  const struck = new Map(
    events.flatMap((event) =>
      event.type === "release.withdrawn" ? [[event.data.of, event.data.why] as const] : [],
    ),
  );
  return items.map((item) => {
    const why = struck.get(item.id);
    return why === undefined ? item : { ...item, withdrawn: why };
  });
}

function PastRelease({
  release: { id, registration, date, done, withdrawn },
  signedBy,
  mayStrike,
}: {
  release: Signed;
  signedBy: string;
  mayStrike: boolean;
}) {
  const [open, setOpen] = useState(false);
  const [problem, setProblem] = useState("");
  return (
    <View className="gap-1 rounded-xl bg-stone px-3 py-2" testID={`release-${id}`}>
      <Text className={`font-mid ${withdrawn === undefined ? "" : "line-through"}`}>{done}</Text>
      <Text className="text-sm text-voice">{`${spokenDate(date)}, ${signedBy}`}</Text>
      {withdrawn !== undefined && <Text className="font-mid text-sm">{`Struck out: ${withdrawn}`}</Text>}
      {open ? (
        <StrikeOut registration={registration} release={id} onDone={() => setOpen(false)} />
      ) : (
        <View className="flex-row flex-wrap gap-2">
          <Button
            tone="bare"
            className="px-0"
            textClassName="text-base"
            onPress={() =>
              void api.releasePdf(id).then(
                (pdf) => saveBlob(`${registration}-release.pdf`, pdf),
                () => setProblem("The server makes the PDF, and it did not respond. Try again."),
              )
            }
          >
            PDF
          </Button>
          {mayStrike && withdrawn === undefined && (
            <Button tone="bare" className="px-2" textClassName="text-base" onPress={() => setOpen(true)}>
              Strike out
            </Button>
          )}
        </View>
      )}
      {problem !== "" && <Alert>{problem}</Alert>}
    </View>
  );
}

const StrikeOut = withFormLibrary(StrikeOutLoaded);

function StrikeOutLoaded({
  registration,
  release,
  onDone,
}: {
  registration: string;
  release: string;
  onDone: () => void;
}) {
  const dispatch = useAppDispatch();
  const { control, submit, startAgain } = useEntryForm({
    type: "release.withdrawn",
    first: { why: "" },
    keep: `strike-out draft:${release}`,
    read: (values) => {
      const faults = missing(values, { why: "Enter the reason." });
      return faults.length > 0 ? { faults } : { data: { registration, of: release, ...trimmed(values) } };
    },
    onEntered: (data) => {
      dispatch(recordOfAircraft("release.withdrawn", data));
      onDone();
    },
  });
  const cancel = () => {
    startAgain();
    onDone();
  };
  return (
    <View className="gap-2">
      <Text className="text-sm">
        The items that it completed are due again as before. Discrepancies that it signed off stay closed: log
        them again if they are still there. Then sign the right release.
      </Text>
      <FormText control={control} name="why" label="Why is it struck out?" maxLength={400} />
      <FormRootFault control={control} />
      <View className="flex-row flex-wrap gap-2">
        <Button className="px-5" textClassName="text-base" onPress={submit}>
          Strike it out
        </Button>
        <Button tone="bare" textClassName="text-base" onPress={cancel}>
          Cancel
        </Button>
      </View>
    </View>
  );
}

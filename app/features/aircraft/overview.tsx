import type { AircraftSummary } from "@cravix/contract/client";
import { View } from "react-native";
import { useBundle, useCrew } from "../../store/server/server-state";
import type { OpenPreflight } from "../../store/state/preflight-slice";
import { PlanView } from "../../ui/aircraft/plan-view";
import { dayText } from "../../ui/day-and-time";
import { GRADE_WORD, GradeMark } from "../../ui/grade-mark";
import { NavLink } from "../../ui/input/nav-link";
import { Heading, Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import { CodeToOpen } from "./code-to-open";
import { StatusMark } from "./status-mark";
import { ago, fuelUnits, oilText } from "./status-text";
import { UnfinishedWork } from "./unfinished";
import type { Known } from "./use-aircraft-status";

/** What is known of an aircraft before its preflight. */
export function Overview({
  aircraft,
  known,
  unfinished,
  flying,
}: {
  aircraft: AircraftSummary;
  known: Known;
  unfinished: OpenPreflight | undefined;
  flying: OpenPreflight | undefined;
}) {
  const wide = useWide();
  const bundle = useBundle(aircraft.registration);
  const { registration, stub, story } = aircraft;
  return (
    <View className="gap-3">
      {stub !== null && <Text className="rounded-xl bg-stone p-3">{stub}</Text>}
      <UnfinishedWork unfinished={unfinished} flying={flying} />
      <View className={wide ? "flex-row gap-6" : "gap-3"}>
        {stub === null && (
          <View className={wide ? "h-[240px] flex-1" : "h-[170px]"} aria-hidden>
            {bundle?.type.plan && <PlanView plan={bundle.type.plan} beads={[]} />}
          </View>
        )}
        <View className={wide ? "flex-[1.1] gap-2" : "gap-2"}>
          <StatusMark
            standing={known.standing}
            none={stub === null ? "Not assessed yet" : "No checklist yet"}
            large
          />
          <Text className="text-sm text-voice">
            Status before today's walkaround. The pilot in command decides.
          </Text>
          {known.standing && <Reasons known={known} />}
        </View>
      </View>
      {stub === null && <Figures aircraft={aircraft} open={known.open.length} />}
      {story && <Text className="text-voice">{story}</Text>}
      <Doors
        registration={registration}
        fluids={Boolean(bundle?.type.fuel ?? bundle?.type.oil)}
        list={stub === null}
      />
      <CodeToOpen registration={registration} />
    </View>
  );
}

function Reasons({ known: { standing, open } }: { known: Known }) {
  const byId = new Map(open.map((d) => [d.id, d]));
  return (
    <View className="gap-2">
      {standing?.reasons.map((reason) => {
        const logged = byId.get(reason.discrepancyId ?? "");
        return (
          <View key={reason.id} className="flex-row gap-3 rounded-xl bg-stone px-3 py-2">
            <View className="pt-0.5">
              <GradeMark grade={reason.grade} />
            </View>
            <View className="shrink">
              <Text className="font-mid" numberOfLines={4}>
                {reason.text}
              </Text>
              <Text className="text-sm text-voice">
                {[GRADE_WORD[reason.grade], logged && `${ago(logged.openedAt)}, ${logged.openedBy}`]
                  .filter(Boolean)
                  .join(" · ")}
              </Text>
            </View>
          </View>
        );
      })}
      {standing?.reasons.length === 0 && <Text className="text-voice">No discrepancies logged.</Text>}
    </View>
  );
}

/** Fuel, oil and last flight, each with its age. */
function Figures({ aircraft, open }: { aircraft: AircraftSummary; open: number }) {
  const { fluids, lastFlown, lastPreflight } = aircraft;
  const crew = useCrew();
  const wide = useWide();
  const name = (id: string | null) => crew.find((member) => member.id === id)?.name;
  const flownSince = (at: string | undefined) => at !== undefined && lastFlown && lastFlown.at > at;
  const measured = (at: string | undefined) =>
    at === undefined ? undefined : `${dayText(at)}${flownSince(at) ? ", before the last flight" : ""}`;
  const oilAt = fluids.oil.map(({ at }) => at).sort()[0];
  const figures: [label: string, value: string | undefined, more: string | undefined][] = [
    ["Fuel, as last measured", fuelUnits(fluids), measured(fluids.fuel?.at)],
    ["Oil, as last read", oilText(fluids), measured(oilAt)],
    [
      "Last flight",
      lastFlown ? ago(lastFlown.at) : "None on record",
      lastFlown ? name(lastFlown.crewId) : undefined,
    ],
    [
      "Last preflight",
      lastPreflight?.startedAt ? ago(lastPreflight.startedAt) : "None on record",
      lastPreflight?.verdict
        ? [lastPreflight.verdict, lastPreflight.decision, name(lastPreflight.crewId)]
            .filter(Boolean)
            .join(", ")
        : undefined,
    ],
    ["Open discrepancies", String(open), undefined],
  ];
  return (
    <View className="flex-row flex-wrap gap-x-6 gap-y-2">
      {figures.map(
        ([label, value, more]) =>
          value !== undefined && (
            <View key={label} className={wide ? "w-[30%]" : "min-w-[44%] flex-1"}>
              <Text className="text-sm text-voice">{label}</Text>
              <Text className="font-strong text-lg">{value}</Text>
              {more && <Text className="text-sm text-voice">{more}</Text>}
            </View>
          ),
      )}
    </View>
  );
}

function Doors({ registration, fluids, list }: { registration: string; fluids: boolean; list: boolean }) {
  const doors: [page: string, name: string][] = [
    ...(list ? ([["list", "Today's checklist"]] as [string, string][]) : []),
    ...(fluids ? ([["logs", "Fuel and oil log"]] as [string, string][]) : []),
    ["loading", "Mass and balance"],
    ["due", "Due items"],
    ["flights", "Technical log"],
    ...(list ? ([["items", "Added items"]] as [string, string][]) : []),
  ];
  if (doors.length === 0) return null;
  return (
    <View className="gap-2">
      <Heading className="text-lg">More about this aircraft</Heading>
      <View className="flex-row flex-wrap gap-2">
        {doors.map(([page, name]) => (
          <NavLink
            key={page}
            href={`/aircraft/${registration}/${page}`}
            className="min-h-14 items-center justify-center rounded-xl border-2 border-ink px-4"
          >
            <Text className="font-strong">{name}</Text>
          </NavLink>
        ))}
      </View>
    </View>
  );
}

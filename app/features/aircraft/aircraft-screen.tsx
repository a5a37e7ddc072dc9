import { type AircraftSummary, can, rolesThatCan } from "@cravix/contract/client";
import { type Href, router, useFocusEffect } from "expo-router";
import { useCallback, useDeferredValue, useEffect, useState } from "react";
import { ScrollView, View } from "react-native";
import { fetchOthers, refresh, refreshOnOpening, useFleet } from "../../store/server/server-state";
import { useAppDispatch, useAppSelector } from "../../store/state/hooks";
import { crewPicked } from "../../store/state/session-slice";
import { Screen } from "../../ui/frame/screen";
import { Button } from "../../ui/input/button";
import { NavLink } from "../../ui/input/nav-link";
import { useShortcuts } from "../../ui/input/use-shortcuts";
import { PageHead } from "../../ui/page-head";
import { Heading, Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import { InstallHint, NightSwitch, PageNotFound, SaveStatus } from "../shell";
import { AddFile } from "./add-file";
import { AircraftCard } from "./aircraft-card";
import { CrewPicker } from "./crew-picker";
import { Overview } from "./overview";
import { UnfinishedWork } from "./unfinished";
import { type Known, useAircraftStatuses } from "./use-aircraft-status";

/** Aircraft drawn first on a phone; the others follow. */
const FIRST_PAGE = 3;

/** Delay before the rest of the group is fetched. */
const OTHERS_AFTER_MS = 2500;

/** The group's aircraft and the selected one: side by side if there is room, else one after the other. */
export function AircraftScreen({ registration }: { registration?: string }) {
  const dispatch = useAppDispatch();
  const wide = useWide();
  const { ready, crewId } = useAppSelector((state) => state.session);
  const server = useAppSelector((state) => state.sync.server);
  const openWalks = useAppSelector((state) => state.preflight.open);
  const fleet = useFleet();
  const knownOf = useAircraftStatuses();
  const [chosen, setChosen] = useState<string>();
  const [picking, setPicking] = useState(false);
  const count = useDeferredValue(fleet?.aircraft.length ?? 0, wide ? Number.POSITIVE_INFINITY : FIRST_PAGE);
  // Default: the aircraft with an unfinished preflight here, else the most recent, which is first in the list.
  const wanted = chosen ?? registration ?? openWalks.find((preflight) => !preflight.flying)?.registration;
  const named = fleet?.aircraft.find((a) => a.registration === wanted);
  const aircraft = named ?? (registration ? undefined : fleet?.aircraft.find((a) => !a.stub));
  const shown = aircraft?.registration;
  useFocusEffect(
    useCallback(() => {
      if (ready) void refreshOnOpening(dispatch, shown);
    }, [ready, dispatch, shown]),
  );
  useEffect(() => {
    const timer = ready ? setTimeout(() => void dispatch(fetchOthers()), OTHERS_AFTER_MS) : undefined;
    return () => clearTimeout(timer);
  }, [ready, dispatch]);
  const me = fleet?.crew.find((member) => member.id === crewId);
  const unfinished = openWalks.find((p) => p.registration === shown && !p.flying);
  const flying = openWalks.find((p) => p.registration === shown && p.flying);
  const goOn = () => {
    if (!aircraft || !me || aircraft.stub !== null) return;
    router.push(
      (unfinished
        ? `/preflight/${unfinished.preflightId}`
        : `/aircraft/${aircraft.registration}/prepare`) as Href,
    );
  };
  useShortcuts({ Enter: goOn });

  if (ready && !fleet)
    return (
      <Screen
        actions={
          <Button tone="primary" className="min-h-20" onPress={() => refresh(dispatch, shown)}>
            Try again
          </Button>
        }
      >
        <PageHead className="mt-8 text-2xl" title="Aircraft">
          {server === "not reached"
            ? "No network, and no aircraft saved on this device yet"
            : "Fetching your aircraft …"}
        </PageHead>
        <Text className="mt-2">
          Connect once to download your aircraft and checklists. After that Cravix works without a network.
        </Text>
      </Screen>
    );
  // The link or code names an aircraft outside the group.
  if (registration && fleet && !named)
    return (
      <PageNotFound head={`${registration} is not one of your group's aircraft`} title="Not in the group">
        The link or QR code may be out of date. Nothing is lost: unfinished preflights are kept with their
        aircraft.
      </PageNotFound>
    );

  const actions =
    picking || (fleet && !me) ? (
      <CrewPicker
        crewId={crewId}
        crew={fleet?.crew ?? []}
        onPick={(id) => {
          dispatch(crewPicked(id));
          setPicking(false);
        }}
      />
    ) : (
      <View className="flex-row gap-3">
        {(wide || !registration) && (
          <Button tone="deck" className="flex-1" textClassName="text-base" onPress={() => setPicking(true)}>
            {me ? `${me.name.split(" ")[0]}, ${me.role}` : "Who is flying?"}
          </Button>
        )}
        <Button
          tone="primary"
          className="min-h-20 flex-[2.2]"
          textClassName="text-xl"
          disabled={!aircraft || aircraft.stub !== null}
          onPress={goOn}
          testID="primary"
          hint={wide ? "Enter" : undefined}
        >
          {!aircraft
            ? "…"
            : aircraft.stub !== null
              ? "No checklist for this aircraft yet"
              : unfinished
                ? `Resume ${aircraft.registration} preflight`
                : `Prepare ${aircraft.registration}`}
        </Button>
      </View>
    );
  const list = (
    <View className="gap-2">
      {(fleet?.aircraft ?? []).slice(0, count).map((a) => (
        <View key={a.registration}>
          <AircraftCard
            aircraft={a}
            known={knownOf(a)}
            chosen={a.registration === shown}
            plan={!wide}
            // Details of the selected aircraft are shown beside the list.
            walking={a.registration === shown ? undefined : walkingText(openWalks, a)}
            onPress={() => setChosen(a.registration)}
          />
          {!wide && a.registration === shown && (unfinished || flying) && (
            <View className="mt-2 gap-2">
              <UnfinishedWork unfinished={unfinished} flying={flying} />
            </View>
          )}
          {!wide && a.registration === shown && (
            <NavLink href={`/aircraft/${a.registration}`} className="min-h-14 justify-center px-4">
              <Text className="font-mid underline">{`Details of ${a.registration}`}</Text>
            </NavLink>
          )}
        </View>
      ))}
      <InstallHint quiet />
      {can(me, "aircraft.edit") ? (
        <AddFile onAdded={() => refresh(dispatch, shown)} />
      ) : (
        <Text className="text-sm text-voice">{`Only ${rolesThatCan("aircraft.edit")} can add an aircraft.`}</Text>
      )}
    </View>
  );
  const about = aircraft && (
    <About aircraft={aircraft} known={knownOf(aircraft)} unfinished={unfinished} flying={flying} />
  );

  if (wide)
    return (
      <View role="main" className="h-full flex-row bg-paper">
        <ScrollView className="max-w-[430px] flex-1 border-r-2 border-stone" tabIndex={0}>
          <View className="px-5 pb-6 pt-4">
            <PageHead className="mb-3">Aircraft</PageHead>
            {list}
          </View>
        </ScrollView>
        <View className="min-w-0 flex-[1.9]">
          <ScrollView className="flex-1" tabIndex={0}>
            <View className="px-7 pb-4 pt-4">{about}</View>
          </ScrollView>
          <View className="flex-row justify-end px-7 pb-4">
            <View className="w-full max-w-[520px] rounded-2xl bg-deck px-4 py-3">{actions}</View>
          </View>
        </View>
      </View>
    );
  if (registration)
    return (
      <Screen back="/" actions={actions}>
        {about}
      </Screen>
    );
  return (
    <Screen actions={actions}>
      <View className="mb-1 flex-row items-center justify-between">
        <PageHead>Aircraft</PageHead>
        <View className="flex-row items-center gap-2">
          <SaveStatus />
          <NightSwitch short />
        </View>
      </View>
      {list}
    </Screen>
  );
}

interface AboutProps {
  aircraft: AircraftSummary;
  known: Known;
  unfinished: React.ComponentProps<typeof Overview>["unfinished"];
  flying: React.ComponentProps<typeof Overview>["flying"];
}

function About({ aircraft, ...more }: AboutProps) {
  const wide = useWide();
  const name = aircraft.registration;
  return (
    <>
      {wide ? <Heading className="text-3xl">{name}</Heading> : <PageHead>{name}</PageHead>}
      <Text className="mb-2 text-voice">
        {aircraft.typeName}, {aircraft.what}
      </Text>
      <Overview key={name} aircraft={aircraft} {...more} />
    </>
  );
}

function walkingText(
  open: readonly { registration: string; flying?: boolean }[],
  { registration }: AircraftSummary,
): string | undefined {
  const mine = open.filter((preflight) => preflight.registration === registration);
  if (mine.some((preflight) => !preflight.flying)) return "Preflight started on this device";
  return mine.length > 0 ? "Flying" : undefined;
}

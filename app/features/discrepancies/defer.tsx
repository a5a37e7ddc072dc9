import type { CrewMember, DiscrepancyDetail } from "@cravix/contract/client";
import { localDate } from "@cravix/core/airworthiness/calendar/local-date";
import { type Equipment, maySignDeferral } from "@cravix/core/airworthiness/deferral/deferral-rules";
import {
  type DeferralOutcome,
  type DeferralReply,
  equipmentAtItem,
  mayBeDeferred,
} from "@cravix/core/airworthiness/deferral/may-be-deferred";
import { FLIGHT_KINDS, type FlightKind } from "@cravix/core/airworthiness/due/due-item";
import { useState } from "react";
import { View } from "react-native";
import { recordOfAircraft } from "../../store/preflight/record";
import { useBundle } from "../../store/server/server-state";
import { baseTimeZone, todayIn } from "../../store/server/today";
import { useAppDispatch, useAppSelector } from "../../store/state/hooks";
import { Button } from "../../ui/input/button";
import { Choice } from "../../ui/input/choice";
import { DateField } from "../../ui/input/date-field";
import { Toggle } from "../../ui/input/toggle";
import { Heading, Text } from "../../ui/text";
import { flightQuestion } from "../due";
import { deferralOf, TOLD_WORDS } from "./deferral-to-record";

/** Kinds chosen at the top: told, on or off. The others are asked where something depends on them. */
const CHOSEN = ["day", "night", "instrument", "hire"] as const;
const TOLD: ReadonlySet<FlightKind> = new Set([...CHOSEN, "passengers", "solo student"]);
const TELL: readonly DeferralReply[] = ["yes", "no", "unknown"];

/** Deferral questions in order: those answered by data show their source, the others are asked. */
export function Defer({
  discrepancy: d,
  others,
  role,
  onDone,
}: {
  discrepancy: DiscrepancyDetail;
  /** Other open discrepancies: what is out already counts. */
  others: readonly DiscrepancyDetail[];
  role: CrewMember["role"] | undefined;
  onDone: () => void;
}) {
  const dispatch = useAppDispatch();
  const bundle = useBundle(d.registration);
  const [kinds, setKinds] = useState<(typeof CHOSEN)[number][]>(["day"]);
  const [also, setAlso] = useState<Partial<Record<FlightKind, boolean>>>({});
  const [told, setTold] = useState<Record<string, DeferralReply>>({});
  const [broken, setBroken] = useState<number>();
  const [equipment, setEquipment] = useState<string>();
  const flight = [...kinds, ...FLIGHT_KINDS.filter((kind) => also[kind])];
  const list = bundle?.equipment;
  const zone = useAppSelector((state) => baseTimeZone(state, d.registration));
  const today = todayIn(zone);
  const possible = list ? equipmentAtItem(list, d.itemId) : [];
  const about = possible.length === 1 ? possible[0] : possible.find(({ id }) => id === equipment);
  const outcome = mayBeDeferred({
    flight,
    untold: FLIGHT_KINDS.filter((kind) => !TOLD.has(kind) && also[kind] === undefined),
    // The day at the aircraft's base.
    found: localDate(d.openedAt, zone),
    told,
    out: others.reduce(
      (sum, { registration, deferred }) =>
        registration === d.registration && about && deferred?.equipment === about.id
          ? sum + (deferred.broken ?? 1)
          : sum,
      0,
    ),
    ...(broken !== undefined && { broken }),
    ...(bundle?.rules?.deferral && { rules: bundle.rules.deferral }),
    ...(bundle && { built: String(bundle.aircraft.year) }),
    ...(d.itemId !== undefined && { itemId: d.itemId }),
    ...(about && { equipmentId: about.id }),
    ...(list && { list }),
    ...(list?.minimum && { minimum: list.minimum }),
  });
  const defer = (until: string | undefined) => {
    dispatch(
      recordOfAircraft("discrepancy.deferred", {
        discrepancyId: d.id,
        ...deferralOf(outcome, {
          rules: bundle?.rules?.id ?? "rules",
          flight,
          ...(broken !== undefined && { broken }),
          ...(until && { until }),
        }),
      }),
    );
    onDone();
  };
  return (
    <View className="max-w-2xl gap-3" testID="deferral">
      <Heading className="text-lg">Can it be deferred?</Heading>
      <View className="flex-row flex-wrap gap-2">
        {CHOSEN.map((kind) => (
          <Toggle
            key={kind}
            on={kinds.includes(kind)}
            onPress={() => {
              setKinds(kinds.includes(kind) ? kinds.filter((one) => one !== kind) : [...kinds, kind]);
              setTold({});
            }}
          >
            {kind}
          </Toggle>
        ))}
      </View>
      {possible.length > 1 && (
        <WhichEquipment
          possible={possible}
          chosen={about?.id}
          onChoose={(id) => {
            setEquipment(id);
            setBroken(undefined);
            setTold({});
          }}
        />
      )}
      <Trail outcome={outcome} />
      {outcome.count && <HowMany count={outcome.count} onTold={setBroken} />}
      {outcome.depends
        ? outcome.depends.map((kind) => (
            <Choice
              key={kind}
              title={flightQuestion(kind)}
              options={["yes", "no"] as const}
              value={undefined}
              words={(answer) => TOLD_WORDS[answer]}
              onChange={(answer) => setAlso({ ...also, [kind]: answer === "yes" })}
            />
          ))
        : outcome.open && (
            <View className="gap-2 rounded-xl border-2 border-ink px-3 py-2">
              <Text className="font-strong text-lg">{outcome.open.ask}</Text>
              <Text className="text-sm text-voice">{outcome.open.source.text}</Text>
              {outcome.exceptions && (
                <>
                  <Text className="font-mid">
                    A rule requires it, with exceptions. Answer “No” only if one of them holds:
                  </Text>
                  {outcome.exceptions.map(({ text }) => (
                    <Text key={text} className="text-sm">
                      {text}
                    </Text>
                  ))}
                </>
              )}
              <View className="flex-row flex-wrap gap-2">
                {TELL.map((answer) => (
                  <Button
                    key={answer}
                    className="px-5"
                    testID={`told-${answer}`}
                    onPress={() => outcome.open && setTold({ ...told, [outcome.open.id]: answer })}
                  >
                    {TOLD_WORDS[answer]}
                  </Button>
                ))}
              </View>
            </View>
          )}
      {outcome.result && <Result outcome={outcome} role={role} today={today} onDefer={defer} />}
      <Button tone="bare" className="self-start px-0" textClassName="text-base" onPress={onDone}>
        Cancel
      </Button>
      <Text className="text-sm text-voice">
        Example rule set: local rules, the aircraft's handbook and licensed maintenance come first.
      </Text>
    </View>
  );
}

const OTHER = "other equipment";
const NOT_LISTED = "none of these";

/** Which equipment does not work, if its checklist item leaves that open. Equipment that no item inspects comes first. */
function WhichEquipment({
  possible,
  chosen,
  onChoose,
}: {
  possible: readonly Equipment[];
  chosen: string | undefined;
  onChoose: (id: string | undefined) => void;
}) {
  const [all, setAll] = useState(false);
  const uninspected = possible.filter(({ items }) => items.length === 0);
  const inspected = possible.filter(({ items }) => items.length > 0);
  const shown = [
    ...uninspected,
    ...(all || uninspected.length === 0 ? inspected : inspected.filter(({ id }) => id === chosen)),
  ].map(({ id }) => id);
  return (
    <Choice
      title="What does not work?"
      options={[...shown, ...(shown.length < possible.length ? [OTHER] : []), NOT_LISTED]}
      value={chosen ?? NOT_LISTED}
      words={(id) =>
        possible.find((one) => one.id === id)?.name ?? (id === OTHER ? "Other equipment" : "None of these")
      }
      onChange={(id) => {
        setAll(id === OTHER);
        if (id !== OTHER) onChoose(id === NOT_LISTED ? undefined : id);
      }}
    />
  );
}

/** Answers so far with their source. */
function Trail({ outcome: { trail } }: { outcome: DeferralOutcome }) {
  return trail.map(({ question, ask, answer, from, because, source }) => (
    <View key={question} className="rounded-xl bg-stone px-3 py-2">
      <Text className="font-mid">{ask}</Text>
      <Text>{`${TOLD_WORDS[answer]}. ${because ?? ""}`}</Text>
      <Text className="text-sm text-voice">{`${from === "data" ? "On file" : "Your answer"} · ${source.text}${source.example ? " (example value)" : ""}`}</Text>
    </View>
  ));
}

function HowMany({
  count: { installed, out },
  onTold,
}: {
  count: NonNullable<DeferralOutcome["count"]>;
  onTold: (broken: number) => void;
}) {
  const options = Array.from({ length: Math.max(1, installed - out) }, (_, i) => String(i + 1));
  return (
    <Choice
      title={`How many of the ${installed} do not work?`}
      options={options}
      value={undefined}
      onChange={(answer) => onTold(Number(answer))}
      why={
        out > 0 ? `${out} ${out === 1 ? "is" : "are"} deferred already; count only the others.` : undefined
      }
    />
  );
}

/** The result, what must be confirmed, and who signs. */
function Result({
  outcome,
  role,
  today,
  onDefer,
}: {
  outcome: DeferralOutcome;
  role: CrewMember["role"] | undefined;
  today: string;
  onDefer: (until: string | undefined) => void;
}) {
  const { result, why, until, placard, deactivate, needs, needsDate, confirm = [] } = outcome;
  const [confirmed, setConfirmed] = useState<string[]>([]);
  const [day, setDay] = useState("");
  const signs = needs && role !== undefined && maySignDeferral(role, needs.signedBy);
  const ready = confirm.every((one) => confirmed.includes(one)) && (!needsDate || day >= today);
  return (
    <View className="gap-2" role="status" testID="deferral-result">
      <Text className={`font-strong text-xl ${result === "deferrable" ? "" : "text-clay"}`}>
        {result === "deferrable"
          ? "It can be deferred"
          : result === "ask first"
            ? "Ask first"
            : "It cannot be deferred"}
      </Text>
      <Text>{why}</Text>
      {until && <Text>{`Until ${until} at the latest.`}</Text>}
      {placard && <Text>{`Placard: ${placard}.`}</Text>}
      {deactivate && <Text>{`Deactivated: ${deactivate}.`}</Text>}
      {needs && !signs && (
        <Text className="font-mid text-clay">{`It must be signed by ${needs.signedBy.join(" or ")}.`}</Text>
      )}
      {result === "deferrable" && signs && (
        <>
          {confirm.map((one) => (
            <Toggle
              key={one}
              on={confirmed.includes(one)}
              className="items-start px-4"
              textClassName="text-base text-left"
              onPress={() =>
                setConfirmed(
                  confirmed.includes(one) ? confirmed.filter((done) => done !== one) : [...confirmed, one],
                )
              }
            >
              {one}
            </Toggle>
          ))}
          {needsDate && (
            <DateField label="Last day, as the list says" value={day} min={today} onChange={setDay} />
          )}
          <Button
            tone="primary"
            className="self-start px-6"
            testID="sign-deferral"
            disabled={!ready}
            onPress={() => onDefer(needsDate ? day : undefined)}
          >
            Defer
          </Button>
        </>
      )}
    </View>
  );
}

import { conditionText } from "@cravix/core/aircraft/condition-text";
import type { DistanceRisk } from "@cravix/core/departure/departure-risk";
import { abortText, distanceText, remedyText } from "@cravix/core/departure/departure-text";
import { frequencyFault, squawkFault } from "@cravix/core/departure/radio-sense";
import { subjectOfCause } from "@cravix/core/judgement/flight-subjects";
import { type Judgement, worstGrade } from "@cravix/core/judgement/judgement";
import { capital, formatNumber } from "@cravix/core/units/format";
import { notForNow } from "@cravix/core/weather/judge-report";
import { RUNWAY_CONDITIONS } from "@cravix/core/weather/weather-inputs";
import { type ReactNode, useEffect, useMemo, useState } from "react";
import { View } from "react-native";
import { distanceRiskOf } from "../../device/workers/departure-work";
import { useAppDispatch } from "../../store/state/hooks";
import { planned } from "../../store/state/planned-slice";
import { clockText } from "../../ui/day-and-time";
import { Screen } from "../../ui/frame/screen";
import { GRADE_WORD, GradeMark } from "../../ui/grade-mark";
import { Choice } from "../../ui/input/choice";
import { NavLink } from "../../ui/input/nav-link";
import { Stepper } from "../../ui/input/stepper";
import { TextField } from "../../ui/input/text-field";
import { Toggle } from "../../ui/input/toggle";
import { JudgementCard } from "../../ui/judgement-card";
import { PageHead } from "../../ui/page-head";
import { Heading, Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import { AircraftFrame, type KnownAircraft } from "../aircraft-frame";
import { LandingThere } from "./landing-there";
import { OpenSubjects } from "./open-subjects";
import { RunwayDrawing } from "./runway-drawing";
import { RunwaysTable } from "./runways-table";
import { type DepartureInHand, useDeparture } from "./use-departure";
import { WeatherEntry } from "./weather-entry";

/** Weather and performance planning; its inputs go into the preflight. */
export function DepartureScreen({
  registration,
  choose,
}: {
  registration: string;
  /** Choice of the aircraft, if this is the place of the house and not a page of one aircraft. */
  choose?: ReactNode;
}) {
  return (
    <AircraftFrame registration={registration}>
      {(aircraft) => <Plan aircraft={aircraft} choose={choose} />}
    </AircraftFrame>
  );
}

/** Current time, updated regularly, for ages. */
function useNow(): string {
  const [now, setNow] = useState(() => new Date().toISOString());
  useEffect(() => {
    const timer = setInterval(() => setNow(new Date().toISOString()), 30_000);
    return () => clearInterval(timer);
  }, []);
  return now;
}

const STEP_MIN = 30;

function Plan({ aircraft, choose }: { aircraft: KnownAircraft; choose: ReactNode }) {
  const { bundle, plan: all } = aircraft;
  const { registration } = bundle.aircraft;
  const now = useNow();
  const hand = useDeparture(aircraft, now);
  const wide = useWide();
  const { report } = hand.plan.weather ?? {};
  const unused = report && notForNow(report, now, hand.field?.station);
  const to =
    bundle.type.performance &&
    (bundle.fields ?? []).find(({ id }) => id === hand.plan.toId && id !== hand.field?.id);
  return (
    <Screen
      {...(!choose && { back: `/aircraft/${registration}/prepare` as const })}
      actions={<Brief hand={hand} performance={bundle.type.performance !== undefined} />}
    >
      {choose ? (
        <PageHead>Plan</PageHead>
      ) : (
        <PageHead
          title={`${registration} weather and performance`}
        >{`${registration}: weather and performance`}</PageHead>
      )}
      {choose}
      <View className="mt-3">
        <OpenSubjects judgements={hand.judgements} load={bundle.loading !== undefined && !all.load} />
      </View>
      <View className={wide ? "mt-3 flex-row gap-8" : "mt-3 gap-5"}>
        <View className={wide ? "flex-1 gap-5" : "gap-5"}>
          <When aircraft={aircraft} hand={hand} now={now} />
          <View className="gap-2">
            <Heading className="text-lg">Weather</Heading>
            <WeatherEntry
              field={hand.field}
              told={hand.plan.weather}
              now={now}
              flight={{ from: hand.at, to: hand.to }}
              onTold={(weather) => hand.set({ weather })}
            />
            <Proposed aircraft={aircraft} hand={hand} />
            <Choice
              title="Runway condition"
              options={RUNWAY_CONDITIONS}
              value={hand.plan.weather?.ground ?? "dry"}
              onChange={(ground) => hand.set({ weather: { ...hand.plan.weather, ground } })}
            />
          </View>
        </View>
        <View className={wide ? "flex-[1.2] gap-5" : "gap-5"}>
          <View className="gap-2">
            <Heading className="text-lg">Runways</Heading>
            {hand.choice ? (
              <RunwaysTable
                choice={hand.choice}
                chosen={hand.runwayId}
                onChoose={(runwayId) => hand.set({ runwayId })}
              />
            ) : (
              <Text className="text-voice">
                {unused
                  ? `${unused} Check the windsock.`
                  : report?.wind
                    ? "This field's position is not on file, so the report's wind cannot be converted to magnetic. Check the windsock."
                    : "Enter a weather report to compare the runways with the wind."}
              </Text>
            )}
          </View>
          <Distances aircraft={aircraft} hand={hand} />
          {to && (
            <LandingThere
              input={hand.input}
              to={to}
              told={hand.plan.weatherThere}
              now={now}
              arrival={hand.to}
              onTold={(weatherThere) => hand.set({ weatherThere })}
            />
          )}
          <Limits judgements={hand.judgements} />
          <Radio hand={hand} />
          <View className="flex-row flex-wrap gap-2">
            <NavLink
              href={`/aircraft/${registration}/carry`}
              className="min-h-14 items-center justify-center self-start rounded-xl border-2 border-ink px-4"
            >
              <Text className="font-strong">Flight summary to print</Text>
            </NavLink>
            <NavLink
              href={`/aircraft/${registration}/prepare`}
              className="min-h-14 items-center justify-center self-start rounded-xl border-2 border-ink px-4"
            >
              <Text className="font-strong">Go to the preflight</Text>
            </NavLink>
          </View>
          <Text className="text-sm text-voice">
            {`Calculated for a flight of ${all.flightMin} minutes. The limits and charts supplied are example values: the aircraft's own handbook, local rules and what you see come first.`}
          </Text>
        </View>
      </View>
    </Screen>
  );
}

function When({
  aircraft: { bundle, plan: all },
  hand,
  now,
}: {
  aircraft: KnownAircraft;
  hand: DepartureInHand;
  now: string;
}) {
  const fields = bundle.fields ?? [];
  const home = bundle.airfield?.id;
  const name = (id: string) => fields.find((one) => one.id === id)?.name ?? id;
  const ahead = hand.plan.at ? Math.round((Date.parse(hand.plan.at) - Date.parse(now)) / 60_000) : 0;
  const lands = new Date(Date.parse(hand.at) + all.flightMin * 60_000).toISOString();
  const sunset = hand.judgements.find(({ id }) => id === "light");
  return (
    <View className="gap-3">
      {fields.length > 1 && (
        <Choice
          title="From"
          options={[...fields]
            .sort((a, b) => Number(b.id === home) - Number(a.id === home))
            .map(({ id }) => id)}
          value={hand.field?.id}
          words={name}
          onChange={(fieldId) => hand.set({ fieldId: fieldId === home ? "" : fieldId, runwayId: "" })}
        />
      )}
      {fields.length > 1 && (
        <Choice
          title="To"
          options={["", ...fields.filter(({ id }) => id !== hand.field?.id).map(({ id }) => id)]}
          value={hand.plan.toId ?? ""}
          words={(id) => (id === "" ? "Same airfield" : name(id))}
          onChange={(toId) => hand.set({ toId, weatherThere: undefined })}
        />
      )}
      <View className="gap-1">
        <Heading className="text-lg">Take-off time</Heading>
        <Stepper
          text={ahead > 0 ? clockText(hand.at) : "now"}
          step={STEP_MIN}
          unit="minutes"
          testID="take-off-at"
          onStep={(by) => {
            const next = Math.min(24 * 60, Math.max(0, Math.round((ahead + by) / STEP_MIN) * STEP_MIN));
            hand.set({ at: next === 0 ? "" : new Date(Date.parse(now) + next * 60_000).toISOString() });
          }}
        />
        <Text
          className={sunset?.grade === "stop" ? "font-strong text-clay" : "text-sm text-voice"}
          testID="light"
        >
          {`Landing at ${clockText(lands)}. ${sunset?.sentence ?? ""}`}
        </Text>
      </View>
    </View>
  );
}

function Proposed({ aircraft, hand }: { aircraft: KnownAircraft; hand: DepartureInHand }) {
  const dispatch = useAppDispatch();
  const { plan, bundle } = aircraft;
  const open = hand.proposed.filter(
    ({ condition }) => !bundle.type.notOffered?.some((not) => not.condition === condition),
  );
  if (open.length === 0) return null;
  return (
    <View className="gap-1" testID="proposed">
      <Text className="font-mid">Suggested conditions, from the weather and the light:</Text>
      <View className="flex-row flex-wrap gap-2">
        {open.map(({ condition, why }) => (
          <Toggle
            key={condition}
            on={false}
            label={`${capital(conditionText(condition))}: ${why}`}
            onPress={() =>
              dispatch(
                planned({
                  registration: bundle.aircraft.registration,
                  conditions: [...plan.conditions, condition],
                }),
              )
            }
          >
            {`${capital(conditionText(condition))}: ${why}`}
          </Toggle>
        ))}
      </View>
    </View>
  );
}

function Brief({ hand, performance }: { hand: DepartureInHand; performance: boolean }) {
  const { departure, judgements } = hand;
  const grade = worstGrade(judgements.map((one) => one.grade));
  const bad = judgements.find((one) => one.grade === grade);
  const load = departure?.load;
  const outside = (load?.faults.length ?? 0) > 0;
  const words = outside
    ? `${GRADE_WORD.stop}: outside the loading limits`
    : grade === "stop" || grade === "ask" || grade === "unjudged"
      ? `${GRADE_WORD[grade]}: ${bad?.subject ?? ""}`
      : !departure?.takeOff && performance
        ? "Enter the weather and the load"
        : `Runway ${hand.runwayId ?? ""}: within limits`;
  return (
    <Text className="font-strong text-lg text-deck-ink" role="status" testID="departure-brief">
      {words}
    </Text>
  );
}

function Distances({ aircraft, hand }: { aircraft: KnownAircraft; hand: DepartureInHand }) {
  const { departure, remedies, input } = hand;
  const { registration } = aircraft.bundle.aircraft;
  const { type, loading } = aircraft.bundle;
  const risk = useRisk(hand);
  const missing = useMemo(() => [...new Set((departure?.missing ?? []).map(({ why }) => why))], [departure]);
  if (!type.performance) return null;
  const outside = departure?.load?.faults.length ?? 0;
  return (
    <View className="gap-2" testID="distances">
      <Heading className="text-lg">Distances</Heading>
      {departure?.takeOff && (
        <>
          <RunwayDrawing departure={departure} />
          <Line grade={departure.takeOff.leftM < 0 ? "stop" : "within limits"}>
            {distanceText("Take-off", departure.takeOff)}
          </Line>
          {departure.landing && (
            <Line grade={departure.landing.leftM < 0 ? "stop" : "within limits"}>
              {distanceText("Landing", departure.landing)}
            </Line>
          )}
          <Text className="font-mid">{`Abort point: ${abortText(departure)}`}</Text>
          {departure.climb && (
            <Text>
              {`Climb ${formatNumber(Math.floor(departure.climb.fpm / 10) * 10)} ft/min, ${formatNumber(departure.climb.gradientPercent, 1)} %${departure.climb.aboveFt !== undefined && input?.runway.beyond ? `: ${formatNumber(Math.round(departure.climb.aboveFt))} ft over ${input.runway.beyond.what}` : ""}.`}
            </Text>
          )}
          {departure.accelerateStop && (
            <Line grade={departure.accelerateStop.leftM < 0 ? "ask" : "within limits"}>
              {`Accelerate-stop distance: ${formatNumber(Math.ceil(departure.accelerateStop.neededM))} of ${formatNumber(departure.accelerateStop.availableM)} m available.`}
            </Line>
          )}
          {departure.oneEngine && (
            <Line grade={departure.oneEngine.fpm <= 0 ? "note" : "within limits"}>
              {departure.oneEngine.fpm > 0
                ? `Climb on one engine: ${formatNumber(Math.floor(departure.oneEngine.fpm / 10) * 10)} ft/min.`
                : "No climb on one engine today: the aircraft will descend."}
            </Line>
          )}
          {risk && (
            <Text className="text-sm text-voice" testID="worst-case">
              {`Reasonable worst case for wind, temperature, mass and technique: ${formatNumber(risk.likelyMostM)} m to 50 ft in 95 of 100 take-offs${risk.tooShortPercent >= 0.5 ? `; in ${formatNumber(risk.tooShortPercent)} of 100 the runway is too short` : ""}.`}
            </Text>
          )}
          <Text className="text-sm text-voice">
            {`Factors applied: ${departure.takeOff.factors.map(({ what, by }) => `${what} × ${formatNumber(by, 2)}`).join(", ") || "none, chart value only"}. Safety factor: ${departure.takeOff.safety.source.text}.`}
          </Text>
        </>
      )}
      {remedies.length > 0 && (
        <View className="gap-1" testID="remedies">
          <Text className="font-strong">Ways to get within limits</Text>
          {remedies.slice(0, 4).map((remedy, i) => (
            <Text key={JSON.stringify(remedy)} className={i === 0 ? "font-strong" : ""}>
              {remedyText(remedy, loading?.stations)}
            </Text>
          ))}
        </View>
      )}
      {departure?.takeOff &&
        departure.assumed.map((words) => (
          <Text key={words} className="font-mid">
            {words}
          </Text>
        ))}
      {missing.map((why) => (
        <Text key={why} className="text-voice">
          {why}
        </Text>
      ))}
      <NavLink
        href={`/aircraft/${registration}/loading`}
        className="min-h-14 items-center justify-center self-start rounded-xl border-2 border-ink px-4"
      >
        <Text className="font-strong">
          {departure?.takeoffKg === undefined
            ? "Enter the load"
            : `${formatNumber(departure.takeoffKg)} kg at take-off${outside > 0 ? ", outside limits" : ", within limits"}: mass and balance`}
        </Text>
      </NavLink>
    </View>
  );
}

/** Risk from ten thousand simulated take-offs, in a worker. */
function useRisk({ input, departure }: DepartureInHand): DistanceRisk | undefined {
  const [risk, setRisk] = useState<DistanceRisk>();
  const key = JSON.stringify([
    input?.load,
    input?.wind,
    input?.runway.id,
    input?.celsius,
    input?.settingHpa,
    input?.state,
  ]);
  const reckoned = departure?.takeOff !== undefined;
  // biome-ignore lint/correctness/useExhaustiveDependencies: recalculate only when a number changes
  useEffect(() => {
    setRisk(undefined);
    if (!input || !reckoned) return undefined;
    let left = false;
    distanceRiskOf(input).then(
      (made) => {
        if (!left) setRisk(made);
      },
      () => undefined,
    );
    return () => {
      left = true;
    };
  }, [key, reckoned]);
  return risk;
}

function Line({ grade, children }: { grade: Judgement["grade"]; children: string }) {
  return (
    <View className="flex-row gap-2">
      <View className="pt-0.5">
        <GradeMark grade={grade} size={20} />
      </View>
      <Text className={`shrink ${grade === "stop" ? "font-strong text-clay" : ""}`}>{children}</Text>
    </View>
  );
}

/**
 * Judgements against rules, aircraft limits, authorisation and personal minimums; distances and daylight are shown with their
 * calculation.
 */
function Limits({ judgements }: { judgements: readonly Judgement[] }) {
  const own = judgements.filter(
    ({ id, cause, grade }) =>
      !id.startsWith("distance.") && id !== "light" && !(grade === "unjudged" && subjectOfCause(cause)),
  );
  if (own.length === 0) return null;
  const [bad, good] = [
    own.filter(({ grade }) => grade !== "within limits"),
    own.filter(({ grade }) => grade === "within limits"),
  ];
  return (
    <View className="gap-2" testID="limits">
      <Heading className="text-lg">Limits</Heading>
      {bad.map((judgement) => (
        <JudgementCard key={judgement.id} judgement={judgement} compact />
      ))}
      {good.map((judgement) => (
        <Line key={judgement.id} grade="within limits">{`${judgement.subject}: ${judgement.sentence}`}</Line>
      ))}
      <Text className="text-sm text-voice">
        The strictest limit applies. Your personal minimums and your solo authorisation are saved with the
        preflight when it starts.
      </Text>
    </View>
  );
}

function Radio({ hand }: { hand: DepartureInHand }) {
  const { squawk = "", frequency = "", turnBackFt } = hand.plan;
  const [height, setHeight] = useState(turnBackFt === undefined ? "" : String(turnBackFt));
  const feet = Number(height);
  const heightFault =
    height.trim() !== "" && !(feet > 0 && feet <= 5000)
      ? "Enter feet above the field, up to 5,000."
      : undefined;
  return (
    <View className="gap-2">
      <Heading className="text-lg">Radio, transponder, turn-back height</Heading>
      <View className="flex-row flex-wrap gap-3">
        <View className="min-w-[45%] flex-1">
          <TextField
            label="Transponder"
            value={squawk}
            onChange={(value) => hand.set({ squawk: value })}
            maxLength={4}
            numeric
            placeholder="7000"
            fault={squawk === "" ? undefined : squawkFault(squawk)}
          />
        </View>
        <View className="min-w-[45%] flex-1">
          <TextField
            label="Frequency, MHz"
            value={frequency}
            onChange={(value) => hand.set({ frequency: value })}
            maxLength={7}
            numeric
            placeholder="122.705"
            fault={frequency === "" ? undefined : frequencyFault(frequency)}
          />
        </View>
      </View>
      <TextField
        label="Minimum turn-back height, ft above the field (set by you or your instructor; Cravix suggests none)"
        value={height}
        onChange={(value) => {
          setHeight(value);
          const told = Number(value);
          hand.set({ turnBackFt: value.trim() !== "" && told > 0 && told <= 5000 ? told : 0 });
        }}
        maxLength={5}
        numeric
        fault={heightFault}
      />
      <Text className="text-sm text-voice">
        Below this height you will land ahead after an engine failure.
      </Text>
    </View>
  );
}

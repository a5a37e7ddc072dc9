import { spokenDate } from "@cravix/core/airworthiness/calendar/local-date";
import { composeBriefing } from "@cravix/core/departure/briefing";
import { abortText, distanceText } from "@cravix/core/departure/departure-text";
import { forecastLines } from "@cravix/core/departure/judge-forecast";
import { armOf } from "@cravix/core/mass-and-balance/load-path";
import { capital, formatNumber, formatQuantity } from "@cravix/core/units/format";
import { provenance, reportLines } from "@cravix/core/weather/judge-report";
import { windText } from "@cravix/core/weather/report";
import type { ReactNode } from "react";
import { View } from "react-native";
import { clockText } from "../../ui/day-and-time";
import { Screen } from "../../ui/frame/screen";
import { Button } from "../../ui/input/button";
import { PageHead } from "../../ui/page-head";
import { Heading, Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import { AircraftFrame, type KnownAircraft } from "../aircraft-frame";
import { RunwayDrawing } from "./runway-drawing";
import { useDeparture } from "./use-departure";

/**
 * Flight summary on one page: load, distances, winds, abort point, briefing, as planned; printable, or saved as PDF by the
 * browser, offline too.
 */
export function CarryScreen({ registration }: { registration: string }) {
  return (
    <AircraftFrame registration={registration}>{(aircraft) => <Carry aircraft={aircraft} />}</AircraftFrame>
  );
}

function Carry({ aircraft }: { aircraft: KnownAircraft }) {
  const { bundle, plan } = aircraft;
  const { registration } = bundle.aircraft;
  const now = new Date().toISOString();
  const {
    departure,
    choice,
    field,
    input,
    at,
    to: landing,
    plan: told,
    judgements,
  } = useDeparture(aircraft, now);
  const wide = useWide();
  const { report, forecast } = told.weather ?? {};
  const to = (bundle.fields ?? []).find(({ id }) => id === told.toId)?.name;
  const takeOff = departure?.load?.points.find(({ name }) => name === "take-off");
  const against = judgements.filter(({ grade }) => grade !== "within limits");
  const steps =
    departure &&
    composeBriefing({
      type: bundle.type,
      departure,
      ...(report?.wind && { windWords: windText(report.wind) }),
      ...(told.turnBackFt && { turnBackFt: told.turnBackFt }),
      ...(plan.launch && { launch: plan.launch }),
    });
  return (
    <Screen
      back={`/aircraft/${registration}/plan`}
      actions={
        <Button tone="primary" className="min-h-16" testID="primary" onPress={() => window.print()}>
          Print or save as PDF
        </Button>
      }
    >
      <PageHead title={`${registration} flight summary`}>{`${registration}: flight summary`}</PageHead>
      <Text className="text-sm">
        {`${field?.name ?? ""}${to ? ` to ${to}` : ""}, ${spokenDate(at.slice(0, 10))}, take-off ${clockText(at)}, ${formatQuantity({ value: plan.flightMin, unit: "min" })}. Planned figures, prepared ${clockText(now)}.`}
      </Text>
      <View className={wide ? "mt-2 flex-row gap-6" : "mt-2 gap-3"} testID="carry">
        <View className={wide ? "flex-1 gap-3" : "gap-3"}>
          <Part title="Mass and balance">
            {takeOff && bundle.loading ? (
              <>
                <Text className="text-sm">
                  {`${formatNumber(takeOff.kg)} kg at take-off (maximum ${formatNumber(bundle.loading.maxTakeoffKg.value)}), CG ${formatNumber(armOf(takeOff))} mm; ${departure?.load?.faults.length ? "OUTSIDE LIMITS" : "within limits down to zero fuel"}.`}
                </Text>
                <Text className="text-sm">
                  {[
                    ...bundle.loading.stations.flatMap(({ id, name }) => {
                      const kg = plan.load?.stations[id] ?? 0;
                      return kg > 0 ? [`${name} ${formatNumber(kg)} kg`] : [];
                    }),
                    ...Object.entries(input?.load?.litres ?? {}).map(
                      ([tank, litres]) => `${tank} ${formatNumber(litres)} L`,
                    ),
                  ].join(", ")}
                </Text>
              </>
            ) : (
              <Missing>
                {departure?.missing.find(({ what }) => what === "load")?.why ?? "No load entered."}
              </Missing>
            )}
          </Part>
          <Part title="Weather">
            {report ? (
              <>
                <Text className="text-sm">{`${capital(provenance(report, now))}.`}</Text>
                {reportLines(report).map(({ what, words }) => (
                  <Text key={what} className="text-sm">{`${what}: ${words}`}</Text>
                ))}
                <Text className="text-xs text-voice">{report.raw}</Text>
              </>
            ) : (
              <Missing>No weather report.</Missing>
            )}
            {forecast && (
              <>
                {forecastLines(forecast, at, landing).map(({ what, words }) => (
                  <Text
                    key={what + words}
                    className="text-sm"
                  >{`Forecast, ${what.toLowerCase()}: ${words}`}</Text>
                ))}
                <Text className="text-xs text-voice">{forecast.raw}</Text>
              </>
            )}
          </Part>
          <Part title="Winds">
            {choice ? (
              choice.runways.map(({ runway, alongKt, crossKt, tailKt }) => (
                <Text key={runway.id} className="text-sm">
                  {`${runway.id}: ${tailKt > 0.5 ? `${formatNumber(tailKt)} kt tailwind` : `${formatNumber(Math.max(0, alongKt))} kt headwind`}, ${formatNumber(crossKt)} kt crosswind`}
                </Text>
              ))
            ) : (
              <Missing>No weather report: runway winds are not calculated.</Missing>
            )}
          </Part>
          {(told.squawk || told.frequency) && (
            <Part title="Radio and transponder">
              <Text className="text-sm">
                {[told.squawk && `Transponder ${told.squawk}`, told.frequency && `${told.frequency} MHz`]
                  .filter(Boolean)
                  .join(", ")}
              </Text>
            </Part>
          )}
        </View>
        <View className={wide ? "flex-[1.2] gap-3" : "gap-3"}>
          <Part title={`Distances${departure ? `, runway ${departure.runway.id}` : ""}`}>
            {departure?.takeOff ? (
              <>
                <RunwayDrawing departure={departure} />
                <Text className="text-sm">{distanceText("Take-off", departure.takeOff)}</Text>
                {departure.landing && (
                  <Text className="text-sm">{distanceText("Landing", departure.landing)}</Text>
                )}
                <Text className="font-strong">{`Abort point: ${abortText(departure)}`}</Text>
              </>
            ) : (
              <Missing>{departure?.missing[0]?.why ?? "Not calculated."}</Missing>
            )}
          </Part>
          {against.length > 0 && (
            <Part title="Warnings">
              {against.map(({ id, subject, sentence }) => (
                <Text key={id} className="text-sm">{`${subject}: ${sentence}`}</Text>
              ))}
            </Part>
          )}
          <Part title="Briefing">
            {steps ? (
              steps.map(({ id, title, words }) => (
                <Text key={id} className="text-sm">
                  <Text className="font-strong text-sm">{`${title}. `}</Text>
                  {words}
                </Text>
              ))
            ) : (
              <Missing>Choose a runway and enter a weather report to get the briefing.</Missing>
            )}
          </Part>
          <Text className="text-xs text-voice">
            Example values where nothing else is on file. The aircraft's handbook, local rules and what you
            see come first. The preflight calculates again with the fuel you dip.
          </Text>
        </View>
      </View>
    </Screen>
  );
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <View className="gap-0.5 border-t-2 border-ink pt-1">
      <Heading className="text-base">{title}</Heading>
      {children}
    </View>
  );
}

const Missing = ({ children }: { children: string }) => (
  <Text className="text-sm text-voice">{children}</Text>
);

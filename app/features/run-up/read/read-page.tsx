import type { Observation } from "@cravix/core/diagnosis";
import type { MagnetoSideOrder } from "@cravix/core/run-up";
import { PLUGS, type RunUpEngine, sideNames, unreadSides } from "@cravix/core/run-up-entry";
import { View } from "react-native";
import { clockText } from "../../../ui/day-and-time";
import { Screen } from "../../../ui/frame/screen";
import { Button } from "../../../ui/input/button";
import { PageHead } from "../../../ui/page-head";
import { Text } from "../../../ui/text";
import type { LoadedPreflight } from "../../open-preflight";
import { Guess, Planting } from "../practice/guess";
import { simulatedFaultText } from "../practice/random-scenario";
import type { SimulatedFaultChoice } from "../practice/simulated-fault";
import { PilotQuestions } from "./pilot-questions";
import { NotCleared, ResultActions } from "./result-parts";
import { Results } from "./results";
import { engineWithAnswers, type ReadRunUp } from "./use-read-run-up";

/** A run-up read from a trace: questions, results, next steps. */
export function ReadPage({
  preflight,
  engine,
  read,
  planted,
  guess,
  wide,
  onGuess,
  onTell,
  onClear,
  onAgain,
  onType,
  onEmergency,
  onDone,
}: {
  preflight: LoadedPreflight;
  engine: RunUpEngine;
  read: ReadRunUp;
  planted: SimulatedFaultChoice;
  /** The learner's answer. */
  guess: string | undefined;
  wide: boolean;
  onGuess: (kind: string) => void;
  onTell: (
    told: Observation[],
    change?: { asked?: ReadRunUp["asked"][number]; sides?: MagnetoSideOrder },
  ) => void;
  onClear: () => void;
  onAgain: () => void;
  /** Enter values by hand instead of a file. */
  onType: () => void;
  onEmergency: () => void;
  onDone: () => void;
}) {
  const { profile } = engine;
  const [next] = read.answer.report.next;
  const best = read.answer.report.ranked[0]?.fault;
  // Another clearing attempt, up to the type's maximum.
  const tried = read.tries > 0 && !read.answer.remedied && best !== undefined && PLUGS.has(best);
  const clears =
    read.source === "monitor" && !read.answer.remedied && ((next?.id === "clear" && best) || tried);
  const used = read.tries >= profile.clear.tries;
  const practice = read.practice === true;
  const guessing = practice && planted.secret && guess === undefined && read.tries === 0;
  const [question] = guessing ? [] : read.answer.questions;
  // With unidentified sides, their numbers are entered at the checklist items.
  const { reading } = read.answer;
  const unnamed = reading.unnamed && reading.tries.length > 0;
  const shown = engineWithAnswers(engine, read);
  const unread = unreadSides(reading, sideNames(shown.profile));
  const over = used && Boolean(clears) && !guessing;
  const offers = Boolean(clears) && !used && !guessing;
  return (
    <Screen
      actions={
        <ResultActions
          minute={
            offers && {
              words: tried ? "Repeat plug clearing (1 min)" : "Start plug clearing (1 min)",
              testID: "start-minute",
              onPress: onClear,
            }
          }
          again={{ words: "Repeat run-up", onPress: onAgain }}
          onEmergency={onEmergency}
          onward={
            practice
              ? { words: "End practice", testID: "end-practice", onPress: onDone }
              : {
                  words: unnamed ? "Log the other numbers" : "Log these numbers",
                  testID: "use-numbers",
                  onPress: onDone,
                }
          }
        />
      }
    >
      <PageHead className="mb-2 text-2xl">{`${preflight.list.registration}: ${practice ? "practice" : "run-up"}${engine.name ? `, ${engine.name} engine` : ""}`}</PageHead>
      {practice && !guessing && (
        <Planting
          words={simulatedFaultText(planted, sideNames(profile))}
          truth={planted.fault.kind}
          {...(guess !== undefined && { guess })}
        />
      )}
      {read.kept && (
        <View role="status" className="mb-3 border-l-4 border-chock pl-2" testID="saved-run-up">
          <Text className="font-mid">{`Run-up of ${clockText(read.at)} saved on this device, not logged yet.`}</Text>
        </View>
      )}
      {over && <NotCleared tries={profile.clear.tries} />}
      {question && (
        <PilotQuestions
          question={question}
          onAnswer={({ told, sides }) => onTell(told, { asked: question.id, ...(sides && { sides }) })}
        />
      )}
      {read.source === "file" && (best !== undefined || unread) && (
        <View className="mb-3 gap-2 border-l-4 border-chock pl-2" testID="file-alone">
          <Text className="font-mid">
            {best === undefined
              ? `The file does not show ${unread}. Enter what you saw; the values it does show are filled in.`
              : "From the file alone: it does not record when the ignition was switched, so it cannot stop the flight by itself. Enter the numbers you saw, or repeat the run-up."}
          </Text>
          <Button textClassName="text-base" onPress={onType} testID="file-type">
            Enter the numbers
          </Button>
        </View>
      )}
      <Results
        preflight={preflight}
        engine={shown}
        answer={read.answer}
        trace={read.trace}
        source={read.source}
        wide={wide}
        over={over}
        {...(guessing && {
          lesson: <Guess answer={read.answer} truth={planted.fault.kind} onGuess={onGuess} />,
        })}
        onTried={(observation) => onTell([observation])}
      />
    </Screen>
  );
}

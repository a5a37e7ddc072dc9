import { walkaroundOrder } from "@cravix/core/aircraft/preferences";
import { type OrderResult, respectsPrecedence, routeLengthM } from "@cravix/core/route/best-order";
import { actualRoute, type RouteProblem, routeProblem } from "@cravix/core/route/route-problem";
import { useEffect, useMemo, useState } from "react";
import { searchRoute } from "../../device/workers/route-search";
import type { KnownAircraft } from "../aircraft-frame";

export interface RouteOfPilot {
  problem: RouteProblem | undefined;
  failure: string;
  best?: OrderResult;
  own: number[];
  ownMetres: number;
  ownKeepsRules: boolean;
  usual?: { walks: number; metres: number; backtrackMetres: number; returns: number };
}

/** This pilot's route length, usual earlier routes, and the shortest route. */
export function useRoute({ bundle, preferences, crewId }: KnownAircraft): RouteOfPilot {
  const problem = useMemo(() => routeProblem(bundle.type), [bundle.type]);
  const [best, setBest] = useState<OrderResult>();
  const [failure, setFailure] = useState("");
  useEffect(() => {
    if (!problem) return;
    let current = true;
    // Paint the page before searching.
    const timer = setTimeout(() => {
      searchRoute(problem).then(
        (found) => current && setBest(found),
        (error: Error) => current && setFailure(error.message),
      );
    }, 50);
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [problem]);
  return useMemo(() => {
    if (!problem) return { problem, failure, own: [], ownMetres: 0, ownKeepsRules: true };
    const own = walkaroundOrder(problem.stations, preferences).map((station) =>
      problem.stations.indexOf(station),
    );
    const walks = bundle.walks.filter(
      (preflight) => preflight.crewId === crewId && preflight.visits.length > 0,
    );
    const walked = walks.map((preflight) => actualRoute(problem, preflight.visits));
    const mean = (pick: (lap: (typeof walked)[number]) => number) =>
      walked.reduce((sum, lap) => sum + pick(lap), 0) / walked.length;
    return {
      problem,
      failure,
      ...(best && { best }),
      own,
      ownMetres: routeLengthM(problem, own),
      ownKeepsRules: respectsPrecedence(own, problem.precedence ?? []),
      ...(walked.length > 0 && {
        usual: {
          walks: walked.length,
          metres: mean((lap) => lap.metres),
          backtrackMetres: mean((lap) => lap.backtrackMetres),
          returns: mean((lap) => lap.returns),
        },
      }),
    };
  }, [problem, best, failure, bundle.walks, preferences, crewId]);
}

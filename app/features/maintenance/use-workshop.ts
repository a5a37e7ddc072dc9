import { type OnShelf, useWorkshopQuery } from "../../store/server/records-api";
import { useAppSelector } from "../../store/state/hooks";

export type { OnShelf } from "../../store/server/records-api";

const EMPTY: OnShelf[] = [];

/** The published workshop plan and components in storage; the last known ones if the server cannot be reached. */
export function useWorkshop() {
  const { data, isError } = useWorkshopQuery(undefined, { refetchOnMountOrArgChange: true });
  const away = useAppSelector((state) => state.sync.server === "not reached");
  return {
    plan: data?.plan ?? (isError ? null : undefined),
    shelf: data?.shelf ?? EMPTY,
    known: data !== undefined || isError,
    away,
  };
}

import { useAppSelector } from "../../store/state/hooks";
import { DAY, NIGHT, type Palette } from "./palette";

export function usePalette(): Palette {
  return useAppSelector((state) => state.session.night) ? NIGHT : DAY;
}

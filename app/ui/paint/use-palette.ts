import { useAppSelector } from "../../store/hooks";
import { DAY, NIGHT, type Palette } from "./palette";

export function usePalette(): Palette {
  return useAppSelector((state) => state.session.night) ? NIGHT : DAY;
}

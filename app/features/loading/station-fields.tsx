import type { LoadingProfile } from "@cravix/core/mass-and-balance/loading-profile";
import { capital } from "@cravix/core/units/format";
import { View } from "react-native";
import { TextField } from "../../ui/input/text-field";
import { entryDoubt, entryFault, type MassUnit } from "./load-draft";

/** Mass fields by station. The pilot's has no zero placeholder, since it is never empty. */
export function StationFields({
  profile,
  unit,
  values,
  onChange,
}: {
  profile: LoadingProfile;
  unit: MassUnit;
  values: Record<string, string>;
  onChange: (values: Record<string, string>) => void;
}) {
  return profile.stations.map((station) => {
    const text = values[station.id] ?? "";
    return (
      <View key={station.id} className="min-w-[45%] flex-1">
        <TextField
          label={`${capital(station.name)}, ${unit}`}
          value={text}
          onChange={(value) => onChange({ ...values, [station.id]: value })}
          maxLength={8}
          numeric
          placeholder={station.pilot ? "" : "0"}
          fault={entryFault(text) ?? entryDoubt(text, unit, station)}
        />
      </View>
    );
  });
}

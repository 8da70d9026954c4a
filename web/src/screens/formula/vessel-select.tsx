import { useCraft } from "@/api/queries";
import { useBench } from "@/bench";
import { Select } from "@/ui/field";

const KINDS = {
  glass: "Glasses",
  ring: "Rings",
  shell: "Shells",
  mould: "Moulds",
  pan: "Pans",
} as const;

interface VesselSelectProps {
  label: string;
  none: string;
  value: string;
  disabled: boolean;
  error: string | null;
  pans?: boolean;
  onKey: (key: string) => void;
}

/** The kitchen's own vessels by kind, then the library; `pans`: only what moulds can stand in. */
export function VesselSelect({
  label,
  none,
  value,
  disabled,
  error,
  pans,
  onKey,
}: VesselSelectProps) {
  const { kitchen } = useBench();
  const craft = useCraft();
  const library = craft.data?.vessels.filter((v) => !pans || v.takes_a_bath) ?? [];
  return (
    <Select
      label={label}
      value={value}
      disabled={disabled}
      error={error}
      onChange={(event) => onKey(event.target.value)}
    >
      <option value="">{none}</option>
      {(Object.keys(KINDS) as (keyof typeof KINDS)[]).map((kind) => {
        const own = kitchen.vessels.filter((v) => v.kind === kind && (!pans || v.shape === "rect"));
        return own.length ? (
          <optgroup key={kind} label={`${KINDS[kind]} of this kitchen`}>
            {own.map((v) => (
              <option key={v.id} value={v.id}>
                {v.name}
              </option>
            ))}
          </optgroup>
        ) : null;
      })}
      <optgroup label="Library">
        {library.map((v) => (
          <option key={v.key} value={v.key}>
            {v.name}
          </option>
        ))}
      </optgroup>
    </Select>
  );
}

import { useCraft } from "@/api/queries";
import { useBench } from "@/bench";
import { Choice } from "@/ui/choice";
import type { Group } from "@/ui/narrowed";

const OWN = {
  glass: "Glasses of this kitchen",
  ring: "Rings of this kitchen",
  shell: "Shells of this kitchen",
  mould: "Moulds of this kitchen",
  pan: "Pans of this kitchen",
} as const;
const LIBRARY = {
  small: "Ramekins, pots and dishes",
  mould: "Large moulds",
  pie_tart: "Pies, tarts and rings",
  cake: "Springforms, cake and loaf tins",
  pan: "Pans and trays",
  gastronorm: "Gastronorm pans",
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
  const own = kitchen.vessels.filter((v) => !pans || v.shape === "rect");
  const groups: Group[] = [
    { name: null, options: [{ value: "", label: none }] },
    ...Object.entries(OWN).map(([kind, name]) => ({
      name,
      options: own.filter((v) => v.kind === kind).map((v) => ({ value: v.id, label: v.name })),
    })),
    ...Object.entries(LIBRARY).map(([kind, name]) => ({
      name,
      options: library.filter((v) => v.kind === kind).map((v) => ({ value: v.key, label: v.name })),
    })),
  ];
  return (
    <Choice
      label={label}
      groups={groups.filter((group) => group.options.length > 0)}
      value={value}
      disabled={disabled}
      error={error}
      onValue={onKey}
    />
  );
}

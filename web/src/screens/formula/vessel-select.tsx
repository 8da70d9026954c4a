import { useCraft } from "@/api/queries";
import { useBench } from "@/bench";
import { Choice } from "@/ui/choice";
import type { Group } from "@/ui/narrowed";
import { say } from "@/say";

const OWN = {
  glass: say("formula.glasses_of_this_kitchen"),
  ring: say("formula.rings_of_this_kitchen"),
  shell: say("formula.shells_of_this_kitchen"),
  mould: say("formula.moulds_of_this_kitchen"),
  pan: say("formula.pans_of_this_kitchen"),
} as const;
const LIBRARY = {
  small: say("formula.ramekins_pots_and_dishes"),
  mould: say("formula.large_moulds"),
  pie_tart: say("formula.pies_tarts_and_rings"),
  cake: say("formula.springforms_cake_and_loaf_tins"),
  pan: say("formula.pans_and_trays"),
  gastronorm: say("formula.gastronorm_pans"),
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

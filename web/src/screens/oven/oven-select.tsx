import { useBench } from "@/bench";
import { Select } from "@/ui/field";
import { OVEN_KINDS } from "@/words";
import { say } from "@/say";

interface Props {
  value: number | null | undefined;
  disabled: boolean;
  error?: string | null;
  onOven: (id: number | null) => void;
}

/** Which of the kitchen's ovens; its first where none is chosen. */
export function OvenSelect({ value, disabled, error, onOven }: Props) {
  const { ovens } = useBench().kitchen;
  return (
    <Select
      label={say("oven.oven")}
      value={value ?? ovens[0]?.id ?? null}
      disabled={disabled}
      error={error}
      options={
        ovens.length === 0
          ? [[null, say("oven.an_ordinary_static_oven")]]
          : ovens.map((o) => [o.id, `${o.name}, ${OVEN_KINDS[o.kind]}`])
      }
      onValue={onOven}
    />
  );
}

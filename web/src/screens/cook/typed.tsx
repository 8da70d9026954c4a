import { useState } from "react";

import { Button } from "@/ui/button";
import { Dialog } from "@/ui/dialog";
import { Input } from "@/ui/field";
import { toCelsius, type Units } from "@/units";
import { say } from "@/say";

/** A reading from a hand thermometer, typed. */
export function TypedReading({
  units,
  onReading,
}: {
  units: Units;
  onReading: (tempC: number) => void;
}) {
  const [open, setOpen] = useState(false);
  const [text, setText] = useState("");
  const value = toCelsius(Number(text.replace(",", ".")), units);
  const wrong = text.trim() !== "" && (Number.isNaN(value) || value < -30 || value > 250);
  const unit = units === "us" ? "°F" : "°C";
  return (
    <>
      <Button className="!px-5" onClick={() => setOpen(true)}>
        {say("cook.type_a_reading")}
      </Button>
      <Dialog
        open={open}
        onClose={() => setOpen(false)}
        title={say("cook.what_does_the_thermometer_say")}
      >
        <form
          onSubmit={(event) => {
            event.preventDefault();
            if (wrong || text.trim() === "") return;
            onReading(Math.round(value * 10) / 10);
            setText("");
            setOpen(false);
          }}
        >
          <Input
            label={say("cook.temperature", { unit })}
            inputMode="decimal"
            autoFocus
            value={text}
            error={wrong ? say("cook.a_number_in_please_one_a", { unit }) : null}
            onChange={(event) => setText(event.target.value)}
          />
          <div className="mt-5 flex gap-3">
            <Button kind="act" type="submit" disabled={wrong || text.trim() === ""}>
              {say("cook.into_the_curve")}
            </Button>
            <Button kind="quiet" onClick={() => setOpen(false)}>
              {say("cook.not_now")}
            </Button>
          </div>
        </form>
      </Dialog>
    </>
  );
}

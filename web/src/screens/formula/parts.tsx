import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";

import { ApiError, client, must, type Shapes } from "@/api/client";
import { useBench } from "@/bench";
import { blankContent } from "@/keep/blank";
import { newId } from "@/keep/id";
import { KINDS, partQuery, type Part, type PartKind } from "@/screens/formula/part";
import { Button } from "@/ui/button";
import { Dialog } from "@/ui/dialog";
import { Input, Select } from "@/ui/field";
import { say } from "@/say";

interface Props {
  dessert: Shapes["DessertOut"];
  part: Part;
  choose: (id: string) => void;
}

const WAY =
  "flex min-h-12 items-center underline decoration-rule underline-offset-4 hover:decoration-burnt";

/** The parts of the dessert in the order they are made, and what can be done with it whole. */
export function Parts({ dessert, part, choose }: Props) {
  const { kid, canEdit } = useBench();
  const [open, setOpen] = useState<"new" | "this" | null>(null);
  const several = dessert.parts.length > 1;
  const versions = part.versions;
  const query = partQuery(dessert, part);
  return (
    <div className="caption mb-3 flex flex-wrap items-center gap-x-5 border-b border-rule">
      {several && (
        <ol
          className="flex flex-wrap items-center"
          aria-label={say("formula.parts_of_the_dessert")}
        >
          {dessert.parts.map((p, i) => (
            <li key={p.id} className="flex items-center">
              {i > 0 && (
                <span aria-hidden="true" className="px-2">
                  +
                </span>
              )}
              <button
                type="button"
                aria-current={p.id === part.id ? "true" : undefined}
                className="min-h-12 border-b-[3px] border-transparent px-1 text-base text-ink aria-[current=true]:border-burnt aria-[current=true]:font-semibold"
                onClick={() => choose(p.id)}
              >
                {p.name}
              </button>
            </li>
          ))}
        </ol>
      )}
      {canEdit && (
        <button type="button" className={WAY} onClick={() => setOpen("new")}>
          {say("formula.add_a_part")}
        </button>
      )}
      {canEdit && (
        <button type="button" className={WAY} onClick={() => setOpen("this")}>
          {several
            ? say("formula.change_this_part")
            : say("formula.kind", { kinds: KINDS[part.kind] })}
        </button>
      )}
      <span className="ml-auto flex flex-wrap gap-x-5">
        <Link
          className={WAY}
          to={`/k/${kid}/compare?left=${(versions.at(-2) ?? versions.at(-1))?.id ?? ""}&right=${versions.at(-1)?.id ?? ""}`}
        >
          {say("formula.compare")}
        </Link>
        <Link className={WAY} to={`/k/${kid}/d/${dessert.id}/whole`}>
          {say("formula.the_dessert_whole")}
        </Link>
        <Link className={WAY} to={`/k/${kid}/d/${dessert.id}/card${query}`}>
          {say("formula.bench_card")}
        </Link>
      </span>
      {open === "new" && (
        <NewPart dessert={dessert} choose={choose} onClose={() => setOpen(null)} />
      )}
      {open === "this" && (
        <ThisPart dessert={dessert} part={part} choose={choose} onClose={() => setOpen(null)} />
      )}
    </div>
  );
}

function KindSelect({ kind, set }: { kind: PartKind; set: (kind: PartKind) => void }) {
  return (
    <Select
      label={say("formula.it_is_a")}
      value={kind}
      hint={say("formula.creams_and_fillings_are_judged_as")}
      options={KINDS}
      onValue={set}
    />
  );
}

function useTaken(dessert: Shapes["DessertOut"], onDone: (next: Shapes["DessertOut"]) => void) {
  const { kid } = useBench();
  const store = useQueryClient();
  return (next: Shapes["DessertOut"]) => {
    store.setQueryData(["dessert", kid, dessert.id], next);
    void store.invalidateQueries({ queryKey: ["total", kid, dessert.id] });
    void store.invalidateQueries({ queryKey: ["shelf", kid] });
    onDone(next);
  };
}

function NewPart({
  dessert,
  choose,
  onClose,
}: {
  dessert: Shapes["DessertOut"];
  choose: (id: string) => void;
  onClose: () => void;
}) {
  const { kid, kitchen } = useBench();
  const [kind, setKind] = useState<PartKind>("crust");
  const [name, setName] = useState("");
  const [ids] = useState(() => ({ id: newId(), version_id: newId() }));
  const taken = useTaken(dessert, () => {
    choose(ids.id);
    onClose();
  });
  const add = useMutation({
    mutationFn: () =>
      must(
        client.POST("/api/k/{kid}/desserts/{dessert_id}/parts", {
          params: { path: { kid, dessert_id: dessert.id } },
          body: {
            ...ids,
            kind,
            name: name.trim() || KINDS[kind].replace(/^./, (c) => c.toUpperCase()),
            content: blankContent(kitchen),
          },
        }),
      ),
    onSuccess: taken,
  });
  return (
    <Dialog open onClose={onClose} title={say("formula.what_comes_with_it")}>
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          add.mutate();
        }}
      >
        <KindSelect kind={kind} set={setKind} />
        <Input
          label={say("formula.name_of_the_part")}
          value={name}
          maxLength={80}
          placeholder={say("formula.rye_crust")}
          error={add.error instanceof ApiError ? add.error.message : null}
          onChange={(event) => setName(event.target.value)}
        />
        <div className="flex gap-3">
          <Button kind="act" type="submit" disabled={add.isPending}>
            {say("formula.write_its_formula")}
          </Button>
          <Button kind="quiet" onClick={onClose}>
            {say("formula.not_now")}
          </Button>
        </div>
      </form>
    </Dialog>
  );
}

function useChangePart(dessert: Shapes["DessertOut"], part: Part) {
  const { kid } = useBench();
  const taken = useTaken(dessert, () => undefined);
  return useMutation({
    mutationFn: (body: Shapes["PartChange"]) =>
      must(
        client.PATCH("/api/k/{kid}/parts/{part_id}", {
          params: { path: { kid, part_id: part.id } },
          body,
        }),
      ),
    onSuccess: taken,
  });
}

/** Lines told as a filling that are none: what they read as, and one tap to say so. */
export function ReadsAs(props: { dessert: Shapes["DessertOut"]; part: Part; kind: PartKind }) {
  const { canEdit } = useBench();
  const change = useChangePart(props.dessert, props.part);
  if (!canEdit) return null;
  return (
    <Button
      kind="act"
      className="mt-3"
      disabled={change.isPending}
      onClick={() => change.mutate({ kind: props.kind })}
    >
      {say("formula.make_it_a", { kind: props.kind })}
    </Button>
  );
}

function ThisPart({
  dessert,
  part,
  choose,
  onClose,
}: {
  dessert: Shapes["DessertOut"];
  part: Part;
  choose: (id: string) => void;
  onClose: () => void;
}) {
  const { kid } = useBench();
  const [name, setName] = useState(part.name);
  const place = dessert.parts.findIndex((p) => p.id === part.id);
  const at = { params: { path: { kid, part_id: part.id } } };
  const taken = useTaken(dessert, () => undefined);
  const change = useChangePart(dessert, part);
  const drop = useMutation({
    mutationFn: () => must(client.DELETE("/api/k/{kid}/parts/{part_id}", at)),
    onSuccess: (next) => {
      choose(next.parts[0]?.id ?? "");
      taken(next);
      onClose();
    },
  });
  const error = change.error ?? drop.error;
  return (
    <Dialog open onClose={onClose} title={part.name}>
      <div className="grid gap-4">
        <Input
          label={say("formula.name_of_the_part")}
          value={name}
          maxLength={80}
          error={error instanceof ApiError ? error.message : null}
          onChange={(event) => setName(event.target.value)}
          onBlur={() => name.trim() && name !== part.name && change.mutate({ name: name.trim() })}
        />
        <KindSelect kind={part.kind} set={(kind) => change.mutate({ kind })} />
        <div className="flex flex-wrap gap-3">
          <Button
            disabled={place <= 0 || change.isPending}
            onClick={() => change.mutate({ position: place - 1 })}
          >
            {say("formula.made_earlier")}
          </Button>
          <Button
            disabled={place === dessert.parts.length - 1 || change.isPending}
            onClick={() => change.mutate({ position: place + 1 })}
          >
            {say("formula.made_later")}
          </Button>
          <Button
            kind="quiet"
            disabled={dessert.parts.length < 2 || drop.isPending}
            onClick={() => drop.mutate()}
          >
            {say("formula.take_it_out")}
          </Button>
          <Button kind="act" className="ml-auto" onClick={onClose}>
            {say("formula.done")}
          </Button>
        </div>
      </div>
    </Dialog>
  );
}

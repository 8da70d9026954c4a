import { useQuery } from "@tanstack/react-query";

import { client, must } from "@/api/client";
import { useBench } from "@/bench";
import { Failed, Loading } from "@/ui/states";
import { day, time } from "@/units";

const hoursSince = (iso: string) => (Date.now() - Date.parse(iso)) / 3_600_000;

/** The ring of backups on the machine that serves the kitchen. */
export function Backups() {
  const { kid } = useBench();
  const found = useQuery({
    queryKey: ["backups", kid],
    queryFn: () => must(client.GET("/api/k/{kid}/backups", { params: { path: { kid } } })),
  });
  return (
    <section aria-labelledby="backups">
      <h2 id="backups" className="mb-2 text-2xl">
        Kept for a bad day
      </h2>
      {found.isPending && <Loading what="the backups" />}
      {found.isError && <Failed error={found.error} again={() => void found.refetch()} />}
      {found.data && <Told {...found.data} />}
    </section>
  );
}

interface ToldProps {
  last_at: string | null;
  count: number;
  bytes: number;
  every_hours: number;
  keeps: number;
}

function Told({ last_at, count, bytes, every_hours, keeps }: ToldProps) {
  if (!every_hours) {
    return (
      <p>
        No backup is made by itself here. <code>./crumb backup FILE</code> makes one.
      </p>
    );
  }
  const late = last_at !== null && hoursSince(last_at) > 2 * every_hours;
  return (
    <>
      <p className="text-lg" role="status">
        {last_at === null ? (
          "None yet: the first is made within a minute of the start."
        ) : (
          <>
            The last one is of <b>{day(last_at)}</b>, {time(last_at)}
            {late && <b className="text-burnt"> — that is too long ago</b>}.
          </>
        )}
      </p>
      <p className="caption mt-1">
        {count} of up to {keeps} kept, {(bytes / 1_000_000).toFixed(1)} MB together; one every{" "}
        {every_hours} hours. <code>./crumb restore</code> puts one back.
      </p>
    </>
  );
}

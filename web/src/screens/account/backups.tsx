import { useQuery } from "@tanstack/react-query";

import { client, must } from "@/api/client";
import { useBench } from "@/bench";
import { Failed, Loading } from "@/ui/states";
import { day, time } from "@/units";
import { Say, say } from "@/say";

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
        {say("account.kept_for_a_bad_day")}
      </h2>
      {found.isPending && <Loading what={say("account.the_backups")} />}
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
        <Say code="account.no_backup_is_made_by_itself" components={{ code: <code /> }} />
      </p>
    );
  }
  const late = last_at !== null && hoursSince(last_at) > 2 * every_hours;
  return (
    <>
      <p className="text-lg" role="status">
        {last_at === null ? (
          say("account.none_yet_the_first_is_made")
        ) : (
          <>
            <Say
              code="account.the_last_one_is_of"
              values={{
                last_at: day(last_at),
                last_at2: time(last_at),
                late: late && <b className="text-burnt">{say("account.that_is_too_long_ago")}</b>,
              }}
              components={{ b: <b /> }}
            />
          </>
        )}
      </p>
      <p className="caption mt-1">
        <Say
          code="account.of_up_to_kept_mb_together"
          values={{
            count,
            keeps,
            bytes: (Math.ceil(bytes / 100_000) / 10).toFixed(1),
            every_hours,
          }}
          components={{ code: <code /> }}
        />
      </p>
    </>
  );
}

import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

import { client, must } from "@/api/client";
import { useSession } from "@/api/queries";
import { NewPassword } from "@/screens/account/new-password";
import { Button } from "@/ui/button";
import { Failed, Loading } from "@/ui/states";
import { day, time } from "@/units";
import { say } from "@/say";

const KNOWN = [
  ["Edg/", "Edge"],
  ["Firefox/", "Firefox"],
  ["Chrome/", "Chrome"],
  ["Safari/", "Safari"],
] as const;
const SYSTEMS = ["iPad", "iPhone", "Android", "Windows", "Mac OS X", "Linux"] as const;

/** A browser as a person would name it, from what it says of itself. */
function browserName(agent: string): string {
  const name = KNOWN.find(([mark]) => agent.includes(mark))?.[1] ?? say("account.a_browser");
  const system = SYSTEMS.find((mark) => agent.includes(mark));
  return system
    ? say("account.on", { name, system: system === "Mac OS X" ? say("account.a_mac") : system })
    : name;
}

/** My own password, and where I am signed in. */
export default function You() {
  const session = useSession();
  return (
    <div className="py-6">
      <title>{say("account.you_bell_crumb")}</title>
      <h1 className="mb-1 text-4xl">{session.data?.name}</h1>
      <p className="mb-6 text-soft">{session.data?.email}</p>
      <div className="grid gap-x-14 gap-y-9 lg:grid-cols-2">
        <section aria-labelledby="places">
          <h2 id="places" className="mb-2 text-2xl">
            {say("account.where_you_are_signed_in")}
          </h2>
          <SignedIn />
        </section>
        <section aria-labelledby="password">
          <h2 id="password" className="mb-3 text-2xl">
            {say("account.another_password")}
          </h2>
          <NewPassword word={say("account.change_it")} />
        </section>
      </div>
    </div>
  );
}

function SignedIn() {
  const store = useQueryClient();
  const places = useQuery({
    queryKey: ["signed-in"],
    queryFn: () => must(client.GET("/api/session/all")),
  });
  const end = useMutation({
    mutationFn: (id: string) =>
      must(
        client.DELETE("/api/session/all/{signed_in_id}", {
          params: { path: { signed_in_id: id } },
        }),
      ),
    onSuccess: (left) => store.setQueryData(["signed-in"], left),
  });
  const leave = useMutation({
    mutationFn: () => must(client.DELETE("/api/session")),
    onSuccess: (session) => {
      store.clear();
      store.setQueryData(["session"], session);
    },
  });
  if (places.isPending) return <Loading what={say("account.the_places")} />;
  if (places.isError) return <Failed error={places.error} again={() => void places.refetch()} />;
  return (
    <>
      <ul>
        {places.data.map((place) => (
          <li key={place.id} className="rule-b flex items-center justify-between gap-4 py-2">
            <span>
              {browserName(place.browser)}
              {place.here && <b className="ml-2">{say("account.here")}</b>}
              <span className="caption block">
                {say("account.since", {
                  at: day(place.at),
                  at2: time(place.at),
                  address: place.address,
                })}
              </span>
            </span>
            {!place.here && (
              <Button kind="quiet" disabled={end.isPending} onClick={() => end.mutate(place.id)}>
                {say("account.sign_out_there")}
              </Button>
            )}
          </li>
        ))}
      </ul>
      <Button className="mt-4" disabled={leave.isPending} onClick={() => leave.mutate()}>
        {say("account.sign_out_here")}
      </Button>
    </>
  );
}

import { useBench } from "@/bench";
import { Backups } from "@/screens/account/backups";
import { Invites } from "@/screens/account/invites";
import { People } from "@/screens/account/people";
import { SecurityLog } from "@/screens/account/security-log";
import { say } from "@/say";

/** Who is in the kitchen, who was asked in, who came, and what is kept for a bad day. */
export default function PeoplePage() {
  const { kitchen, canEdit } = useBench();
  return (
    <div className="py-6">
      <title>{say("account.people_bell_crumb")}</title>
      <h1 className="mb-5 text-4xl">{say("account.people_of", { kitchen: kitchen.name })}</h1>
      <div className="grid gap-x-14 gap-y-9 lg:grid-cols-2">
        <People />
        {canEdit && <Invites />}
        {canEdit && <SecurityLog />}
        {canEdit && <Backups />}
      </div>
    </div>
  );
}

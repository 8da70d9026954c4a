import { NewPassword } from "@/screens/account/new-password";
import { say } from "@/say";

/** The first thing in a kitchen that has just begun: a password of one’s own. */
export default function FirstPassword() {
  return (
    <main className="mx-auto max-w-[40rem] px-6 py-12">
      <title>{say("account.your_own_password_bell_crumb")}</title>
      <h1 className="mb-3 text-4xl">{say("account.first_a_password_of_your_own")}</h1>
      <p className="mb-6 text-lg text-soft">{say("account.the_one_you_came_in_with")}</p>
      <NewPassword word={say("account.into_the_kitchen")} />
    </main>
  );
}

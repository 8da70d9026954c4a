import { NewPassword } from "@/screens/account/new-password";

/** The first thing in a kitchen that has just begun: a password of one’s own. */
export default function FirstPassword() {
  return (
    <main className="mx-auto max-w-[40rem] px-6 py-12">
      <title>Your own password · Bell Crumb</title>
      <h1 className="mb-3 text-4xl">First, a password of your own</h1>
      <p className="mb-6 text-lg text-soft">
        The one you came in with was made up by the machine and stands in a terminal somewhere. Then
        the shelf is yours.
      </p>
      <NewPassword word="Into the kitchen" />
    </main>
  );
}

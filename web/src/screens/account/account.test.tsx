// @vitest-environment jsdom
import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import { Backups } from "@/screens/account/backups";
import { Invites } from "@/screens/account/invites";
import Join from "@/screens/account/join";
import { People } from "@/screens/account/people";
import { SecurityLog } from "@/screens/account/security-log";
import You from "@/screens/account/you";
import { SignInForm } from "@/screens/sign-in";
import { address, page, press, read, Refusal, served, type, type Sent } from "@/test/page";

const PEOPLE = [
  { id: 1, name: "Runa", email: "runa@weirhouse.example", role: "chef", me: true },
  { id: 2, name: "Odo", email: null, role: "cook", me: false },
];
const bench = { kid: "k", canEdit: true, kitchen: { people: PEOPLE } };
vi.mock("@/bench", () => ({ useBench: () => bench }));
vi.mock("@/api/queries", () => ({
  useSession: () => ({ data: { name: "Runa", email: "runa@weirhouse.example" } }),
}));
afterEach(cleanup);

let sent: Sent[];
let answer: (s: Sent) => unknown;
beforeEach(() => {
  bench.canEdit = true;
  answer = () => [];
  sent = served((s) => answer(s));
});
const done = (method: string) => sent.filter((s) => s.method === method);

describe("the people of a kitchen", () => {
  it("get roles from the chef, and everything that hangs on them is fetched again", async () => {
    const { store } = page(<People />);
    const stale = vi.spyOn(store, "invalidateQueries");
    fireEvent.change(screen.getByRole("combobox", { name: /Odo/ }), {
      target: { value: "viewer" },
    });
    await waitFor(() => expect(done("PATCH")).toHaveLength(1));
    expect(done("PATCH")[0]).toMatchObject({ params: { person_id: 2 }, body: { role: "viewer" } });
    await waitFor(() =>
      expect(stale.mock.calls.map(([q]) => q?.queryKey?.[0])).toEqual([
        "kitchen",
        "invites",
        "security",
      ]),
    );
  });

  it("are taken out only after a second word, one at a time", async () => {
    page(<People />);
    press(/take Odo out/i);
    expect(done("DELETE")).toEqual([]);
    expect(screen.getAllByRole("button", { name: /yes/i })).toHaveLength(1);
    answer = () => new Refusal(409, { message: "The last chef stays." });
    press(/yes/i);
    expect((await screen.findByRole("alert")).textContent).toBe("The last chef stays.");
    expect(done("DELETE")[0]?.params["person_id"]).toBe(2);
    expect(screen.queryByRole("button", { name: /yes/i })).toBeNull();
  });

  it("are only named to who may not change them", () => {
    bench.canEdit = false;
    page(<People />);
    expect(screen.queryByRole("button")).toBeNull();
    expect(screen.queryByRole("combobox")).toBeNull();
    expect(read(screen.getByRole("list"))).toMatch(/Runa.*you.*runa@weirhouse.example.*Odo/i);
  });
});

describe("an invitation", () => {
  it("is made for a name and a role, its link shown this once, and taken back", async () => {
    const open = {
      id: "i1",
      name: "Weekend cook",
      role: "viewer",
      ends_at: "2026-03-09T09:00:00Z",
    };
    answer = (s) =>
      s.method === "POST" ? { ...open, secret: "abc" } : s.method === "GET" ? [open] : [];
    page(<Invites />);
    type(/their name/i, "  Weekend cook ");
    type(/they will be/i, "viewer");
    press(/make a link/i);
    expect(read(await screen.findByRole("status"))).toContain(`${window.location.origin}/join/abc`);
    expect(done("POST")[0]?.body).toMatchObject({ name: "Weekend cook", role: "viewer" });
    expect(screen.getByLabelText<HTMLInputElement>(/their name/i).value).toBe("");
    press(/take.*Weekend cook.*back/i);
    await waitFor(() => expect(screen.queryAllByRole("listitem")).toEqual([]));
  });

  it("asks for a name and says what was refused of it", async () => {
    answer = (s) =>
      s.method === "POST" ? new Refusal(422, { message: "Twenty are open already." }) : [];
    page(<Invites />);
    const make = screen.getByRole<HTMLButtonElement>("button", { name: /make a link/i });
    type(/their name/i, "  ");
    expect(make.disabled).toBe(true);
    type(/their name/i, "Odo");
    press(/make a link/i);
    expect(await screen.findByText("Twenty are open already.")).toBeTruthy();
    expect(screen.getByLabelText<HTMLInputElement>(/their name/i).value).toBe("Odo");
  });

  it("is taken up under the name it was made for unless another is typed", async () => {
    const invitation = {
      kitchen: "Weir House",
      role: "cook",
      name: "Odo",
      ends_at: "2026-03-09T09:00:00Z",
    };
    answer = (s) => (s.method === "GET" ? invitation : { name: "Odo", kitchens: [] });
    const { store } = page(<Join secret="abc" />, "/join/abc");
    await screen.findByRole("heading", { name: /Weir House/ });
    type(/e-mail/i, "odo@weirhouse.example");
    type(/^password/i, "quince-hay-weir-1");
    press(/come in/i);
    await waitFor(() => expect(address()).toBe("/"));
    expect(done("POST")[0]?.body).toEqual({
      email: "odo@weirhouse.example",
      name: "Odo",
      password: "quince-hay-weir-1",
    });
    expect(store.getQueryData(["session"])).toMatchObject({ name: "Odo" });
  });

  it.each([
    ["email", /e-mail/i],
    ["password", /^password/i],
    [null, null],
  ])("says what was wrong with %s there, once, and keeps what was typed", async (field, label) => {
    answer = (s) =>
      s.method === "GET"
        ? { kitchen: "W", role: "cook", name: "Odo", ends_at: "2026-03-09T09:00:00Z" }
        : new Refusal(422, { message: "It cannot be so.", field });
    page(<Join secret="abc" />);
    await screen.findByRole("heading", { level: 1 });
    type(/e-mail/i, "odo@weirhouse.example");
    type(/^password/i, "short");
    press(/come in/i);
    const said = await screen.findAllByText("It cannot be so.");
    expect(said).toHaveLength(1);
    if (label)
      expect(screen.getByLabelText(label).getAttribute("aria-describedby")).toBe(said[0]?.id);
    expect(screen.getByLabelText<HTMLInputElement>(/e-mail/i).value).toBe("odo@weirhouse.example");
  });

  it("says that it is over", async () => {
    answer = () => new Refusal(404, { message: "This invitation has ended." });
    page(<Join secret="abc" />);
    expect(read(await screen.findByRole("alert"))).toContain("This invitation has ended.");
  });
});

describe("where somebody is signed in", () => {
  const IPAD =
    "Mozilla/5.0 (iPad; CPU OS 17_0 like Mac OS X) AppleWebKit/605 Version/17 Safari/604";
  const place = (id: string, browser: string, here = false) => ({
    id,
    browser,
    here,
    at: "2026-03-02T09:00:00Z",
    address: "10.0.0.4",
  });

  it.each([
    [IPAD, "Safari on iPad"],
    ["Mozilla/5.0 (Macintosh; Intel Mac OS X 10_15) Chrome/120 Safari/537", "Chrome on a Mac"],
    ["Mozilla/5.0 (Windows NT 10.0) Chrome/120 Safari/537 Edg/120", "Edge on Windows"],
    ["Mozilla/5.0 (Linux; Android 14) Gecko Firefox/121", "Firefox on Android"],
    ["curl/8", "a browser"],
  ])("names a browser as a person would", async (agent, name) => {
    answer = () => [place("a", agent)];
    page(<You />);
    expect(read(await screen.findByRole("listitem"))).toMatch(new RegExp(`^${name}`, "i"));
  });

  it("can be ended anywhere else, and here by going", async () => {
    answer = (s) =>
      s.params["signed_in_id"]
        ? [place("here", IPAD, true)]
        : s.method === "DELETE"
          ? { name: null }
          : [place("here", IPAD, true), place("there", IPAD)];
    const { store } = page(<You />);
    await screen.findAllByRole("listitem");
    press(/sign out there/i);
    await waitFor(() => expect(screen.getAllByRole("listitem")).toHaveLength(1));
    expect(done("DELETE")[0]?.params["signed_in_id"]).toBe("there");
    expect(screen.queryByRole("button", { name: /sign out there/i })).toBeNull();
    store.setQueryData(["kitchen", "k"], { secret: true });
    press(/sign out here/i);
    await waitFor(() => expect(store.getQueryData(["session"])).toEqual({ name: null }));
    expect(store.getQueryData(["kitchen", "k"])).toBeUndefined(); // nothing of theirs stays here
  });

  it("asks for both passwords and says what is wrong with each at its own", async () => {
    page(<You />);
    const [old, next] = document.querySelectorAll<HTMLInputElement>("input[type=password]");
    let change: unknown = new Refusal(422, { message: "Too short.", field: "new" });
    answer = (s) => (s.method === "GET" ? [] : change);
    fireEvent.change(old as HTMLInputElement, { target: { value: "old" } });
    fireEvent.change(next as HTMLInputElement, { target: { value: "short" } });
    press(/change it/i);
    const said = await screen.findByText("Too short.");
    expect(next?.getAttribute("aria-describedby")).toBe(said.id);
    expect(old?.getAttribute("aria-describedby")).toBeNull();
    change = { name: "Runa" };
    press(/change it/i);
    await waitFor(() => expect([old?.value, next?.value]).toEqual(["", ""]));
  });
});

describe("signing in", () => {
  it("keeps the address and says why not, at the password", async () => {
    const onDone = vi.fn();
    answer = () => new Refusal(401, { message: "That is not it." });
    page(<SignInForm email="runa@weirhouse.example" onDone={onDone} />);
    type(/^password/i, "wrong");
    press(/sign in/i);
    const said = await screen.findByText("That is not it.");
    expect(screen.getByLabelText(/^password/i).getAttribute("aria-describedby")).toBe(said.id);
    expect(onDone).not.toHaveBeenCalled();
    answer = () => ({ name: "Runa" });
    press(/sign in/i);
    await waitFor(() => expect(onDone).toHaveBeenCalledOnce());
    expect(done("POST").at(-1)?.body).toEqual({
      email: "runa@weirhouse.example",
      password: "wrong",
    });
  });
});

describe("the security log", () => {
  const line = (kind: string, more: object = {}) => ({
    at: "2026-03-02T09:00:00Z",
    kind,
    who: "odo",
    address: "",
    detail: "",
    ...more,
  });

  it("has words for all that happens, loud for who was refused", async () => {
    const kinds = [
      "signed_in",
      "refused",
      "slowed",
      "password",
      "invited",
      "joined",
      "role",
      "removed",
      "restored",
    ];
    answer = () =>
      kinds.map((kind) => line(kind, { address: kind === "refused" ? "10.0.0.9" : "" }));
    page(<SecurityLog />);
    const list = await screen.findByRole("list", { name: /security log/i });
    const rows = within(list).getAllByRole("listitem");
    expect(
      rows
        .map(read)
        .filter((text) => kinds.some((kind) => kind.includes("_") && text.includes(kind))),
    ).toEqual([]);
    const loud = rows.filter((row) => row.querySelector("b")?.className.includes("burnt"));
    expect(loud.map((row) => kinds[rows.indexOf(row)])).toEqual(["refused", "slowed"]);
    expect(read(rows[1])).toContain("10.0.0.9");
  });

  it("says that nothing has happened yet", async () => {
    page(<SecurityLog />);
    expect(await screen.findByText(/nothing yet/i)).toBeTruthy();
  });
});

describe("the ring of backups", () => {
  const HOUR = 3_600_000;
  const told = async (hoursAgo: number | null, every = 24, bytes = 40_000) => {
    answer = () => ({
      last_at: hoursAgo === null ? null : new Date(Date.now() - hoursAgo * HOUR).toISOString(),
      count: 3,
      keeps: 14,
      bytes,
      every_hours: every,
    });
    page(<Backups />);
    await waitFor(() => expect(sent).toHaveLength(1));
    await screen.findByText(/backup|last one|none yet/i);
    const text = read(document.body);
    cleanup();
    sent.length = 0;
    return text;
  };

  it("says when one is too old, from twice its interval on, and never that one is of nothing", async () => {
    expect(await told(47)).not.toMatch(/too long ago/i);
    expect(await told(49)).toMatch(/too long ago/i);
    expect(await told(3, 1)).toMatch(/too long ago/i);
    expect(await told(1)).toMatch(/3 of up to 14.*0\.1 MB/);
    expect(await told(1, 24, 12_340_000)).toMatch(/12\.4 MB/);
  });

  it("says that there is none yet, or that none will be", async () => {
    expect(await told(null)).toMatch(/none yet/i);
    expect(await told(1, 0)).not.toMatch(/last one/i);
  });
});

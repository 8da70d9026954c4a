import type { Shapes } from "@/api/client";

type Act = Shapes["ActIn"];
const AT_ONCE = 50;

/**
 * What is done at the pretended stove arrives in the order it was done: one delivery at a time,
 * what was done meanwhile in the next. Only the answer to the last of it is heard; what failed is
 * said with whether more was done since.
 */
export class Hands<Answer> {
  private waiting: Act[] = [];
  private busy = false;

  constructor(
    private readonly deliver: (acts: Act[]) => Promise<Answer>,
    private readonly heard: (answer: Answer) => void,
    private readonly failed: (problem: unknown, more: boolean) => void,
  ) {}

  async did(act: Act): Promise<void> {
    this.waiting.push(act);
    if (this.busy) return;
    this.busy = true;
    while (this.waiting.length) {
      try {
        const answer = await this.deliver(this.waiting.splice(0, AT_ONCE));
        if (!this.waiting.length) this.heard(answer);
      } catch (problem) {
        this.failed(problem, this.waiting.length > 0);
      }
    }
    this.busy = false;
  }
}

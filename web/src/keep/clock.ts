/** The server's clock as this browser knows it: events are stamped with it, not with the tablet's. */
let aheadMs = 0;

export function hearServerClock(serverNow: string): void {
  aheadMs = Date.parse(serverNow) - Date.now();
}

export function serverNow(): Date {
  return new Date(Date.now() + aheadMs);
}

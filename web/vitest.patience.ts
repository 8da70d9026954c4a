/** By hand a wait that is never met is told soon; among all the other tests, on a machine under
 * load, slowness is no failure: `./crumb test` says how long a test may take. */
export const PATIENCE_MS = 1000 * Number(process.env["CRUMB_PATIENCE_S"] ?? 20);

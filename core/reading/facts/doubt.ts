/** Facts less sure than this are looked at before filing: of those that are surer, hardly one in a hundred is wrong. */
const SURE = 0.75;

/** Whether a fact that was read deserves a look; what a person has confirmed does not. */
export function isDoubtfulFact({ confidence, confirmed }: { confidence: number; confirmed: boolean }): boolean {
  return !confirmed && confidence < SURE;
}

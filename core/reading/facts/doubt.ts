import { Fact } from './fact';

/**
 * Facts less sure than this are looked at before filing. Of those that are surer hardly one in a hundred is wrong on papers of usual forms; on forms
 * that nobody foresaw one in twenty was (docs/measures.md).
 */
const SURE = 0.75;

/** Whether a fact that was read deserves a look; what a person has confirmed does not. */
export function isDoubtfulFact({ confidence, confirmed }: { confidence: number; confirmed: boolean }): boolean {
  return !confirmed && confidence < SURE;
}

/** How sure a fact is at most that another one speaks against. */
const RIVALLED = 0.7;

/**
 * A fact beside another that could be it as well: less sure, so that it is looked at.
 * @param other what it may be as well, to be offered; none where that can't be told
 */
export function rivalled<Value>(fact: Fact<Value>, other?: Value): Fact<Value> {
  const confidence = Math.min(fact.confidence, RIVALLED);
  return { ...fact, confidence, ...(other !== undefined && { other }) };
}

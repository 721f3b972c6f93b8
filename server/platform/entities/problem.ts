import { KeptProblem, keptProblem, ProblemReport, toldProblem } from '@crow/contract/problems';

/** Problems are kept as codes with what they are about. */
export const problem = {
  to: (told: ProblemReport | null | undefined) => told && keptProblem(told),
  from: (kept: KeptProblem | ProblemReport | null) => kept && toldProblem(kept),
};

/** Words that a question begins with, in English, German and French; small letters. */
const ASKS =
  /^(?:tell me|give me|show me|could you|can you|compare|average|total|sum of|number of|cost of|zeig(?:e)? mir|montre-moi|(?:what|who|when|how)[’']s|who|whom|what|when|which|where|how|until when|by when|do we|did we|did i|do i|has|have we|have i|is there|are there|was there|wer|wem|wen|was|wann|welche[rsnm]?|wo|wie|wieviel|bis wann|von wem|an wen|haben wir|gibt es|qui|que|quand|quel|quelle|quels|quelles|combien|à combien|où|avons-nous|y a-t-il|jusqu’à quand)(?= )/iu;

/** Whether what somebody types asks something, rather than being words to look for. */
export function isQuestion(typed: string): boolean {
  const text = typed.trim();
  return (/\?$/.test(text) && /\p{L}.*\s/u.test(text)) || (ASKS.test(text) && text.split(/\s+/).length >= 3);
}

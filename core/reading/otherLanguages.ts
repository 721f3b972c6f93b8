/** Languages that the recogniser knows beside those that come with it, by their codes (ISO 639-2, some with a script). */
const CODES =
  'afr amh ara asm aze aze_cyrl bel ben bod bos bre bul cat ceb ces chi_sim chi_tra chr cos cym dan div dzo ell epo est eus fao fas fil fin fry gla gle glg grc guj hat heb hin hrv hun hye iku ind isl jav jpn kan kat kaz khm kir kmr kor lao lat lav lit ltz mal mar mkd mlt mon mri msa mya nep nor oci ori pan pol pus que ron rus san sin slk slv snd sqi srp srp_latn sun swa swe syr tam tat tel tgk tha tir ton tur uig ukr urd uzb uzb_cyrl vie yid yor';

/** Those of which the international names do not say enough. */
const NAMES: Record<string, string> = {
  chi_sim: 'Chinese (simplified)',
  chi_tra: 'Chinese (traditional)',
  aze_cyrl: 'Azerbaijani (Cyrillic)',
  srp_latn: 'Serbian (Latin)',
  uzb_cyrl: 'Uzbek (Cyrillic)',
  grc: 'Greek (ancient)',
};

export interface NamedLanguage {
  code: string;
  /** In English, such as “Swedish”. */
  name: string;
}

/** The name of a language in English; its code where it has none. @param code ISO 639-2, perhaps with a script */
export function languageName(code: string): string {
  return NAMES[code] ?? new Intl.DisplayNames(['en'], { type: 'language' }).of(code.split('_')[0]) ?? code;
}

/** The short code (BCP 47) by which PDF and HTML know a language. */
export function languageTag(code: string): string {
  return Intl.getCanonicalLocales(code.split('_')[0])[0];
}

/** All languages that can be added, by name. */
export const OTHER_LANGUAGES: NamedLanguage[] = CODES.split(' ')
  .map((code) => ({ code, name: languageName(code) }))
  .sort((a, b) => a.name.localeCompare(b.name));

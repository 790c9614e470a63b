export type AlignedLanguage = 'en' | 'fr';

/** BCP 47 primary tags of the languages that there is an acoustic model for. */
export const ALIGNED_LANGUAGES: readonly AlignedLanguage[] = ['en', 'fr'];

/** The acoustic model for a language, where there is one. */
export const alignable = (language: string): AlignedLanguage | undefined => {
  const [primary] = language.toLowerCase().split('-');
  return ALIGNED_LANGUAGES.find((one) => one === primary);
};

import { isLanguage, localeFor } from './words';

/** Where a reader's program says that they are: the region of their first language, else of the business. */
export function readerOf(
  acceptLanguage: string,
  lang: string,
  business: { readonly paperLocale: string; readonly country: string },
) {
  const first = /^\s*([a-z]{2})(?:-[A-Za-z]{4})?(?:-([A-Z]{2}))?/i.exec(acceptLanguage);
  const country = first?.[2]?.toUpperCase() ?? '';
  const spoken = isLanguage(lang) ? lang : (first?.[1]?.toLowerCase() ?? '');
  return {
    country,
    locale: localeFor(isLanguage(spoken) ? spoken : '', business.paperLocale, country || business.country),
  };
}

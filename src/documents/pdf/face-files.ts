import type { Face } from './setter';

// The whole fonts, not subsets.
const OWN: Readonly<Record<Face, string>> = {
  serif: 'vollkorn/400Regular/Vollkorn_400Regular.ttf',
  'serif-medium': 'vollkorn/500Medium/Vollkorn_500Medium.ttf',
  'serif-bold': 'vollkorn/600SemiBold/Vollkorn_600SemiBold.ttf',
  'serif-italic': 'vollkorn/400Regular_Italic/Vollkorn_400Regular_Italic.ttf',
  sans: 'encode-sans/400Regular/EncodeSans_400Regular.ttf',
};

/** What lacks a letter borrows it from the first of these that has it; read when a document first needs one. */
const BORROWED = {
  latin: 'noto-sans/400Regular/NotoSans_400Regular.ttf',
  // Not Noto's first: it puts letters together from shapes that several share, and read back they are others.
  arabic: 'vazirmatn/400Regular/Vazirmatn_400Regular.ttf',
  'arabic-more': 'noto-sans-arabic/400Regular/NotoSansArabic_400Regular.ttf',
  hebrew: 'noto-sans-hebrew/400Regular/NotoSansHebrew_400Regular.ttf',
  devanagari: 'noto-sans-devanagari/400Regular/NotoSansDevanagari_400Regular.ttf',
  thai: 'noto-sans-thai/400Regular/NotoSansThai_400Regular.ttf',
  georgian: 'noto-sans-georgian/400Regular/NotoSansGeorgian_400Regular.ttf',
  armenian: 'noto-sans-armenian/400Regular/NotoSansArmenian_400Regular.ttf',
  bengali: 'noto-sans-bengali/400Regular/NotoSansBengali_400Regular.ttf',
  tamil: 'noto-sans-tamil/400Regular/NotoSansTamil_400Regular.ttf',
  telugu: 'noto-sans-telugu/400Regular/NotoSansTelugu_400Regular.ttf',
  gujarati: 'noto-sans-gujarati/400Regular/NotoSansGujarati_400Regular.ttf',
  gurmukhi: 'noto-sans-gurmukhi/400Regular/NotoSansGurmukhi_400Regular.ttf',
  ethiopic: 'noto-sans-ethiopic/400Regular/NotoSansEthiopic_400Regular.ttf',
  // Chinese, with the kana of Japanese.
  chinese: 'noto-sans-sc/400Regular/NotoSansSC_400Regular.ttf',
  korean: 'noto-sans-kr/400Regular/NotoSansKR_400Regular.ttf',
  emoji: 'noto-emoji/400Regular/NotoEmoji_400Regular.ttf',
} as const;

/** A face of ours, or one that a letter is borrowed from. */
export type FaceName = Face | keyof typeof BORROWED;

/** Where each face lies among the fonts that ship. */
export const FILES: Readonly<Record<FaceName, string>> = { ...OWN, ...BORROWED };

/** The faces that lend letters, in the order in which they are asked. */
export const LENDERS = Object.keys(BORROWED) as (keyof typeof BORROWED)[];

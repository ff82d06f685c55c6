import { readableOn } from '@/core/look/contrast';
import { escaped } from '@/core/words/escaped';
import { html, type Raw } from '../html';

const SERIF = "Vollkorn, Georgia, 'Times New Roman', serif";
const SANS = "'Encode Sans', 'Segoe UI', Helvetica, Arial, sans-serif";
/** The styles of a letter. @param accent `#rrggbb`, checked to be one */
export function styleOf(accent: string) {
  const colour = /^#[0-9a-f]{6}$/i.test(accent) ? accent : '#6B2451';
  return {
    text: `margin:0 0 12px;font:16px/24px ${SERIF};color:#241A26`,
    soft: `margin:0;font:13px/19px ${SANS};color:#635463`,
    sum: `margin:0 0 4px;font:500 34px/40px ${SERIF};color:#241A26`,
    cell: `padding:7px 0;border-bottom:1px solid #DED3C6;font:15px/21px ${SERIF};color:#241A26`,
    number: `padding:7px 0 7px 16px;border-bottom:1px solid #DED3C6;font:15px/21px ${SERIF};color:#241A26;text-align:right;white-space:nowrap`,
    total: `padding:9px 0;border-top:1px solid #241A26;border-bottom:3px double #241A26;font:600 17px/22px ${SERIF};color:#241A26`,
    button: `display:inline-block;padding:13px 26px;background:${colour};color:${readableOn(colour)};font:600 16px/22px ${SANS};text-decoration:none;border-radius:3px`,
  } as const;
}

/** A mail's page: one column on a sheet, tables for old readers; nothing is fetched but the business's logo, where it has one. */
export const mailPage = (of: {
  language: string;
  title: string;
  preview: string;
  house: string;
  logo?: string | undefined;
  accent: string;
  body: Raw;
  foot: string;
}): string => {
  const style = styleOf(of.accent);
  const head = of.logo
    ? html`<img src="${of.logo}" alt="${of.house}" height="44" style="display:block;height:44px;width:auto;border:0">`
    : of.house;
  return (
    `<!doctype html><html lang="${escaped(of.language)}"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><meta name="color-scheme" content="light"><title>${escaped(of.title)}</title></head>` +
    html`<body style="margin:0;padding:0;background:#ECE5DB"><div style="display:none;max-height:0;overflow:hidden">${of.preview}</div>
<table role="presentation" width="100%" cellpadding="0" cellspacing="0"><tr><td align="center" style="padding:24px 12px">
<table role="presentation" width="100%" cellpadding="0" cellspacing="0" style="max-width:560px;background:#FFFDF9;border:1px solid #DED3C6">
<tr><td style="padding:22px 30px 0"><div style="font:600 17px/24px ${SERIF};color:#241A26;padding-bottom:9px;border-bottom:4px double #241A26">${head}</div></td></tr>
<tr><td style="padding:24px 30px 30px">${of.body}</td></tr></table>
<p style="${style.soft};padding:14px 12px 0;max-width:560px">${of.foot}</p></td></tr></table></body></html>`.html
  );
};

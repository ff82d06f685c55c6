import type { Seller } from '@/core/invoice/printed';
import { typedMinor } from '@/core/invoice/read-paper';
import { readableOn } from '@/core/look/contrast';
import { minorDigits } from '@/core/money/currency';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import type { OfferField } from '@/core/offer/offer';
import { type Block, goalShare, type HostedPage, type Theme } from '@/core/page/page';
import { LANGUAGES, wordsOf } from '@/core/words/words';
import { html, joined, type Raw, raw } from '../html';
import { cleanText } from './rich-text';

/** What of an offer a page shows: the payer begins to choose here, and goes on at the checkout. Prices already written out. */
export type PageOffer = {
  readonly action: string;
  readonly kind: 'sum' | 'items' | 'open' | 'donation';
  readonly price: string;
  readonly amounts: readonly { readonly value: string; readonly text: string }[];
  readonly chosen: number;
  readonly ownAmount: boolean;
  readonly purposes: readonly string[];
  readonly items: readonly {
    readonly id: string;
    readonly name: string;
    readonly note: string;
    readonly price: string;
    readonly least: number;
    readonly most: number;
    readonly soldOut: boolean;
    readonly options: readonly {
      readonly id: string;
      readonly name: string;
      readonly price: string;
      readonly soldOut: boolean;
    }[];
  }[];
  readonly fields: readonly OfferField[];
  /** Why nothing can be paid now, in words; empty where it can. */
  readonly closed: string;
  /** In which currency prices are shown, and in which they can be. */
  readonly currency: string;
  readonly currencies: readonly string[];
  /** Handed on with what is chosen, so that the checkout goes on in the same language and currency. */
  readonly handedOn: Readonly<Record<string, string>>;
};

export type PageSetting = {
  readonly title: string;
  readonly seller: Seller;
  readonly locale: string;
  readonly currency: string;
  /** Where a picture of the page is fetched. */
  readonly picture: (fileId: string) => string;
  readonly logo: string | null;
};

const FONTS: Readonly<Record<Theme['fonts'], { head: string; body: string }>> = {
  workshop: { head: "'Vollkorn', Georgia, serif", body: "'Encode Sans', system-ui, sans-serif" },
  plain: { head: "'Encode Sans', system-ui, sans-serif", body: "'Encode Sans', system-ui, sans-serif" },
  book: { head: "'Vollkorn', Georgia, serif", body: "'Vollkorn', Georgia, serif" },
};
const SIZES = { small: 15, medium: 17, large: 19 } as const;
const CORNERS = { square: 0, soft: 5, round: 14 } as const;

function style({ background, text, accent, fonts, size, corners }: Theme): string {
  const { head, body } = FONTS[fonts];
  const corner = CORNERS[corners];
  return `@font-face{font-family:Vollkorn;src:url(/fonts/vollkorn) format('woff2');font-weight:400 900;font-display:swap}
@font-face{font-family:'Encode Sans';src:url(/fonts/encode-sans) format('woff2');font-weight:100 900;font-display:swap}
*{box-sizing:border-box;font-variant-numeric:tabular-nums lining-nums}
body{margin:0;background:${background};color:${text};font:${SIZES[size]}px/1.55 ${body}}
main{max-width:720px;margin:0 auto;padding:24px 20px 56px}
.cover{width:100%;max-height:340px;object-fit:cover;display:block}
h1,h2,h3,h4{font-family:${head};font-weight:500;line-height:1.2;margin:1.1em 0 .45em;overflow-wrap:anywhere}
h1{font-size:2.1em}h2{font-size:1.5em}p{margin:0 0 .8em;overflow-wrap:anywhere}
a{color:inherit;text-decoration-color:${accent};text-underline-offset:3px}
img{max-width:100%;height:auto;border-radius:${corner}px}figure{margin:1.2em 0}
figcaption,.soft{font-size:.86em;opacity:.82}
.gallery{display:grid;grid-template-columns:repeat(auto-fill,minmax(180px,1fr));gap:10px;margin:1.2em 0}
.gallery img{aspect-ratio:4/3;object-fit:cover;width:100%;display:block}
.logo{max-height:56px;width:auto}
form.offer,.closed{border:1px solid ${text};border-radius:${corner}px;padding:18px 20px;margin:1.4em 0}
fieldset{border:0;margin:0 0 14px;padding:0}legend,label.above{display:block;font-weight:600;margin-bottom:6px;padding:0}
.row{display:flex;align-items:center;justify-content:space-between;gap:14px;min-height:46px;border-top:1px solid color-mix(in srgb,${text} 22%,transparent);padding:7px 0}
.row label{display:flex;gap:10px;align-items:center;flex:1;min-height:44px}
.row .of{flex:1;min-width:0}.row .of b{font-weight:600}
.amounts{display:grid;grid-template-columns:repeat(auto-fit,minmax(130px,1fr));column-gap:18px}
input,select{font:inherit;color:${text};background:${background};border:1px solid ${text};border-radius:${Math.min(corner, 6)}px;min-height:44px;padding:0 10px;max-width:100%}
input[type=radio],input[type=checkbox]{min-height:0;width:20px;height:20px;accent-color:${accent};flex:none}
input.count{width:74px;text-align:center}
button{font:600 1.05em/1 ${body};min-height:50px;padding:0 26px;border:0;border-radius:${corner}px;background:${accent};color:${readableOn(accent)};cursor:pointer;width:100%}
:focus-visible{outline:3px solid ${accent};outline-offset:2px}
.goal{height:14px;border:1px solid ${text};border-radius:7px;overflow:hidden;margin:6px 0}.goal span{display:block;height:100%;background:${accent}}
details{border-top:1px solid color-mix(in srgb,${text} 22%,transparent);padding:10px 0}summary{font-weight:600;cursor:pointer;min-height:24px}
.ways{display:flex;flex-wrap:wrap;gap:4px 20px;font-size:.86em}.ways>*{min-height:44px;display:inline-grid;align-items:center}
.terms{white-space:pre-line;font-size:.86em;max-height:280px;overflow:auto}`;
}

const options = (count: number): number[] => Array.from({ length: count + 1 }, (_, at) => at);
const ONE_BY_ONE = 20;

/** One of the offer's own questions, answered on the page already. */
function ownQuestion(field: OfferField): Raw {
  const name = `a_${field.id}`;
  if (field.kind === 'tick')
    return html`<p><label><input type="checkbox" name="${name}" value="yes" form="offer"> ${field.label}</label></p>`;
  const control =
    field.kind === 'choice'
      ? html`<select id="${name}" name="${name}" form="offer"><option value=""></option>${joined(field.choices.map((one) => html`<option>${one}</option>`))}</select>`
      : html`<input id="${name}" name="${name}" form="offer" type="${field.kind === 'date' ? 'date' : 'text'}" maxlength="1000">`;
  return html`<p><label class="above" for="${name}">${field.label}</label>${control}${field.help ? html`<span class="soft"> ${field.help}</span>` : ''}</p>`;
}

function chooseItem(item: PageOffer['items'][number], words: ReturnType<typeof wordsOf>['offer']): Raw {
  const count =
    item.soldOut && item.options.length === 0
      ? html`<b>${words.soldOut}</b>`
      : item.most - item.least <= ONE_BY_ONE
        ? html`<select name="q_${item.id}" aria-label="${words.howMany}: ${item.name}">${joined(
            options(item.most)
              .filter((one) => one >= item.least)
              .map((one) => html`<option>${String(one)}</option>`),
          )}</select>`
        : html`<input class="count" name="q_${item.id}" inputmode="numeric" value="${String(item.least)}" aria-label="${words.howMany}: ${item.name}">`;
  const which =
    item.options.length > 0
      ? html`<select name="o_${item.id}" aria-label="${words.which}: ${item.name}"><option value="">${words.choose}</option>${joined(
          item.options.map(
            (option) =>
              html`<option value="${option.id}"${option.soldOut ? raw(' disabled') : ''}>${[option.name, option.price, option.soldOut ? words.soldOut : ''].filter(Boolean).join(' · ')}</option>`,
          ),
        )}</select>`
      : '';
  return html`<div class="row"><span class="of"><b>${item.name}</b>${item.note ? html`<br><span class="soft">${item.note}</span>` : ''}${item.options.length === 0 && item.price ? html`<br>${item.price}` : ''}</span>${which}${count}</div>`;
}

/** The offer with what can be chosen of it: a plain form that leads on to the checkout. */
function offerForm(offer: PageOffer, label: string, locale: string): Raw {
  const words = wordsOf(locale).offer;
  if (offer.closed) return html`<p class="closed" role="status">${offer.closed}</p>`;
  const amounts =
    offer.kind === 'open' || offer.kind === 'donation'
      ? html`<fieldset><legend>${words.amount}</legend><div class="amounts">${joined(
          offer.amounts.map(
            ({ value, text }, at) =>
              html`<div class="row"><label><input type="radio" name="amount" value="${value}"${at === offer.chosen ? raw(' checked') : ''}> ${text}</label></div>`,
          ),
        )}</div>${offer.ownAmount ? html`<div class="row"><label for="own">${words.ownAmount}</label><input id="own" class="count" name="own" inputmode="decimal"></div>` : ''}</fieldset>`
      : '';
  const purposes =
    offer.purposes.length > 1
      ? html`<fieldset><legend>${words.purpose}</legend>${joined(
          offer.purposes.map(
            (one) =>
              html`<div class="row"><label><input type="radio" name="purpose" value="${one}"> ${one}</label></div>`,
          ),
        )}</fieldset>`
      : '';
  const items =
    offer.items.length > 0
      ? html`<fieldset>${joined(offer.items.map((item) => chooseItem(item, words)))}</fieldset>`
      : '';
  const price = offer.kind === 'sum' ? html`<p><b>${offer.price}</b></p>` : '';
  return html`<form class="offer" id="offer" method="get" action="${offer.action}">${joined(Object.entries(offer.handedOn).map(([name, value]) => html`<input type="hidden" name="${name}" value="${value}">`))}${price}${amounts}${purposes}${items}<button>${label}</button></form>`;
}

function goal(block: Block, reachedMinor: bigint, { currency, locale }: PageSetting): Raw {
  const target = typedMinor(block.text, minorDigits(currency)) ?? 0n;
  const percent = Math.round(goalShare(reachedMinor, target) * 100);
  const text = (minor: bigint) => moneyText(money(minor, currency), locale);
  return html`<div role="group" aria-label="${text(target)}"><div class="goal" role="progressbar" aria-valuenow="${String(percent)}" aria-valuemin="0" aria-valuemax="100" aria-label="${text(reachedMinor)} / ${text(target)}"><span style="width:${String(percent)}%"></span></div><p><b>${text(reachedMinor)}</b> / ${text(target)}</p></div>`;
}

/** The other currencies and languages in which the page can be had. */
function ways(offer: PageOffer, { locale }: PageSetting): Raw {
  const words = wordsOf(locale);
  const choose = (
    name: string,
    label: string,
    all: readonly (readonly [value: string, text: string])[],
    here: string,
  ) => {
    // What is chosen of the one stays when the other changes.
    const rest = Object.entries(offer.handedOn).filter(([other]) => other !== name);
    const links = all.map(([value, text]) =>
      value === here
        ? html`<b aria-current="true">${text}</b>`
        : html`<a href="?${new URLSearchParams([...rest, [name, value]]).toString()}">${text}</a>`,
    );
    return html`<nav class="ways" aria-label="${label}">${joined(links)}</nav>`;
  };
  const languages = Object.entries(LANGUAGES).map(([code, { name }]) => [code, name] as const);
  const currencies = offer.currencies.map((code) => [code, code] as const);
  return html`${currencies.length > 1 ? choose('currency', words.offer.currency, currencies, offer.currency) : ''}${choose('lang', words.language, languages, locale.slice(0, 2))}`;
}

const picture = (one: Block['pictures'][number], setting: PageSetting): Raw =>
  html`<img src="${setting.picture(one.fileId)}" alt="${one.alt}" loading="lazy">`;

const HERE = { offer: '<!--here:offer-->', ways: '<!--here:ways-->', goal: (id: string) => `<!--here:goal:${id}-->` };

function drawn(block: Block, setting: PageSetting, fields: readonly OfferField[], first: boolean): Raw {
  const { seller } = setting;
  switch (block.kind) {
    case 'heading':
      return first ? html`<h1>${block.text}</h1>` : html`<h2>${block.text}</h2>`;
    case 'text':
      return raw(cleanText(block.text));
    case 'picture':
      return joined(
        block.pictures
          .slice(0, 1)
          .map(
            (one) =>
              html`<figure>${picture(one, setting)}${block.text ? html`<figcaption>${block.text}</figcaption>` : ''}</figure>`,
          ),
      );
    case 'gallery':
      return html`<div class="gallery">${joined(block.pictures.map((one) => picture(one, setting)))}</div>`;
    case 'logo':
      return setting.logo
        ? html`<p><img class="logo" src="${setting.logo}" alt="${seller.name}"></p>`
        : html`<p><b>${seller.name}</b></p>`;
    case 'offer':
      return raw(HERE.offer);
    case 'field':
      return joined(fields.filter(({ id, kind }) => id === block.fieldId && kind !== 'file').map(ownQuestion));
    case 'goal':
      return raw(HERE.goal(block.id));
    case 'questions':
      return joined(
        block.questions
          .filter(({ ask }) => ask.trim())
          .map(({ ask, answer }) => html`<details><summary>${ask}</summary><p class="terms">${answer}</p></details>`),
      );
    case 'terms':
      return html`<div class="terms">${block.text}</div>`;
    case 'contact':
      return html`<p class="soft">${[seller.name, ...seller.address, seller.phone].filter(Boolean).join(' · ')}${seller.email ? html` · <a href="mailto:${seller.email}">${seller.email}</a>` : ''}</p>`;
    case 'spacer':
      return raw('<div style="height:2.4em"></div>');
  }
}

/** A page as far as it is the same for everybody; the places of what changes are marked. */
export type DrawnPage = { readonly html: string; readonly page: HostedPage };

/** Draws a page once; nothing in it runs. @param fields the offer's own questions */
export function drawPage(page: HostedPage, setting: PageSetting, fields: readonly OfferField[]): DrawnPage {
  const { theme } = page;
  const shown = page.blocks.filter(({ hidden }) => !hidden);
  const firstHeading = shown.find(({ kind }) => kind === 'heading')?.id;
  const body = joined(shown.map((block) => drawn(block, setting, fields, block.id === firstHeading)));
  const cover = theme.cover
    ? html`<img class="cover" src="${setting.picture(theme.cover.fileId)}" alt="${theme.cover.alt}">`
    : '';
  const whole = html`<!doctype html><html lang="${setting.locale.slice(0, 2)}"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>${setting.title} · ${setting.seller.name}</title><meta name="robots" content="noindex"><link rel="icon" href="data:,"><link rel="preload" as="font" type="font/woff2" href="/fonts/vollkorn" crossorigin><style>${raw(style(theme))}</style></head><body>${cover}<main>${body}${raw(HERE.ways)}</main></body></html>`;
  return { html: whole.html, page };
}

/** The finished page: how the offer stands, and how far its goals have come. @param reachedMinor brought in so far, in the offer's currency */
export function finishedPage(drawing: DrawnPage, offer: PageOffer, reachedMinor: bigint, setting: PageSetting): string {
  const block = drawing.page.blocks.find(({ kind, hidden }) => kind === 'offer' && !hidden);
  const words = wordsOf(setting.locale);
  const label = block?.text.trim() || (offer.kind === 'donation' ? words.offer.gift : words.offer.choose);
  let text = drawing.html.replace(HERE.offer, () => offerForm(offer, label, setting.locale).html);
  text = text.replace(HERE.ways, () => ways(offer, setting).html);
  for (const one of drawing.page.blocks)
    if (one.kind === 'goal') text = text.replace(HERE.goal(one.id), () => goal(one, reachedMinor, setting).html);
  return text;
}

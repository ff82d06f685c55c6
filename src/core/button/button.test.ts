import { expect, test } from 'vitest';
import { LANGUAGES } from '../words/words';
import {
  BUTTON_SHAPES,
  BUTTON_SIZES,
  buttonLabel,
  buttonPicture,
  buttonSnippets,
  completeButton,
  WORDINGS,
} from './button';

const ACCENT = '#6B2451';
const look = (more: Record<string, unknown> = {}) => completeButton(more, ACCENT);

test('a button is whole whatever was kept of it', () => {
  expect(look({ size: 'huge', language: 'xx', accent: 'url(#a)', wording: 7, label: {} })).toEqual(look());
  expect(buttonLabel(look({ wording: 'give', language: 'de' }))).toBe('Ja, ich gebe etwas');
  expect(buttonLabel(look({ wording: 'own', label: ' Take one ' }))).toBe('Take one');
});

test('its drawing holds nothing that runs, and its words fit in it', () => {
  const hostile = `<script>"'&`;
  const { svg } = buttonPicture(look({ wording: 'own', label: hostile, schemes: ['<b>', 'Lumen'] }));
  expect(svg).not.toContain('<script');
  expect(svg).not.toContain('<b>');
  expect(svg).toContain('Lumen');
  for (const language of Object.keys(LANGUAGES))
    for (const wording of WORDINGS)
      for (const size of BUTTON_SIZES) {
        for (const shape of BUTTON_SHAPES) {
          const one = look({ wording, language, size, shape });
          const { width, height } = buttonPicture(one);
          expect(width).toBeGreaterThan(buttonLabel(one).length * height * 0.2);
        }
      }
  // A light colour gets dark words.
  expect(buttonPicture(look({ accent: '#ffe9a8' })).svg).toContain('fill="#241A26"');
});

test('what is pasted names the public id and nothing else of the business', () => {
  const { html, script, link } = buttonSnippets(
    'https://pay.example',
    'Ab12',
    look({ wording: 'own', label: '"><i>' }),
  );
  expect(link).toBe('https://pay.example/c/Ab12');
  expect(html).toMatch(
    /^<a href="https:\/\/pay\.example\/c\/Ab12"><img src="https:\/\/pay\.example\/b\/Ab12" alt="&#34;&#62;&#60;i&#62;" width="\d+" height="\d+"><\/a>$/,
  );
  expect(script).toBe('<script src="https://pay.example/checkout.js" data-offer="Ab12" async></script>');
});

test('card schemes are named one by one; a button from before they were has all or none', () => {
  expect(look({ schemes: true }).schemes).toEqual(['Corvid', 'Lumen']);
  expect(look({ schemes: ['Lumen', 'Nowhere'] }).schemes).toEqual(['Lumen']);
  for (const none of [false, undefined, 'Lumen', []]) expect(look({ schemes: none }).schemes).toEqual([]);
});

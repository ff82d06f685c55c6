import sanitizeHtml from 'sanitize-html';

/** What of a typed text may stand on a page: its form, and links to where nobody is harmed. */
export const cleanText = (html: string): string =>
  sanitizeHtml(html, {
    allowedTags: ['p', 'br', 'strong', 'em', 'u', 's', 'a', 'ul', 'ol', 'li', 'h3', 'h4', 'blockquote', 'hr'],
    allowedAttributes: { a: ['href', 'rel'] },
    transformTags: { a: sanitizeHtml.simpleTransform('a', { rel: 'noopener noreferrer' }) },
    allowedSchemes: ['https', 'mailto', 'tel'],
    allowProtocolRelative: false,

    disallowedTagsMode: 'discard',
  });

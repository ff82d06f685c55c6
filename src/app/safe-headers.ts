/** What holds for every answer, whoever made it; over https a browser never comes back without it. */
export const safeHeaders = (): Readonly<Record<string, string>> => ({
  'referrer-policy': 'same-origin',
  'x-content-type-options': 'nosniff',
  ...(process.env.PUBLIC_URL?.startsWith('https:') ? { 'strict-transport-security': 'max-age=31536000' } : {}),
});

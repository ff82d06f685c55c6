import bowser from 'bowser';

/** What a browser says that it is, in words: `Firefox on Windows`. Where it says nothing that is known, that is said. */
export function programName(agent: string): string {
  if (!agent.trim()) return 'A program that does not say what it is';
  const { browser, os } = bowser.parse(agent);
  const name = [browser.name, os.name ? `on ${os.name}` : ''].filter(Boolean).join(' ');
  return name || 'A program that is not known';
}

import { notFound } from 'next/navigation';

/** The framework's own page and nothing else, for bin/bench to measure beside the customer's page; in the demo only. */
export default function BarePage() {
  if (!process.env.DAHLIA_DEMO) notFound();
  return <p>Bare</p>;
}

import type { NextConfig } from 'next';
import { SHORTENED } from './src/ui/places';

const config: NextConfig = {
  poweredByHeader: false,
  // Pictures are drawn anew when they are sent up; nobody may have any drawn on request.
  images: { unoptimized: true },
  reactStrictMode: true,
  agentRules: false,
  // The test suite builds beside the demo: each has a build folder of its own.
  distDir: process.env.NEXT_DIST_DIR ?? '.next',
  serverExternalPackages: ['pdfkit', 'graphile-worker', 'nodemailer', '@node-rs/argon2', 'pg', 'pino'],
  devIndicators: false,
  // A page comes with its title: sent after it, the title is missing for a moment, and a screen reader says nothing.
  htmlLimitedBots: /.*/,
  redirects: async () => SHORTENED.map(({ short, opens }) => ({ source: short, destination: opens, permanent: false })),
  typescript: { ignoreBuildErrors: true }, // checked by bin/test, once, with the tests
};

export default config;

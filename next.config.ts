import type { NextConfig } from 'next';

const config: NextConfig = {
  serverExternalPackages: ['sequelize', 'sqlite3', 'umzug', 'sharp', 'fontkit'],
  poweredByHeader: false,
  // What a browser keeps of what was drawn belongs to one build.
  env: { ENSTEGON_BUILD: process.env.ENSTEGON_BUILD ?? String(Date.now()) },
  reactStrictMode: true,
  devIndicators: false,
  // They are put aside after the build, for counting what the interface tests run; nobody is served them.
  productionBrowserSourceMaps: true,
  // Types are checked on their own, once, by `npm test`.
  typescript: { ignoreBuildErrors: true },
};

export default config;

import type { NextConfig } from 'next';

const config: NextConfig = {
  serverExternalPackages: ['sequelize', 'sqlite3', 'umzug', 'sharp', 'fontkit'],
  poweredByHeader: false,
  reactStrictMode: true,
  devIndicators: false,
};

export default config;

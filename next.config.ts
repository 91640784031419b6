import type { NextConfig } from "next";

const config: NextConfig = {
  serverExternalPackages: ["better-sqlite3", "pdfmake"],
  poweredByHeader: false,
  reactStrictMode: true,
  devIndicators: false,
  images: { unoptimized: true },
  experimental: { optimizePackageImports: ["radix-ui", "lucide-react", "zod"] },
};

export default config;

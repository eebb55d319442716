import type { NextConfig } from "next";

const config: NextConfig = {
  poweredByHeader: false,
  reactStrictMode: true,
  serverExternalPackages: ["piscina"],
  devIndicators: false,
  // The content security policy carries a nonce and is set in src/proxy.ts; these are the same for every response.
  headers: async () => [
    {
      source: "/:path*",
      headers: [
        { key: "x-content-type-options", value: "nosniff" },
        { key: "x-frame-options", value: "DENY" },
        { key: "referrer-policy", value: "no-referrer" },
        { key: "permissions-policy", value: "camera=(), microphone=(), geolocation=()" },
        { key: "cross-origin-opener-policy", value: "same-origin" },
      ],
    },
  ],
};

export default config;

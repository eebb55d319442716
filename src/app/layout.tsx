import "@fontsource-variable/bitter";
import "@fontsource-variable/source-sans-3";
import "./globals.css";
import type { Metadata, Viewport } from "next";
import { headers } from "next/headers";
import type { ReactNode } from "react";
import { KeepOffline } from "@/ui/shell/KeepOffline";
import { themeScript } from "@/ui/preferences/themeScript";

export const metadata: Metadata = {
  title: { default: "Cortijo", template: "%s · Cortijo" },
  description: "Plan and grow a storage pool from drives of mixed sizes, before anything is bought or erased.",
};

export const viewport: Viewport = { width: "device-width", initialScale: 1 };

export default async function RootLayout({ children }: { children: ReactNode }) {
  const nonce = (await headers()).get("x-nonce") ?? undefined;
  return (
    <html lang="en" suppressHydrationWarning>
      <head>
        {/* Before anything is painted, so that a dark page does not flash light. */}
        <script nonce={nonce} suppressHydrationWarning dangerouslySetInnerHTML={{ __html: themeScript }} />
      </head>
      <body>
        <KeepOffline />
        {children}
      </body>
    </html>
  );
}

import react from '@vitejs/plugin-react';
import Holidays from 'date-holidays';
import { fileURLToPath } from 'node:url';
import { defineConfig, type Plugin } from 'vite';

/** `npm run dev` says where its server listens. */
const SERVER = process.env['SERVER_URL'] ?? 'http://127.0.0.1:4310';

const HOLIDAY_PLACES = 'virtual:holiday-places';

/** Returns places by name, from their names by code. */
function byName(names: Record<string, string> | undefined): { code: string; name: string }[] {
  const places = Object.entries(names ?? {}).map(([code, name]) => ({ code, name }));
  return places.sort((a, b) => a.name.localeCompare(b.name));
}

/** Provides the names of countries and regions as a module, without the rules of their holidays, which weigh ten times as much. */
function holidayPlaces(): Plugin {
  const resolved = `\0${HOLIDAY_PLACES}`;
  return {
    name: 'holiday-places',
    resolveId: (id) => (id === HOLIDAY_PLACES ? resolved : null),
    load: (id) => {
      if (id !== resolved) return null;
      const rules = new Holidays();
      const countries = byName(rules.getCountries('en'));
      const regions = Object.fromEntries(
        countries.map(({ code }) => [code, byName(rules.getStates(code, 'en'))]),
      );
      return `export default ${JSON.stringify({ countries, regions })}`;
    },
  };
}

/** The typefaces that every screen shows at once. */
const FIRST_FONTS = /b612-latin-(400|700)-normal.*\.woff2$|literata-latin-wght-normal.*\.woff2$/;

/**
 * Fetches the first typefaces together with the page, and never exchanges one while the page is read: that would move everything on
 * the screen. Where a typeface comes too late, the next visit has it.
 */
function steadyFonts(): Plugin {
  return {
    name: 'steady-fonts',
    enforce: 'pre',
    transform: (code, id) =>
      /@fontsource.*\.css$/.test(id) ? code.replaceAll('font-display: swap', 'font-display: optional') : null,
    transformIndexHtml: {
      order: 'post',
      handler: (_html, { bundle }) =>
        Object.keys(bundle ?? {})
          .filter((file) => FIRST_FONTS.test(file))
          .map((file) => ({
            tag: 'link',
            attrs: { rel: 'preload', href: `/${file}`, as: 'font', type: 'font/woff2', crossorigin: '' },
            injectTo: 'head' as const,
          })),
    },
  };
}

export default defineConfig({
  root: fileURLToPath(new URL('.', import.meta.url)),
  plugins: [react(), holidayPlaces(), steadyFonts()],
  build: {
    outDir: '../dist/web',
    emptyOutDir: true,
    chunkSizeWarningLimit: 1500,
    // Every browser that can run the application preloads modules itself.
    modulePreload: { polyfill: false },
  },
  worker: { format: 'es' },
  server: {
    proxy: Object.fromEntries(
      ['/api', '/see', '/embed', '/feed', '/copy', '/links', '/board', '/outside'].map((path) => [
        path,
        SERVER,
      ]),
    ),
  },
});

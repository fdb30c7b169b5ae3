import { createPinia } from 'pinia';
import './icons.css';
import PrimeVue from 'primevue/config';
import { createApp, markRaw } from 'vue';
import App from './App.vue';
import { router } from './router.ts';
import { readersCalendar } from '../ui/index.ts';
import { ledgerPreset, rememberLoadedStyles } from '../theme/index.ts';

rememberLoadedStyles();
const app = createApp(App)
  .use(createPinia())
  .use(router)
  .use(PrimeVue, {
    // Nothing of it ever changes, and PrimeVue would watch each of its thousands of values.
    theme: { preset: markRaw(ledgerPreset), options: { darkModeSelector: '[data-look="dark"]' } },
    locale: readersCalendar(),
  });
// A task of its own, so that a touch is answered between running the code and drawing the page.
setTimeout(() => app.mount('#app'));

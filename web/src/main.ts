import '@fontsource-variable/atkinson-hyperlegible-next'
import '@fontsource-variable/atkinson-hyperlegible-mono'
import 'vuetify/styles'
import './app/style.css'
import { createPinia } from 'pinia'
import { createApp } from 'vue'
import { createVuetify } from 'vuetify'
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg'
import App from './app/App.vue'
import { stillDefaults } from './app/motion.ts'
import { createAppRouter } from './app/router.ts'
import { dark, light } from './app/theme.ts'

const vuetify = createVuetify({
  theme: { defaultTheme: 'system', themes: { light, dark } },
  icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
  defaults: {
    VTextField: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
    VTextarea: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
    VSelect: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
    VCombobox: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
    VAutocomplete: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
    VCheckbox: { density: 'compact', hideDetails: 'auto', color: 'primary' },
    VSwitch: { density: 'compact', hideDetails: 'auto', color: 'primary' },
    VBtn: { rounded: 'md' },
    ...stillDefaults(),
  },
})

createApp(App).use(createPinia()).use(vuetify).use(createAppRouter()).mount('#app')

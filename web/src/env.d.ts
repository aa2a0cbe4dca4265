/// <reference types="vite/client" />
declare const __BUILD__: string
declare module '*.vue' {
  import type { DefineComponent } from 'vue'
  const component: DefineComponent
  export default component
}
declare module '@fontsource-variable/atkinson-hyperlegible-next'
declare module '@fontsource-variable/atkinson-hyperlegible-mono'

import '@fontsource-variable/archivo/standard.css'
import { mount } from './mount'

const place = document.getElementById('root')
if (place) mount(place)

// Where the page is secure it works on while the server is away.
if (import.meta.env.PROD && 'serviceWorker' in navigator) void navigator.serviceWorker.register('/sw.js')

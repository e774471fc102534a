import '@fontsource-variable/archivo/standard.css'
import { mount } from './mount'

const place = document.getElementById('root')
if (place) mount(place)

if (import.meta.env.PROD) void import('./offline').then((offline) => offline.workOffline())

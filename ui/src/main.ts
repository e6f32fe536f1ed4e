import '@fontsource-variable/atkinson-hyperlegible-next/wght.css';
import '@fontsource-variable/atkinson-hyperlegible-mono/wght.css';
import './app.css';
import { mount } from 'svelte';
import App from './App.svelte';
import { applyTheme } from './lib/theme.svelte';

applyTheme();

const target = document.getElementById('app');
if (!target) throw new Error('the page has no #app to mount into');
mount(App, { target });

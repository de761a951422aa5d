import { defineConfig } from '@playwright/test';
import config from './playwright.config';

export default defineConfig({ ...config, testDir: '.', testMatch: 'words.spec.ts' });

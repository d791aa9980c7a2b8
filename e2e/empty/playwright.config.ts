import shared from '../playwright.config';

/** From an installation without the demo: BASE_URL is its address, FIRST_OWNER where its first owner comes in. */
export default { ...shared, testDir: '.', testIgnore: [], outputDir: '../../var/test/e2e-empty' };

<?php

/*
 * Writes the exact version of every installed PHP package into composer.json, so that a fresh machine gets the same tree next year.
 * (Composer writes no lock file here.) Run it after changing a requirement and `composer update`; tests/Feature/PinnedTest.php holds it.
 */
$root = dirname(__DIR__);
$composer = json_decode((string) file_get_contents("{$root}/composer.json"), true, flags: JSON_THROW_ON_ERROR);
$installed = json_decode((string) file_get_contents("{$root}/vendor/composer/installed.json"), true, flags: JSON_THROW_ON_ERROR);
$dev = array_flip($installed['dev-package-names']);
foreach ($installed['packages'] as $package) {
    $in = isset($dev[$package['name']]) ? 'require-dev' : 'require';
    unset($composer['require'][$package['name']], $composer['require-dev'][$package['name']]);
    $composer[$in][$package['name']] = ltrim($package['version'], 'v');
}
foreach (['require', 'require-dev'] as $in) {
    uksort($composer[$in], static fn (string $a, string $b): int => [str_contains($a, '/'), $a] <=> [str_contains($b, '/'), $b]);
}
file_put_contents("{$root}/composer.json", json_encode($composer, JSON_PRETTY_PRINT | JSON_UNESCAPED_SLASHES | JSON_THROW_ON_ERROR)."\n");
echo count($installed['packages'])." packages pinned\n";

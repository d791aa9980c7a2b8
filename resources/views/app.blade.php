<!doctype html>
<html lang="en">
<head>
    <meta charset="utf-8">
    <meta name="viewport" content="width=device-width, initial-scale=1">
    <title>Vestigon</title>
    <link rel="icon" href="/favicon.svg" type="image/svg+xml">
    @vite('resources/js/main.tsx')
</head>
<body><div id="root"></div></body>
</html>

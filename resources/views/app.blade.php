<!doctype html>
<html lang="en-GB">
<head>
    <meta charset="utf-8">
    <meta name="viewport" content="width=device-width, initial-scale=1">
    <meta name="color-scheme" content="light dark">
    <title>Frugal Magpie</title>
    <link rel="icon" href="/mark.svg" type="image/svg+xml">
    @vite('resources/ui/main.ts')
</head>
<body>
    <div id="app"></div>
    <noscript>Frugal Magpie needs JavaScript switched on.</noscript>
</body>
</html>
